package org.mendedleaf.core.find;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.FindQuery;
import org.mendedleaf.core.catalogue.SideDatabase;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.VaultFolder;
import org.mendedleaf.core.words.Words;

/**
 * The words of all versions, beside the catalogue (SQLite FTS5): each content once, however many versions have it, what each
 * version changed in words, and the names of files. Everything in it can be made anew from the vault; nothing else depends on it. What is taken
 * out is overwritten in the file. One thread at a time for each instance; several instances, also of several processes, may
 * have it open.
 */
public final class FindIndex extends SideDatabase {

    private static final String NAME = "index.db";
    private static final int VERSION = 7;

    /** Earlier ones are begun anew. */
    private static final int FIRST_TAKEN_OVER = 3;

    /** With so many nodes it takes as long as going through all names. */
    private static final int NODES_MOST = 50_000;

    /** So many times three letters tell names apart. */
    private static final int THREES_MOST = 24;

    /** So many of the latest versions are looked at before all that hold the words are. */
    private static final int LATEST = 3000;

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
        "CREATE TABLE complete (state TEXT NOT NULL)"
    };

    /** From version 3 to 4, and the end of what is made anew: versions that other systems hold, by their SHA-256. */
    private static final String[] AWAY = {
        "ALTER TABLE content ADD COLUMN sha256 BLOB",
        "CREATE INDEX content_sha256 ON content (sha256)",
        "CREATE TABLE away (line INTEGER NOT NULL, number INTEGER NOT NULL, sha256 BLOB NOT NULL,"
                + " saved INTEGER NOT NULL, PRIMARY KEY (line, number)) WITHOUT ROWID",
        "CREATE INDEX away_sha256 ON away (sha256)",
        "DELETE FROM complete",
        "PRAGMA user_version = 4"
    };

    /** From version 4 to 5: versions by the time at which they were saved. */
    private static final String[] BY_TIME = {
        "CREATE INDEX IF NOT EXISTS at_saved ON at (saved, line, number, content)", "PRAGMA user_version = 5"
    };

    /** From version 5 to 6: the state of each place up to which everything is in; of place 0 the number of the last change. */
    private static final String[] BY_PLACE = {
        "CREATE TABLE IF NOT EXISTS filled (place INTEGER PRIMARY KEY, state TEXT NOT NULL)",
        "DELETE FROM filled",
        "PRAGMA user_version = 6"
    };

    /**
     * From version 6 to 7: the names of files, each three letters in a row of them with the nodes that have them, without the
     * names themselves; and the node up to which all are in.
     */
    private static final String[] BY_NAME = {
        "CREATE VIRTUAL TABLE IF NOT EXISTS name USING fts5(text, content = '', columnsize = 0, detail = none,"
                + " tokenize = 'trigram')",
        "CREATE TABLE IF NOT EXISTS named (upto INTEGER NOT NULL)",
        "PRAGMA user_version = " + VERSION
    };

    /** What changes the tables from each version to the next, from the first that is taken over. */
    private static final List<String[]> STEPS = List.of(AWAY, BY_TIME, BY_PLACE, BY_NAME);

    private FindIndex(Path file) throws IOException {
        super(file);
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
            FindIndex index = new FindIndex(file(vault));
            // Who only asks does not wait for whoever writes.
            for (int i = 0; index.version() != VERSION && i < STEPS.size(); i++) {
                index.change(FIRST_TAKEN_OVER + i, STEPS.get(i));
            }
            if (index.version() == VERSION) {
                return Optional.of(index);
            }
            index.close();
        } catch (IOException e) {
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
        List<String> all = new ArrayList<>(List.of(TABLES));
        STEPS.forEach(step -> all.addAll(List.of(step)));
        return make(vault, NAME, FindIndex::new, all.toArray(String[]::new));
    }

    /** Takes the index away; it is made anew when it is next filled. */
    public static void remove(VaultFolder vault) throws IOException {
        remove(vault, NAME);
    }

    // Filling.

    /** What is known of a line: how many versions, and their numbers added up. */
    record State(int versions, long numbers) {}

    Map<Long, State> states() throws IOException {
        return states("at");
    }

    /** As {@link #states}, of the versions that other systems hold. */
    Map<Long, State> statesAway() throws IOException {
        return states("away");
    }

    private Map<Long, State> states(String table) throws IOException {
        Map<Long, State> states = new HashMap<>();
        query(
                "SELECT line, count(*), sum(number) FROM " + table + " GROUP BY line",
                r -> states.put(r.getLong(1), new State(r.getInt(2), r.getLong(3))));
        return states;
    }

    /** What is known of one line. */
    Optional<State> state(long line) throws IOException {
        return state("at", line);
    }

    /** What is known of the versions of one line that other systems hold. */
    Optional<State> stateAway(long line) throws IOException {
        return state("away", line);
    }

    private Optional<State> state(String table, long line) throws IOException {
        List<State> found = new ArrayList<>();
        query(
                "SELECT count(*), sum(number) FROM " + table + " WHERE line = ? HAVING count(*) > 0",
                r -> found.add(new State(r.getInt(1), r.getLong(2))),
                line);
        return found.stream().findFirst();
    }

    /** Up to which state of each place everything is in. */
    Map<Long, String> filled() throws IOException {
        Map<Long, String> filled = new HashMap<>();
        query("SELECT place, state FROM filled", r -> filled.put(r.getLong(1), r.getString(2)));
        return filled;
    }

    /** Notes that everything is in that a place holds in this state. */
    void filled(long place, String state) throws IOException {
        run("INSERT OR REPLACE INTO filled (place, state) VALUES (?, ?)", place, state);
    }

    /** The node up to which the names of all are in; 0 when none are. */
    long named() throws IOException {
        return number("SELECT coalesce(max(upto), 0) FROM named");
    }

    /** Puts the names of nodes in, which are all up to the last of them. */
    void putNames(List<FindQuery.Name> names) throws IOException {
        together(() -> {
            long last = 0;
            for (FindQuery.Name name : names) {
                run("INSERT INTO name (rowid, text) VALUES (?, ?)", name.node(), name.text());
                last = name.node();
            }
            run("DELETE FROM named");
            run("INSERT INTO named (upto) VALUES (?)", last);
        });
    }

    /** Takes all names out. */
    void forgetNames() throws IOException {
        together(() -> {
            run("INSERT INTO name (name) VALUES ('delete-all')");
            run("DELETE FROM named");
        });
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

    /** A version that another system holds, with the SHA-256 it is known by there, and when it was saved, in microseconds. */
    record Away(int number, byte[] sha256, long saved) {}

    /** Says which versions of a line other systems hold, instead of what was said before. */
    void away(long line, List<Away> versions) throws IOException {
        run("DELETE FROM away WHERE line = ?", line);
        for (Away a : versions) {
            run(
                    "INSERT INTO away (line, number, sha256, saved) VALUES (?, ?, ?, ?)",
                    line,
                    a.number(),
                    a.sha256(),
                    a.saved());
        }
    }

    /** Contents whose SHA-256 is not known. */
    Set<Digest> withoutSha256() throws IOException {
        Set<Digest> digests = new HashSet<>();
        query("SELECT digest FROM content WHERE sha256 IS NULL", r -> digests.add(Digest.of(r.getBytes(1))));
        return digests;
    }

    /** Says the SHA-256 of a content, by which versions in other systems are known. */
    void sha256(Digest content, Digest sha256) throws IOException {
        run("UPDATE content SET sha256 = ? WHERE digest = ?", sha256.bytes(), content.bytes());
    }

    /** Has the words of a content go with the last version here that has it, whoever else holds it: it was erased. */
    void forget(Digest content) throws IOException {
        run("UPDATE content SET sha256 = zeroblob(0) WHERE digest = ?", content.bytes());
    }

    /** As {@link #forget}, all contents of a line. */
    void forget(long line) throws IOException {
        run("UPDATE content SET sha256 = zeroblob(0) WHERE id IN (SELECT content FROM at WHERE line = ?)", line);
    }

    /** Takes a version out. */
    void remove(long line, int number) throws IOException {
        run("DELETE FROM at WHERE line = ? AND number = ?", line, number);
    }

    /** Takes a line out. */
    void remove(long line) throws IOException {
        run("DELETE FROM at WHERE line = ?", line);
        run("DELETE FROM away WHERE line = ?", line);
    }

    /** Takes the words out that no version has any more; returns how many contents that were. */
    long sweep() throws IOException {
        List<Long> unused = new ArrayList<>();
        query(
                "SELECT id FROM content WHERE id NOT IN (SELECT content FROM at)"
                        + " AND NOT EXISTS (SELECT 1 FROM away WHERE away.sha256 = content.sha256)",
                r -> unused.add(r.getLong(1)));
        for (long id : unused) {
            run("DELETE FROM body WHERE rowid = ?", id);
            run("DELETE FROM content WHERE id = ?", id);
        }
        return unused.size();
    }

    /** As {@link SideDatabase#settle}, with the words in as little as they need. */
    void settle() throws IOException {
        settle("INSERT INTO body (body) VALUES ('optimize')");
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
                forget(line);
                remove(line);
            }
            sweep();
            run("DELETE FROM complete");
            run("DELETE FROM filled WHERE place = ?", place.id());
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
        return new Size(size[0], size[1], size[2], Files.size(file()));
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

    /** What each version of a line changed against the one before it, as a message, as far as that is known. */
    public Map<Integer, String> words(long line) throws IOException {
        Map<Integer, String> words = new HashMap<>();
        query(
                "SELECT number, words FROM at WHERE line = ? AND words IS NOT NULL",
                r -> words.put(r.getInt(1), Words.told(r.getString(2))),
                line);
        return words;
    }

    /**
     * The nodes whose names may hold all these words, of those whose names are in; none of the others do.
     *
     * @return nothing when the words do not tell: three letters from A to Z, digits or signs in a row are needed
     */
    Optional<FindQuery.Named> named(List<String> words) throws IOException {
        Set<String> threes = new java.util.LinkedHashSet<>();
        for (String word : words) {
            for (int i = 0; i + 3 <= word.length(); i++) {
                String three = word.substring(i, i + 3);
                // What other letters become in small letters is not alike everywhere.
                if (three.chars().allMatch(c -> c > 0 && c < 128)) {
                    threes.add('"' + three.replace("\"", "\"\"") + '"');
                }
            }
        }
        long upto = threes.isEmpty() ? 0 : named();
        if (upto == 0) {
            return Optional.empty();
        }
        List<Long> nodes = new ArrayList<>();
        query(
                "SELECT rowid FROM name WHERE name MATCH ? LIMIT " + NODES_MOST,
                r -> nodes.add(r.getLong(1)),
                threes.stream().limit(THREES_MOST).collect(java.util.stream.Collectors.joining(" AND ")));
        return Optional.of(new FindQuery.Named(upto, nodes))
                .filter(n -> n.nodes().size() < NODES_MOST);
    }

    /** A version whose words were found, and when it was saved, in microseconds. */
    record Match(long line, int number, long content, long saved) {}

    /**
     * The versions whose words are wanted, of the lines in which they were saved latest: where most contents hold the words, all
     * others need not be gone through.
     *
     * @param lines of so many lines
     * @param also of these lines too
     * @return nothing when the latest versions do not tell; then {@link #matches} does
     */
    Optional<List<Match>> latest(Wanted wanted, int lines, Set<Long> also) throws IOException {
        if (number("SELECT count(*) FROM (SELECT 1 FROM away LIMIT 1)") > 0) {
            return Optional.empty();
        }
        run("CREATE TEMP TABLE IF NOT EXISTS looked (id INTEGER PRIMARY KEY)");
        run("DELETE FROM looked");
        run("INSERT OR IGNORE INTO looked SELECT content FROM (SELECT content FROM at ORDER BY saved DESC LIMIT "
                + LATEST + ")");
        Set<Long> holding = holding(wanted);
        Set<Long> found = new java.util.LinkedHashSet<>();
        query("SELECT line, content FROM at ORDER BY saved DESC LIMIT " + LATEST, r -> {
            if (found.size() < lines && holding.contains(r.getLong(2))) {
                found.add(r.getLong(1));
            }
        });
        if (found.size() < lines) {
            return Optional.empty();
        }
        found.addAll(also);
        List<Match> all = new ArrayList<>();
        run("DELETE FROM looked");
        for (long line : found) {
            query(
                    "SELECT line, number, content, saved FROM at WHERE line = ?",
                    r -> all.add(new Match(r.getLong(1), r.getInt(2), r.getLong(3), r.getLong(4))),
                    line);
            run("INSERT OR IGNORE INTO looked SELECT content FROM at WHERE line = ?", line);
        }
        Set<Long> theirs = holding(wanted);
        all.removeIf(m -> !theirs.contains(m.content()));
        return Optional.of(all);
    }

    /** Which of the contents that are looked at hold what is wanted. */
    private Set<Long> holding(Wanted wanted) throws IOException {
        Set<Long> holding = new HashSet<>();
        query(
                "SELECT b.rowid FROM body b CROSS JOIN looked l ON l.id = b.rowid"
                        + " WHERE b.text MATCH ? AND b.rowid BETWEEN (SELECT min(id) FROM looked)"
                        + " AND (SELECT max(id) FROM looked)",
                r -> holding.add(r.getLong(1)),
                wanted.expression());
        return holding;
    }

    /** Versions whose words are wanted: the latest so many that are here, and as many that others hold. */
    List<Match> matches(Wanted wanted, int most) throws IOException {
        List<Match> matches = new ArrayList<>();
        query(
                "SELECT a.line, a.number, a.content, a.saved FROM body b CROSS JOIN at a ON a.content = b.rowid"
                        + " WHERE b.text MATCH ? ORDER BY a.saved DESC LIMIT " + most,
                r -> matches.add(new Match(r.getLong(1), r.getInt(2), r.getLong(3), r.getLong(4))),
                wanted.expression());
        if (number("SELECT count(*) FROM (SELECT 1 FROM away LIMIT 1)") > 0) {
            query(
                    "SELECT a.line, a.number, c.id, a.saved FROM body b CROSS JOIN content c ON c.id = b.rowid"
                            + " CROSS JOIN away a ON a.sha256 = c.sha256"
                            + " WHERE b.text MATCH ? ORDER BY a.saved DESC LIMIT " + most,
                    r -> matches.add(new Match(r.getLong(1), r.getInt(2), r.getLong(3), r.getLong(4))),
                    wanted.expression());
        }
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
}
