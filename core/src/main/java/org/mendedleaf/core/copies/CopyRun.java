package org.mendedleaf.core.copies;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.time.Duration;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.mendedleaf.core.catalogue.CopyCatalogue;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.VaultCopyStore;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.vault.PackChunks;
import org.mendedleaf.core.vault.PackCopy;
import org.mendedleaf.core.vault.PackReplay;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.vault.VaultLock;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Brings a copy in step with its vault. Packs first, of which only what is new is written, then read back record by record;
 * then its catalogue, in one transaction; then what the vault has let go is taken away. Wherever it is killed, the copy is as
 * it was in step before, and the next run goes on with what is there.
 */
final class CopyRun {

    private static final Duration PATIENCE = Duration.ofSeconds(5);

    /** A pack that is emptied meanwhile takes what is needed of it elsewhere; then it is begun again. */
    private static final int TRIES = 3;

    private final OpenVault vault;
    private final VaultFolder to;
    private final Progress progress;
    private long written;

    /**
     * What a run did.
     *
     * @param written bytes of packs
     * @param cancelled whether somebody stopped it; what was written stays for the next one
     * @param extent of the copy afterwards
     */
    record Done(long written, boolean cancelled, VaultCopy.Extent extent) {}

    CopyRun(OpenVault vault, VaultFolder to, Progress progress) {
        this.vault = vault;
        this.to = to;
        this.progress = progress;
    }

    /**
     * Runs.
     *
     * @throws VaultException.Damaged when the two went different ways, or what was written does not read back
     * @throws VaultException.Full when the drive of the copy is full
     */
    Done run() throws IOException {
        try (VaultLock lock = VaultLock.take(to, Words.of("copies.holder"), PATIENCE)) {
            for (int i = 1; ; i++) {
                try {
                    return once();
                } catch (NoSuchFileException e) {
                    if (i == TRIES) {
                        throw e;
                    }
                }
            }
        } catch (IOException e) {
            if (Durable.saysFull(e)) {
                throw new VaultException.Full(to.root(), e);
            }
            throw e;
        }
    }

    private Done once() throws IOException {
        VaultCopy.Extent wanted;
        try (Reading reading = vault.read()) {
            wanted = VaultCopyStore.of(reading).extent();
        }
        try (CopyCatalogue catalogue = CopyCatalogue.open(to);
                PackCopy packs = new PackCopy(vault.folder(), to);
                PackReplay replay = new PackReplay(to)) {
            VaultCopy.Extent has = catalogue.extent();
            NavigableMap<Long, Long> known = known(packs, has, wanted);
            long toCome = 0;
            for (Map.Entry<Long, VaultCopy.Pack> pack : wanted.packs().entrySet()) {
                toCome += pack.getValue().committed() - known.getOrDefault(pack.getKey(), 0L);
            }
            requireRoom(toCome);
            progress.begin(Words.of("copies.step"), 0, toCome);
            for (Map.Entry<Long, VaultCopy.Pack> pack : wanted.packs().entrySet()) {
                long begin = known.getOrDefault(pack.getKey(), 0L);
                if (begin < pack.getValue().committed()) {
                    long n = packs.bring(pack.getKey(), begin, pack.getValue().committed(), progress);
                    if (n < 0) {
                        return new Done(written, true, has);
                    }
                    written += n;
                    replay.walk(pack.getKey(), begin, places(pack.getValue()), new CopyReadBack(to, packs, catalogue));
                }
            }
            Durable.forceFolder(to.packs());
            for (long commit : replay.commits()) {
                if (commit > has.commit() && commit <= wanted.commit()) {
                    catalogue.replay(replay.changeLog(commit));
                }
            }
            if (!hasAll(replay, has.commit(), wanted.commit())) {
                // Change logs are damaged or gone: the catalogue of the vault still knows what they said.
                catalogue.close();
                return withCatalogue(packs);
            }
            catalogue.commit(wanted);
            packs.discard(gone(wanted));
            return new Done(written, false, wanted);
        }
    }

    /** Copies the catalogue as it is, and the packs as far as it knows them. */
    private Done withCatalogue(PackCopy packs) throws IOException {
        VaultCopy.Extent extent;
        try (Reading reading = vault.read()) {
            extent = CopyCatalogue.takeFrom(reading, to);
        }
        try (PackReplay replay = new PackReplay(to)) {
            for (Map.Entry<Long, VaultCopy.Pack> pack : extent.packs().entrySet()) {
                long n = packs.bring(pack.getKey(), 0, pack.getValue().committed(), progress);
                if (n < 0) {
                    return new Done(written, true, VaultCopy.Extent.NONE);
                }
                written += n;
                replay.walk(pack.getKey(), 0, number -> PackChunks.NONE, new CopyReadBack(to, packs, null));
            }
        }
        CopyCatalogue.putInPlace(to);
        packs.discard(gone(extent));
        return new Done(written, false, extent);
    }

    /** How much of each pack the copy has for certain. */
    private NavigableMap<Long, Long> known(PackCopy packs, VaultCopy.Extent has, VaultCopy.Extent wanted)
            throws IOException {
        boolean ahead = has.commit() > wanted.commit();
        NavigableMap<Long, Long> known = new TreeMap<>();
        for (Map.Entry<Long, VaultCopy.Pack> pack : has.packs().entrySet()) {
            VaultCopy.Pack theirs = wanted.packs().get(pack.getKey());
            if (theirs == null) {
                continue;
            }
            long committed = pack.getValue().committed();
            ahead |= committed > theirs.committed();
            if (!ahead && Files.exists(vault.folder().pack(pack.getKey()))) {
                PackCopy.Tail tail = packs.tail(pack.getKey(), committed);
                ahead = tail == PackCopy.Tail.DIFFERENT;
                known.put(pack.getKey(), tail == PackCopy.Tail.COPY_DAMAGED ? 0 : committed);
            } else {
                known.put(pack.getKey(), committed);
            }
        }
        if (ahead) {
            throw new VaultException.Damaged(
                    Words.of("copies.different", to.root(), vault.folder().root()));
        }
        return known;
    }

    private void requireRoom(long toCome) throws IOException {
        long there = Files.getFileStore(to.root()).getUsableSpace();
        if (toCome > there) {
            throw new VaultException.Unavailable(
                    Words.of("copies.noRoom", to.root(), Formats.size(toCome), Formats.size(there)));
        }
    }

    /** Of a sealed pack its own index says where its chunks are; of the newest one only the catalogue knows. */
    private PackReplay.Places places(VaultCopy.Pack pack) {
        return number -> {
            if (pack.sealed()) {
                return PackChunks.NONE;
            }
            try (Reading reading = vault.read()) {
                return CopyCatalogue.places(reading, number);
            }
        };
    }

    /** Without each commit in between the catalogue of the copy would not say what the vault's says. */
    private static boolean hasAll(PackReplay replay, long after, long until) {
        Set<Long> there = Set.copyOf(replay.commits());
        for (long n = after + 1; n <= until; n++) {
            if (!there.contains(n)) {
                return false;
            }
        }
        return true;
    }

    private Set<Long> gone(VaultCopy.Extent wanted) throws IOException {
        Set<Long> gone = new TreeSet<>(to.packNumbers());
        gone.removeAll(wanted.packs().keySet());
        return gone;
    }
}
