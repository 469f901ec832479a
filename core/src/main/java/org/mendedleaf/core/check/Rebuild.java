package org.mendedleaf.core.check;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.LongStream;
import org.mendedleaf.core.catalogue.Catalogue;
import org.mendedleaf.core.catalogue.ChangeLog;
import org.mendedleaf.core.catalogue.PackTables;
import org.mendedleaf.core.catalogue.Sql;
import org.mendedleaf.core.catalogue.SqliteDriver;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.PackChunks;
import org.mendedleaf.core.vault.PackFiles;
import org.mendedleaf.core.vault.PackReplay;
import org.mendedleaf.core.vault.VaultException;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.vault.VaultLock;
import org.mendedleaf.core.words.Words;

/**
 * Makes a catalogue anew: chunks from their records in the packs, everything else from the change logs of the commits. What
 * the packs do not tell any longer is taken from the old catalogue, as far as that can be read. The old catalogue is not
 * deleted; it is put aside beside the new one. Nothing in a pack is changed; packs under wrong names get their own back.
 */
public final class Rebuild {

    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss");

    private final VaultFolder vault;
    private final List<String> damages = new ArrayList<>();
    private long chunks;
    private long replayed;

    private Rebuild(VaultFolder vault) {
        this.vault = vault;
    }

    /** From what the new catalogue was made. */
    public enum Basis {
        /** From the packs alone: they tell everything. */
        PACKS,
        /** From the old catalogue, since commits are missing in the packs, and from what came after it. */
        OLD_CATALOGUE,
        /** From what the packs tell, with gaps; what could be read of the old catalogue fills some. */
        WHAT_IS_LEFT
    }

    /**
     * What was found.
     *
     * @param basis from what the catalogue was made
     * @param commits that were replayed
     * @param chunks that were found
     * @param missing numbers of commits that cannot be read
     * @param damages what cannot be read, as a message
     * @param aside where the old catalogue went; empty when there was none
     */
    public record Report(
            Basis basis, long commits, long chunks, List<Long> missing, List<String> damages, Optional<Path> aside) {

        /** Copies the lists. */
        public Report {
            missing = List.copyOf(missing);
            damages = List.copyOf(damages);
        }

        /** What was made, and where the old catalogue is, in one sentence. */
        public String words() {
            return Words.of(
                    "rebuild.made",
                    commits,
                    chunks,
                    aside.isPresent() ? 1 : 0,
                    aside.map(a -> a.getFileName().toString()).orElse(""));
        }
    }

    /** Rebuilds. */
    public static Report run(Path folder, String holder, Duration patience, Clock clock) throws IOException {
        VaultFolder vault = VaultFolder.open(folder);
        try (VaultLock lock = VaultLock.take(vault, holder, patience)) {
            return new Rebuild(vault).run(clock);
        }
    }

    private Report run(Clock clock) throws IOException {
        putNamesRight();
        Path fresh = vault.root().resolve("catalogue-rebuilt.db");
        Catalogue.make(vault, fresh);
        Basis basis;
        List<Long> missing;
        try (PackReplay replay = new PackReplay(vault);
                Connection connection = SqliteDriver.connect("jdbc:sqlite:" + fresh.toUri())) {
            connection.setAutoCommit(false);
            Sql sql = new Sql(vault, connection);
            Optional<OldCatalogue> old = OldCatalogue.open(vault);
            try {
                replay.walk(pack -> old.isPresent() ? old.get().places(pack) : PackChunks.NONE, new Packs(sql));
                List<Long> found = replay.commits();
                long last = found.isEmpty() ? 0 : found.get(found.size() - 1);
                long known = old.map(OldCatalogue::commit).orElse(0L);
                Set<Long> there = Set.copyOf(found);
                missing = LongStream.rangeClosed(1, last)
                        .filter(n -> !there.contains(n))
                        .boxed()
                        .toList();
                boolean whole = missing.isEmpty() && last > 0 && known <= last;
                if (known > last && old.isPresent()) {
                    damages.add(Words.of("rebuild.behind", String.valueOf(last + 1), String.valueOf(known)));
                }
                basis = fill(sql, replay, old, whole);
                if (basis != Basis.PACKS) {
                    new Orphans(sql, vault).takeIn();
                }
                new PackTables(sql).end(Math.max(last, known));
            } finally {
                if (old.isPresent()) {
                    old.get().close();
                }
            }
            connection.commit();
        } catch (SQLException e) {
            throw Catalogue.translate(vault, e);
        }
        Optional<Path> aside = putAside(clock);
        Files.move(fresh, vault.catalogue(), java.nio.file.StandardCopyOption.ATOMIC_MOVE);
        Durable.forceFolder(vault.root());
        return new Report(basis, replayed, chunks, missing, damages, aside);
    }

    private Basis fill(Sql sql, PackReplay replay, Optional<OldCatalogue> old, boolean whole) throws IOException {
        List<Long> found = replay.commits();
        if (whole) {
            Basis basis = Basis.PACKS;
            for (long commit : found) {
                basis = replay(sql, replay, commit) ? basis : Basis.WHAT_IS_LEFT;
            }
            if (basis == Basis.PACKS || old.isEmpty()) {
                return basis;
            }
            copyAll(old.get(), sql);
            return basis;
        }
        if (old.isPresent() && old.get().isSound()) {
            copyAll(old.get(), sql);
            for (long commit : found) {
                if (commit > old.get().commit()) {
                    replay(sql, replay, commit);
                }
            }
            return Basis.OLD_CATALOGUE;
        }
        if (found.isEmpty() && old.isEmpty()) {
            throw new VaultException.Damaged(Words.of("rebuild.nothing"));
        }
        for (long commit : found) {
            replay(sql, replay, commit);
        }
        if (old.isPresent()) {
            copyAll(old.get(), sql);
        }
        return Basis.WHAT_IS_LEFT;
    }

    /** Replays one commit. Where that is not possible, nothing of it counts, and it is said. */
    private boolean replay(Sql sql, PackReplay replay, long commit) throws IOException {
        try {
            byte[] log = replay.changeLog(commit);
            sql.run("SAVEPOINT one_commit");
            try {
                ChangeLog.read(log, (op, values) -> sql.run(op.tolerantSql(), values));
                replayed++;
                return true;
            } catch (VaultException.Damaged e) {
                sql.run("ROLLBACK TO one_commit");
                throw e;
            } finally {
                sql.run("RELEASE one_commit");
            }
        } catch (VaultException.Damaged e) {
            damages.add(Words.of("rebuild.commit", String.valueOf(commit), e.words()));
            return false;
        }
    }

    private static void copyAll(OldCatalogue old, Sql sql) throws IOException {
        for (String table : Logged.TABLES) {
            old.copy(table, sql);
        }
    }

    /** Packs that changed names, or were renamed, get the names that their headers say. */
    private void putNamesRight() throws IOException {
        List<PackFiles.PackFile> wrong = PackFiles.of(vault).stream()
                .filter(f -> f.state() == PackFiles.State.MISNAMED)
                .toList();
        for (PackFiles.PackFile file : wrong) {
            Path between = vault.packs().resolve("%08d.pack.renaming".formatted(file.number()));
            Path from = file.file();
            if (!Files.exists(between)) {
                Files.move(from, between);
                damages.add(file.words().orElse(""));
            }
        }
        // What a rebuild that was cut short left on its way is among them.
        for (PackFiles.PackFile file : PackFiles.of(vault)) {
            Path right = vault.pack(file.number());
            boolean waits = file.file().toString().endsWith(".renaming");
            if (waits && file.number() > 0 && !Files.exists(right)) {
                Files.move(file.file(), right);
            }
        }
        Durable.forceFolder(vault.packs());
    }

    private Optional<Path> putAside(Clock clock) throws IOException {
        Optional<Path> aside = Optional.empty();
        String stamp = STAMP.format(clock.instant().atOffset(ZoneOffset.UTC));
        int again = 0;
        while (Files.exists(vault.root().resolve("catalogue.db.old-" + stamp + (again == 0 ? "" : "-" + again)))) {
            again++;
        }
        stamp += again == 0 ? "" : "-" + again;
        for (String ending : List.of("", "-wal", "-shm")) {
            Path old = vault.root().resolve("catalogue.db" + ending);
            if (Files.exists(old)) {
                Path to = vault.root().resolve("catalogue.db.old-" + stamp + ending);
                Files.move(old, to);
                aside = ending.isEmpty() ? Optional.of(to) : aside;
            }
        }
        return aside;
    }

    /** Puts chunks and packs into the new catalogue. */
    private final class Packs implements PackReplay.Taker {
        private final PackTables tables;

        Packs(Sql sql) {
            this.tables = new PackTables(sql);
        }

        @Override
        public void chunk(ChunkPlace place) throws IOException {
            tables.chunk(place);
            chunks++;
        }

        @Override
        public void lost(ChunkPlace place) throws IOException {
            tables.lost(place);
        }

        @Override
        public void pack(long number, long end, boolean sealed) throws IOException {
            tables.pack(number, end, sealed);
        }

        @Override
        public void damaged(String words) {
            damages.add(words);
        }
    }
}
