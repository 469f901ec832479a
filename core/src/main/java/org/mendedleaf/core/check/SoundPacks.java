package org.mendedleaf.core.check;

import java.io.IOException;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PackTables;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Damage;
import org.mendedleaf.core.vault.PackCheck;
import org.mendedleaf.core.vault.PackChunks;
import org.mendedleaf.core.vault.PackReader;

/**
 * Reading every byte of a vault pack by pack, over days if need be: which packs were read and are sound is noted, so that who
 * goes on does not begin again. Only sealed packs are read so; the newest one still grows, and is read last of all.
 */
public final class SoundPacks {

    private final OpenVault vault;
    private final Instant since;

    /**
     * A reading of the vault.
     *
     * @param since when it began: what was read before that does not count
     */
    public SoundPacks(OpenVault vault, Instant since) {
        this.vault = vault;
        this.since = since;
    }

    /** How far it is. */
    public record Share(long readBytes, long allBytes) {}

    /** Numbers of the packs that were read since and are sound. */
    public Set<Long> known() throws IOException {
        try (Reading reading = vault.read()) {
            return known(reading);
        }
    }

    private Set<Long> known(Reading reading) throws IOException {
        return new HashSet<>(reading.sql()
                .list(
                        "SELECT s.pack FROM sound_pack s JOIN pack p ON p.id = s.pack"
                                + " WHERE p.sealed = 1 AND p.committed = s.bytes AND s.at >= ?",
                        r -> r.getLong(1),
                        Moment.micros(since)));
    }

    /** How far it is now. */
    public Share share() throws IOException {
        try (Reading reading = vault.read()) {
            Set<Long> known = known(reading);
            long read = 0;
            long all = 0;
            for (var pack : new PackTables(reading.sql()).packs().entrySet()) {
                all += pack.getValue().committed();
                read += known.contains(pack.getKey()) ? pack.getValue().committed() : 0;
            }
            return new Share(read, all);
        }
    }

    /**
     * Reads one more pack, if there is one that was not read yet and is not among these.
     *
     * @param damaged takes the number of a pack in which something is wrong
     * @return whether one was read
     */
    public boolean readNext(Set<Long> damaged, Instant now, PackCheck.Progress progress) throws IOException {
        Optional<PackCheck.Expected> next = next(damaged);
        if (next.isEmpty()) {
            return false;
        }
        PackCheck.Expected pack = next.get();
        List<Damage> found;
        try (PackReader packs = new PackReader(vault.folder())) {
            found = new PackCheck(vault.folder(), packs).full(pack, true, progress);
        }
        if (!found.isEmpty()) {
            // Emptied meanwhile, or damaged: the whole check says which.
            damaged.add(pack.number());
            return true;
        }
        try (WriteSession session = vault.write()) {
            session.applyUnlogged(
                    "INSERT OR REPLACE INTO sound_pack(pack, bytes, at) VALUES (?,?,?)",
                    pack.number(),
                    pack.committed(),
                    Moment.micros(now));
            session.commit();
        }
        return true;
    }

    private Optional<PackCheck.Expected> next(Set<Long> damaged) throws IOException {
        try (Reading reading = vault.read()) {
            Set<Long> known = known(reading);
            for (var pack : new PackTables(reading.sql()).packs().entrySet()) {
                long number = pack.getKey();
                if (pack.getValue().sealed() && !known.contains(number) && !damaged.contains(number)) {
                    PackChunks chunks = PackTables.places(reading.sql(), number);
                    return Optional.of(
                            new PackCheck.Expected(number, true, pack.getValue().committed(), () -> chunks));
                }
            }
            return Optional.empty();
        }
    }
}
