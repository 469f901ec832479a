package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.text.Normalizer;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.mendedleaf.core.line.Comment;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;

/** What people say of versions and files: notes, comments, categories. */
public final class RemarkStore {

    private final Sql sql;
    private final PathIds names;

    private RemarkStore(Sql sql) {
        this.sql = sql;
        this.names = new PathIds(sql);
    }

    /** As a reader sees them. */
    public static RemarkStore of(Reading reading) {
        return new RemarkStore(reading.sql());
    }

    /** As a session sees them. */
    public static RemarkStore of(WriteSession session) {
        return new RemarkStore(session.sql());
    }

    /** The comments on the versions of a line, oldest first. */
    public List<Comment> comments(long line) throws IOException {
        return sql.list(
                "SELECT id, line, number, at, who, words FROM comment WHERE line = ? ORDER BY id",
                RemarkStore::comment,
                line);
    }

    private static Comment comment(java.sql.ResultSet r) throws java.sql.SQLException {
        return new Comment(
                r.getLong(1), r.getLong(2), r.getInt(3), Moment.instant(r.getLong(4)), r.getString(5), r.getString(6));
    }

    /** What is said of a file. */
    public FileProperties card(long line) throws IOException {
        return sql.first(
                        "SELECT category, visibility FROM card WHERE line = ?",
                        r -> new FileProperties(r.getString(1), FileProperties.Visibility.valueOf(r.getString(2))),
                        line)
                .orElse(FileProperties.NOTHING);
    }

    /**
     * A note or comment that was found.
     *
     * @param line of its version
     * @param number of its version
     * @param path of the file when the version was saved
     * @param at when it was said; of a note, when its version was saved
     * @param who said it; of a note, who saved its version
     * @param words that stand there
     * @param isNote whether it is the note of the version, rather than a comment below it
     */
    public record Hit(long line, int number, String path, Instant at, String who, String words, boolean isNote) {}

    /** Notes and comments in a place that hold these words, whatever their case and accents; newest first. */
    public List<Hit> find(Place place, String words) throws IOException {
        List<String> wanted = Arrays.asList(plain(words).strip().split("\\s+"));
        record Raw(long line, int number, long node, long at, String who, String words, boolean isNote) {}
        List<Raw> all = new ArrayList<>(sql.list(
                "SELECT v.line, v.number, v.node, v.saved, v.who, v.note FROM version v JOIN line l ON l.id = v.line"
                        + " WHERE v.note <> '' AND l.place = ?",
                r -> new Raw(
                        r.getLong(1), r.getInt(2), r.getLong(3), r.getLong(4), r.getString(5), r.getString(6), true),
                place.id()));
        all.addAll(sql.list(
                "SELECT c.line, c.number, v.node, c.at, c.who, c.words FROM comment c JOIN line l ON l.id = c.line"
                        + " JOIN version v ON v.line = c.line AND v.number = c.number WHERE l.place = ?",
                r -> new Raw(
                        r.getLong(1), r.getInt(2), r.getLong(3), r.getLong(4), r.getString(5), r.getString(6), false),
                place.id()));
        List<Hit> hits = new ArrayList<>();
        for (Raw r : all) {
            String text = plain(r.words());
            if (wanted.stream().allMatch(text::contains)) {
                hits.add(new Hit(
                        r.line(),
                        r.number(),
                        names.nodePath(r.node()),
                        Moment.instant(r.at()),
                        r.who(),
                        r.words(),
                        r.isNote()));
            }
        }
        hits.sort(java.util.Comparator.comparing(Hit::at).reversed());
        return hits;
    }

    /** Without case and accents (Unicode normal form KD without marks). */
    private static String plain(String text) {
        return Normalizer.normalize(text, Normalizer.Form.NFKD)
                .replaceAll("\\p{M}+", "")
                .toLowerCase(Locale.ROOT);
    }

    /** Adds a comment. */
    public static void add(WriteSession session, Comment c) throws IOException {
        session.apply(
                Op.COMMENT,
                session.nextId(WriteSession.Table.COMMENT),
                c.line(),
                c.number(),
                Moment.micros(c.at()),
                c.who(),
                c.words());
    }

    /** Files a file under something, or says who may see it. */
    public static void card(WriteSession session, long line, FileProperties card) throws IOException {
        session.apply(Op.CARD, line, card.category(), card.visibility().name());
    }

    /** Changes the note of a version; what it was before stays with the action. */
    public static void note(WriteSession session, long action, long line, int number, String note) throws IOException {
        String before = session.sql()
                .first("SELECT note FROM version WHERE line = ? AND number = ?", r -> r.getString(1), line, number)
                .orElseThrow(() -> new IllegalArgumentException("expected a version, got " + line + "/" + number));
        session.apply(Op.NOTED, action, line, number, before);
        session.apply(Op.VERSION_NOTE, note, line, number);
    }

    /**
     * Puts notes back to what they were before an action.
     *
     * @param back action that does so; what they are until then stays with it
     */
    public void noteBack(WriteSession session, long action, long back) throws IOException {
        record Before(long line, int number, String note) {}
        for (Before b : sql.list(
                "SELECT line, number, before FROM noted WHERE journal = ?",
                r -> new Before(r.getLong(1), r.getInt(2), r.getString(3)),
                action)) {
            note(session, back, b.line(), b.number(), b.note());
        }
    }

    /**
     * A file that was removed from outside of any place once its content was a version.
     *
     * @param path absolute
     */
    public record Taken(String path, long line, int number) {}

    /** What an action removed outside of any place. */
    public List<Taken> taken(long action) throws IOException {
        return sql.list(
                "SELECT path, line, number FROM taken WHERE journal = ? ORDER BY path",
                r -> new Taken(r.getString(1), r.getLong(2), r.getInt(3)),
                action);
    }

    /** Notes that an action is about to remove a file outside of any place. */
    public static void taken(WriteSession session, long action, Taken t) throws IOException {
        session.apply(Op.TAKEN, action, t.path(), t.line(), t.number());
    }

    /** Notes that it did not, or that the file is back. */
    public static void notTaken(WriteSession session, long action, Taken t) throws IOException {
        session.apply(Op.TAKEN_BACK, action, t.path());
    }
}
