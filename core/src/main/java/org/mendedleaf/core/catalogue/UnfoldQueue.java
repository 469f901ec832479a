package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.vault.Recipe;
import org.mendedleaf.core.vault.StoredContent;
import org.mendedleaf.core.vault.VaultException;

/**
 * Which documents are stored as they came and can perhaps be unfolded, and how their recipes are replaced when they are. Nothing
 * of it is logged but the new recipes: a catalogue that is made anew begins with all versions that come into question.
 */
public final class UnfoldQueue {

    /** Another number after each time that versions were unfolded. */
    public static final String UNFOLDED = "unfolded";

    /** What {@link #replacedBytes} gives. */
    public static final String REPLACED = "unfold-replaced";

    private static final int TO_LOOK_AT = 0;
    private static final int SAVES_NOTHING = 1;
    private static final int ALONE = 2;

    private static final String DOCUMENT =
            "SELECT v.line, v.number, v.size, v.digest, v.recipe FROM to_unfold t JOIN version v"
                    + " ON v.line = t.line AND v.number = t.number ";

    private final Sql sql;

    private UnfoldQueue(Sql sql) {
        this.sql = sql;
    }

    /** The queue as this view sees it. */
    public static UnfoldQueue of(Reading reading) {
        return new UnfoldQueue(reading.sql());
    }

    /** The queue as this session changes it. */
    public static UnfoldQueue of(WriteSession session) {
        return new UnfoldQueue(session.sql());
    }

    /**
     * A document.
     *
     * @param stored how it is stored now
     */
    public record Document(long line, int number, StoredContent stored) {}

    /** A version came; {@code first} is whether its line has no other. */
    static void came(WriteSession session, long line, int number, boolean first) throws IOException {
        session.applyUnlogged(
                "INSERT OR REPLACE INTO to_unfold(line, number, state) VALUES (?,?,?)",
                line,
                number,
                first ? ALONE : TO_LOOK_AT);
    }

    /** Begins with all versions that come into question, for a catalogue that was made anew. */
    static void beginAnew(Sql sql) throws IOException {
        sql.run("INSERT OR REPLACE INTO to_unfold SELECT v.line, v.number, CASE WHEN l.versions > 1 THEN 0 ELSE 2 END"
                + " FROM version v JOIN line l ON l.id = v.line WHERE v.kind = 1 AND v.size >= 512"
                + " AND length(v.recipe) > 1 AND substr(v.recipe, 1, 1) <> X'02'");
    }

    /** Lines of several versions with something to look at, ascending. */
    public List<Long> lines(long after, int most) throws IOException {
        return sql.list(
                "SELECT DISTINCT line FROM to_unfold WHERE state = ? AND line > ? ORDER BY line LIMIT ?",
                r -> r.getLong(1),
                TO_LOOK_AT,
                after,
                most);
    }

    /** How many versions are to be looked at by now, since their lines have several. */
    public long left() throws IOException {
        return sql.number("SELECT count(*) FROM to_unfold WHERE state = ?", TO_LOOK_AT);
    }

    /** Bytes of chunks that were replaced since space was given back last; some may be needed by others. */
    public long replacedBytes() throws IOException {
        return sql.number("SELECT value FROM counter WHERE name = ?", REPLACED);
    }

    /** Bytes of all packs. */
    public long packBytes() throws IOException {
        return sql.number("SELECT coalesce(sum(committed), 0) FROM pack");
    }

    /** How many versions that are alone on their lines were captured before. */
    public long leftAlone(Instant before) throws IOException {
        return sql.number(
                "SELECT count(*) FROM to_unfold t JOIN version v ON v.line = t.line AND v.number = t.number"
                        + " WHERE t.state = ? AND v.captured < ?",
                ALONE,
                Moment.micros(before));
    }

    private static Document document(ResultSet r) throws SQLException, VaultException {
        return new Document(
                r.getLong(1),
                r.getInt(2),
                new StoredContent(Recipe.decode(r.getBytes(5)), r.getLong(3), Digest.of(r.getBytes(4)), null));
    }

    /** The documents of a line, oldest first. */
    public List<Document> documents(long line) throws IOException {
        return sql.list(DOCUMENT + "WHERE t.line = ? ORDER BY t.number", UnfoldQueue::document, line);
    }

    /** Documents that are the only versions of their lines and were captured before, ascending by their lines. */
    public List<Document> alone(long after, Instant before, int most) throws IOException {
        return sql.list(
                DOCUMENT + "WHERE t.state = ? AND t.line > ? AND v.captured < ? ORDER BY t.line LIMIT ?",
                UnfoldQueue::document,
                ALONE,
                after,
                Moment.micros(before),
                most);
    }

    /** One document, if it still is one that can perhaps be unfolded. */
    public Optional<Document> document(long line, int number) throws IOException {
        return sql.first(DOCUMENT + "WHERE t.line = ? AND t.number = ?", UnfoldQueue::document, line, number);
    }

    /** A document need not be looked at again. */
    public static void done(WriteSession session, long line, int number) throws IOException {
        session.applyUnlogged("DELETE FROM to_unfold WHERE line = ? AND number = ?", line, number);
        session.applyUnlogged("DELETE FROM unfold_sketch WHERE line = ? AND number = ?", line, number);
    }

    /**
     * Unfolding a document alone saves nothing; it is looked at again with others.
     *
     * @param hashes of some of the chunks that it would have
     */
    public static void savesNothing(WriteSession session, long line, int number, long[] hashes) throws IOException {
        session.applyUnlogged(
                "UPDATE to_unfold SET state = ? WHERE line = ? AND number = ?", SAVES_NOTHING, line, number);
        for (long hash : hashes) {
            session.applyUnlogged(
                    "INSERT OR IGNORE INTO unfold_sketch(hash, line, number) VALUES (?,?,?)", hash, line, number);
        }
    }

    /** A document that would have most of these chunks, too. */
    public Optional<Document> like(long[] hashes) throws IOException {
        record Key(long line, int number) {}
        Map<Key, Integer> found = new HashMap<>();
        for (long hash : hashes) {
            sql.first(
                            "SELECT line, number FROM unfold_sketch WHERE hash = ?",
                            r -> new Key(r.getLong(1), r.getInt(2)),
                            hash)
                    .ifPresent(k -> found.merge(k, 1, Integer::sum));
        }
        Optional<Key> best = found.entrySet().stream()
                .filter(e -> e.getValue() * 2 >= hashes.length)
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey);
        return best.isEmpty()
                ? Optional.empty()
                : document(best.get().line(), best.get().number());
    }

    /**
     * Gives versions of a line the recipe of the unfolded content.
     *
     * @param was how it was stored
     * @param recipe whose chunks are stored
     * @return how many versions have it now; 0 when none holds the content so any more
     */
    public static int replace(WriteSession session, long line, StoredContent was, Recipe recipe, Instant now)
            throws IOException {
        byte[] before = was.recipe().encode();
        List<Integer> numbers = session.sql()
                .list(
                        "SELECT number FROM version WHERE line = ? AND digest = ? AND recipe = ?",
                        r -> r.getInt(1),
                        line,
                        was.digest().bytes(),
                        before);
        for (int number : numbers) {
            session.apply(Op.VERSION_CONTENT, was.digest().bytes(), recipe.encode(), line, number);
            session.applyUnlogged(
                    "INSERT OR REPLACE INTO replaced_recipe(digest, line, number, at) VALUES (?,?,?,?)",
                    Digest.sha256().digest(before),
                    line,
                    number,
                    Moment.micros(now));
            done(session, line, number);
        }
        return numbers.size();
    }

    /** Forgets which recipes were replaced before a moment: nobody goes by them any more. */
    public static void forgetReplaced(WriteSession session, Instant before) throws IOException {
        session.applyUnlogged("DELETE FROM replaced_recipe WHERE at < ?", Moment.micros(before));
    }

    /** How a content is stored now whose recipe was this one until it was unfolded; empty when it was not replaced. */
    static Optional<Recipe> nowOf(Sql sql, Recipe recipe) throws IOException {
        byte[] encoded = recipe.encode();
        Optional<byte[]> now = sql.first(
                "SELECT v.recipe FROM replaced_recipe r JOIN version v ON v.line = r.line AND v.number = r.number"
                        + " WHERE r.digest = ?",
                r -> r.getBytes(1),
                (Object) Digest.sha256().digest(encoded));
        if (now.isEmpty() || Arrays.equals(now.get(), encoded)) {
            return Optional.empty();
        }
        Recipe found = Recipe.decode(now.get());
        return found.isElsewhere() ? Optional.empty() : Optional.of(found);
    }
}
