package org.mendedleaf.core.find;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;

/**
 * The words of all versions, beside the catalogue (SQLite FTS5): each content once, however many versions have it, and what
 * each version changed in words. Everything in it can be made anew from the vault; nothing else depends on it. What is taken
 * out is overwritten in the file. One thread at a time for each instance; several instances, also of several processes, may
 * have it open.
 */
public final class FindIndex implements AutoCloseable {

    private static final String NAME = "index.db";
    private static final int VERSION = 3;
    private static final int BUSY_MILLIS = 10_000;

    private static final String[] TABLES = {
        "CREATE TABLE content (id INTEGER PRIMARY KEY, digest BLOB NOT NULL, ending TEXT NOT NULL, chars INTEGER NOT NULL)",
        "CREATE UNIQUE INDEX content_digest ON content (digest, ending)",
        "CREATE VIRTUAL TABLE body USING fts5(text, tokenize = 'unicode61 remove_diacritics 2')",
        "INSERT INTO body (body, rank) VALUES ('secure-delete', 1)",
        "CREATE TABLE at (line INTEGER NOT NULL, number INTEGER NOT NULL, content INTEGER NOT NULL,"
                + " saved INTEGER NOT NULL, words TEXT,"
                + " PRIMARY KEY (line, number)) WITHOUT ROWID",
        "CREATE INDEX at_content ON at (content)",
        "CREATE TABLE off (place INTEGER PRIMARY KEY)",
        "CREATE TABLE complete (state TEXT NOT NULL)",
        "PRAGMA user_version = " + VERSION
    };

    private final Path file;
    private final Connection connection;
    private final Map<String, PreparedStatement> prepared = new HashMap<>();

    private FindIndex(Path file, Connection connection) {
        this.file = file;
        this.connection = connection;
    }

    /** Where the index of a vault is. */
    public static Path file(VaultFolder vault) {
        return vault.root().resolve(NAME);
    }

    /** Opens the index of a vault, if there is one that can be read. */
    public static Optional<FindIndex> openIfThere(VaultFolder vault) {
        if (!Files.exists(file(vault))) {
            return Optional.empty();
        }
        try {
            FindIndex index = new FindIndex(file(vault), connect(file(vault)));
            if (index.number("PRAGMA user_version") == VERSION) {
                return Optional.of(index);
            }
            index.close();
        } catch (SQLException | IOException e) {
            org.slf4j.LoggerFactory.getLogger(FindIndex.class).info("the index cannot be read", e);
        }
        return Optional.empty();
    }

    /** Opens the index of a vault; one that is not there, is damaged, or of another version, is begun anew. */
    public static FindIndex open(VaultFolder vault) throws IOException {
        Optional<FindIndex> there = openIfThere(vault);
        if (there.isPresent()) {
            return there.get();
        }
        remove(vault);
        try {
            vault.access().createFile(file(vault));
            FindIndex index = new FindIndex(file(vault), connect(file(vault)));
            index.make();
            return index;
        } catch (SQLException e) {
            throw failed(vault.root(), e);
        }
    }

    /** Takes the index away; it is made anew when it is next filled. */
    public static void remove(VaultFolder vault) throws IOException {
        for (String ending : new String[] {"", "-wal", "-shm"}) {
            Files.deleteIfExists(vault.root().resolve(NAME + ending));
        }
    }

    private static Connection connect(Path file) throws SQLException {
        Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file);
        try (Statement statement = connection.createStatement()) {
            statement.execute("PRAGMA busy_timeout = " + BUSY_MILLIS);
            statement.execute("PRAGMA journal_mode = WAL");
            statement.execute("PRAGMA synchronous = NORMAL");
            statement.execute("PRAGMA secure_delete = ON");
            return connection;
        } catch (SQLException e) {
            connection.close();
            throw e;
        }
    }

    private void make() throws SQLException {
        connection.setAutoCommit(false);
        try (Statement statement = connection.createStatement()) {
            for (String table : TABLES) {
                statement.execute(table);
            }
            connection.commit();
        } finally {
            connection.setAutoCommit(true);
        }
    }

    private static IOException failed(Path where, SQLException e) {
        return new IOException(Words.of("find.index.failed", where, String.valueOf(e.getMessage())), e);
    }

    private interface Taker {
        void take(ResultSet row) throws SQLException;
    }

    private void query(String sql, Taker taker, @Nullable Object... values) throws IOException {
        try (ResultSet rows = bind(sql, values).executeQuery()) {
            while (rows.next()) {
                taker.take(rows);
            }
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }

    private long number(String sql, @Nullable Object... values) throws IOException {
        long[] number = {0};
        query(sql, r -> number[0] = r.getLong(1), values);
        return number[0];
    }

    private void run(String sql, @Nullable Object... values) throws IOException {
        try {
            bind(sql, values).execute();
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }

    private PreparedStatement bind(String sql, @Nullable Object... values) throws SQLException {
        PreparedStatement statement = prepared.get(sql);
        if (statement == null) {
            statement = connection.prepareStatement(sql);
            prepared.put(sql, statement);
        }
        for (int i = 0; i < values.length; i++) {
            statement.setObject(i + 1, values[i]);
        }
        return statement;
    }

    /** Work within one transaction. */
    interface Work {
        void run() throws IOException;
    }

    void together(Work work) throws IOException {
        try {
            connection.setAutoCommit(false);
            try {
                work.run();
                connection.commit();
            } catch (IOException | RuntimeException e) {
                connection.rollback();
                throw e;
            } finally {
                connection.setAutoCommit(true);
            }
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }

    // Filling.

    /** What is known of a line: how many versions, and their numbers added up. */
    record State(int versions, long numbers) {}

    Map<Long, State> states() throws IOException {
        Map<Long, State> states = new HashMap<>();
        query(
                "SELECT line, count(*), sum(number) FROM at GROUP BY line",
                r -> states.put(r.getLong(1), new State(r.getInt(2), r.getLong(3))));
        return states;
    }

    Set<Integer> numbers(long line) throws IOException {
        Set<Integer> numbers = new HashSet<>();
        query("SELECT number FROM at WHERE line = ?", r -> numbers.add(r.getInt(1)), line);
        return numbers;
    }

    /** The id of a content; 0 when it is not known. */
    long content(Digest digest, String ending) throws IOException {
        return number("SELECT id FROM content WHERE digest = ? AND ending = ?", digest.bytes(), ending);
    }

    /** Puts the words of a content in; returns its id. */
    long put(Digest digest, String ending, String text) throws IOException {
        run("INSERT INTO content (digest, ending, chars) VALUES (?, ?, ?)", digest.bytes(), ending, text.length());
        long id = number("SELECT last_insert_rowid()");
        if (!text.isEmpty()) {
            run("INSERT INTO body (rowid, text) VALUES (?, ?)", id, text);
        }
        return id;
    }

    /**
     * Says which content a version has, when it was saved, in microseconds, and what it changed; no words when that is not
     * known.
     */
    void put(long line, int number, long content, long saved, @Nullable String words) throws IOException {
        run(
                "INSERT OR REPLACE INTO at (line, number, content, saved, words) VALUES (?, ?, ?, ?, ?)",
                line,
                number,
                content,
                saved,
                words);
    }

    /** Takes a version out. */
    void remove(long line, int number) throws IOException {
        run("DELETE FROM at WHERE line = ? AND number = ?", line, number);
    }

    /** Takes a line out. */
    void remove(long line) throws IOException {
        run("DELETE FROM at WHERE line = ?", line);
    }

    /** Takes the words out that no version has any more; returns how many contents that were. */
    long sweep() throws IOException {
        List<Long> unused = new ArrayList<>();
        query("SELECT id FROM content WHERE id NOT IN (SELECT content FROM at)", r -> unused.add(r.getLong(1)));
        for (long id : unused) {
            run("DELETE FROM body WHERE rowid = ?", id);
            run("DELETE FROM content WHERE id = ?", id);
        }
        return unused.size();
    }

    /** Writes everything into the file itself, so that nothing of what was taken out is left beside it. */
    void settle() throws IOException {
        // Nothing may be left open for what follows.
        try {
            for (PreparedStatement statement : prepared.values()) {
                statement.close();
            }
            prepared.clear();
        } catch (SQLException e) {
            throw failed(file, e);
        }
        try (Statement statement = connection.createStatement()) {
            statement.execute("INSERT INTO body (body) VALUES ('optimize')");
            statement.execute("PRAGMA wal_checkpoint(TRUNCATE)");
            statement.execute("VACUUM");
            statement.execute("PRAGMA wal_checkpoint(TRUNCATE)");
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }

    /** Notes that everything is in that the vault holds in this state, as {@code Reading.state} says it. */
    void complete(String state) throws IOException {
        together(() -> {
            run("DELETE FROM complete");
            run("INSERT INTO complete (state) VALUES (?)", state);
        });
    }

    /** Whether everything is in that the vault holds in this state. */
    boolean isComplete(String state) throws IOException {
        boolean[] is = {false};
        query("SELECT state FROM complete", r -> is[0] |= state.equals(r.getString(1)));
        return is[0];
    }

    // Places that are left out.

    /** Places whose versions are not put in. */
    public Set<Long> off() throws IOException {
        Set<Long> off = new HashSet<>();
        query("SELECT place FROM off", r -> off.add(r.getLong(1)));
        return off;
    }

    /** Leaves a place out from now on, with all that is in of it, or takes it in again when the index is next filled. */
    public void off(Place place, boolean is, List<Long> lines) throws IOException {
        together(() -> {
            run(is ? "INSERT OR IGNORE INTO off (place) VALUES (?)" : "DELETE FROM off WHERE place = ?", place.id());
            for (long line : lines) {
                remove(line);
            }
            sweep();
            run("DELETE FROM complete");
        });
        settle();
    }

    // Asking.

    /** How many versions are in. */
    long versions() throws IOException {
        return number("SELECT count(*) FROM at");
    }

    /** How many versions and contents are in, and how many characters those have. */
    public record Size(long versions, long contents, long chars, long bytes) {}

    /** What is in. */
    public Size size() throws IOException {
        long[] size = new long[3];
        query("SELECT count(*) FROM at", r -> size[0] = r.getLong(1));
        query("SELECT count(*), coalesce(sum(chars), 0) FROM content", r -> {
            size[1] = r.getLong(1);
            size[2] = r.getLong(2);
        });
        return new Size(size[0], size[1], size[2], Files.size(file));
    }

    /** As {@link #words(long)}, of the index of a vault; nothing where there is none. */
    public static Map<Integer, String> words(VaultFolder vault, long line) {
        Optional<FindIndex> there = openIfThere(vault);
        if (there.isEmpty()) {
            return Map.of();
        }
        try (FindIndex index = there.get()) {
            return index.words(line);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(FindIndex.class).info("the index cannot be read", e);
            return Map.of();
        }
    }

    /** What each version of a line changed against the one before it, in words, as far as that is known. */
    public Map<Integer, String> words(long line) throws IOException {
        Map<Integer, String> words = new HashMap<>();
        query(
                "SELECT number, words FROM at WHERE line = ? AND words IS NOT NULL",
                r -> words.put(r.getInt(1), r.getString(2)),
                line);
        return words;
    }

    /** A version whose words were found, and when it was saved, in microseconds. */
    record Match(long line, int number, long content, long saved) {}

    /** Versions whose words are wanted: the latest so many. */
    List<Match> matches(Wanted wanted, int most) throws IOException {
        List<Match> matches = new ArrayList<>();
        query(
                "SELECT a.line, a.number, a.content, a.saved FROM body b CROSS JOIN at a ON a.content = b.rowid"
                        + " WHERE b.text MATCH ? ORDER BY a.saved DESC LIMIT " + most,
                r -> matches.add(new Match(r.getLong(1), r.getInt(2), r.getLong(3), r.getLong(4))),
                wanted.expression());
        return matches;
    }

    /** A piece of a content around what is wanted; the words themselves stand between the signs 2 and 3. */
    String snippet(Wanted wanted, long content) throws IOException {
        String[] text = {""};
        query(
                "SELECT snippet(body, 0, char(2), char(3), '…', 14) FROM body WHERE body MATCH ? AND rowid = ?",
                r -> text[0] = r.getString(1),
                wanted.expression(),
                content);
        return text[0].replaceAll("\\s+", " ");
    }

    @Override
    public void close() throws IOException {
        try {
            for (PreparedStatement statement : prepared.values()) {
                statement.close();
            }
            connection.close();
        } catch (SQLException e) {
            throw failed(file, e);
        }
    }
}
