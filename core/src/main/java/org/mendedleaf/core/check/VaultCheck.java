package org.mendedleaf.core.check;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.JournalChain;
import org.mendedleaf.core.catalogue.JournalEnds;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.PackedListing;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.Sql;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.vault.Damage;
import org.mendedleaf.core.vault.PackCheck;
import org.mendedleaf.core.vault.PackReader;
import org.mendedleaf.core.words.Words;

/**
 * Checks a vault and names what is damaged, version by version. All of it is about one state of the vault, the one at the
 * beginning: what is captured meanwhile is not part of it, and packs that are emptied meanwhile are followed. Nothing that is
 * kept is changed; chunks that cannot be read are noted, so that the next content that has one stores it anew.
 */
public final class VaultCheck {

    private final OpenVault vault;

    /** A check of this vault, which may go on being written to meanwhile. */
    public VaultCheck(OpenVault vault) {
        this.vault = vault;
    }

    /** How far a check goes. */
    public enum Depth {
        /** Packs are looked at from outside. */
        QUICK,
        /** Every stored byte is read and held against the checksums of the records, as fast as the drive gives them. */
        FULL,
        /** Beside that every content is decoded and its digest computed, and the catalogue compared with the change logs. */
        DEEP
    }

    /**
     * What a check found.
     *
     * @param depth how far it went
     * @param packs that were looked at
     * @param versions that were looked at
     * @param bytes of packs that were read
     * @param damages what is wrong
     * @param lost versions that cannot be brought back whole
     * @param cancelled whether somebody stopped it before its end
     * @param damagedPacks numbers of the packs in which something is wrong
     */
    public record Report(
            Depth depth,
            long packs,
            long versions,
            long bytes,
            List<String> damages,
            List<LostVersion> lost,
            boolean cancelled,
            Set<Long> damagedPacks) {

        /** Copies the lists. */
        public Report {
            damages = List.copyOf(damages);
            lost = List.copyOf(lost);
            damagedPacks = Set.copyOf(damagedPacks);
        }

        /** Whether every stored byte was read. */
        public boolean full() {
            return depth != Depth.QUICK;
        }

        /** Whether nothing is wrong. */
        public boolean isClean() {
            return damages.isEmpty() && lost.isEmpty();
        }
    }

    /**
     * A version that cannot be brought back whole.
     *
     * @param line of the file
     * @param path of the file, as it is now
     * @param number of the version
     * @param label what people call it
     */
    public record LostVersion(long line, String path, int number, String label) {}

    /**
     * Checks.
     *
     * @param deep whether to go as far as there is to go; otherwise packs are looked at from outside
     */
    public Report run(boolean deep, Progress progress) throws IOException {
        return run(deep ? Depth.DEEP : Depth.QUICK, progress, Set.of());
    }

    /**
     * Checks.
     *
     * @param sound numbers of packs of which every byte was read already, and is sound; from outside they are looked at too
     */
    public Report run(Depth depth, Progress progress, Set<Long> sound) throws IOException {
        Set<Long> lostChunks = new HashSet<>();
        Report report;
        try (Reading reading = vault.read();
                PackReader packs = new PackReader(vault.folder());
                LogCheck logs = depth == Depth.DEEP ? new LogCheck(vault.folder(), reading.sql()) : null) {
            report = run(depth, progress, reading, packs, lostChunks, sound, logs);
        }
        note(report, lostChunks);
        return report;
    }

    private Report run(
            Depth depth,
            Progress progress,
            Reading reading,
            PackReader packs,
            Set<Long> lostChunks,
            Set<Long> sound,
            @Nullable LogCheck logs)
            throws IOException {
        Sql sql = reading.sql();
        boolean full = depth != Depth.QUICK;
        boolean deep = depth == Depth.DEEP;
        // The state that all of this is about begins with the first question.
        List<PackCheck.Expected> expected = KnownPacks.expected(sql);
        List<String> damages = new ArrayList<>(catalogue(sql, deep));
        if (damages.isEmpty()) {
            Optional<String> journal = JournalChain.broken(sql);
            (journal.isPresent() ? journal : JournalEnds.broken(sql)).ifPresent(damages::add);
        }
        long all = expected.stream().mapToLong(PackCheck.Expected::committed).sum();
        progress.begin(Words.of("check.step"), 0, full ? all : 0);
        KnownPacks known = new KnownPacks(vault);
        PackCheck check = new PackCheck(vault.folder(), packs);
        long[] bytes = {0};
        Set<Long> damagedPacks = new HashSet<>();
        for (PackCheck.Expected pack : expected) {
            if (progress.isCancelled()) {
                break;
            }
            boolean isRead = sound.contains(pack.number());
            bytes[0] += isRead ? pack.committed() : 0;
            List<Damage> found = full && !isRead
                    ? check.full(pack, deep, n -> {
                        bytes[0] += n;
                        progress.advance(0, n);
                    })
                    : check.quick(pack);
            if (found.isEmpty() || !known.follow(pack, packs, lostChunks)) {
                found.forEach(d -> damages.add(d.words()));
                found.forEach(d -> lostChunks.addAll(d.chunks()));
                found.forEach(d -> damagedPacks.add(d.pack()));
            }
        }
        damages.addAll(known.strayFiles(expected));
        VersionCheck versions = new VersionCheck(sql, lostChunks, full);
        versions.run(damages);
        if (logs != null && damages.isEmpty() && !progress.isCancelled()) {
            damages.addAll(logs.run());
        }
        return new Report(
                depth,
                expected.size(),
                versions.looked(),
                bytes[0],
                damages,
                versions.lost(),
                progress.isCancelled(),
                damagedPacks);
    }

    private static List<String> catalogue(Sql sql, boolean deep) {
        try {
            List<String> found = new ArrayList<>();
            sql.list(deep ? "PRAGMA integrity_check" : "PRAGMA quick_check", r -> r.getString(1)).stream()
                    .filter(line -> !"ok".equals(line))
                    .map(line -> Words.of("check.catalogue", line))
                    .forEach(found::add);
            if (deep && found.isEmpty()) {
                PackedListing.damaged(sql).forEach(f -> found.add(Words.of("check.packed", String.valueOf(f))));
            }
            return found;
        } catch (IOException e) {
            return List.of(String.valueOf(e.getMessage()));
        }
    }

    /** Chunks that cannot be read are noted where that is possible now; a check never waits for it. */
    private void note(Report report, Set<Long> lostChunks) {
        if (report.cancelled()) {
            return;
        }
        try {
            if (DamagedChunks.isNoted(vault, lostChunks, report.depth() == Depth.DEEP)) {
                return;
            }
            try (WriteSession session = vault.write()) {
                DamagedChunks.note(session, lostChunks, report.depth() == Depth.DEEP);
                session.commit();
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(VaultCheck.class).debug("damage is not noted", e);
        }
    }
}
