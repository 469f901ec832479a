package org.mendedleaf.core.copies;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.CopyCatalogue;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.VaultCopyStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.VaultCopy;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;

/** The copies of a vault: begun, kept in step, looked at, and ended. */
public final class Copies {

    private final OpenVault vault;
    private final Clock clock;
    private final String who;

    /** Copies of this vault, for somebody. */
    public Copies(OpenVault vault, Clock clock, String who) {
        this.vault = vault;
        this.clock = clock;
        this.who = who;
    }

    /** The vault that is copied. */
    public OpenVault vault() {
        return vault;
    }

    Instant now() {
        return clock.instant();
    }

    /** How each copy stands, in the order in which they were begun. */
    public List<CopyStatus> list() throws IOException {
        List<CopyStatus> found = new ArrayList<>();
        try (Reading reading = vault.read()) {
            VaultCopyStore store = VaultCopyStore.of(reading);
            for (VaultCopy copy : store.all()) {
                found.add(status(copy, store));
            }
        }
        return found;
    }

    private CopyStatus status(VaultCopy copy, VaultCopyStore store) throws IOException {
        VaultCopy.State seen = store.state(copy);
        long behind = Math.max(0, store.commit() - seen.commit());
        Set<Long> stale = new HashSet<>(seen.packs());
        stale.removeAll(store.packs());
        boolean there = CopyFolders.isThere(vault, copy.folder());
        CopyStatus.Standing standing = !there
                ? CopyStatus.Standing.AWAY
                : !seen.trouble().isEmpty()
                        ? CopyStatus.Standing.FAILING
                        : seen.good().isEmpty()
                                ? CopyStatus.Standing.BEGUN
                                : behind > 0 ? CopyStatus.Standing.BEHIND : CopyStatus.Standing.IN_STEP;
        return new CopyStatus(
                copy,
                standing,
                seen,
                behind,
                stale.size(),
                there ? Files.getFileStore(copy.folder()).getUsableSpace() : -1,
                there && CopyFolders.isSameDrive(vault.folder().root(), copy.folder()));
    }

    /** The copy in this folder. */
    public Optional<CopyStatus> in(Path folder) throws IOException {
        Path wanted = Protect.realOfNew(folder);
        return list().stream().filter(s -> s.copy().folder().equals(wanted)).findFirst();
    }

    /**
     * Begins a copy in an empty or new folder, or takes one up again that was ended. Nothing is copied yet.
     *
     * @return how it stands
     * @throws IllegalArgumentException with a message for the user, when it cannot be there
     */
    public CopyStatus add(Path folder) throws IOException {
        Path where = check(folder);
        if (!VaultFolder.isVault(where)) {
            vault.folder().makeCopy(where);
        }
        VaultCopy copy;
        try (WriteSession session = vault.write()) {
            copy = VaultCopyStore.add(session, where, clock.instant(), who);
            session.commit();
        }
        try (Reading reading = vault.read()) {
            return status(copy, VaultCopyStore.of(reading));
        }
    }

    /**
     * Checks whether a copy can be in a folder; changes nothing.
     *
     * @return its real path
     * @throws IllegalArgumentException with a message for the user, when it cannot
     */
    public Path check(Path folder) throws IOException {
        return new CopyFolders(vault).check(folder);
    }

    /** Whether a folder, or the nearest one above it that is there, is on the drive of the vault. */
    public boolean wouldShareDrive(Path folder) throws IOException {
        return new CopyFolders(vault).wouldShareDrive(folder);
    }

    /** Ends a copy: it is kept in step no longer. What is in its folder stays, and can be read. */
    public void end(VaultCopy copy) throws IOException {
        try (WriteSession session = vault.write()) {
            VaultCopyStore.end(session, copy, clock.instant(), who);
            session.commit();
        }
    }

    /**
     * Brings a copy in step.
     *
     * @return bytes that were written
     * @throws VaultException with a message for the user, also noted, when that is not possible now
     */
    public long run(VaultCopy copy, Progress progress) throws IOException {
        VaultCopy.State before = seen(copy);
        Instant now = clock.instant();
        if (!CopyFolders.isThere(vault, copy.folder())) {
            throw new VaultException.Unavailable(Words.of("copies.away", copy.folder()));
        }
        try {
            VaultFolder folder = VaultFolder.open(copy.folder());
            CopyRun.Done done;
            try {
                done = new CopyRun(vault, folder, progress).run();
            } catch (VaultException.Damaged e) {
                if (isSound(folder)) {
                    throw e;
                }
                // The packs give the whole catalogue again.
                CopyCatalogue.begin(folder);
                done = new CopyRun(vault, folder, progress).run();
            }
            if (!done.cancelled()) {
                note(copy, inStep(before, done, folder, now));
            }
            return done.written();
        } catch (VaultException.Busy e) {
            throw e;
        } catch (IOException e) {
            String why = Failures.named(e);
            note(copy, before.failed(now, why));
            throw e;
        }
    }

    private static boolean isSound(VaultFolder folder) {
        try (CopyCatalogue catalogue = CopyCatalogue.open(folder)) {
            return catalogue.extent().commit() >= 0;
        } catch (IOException e) {
            return false;
        }
    }

    private static VaultCopy.State inStep(VaultCopy.State before, CopyRun.Done done, VaultFolder folder, Instant now)
            throws IOException {
        return new VaultCopy.State(
                Optional.of(now),
                Optional.of(now),
                done.extent().commit(),
                done.extent().bytes() + Files.size(folder.catalogue()),
                done.extent().packs().keySet(),
                before.checked(),
                "");
    }

    VaultCopy.State seen(VaultCopy copy) throws IOException {
        try (Reading reading = vault.read()) {
            return VaultCopyStore.of(reading).state(copy);
        }
    }

    void note(VaultCopy copy, VaultCopy.State state) throws IOException {
        try (WriteSession session = vault.write()) {
            VaultCopyStore.note(session, copy, state);
            session.commit();
        }
    }

    /**
     * Makes a copy a vault of its own, as when the drive of the vault broke. From then on the two go different ways.
     *
     * @throws IllegalArgumentException with a message for the user, when the folder holds no copy
     */
    public static VaultFolder use(Path folder) throws IOException {
        VaultFolder copy = VaultFolder.open(folder);
        if (!copy.isCopy()) {
            throw new IllegalArgumentException(Words.of("copies.noCopy", folder));
        }
        return copy.asVault();
    }
}
