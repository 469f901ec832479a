package org.mendedleaf.core.line;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.vault.ChunkPlace;
import org.mendedleaf.core.vault.Durable;
import org.mendedleaf.core.vault.PackReplay;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.vault.VaultLock;
import org.mendedleaf.core.words.Words;

/**
 * Makes a catalogue anew from the packs alone: chunks from their records, everything else from the change logs in the
 * commit records. The old catalogue is not deleted; it is put aside beside the new one.
 */
public final class Rebuild {

    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss");

    private Rebuild() {}

    /**
     * What was found.
     *
     * @param commits that were replayed
     * @param chunks that were found
     * @param damages records that could not be read
     * @param aside where the old catalogue went; the vault's folder itself when there was none
     */
    public record Report(long commits, long chunks, List<String> damages, Path aside) {}

    /** Rebuilds. */
    public static Report run(Path folder, String holder, Duration patience, Clock clock) throws IOException {
        VaultFolder vault = VaultFolder.open(folder);
        try (VaultLock lock = VaultLock.take(vault, holder, patience)) {
            Path fresh = vault.root().resolve("catalogue-rebuilt.db");
            Files.deleteIfExists(fresh);
            Catalogue.migrate(vault, fresh);
            Replay replay;
            try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + fresh.toUri())) {
                connection.setAutoCommit(false);
                replay = new Replay(new Sql(vault, connection));
                new PackReplay(vault).run(replay);
                replay.end();
                connection.commit();
            } catch (SQLException e) {
                throw Catalogue.translate(vault, e);
            }
            Path aside = putAside(vault, clock);
            Files.move(fresh, vault.catalogue(), java.nio.file.StandardCopyOption.ATOMIC_MOVE);
            Durable.forceFolder(vault.root());
            return new Report(replay.commits, replay.chunks, replay.damages, aside);
        }
    }

    private static Path putAside(VaultFolder vault, Clock clock) throws IOException {
        Path aside = vault.root();
        String stamp = STAMP.format(clock.instant().atOffset(ZoneOffset.UTC));
        for (String ending : List.of("", "-wal", "-shm")) {
            Path old = vault.root().resolve("catalogue.db" + ending);
            if (Files.exists(old)) {
                Path to = vault.root().resolve("catalogue.db.old-" + stamp + ending);
                Files.move(old, to);
                aside = ending.isEmpty() ? to : aside;
            }
        }
        return aside;
    }

    private static final class Replay implements PackReplay.Taker {
        private final Sql sql;
        private final List<ChunkPlace> waiting = new ArrayList<>();
        private final List<String> damages = new ArrayList<>();
        private long commits;
        private long chunks;
        private long lastCommit;

        Replay(Sql sql) {
            this.sql = sql;
        }

        @Override
        public void chunk(ChunkPlace place) {
            waiting.add(place);
        }

        @Override
        public void chunksCommitted() throws IOException {
            putChunks();
        }

        @Override
        public void commit(long number, byte[] changeLog) throws IOException {
            ChangeLog.read(changeLog, (op, values) -> sql.run(op.sql(), values));
            commits++;
            lastCommit = number;
        }

        private void putChunks() throws IOException {
            for (ChunkPlace c : waiting) {
                sql.run(
                        "INSERT OR REPLACE INTO chunk(id, hash, pack, off, clen, len) VALUES (?,?,?,?,?,?)",
                        c.id(),
                        c.digest(),
                        c.pack(),
                        c.offset(),
                        c.storedBytes(),
                        c.length());
                chunks++;
            }
            waiting.clear();
        }

        @Override
        public void pack(long number, long end, boolean sealed) throws IOException {
            if (sealed) {
                putChunks();
            }
            waiting.clear();
            sql.run("INSERT OR REPLACE INTO pack(id, sealed, committed) VALUES (?,?,?)", number, sealed ? 1 : 0, end);
        }

        @Override
        public void damaged(String words) {
            damages.add(words);
        }

        void end() throws IOException {
            sql.run("UPDATE counter SET value = ? WHERE name = 'commit'", lastCommit);
            if (commits == 0) {
                throw new org.mendedleaf.core.vault.VaultException.Damaged(Words.of("rebuild.nothing"));
            }
        }
    }
}
