package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;

/** Finds lines by what the catalogue itself says of them: names, notes, comments, people, and labels of snapshots. */
public final class FindQuery {

    /** Of a version: the content is not here, and it was not let go of by us. */
    private static final String AWAY = "v.kind = 1 AND v.sha256 IS NOT NULL AND length(v.recipe) = 1 AND NOT EXISTS"
            + " (SELECT 1 FROM let_go g WHERE g.line = v.line AND g.number = v.number)";

    private final Sql sql;

    private FindQuery(Sql sql) {
        this.sql = sql;
    }

    /** Questions to the catalogue as this view sees it. */
    public static FindQuery of(Reading reading) {
        return new FindQuery(reading.sql());
    }

    /**
     * What of a line can be read: changes when a version comes, goes, or its content does.
     *
     * @param versions whose content is here
     * @param numbers of them, added up
     * @param newest when the last of them was captured, in microseconds
     */
    public record LineState(long line, int versions, long numbers, long newest) {}

    /** All lines with a content that is here, the newest first. */
    public List<LineState> states() throws IOException {
        return sql.list(statesWhere(""), FindQuery::state);
    }

    /** How many versions of folders are here, links too; from what is known of lines, since there may be millions. */
    public long versions() throws IOException {
        return sql.number("SELECT coalesce(sum(versions), 0) - (SELECT count(*) FROM let_go WHERE gone <> 0) FROM line"
                + " WHERE place IN (SELECT id FROM place WHERE root NOT LIKE 'outside:%')");
    }

    /** As {@link #states()}, of one place. */
    public List<LineState> states(Place place) throws IOException {
        return sql.list(
                statesWhere(" AND v.line IN (SELECT id FROM line WHERE place = ?)"), FindQuery::state, place.id());
    }

    /** As {@link #states()}, of one line; empty when none of its contents is here. */
    public Optional<LineState> state(long line) throws IOException {
        return sql.first(statesWhere(" AND v.line = ?"), FindQuery::state, line);
    }

    private static String statesWhere(String which) {
        return "SELECT v.line, count(*), sum(v.number), max(v.captured) FROM version v"
                + " LEFT JOIN let_go g ON g.line = v.line AND g.number = v.number AND g.gone <> 0"
                + " WHERE v.kind = 1 AND length(v.recipe) <> 1 AND g.line IS NULL" + which
                + " GROUP BY v.line ORDER BY 4 DESC";
    }

    private static LineState state(java.sql.ResultSet r) throws java.sql.SQLException {
        return new LineState(r.getLong(1), r.getInt(2), r.getLong(3), r.getLong(4));
    }

    /** As {@link #states()}, of the versions that only other systems hold and whose SHA-256 is known, but for these places. */
    public List<LineState> statesAway(Set<Long> withoutPlaces) throws IOException {
        return statesAway("", withoutPlaces);
    }

    /** As {@link #statesAway(Set)}, of one line. */
    public Optional<LineState> stateAway(long line, Set<Long> withoutPlaces) throws IOException {
        return statesAway(" AND v.line = ?", withoutPlaces, line).stream().findFirst();
    }

    private List<LineState> statesAway(String which, Set<Long> withoutPlaces, Object... values) throws IOException {
        List<LineState> states = new ArrayList<>();
        sql.list(
                "SELECT v.line, count(*), sum(v.number), max(v.captured), l.place FROM version v JOIN line l ON l.id = v.line"
                        + " WHERE " + AWAY + which + " GROUP BY v.line",
                r -> withoutPlaces.contains(r.getLong(5)) || states.add(state(r)),
                values);
        return states;
    }

    /** A version that only other systems hold. */
    public record Away(int number, Digest sha256, long saved) {}

    /** Versions of a line that only other systems hold, and whose SHA-256 is known. */
    public List<Away> away(long line) throws IOException {
        return sql.list(
                "SELECT v.number, v.sha256, v.saved FROM version v WHERE v.line = ? AND " + AWAY,
                r -> new Away(r.getInt(1), Digest.of(r.getBytes(2)), r.getLong(3)),
                line);
    }

    /** The SHA-256 of contents that are here or were, as far as it is known. */
    public void sha256(BiConsumer<Digest, Digest> to) throws IOException {
        sql.list(
                "SELECT DISTINCT digest, sha256 FROM version WHERE kind = 1 AND sha256 IS NOT NULL AND digest <> sha256",
                r -> {
                    to.accept(Digest.of(r.getBytes(1)), Digest.of(r.getBytes(2)));
                    return 0;
                });
    }

    /** As {@link #sha256(BiConsumer)}, of one line. */
    public void sha256(long line, BiConsumer<Digest, Digest> to) throws IOException {
        sql.list(
                "SELECT DISTINCT digest, sha256 FROM version WHERE line = ? AND kind = 1 AND sha256 IS NOT NULL"
                        + " AND digest <> sha256",
                r -> {
                    to.accept(Digest.of(r.getBytes(1)), Digest.of(r.getBytes(2)));
                    return 0;
                },
                line);
    }

    /** When a version was saved, in microseconds; of number 0 the newest of the line. */
    public long saved(long line, int number) throws IOException {
        return number > 0
                ? sql.number("SELECT saved FROM version WHERE line = ? AND number = ?", line, number)
                : sql.number(
                        "SELECT v.saved FROM line l JOIN version v ON v.line = l.id AND v.number = l.last WHERE l.id = ?",
                        line);
    }

    /** Whether nothing is known of a line any more. */
    public boolean isGone(long line) throws IOException {
        return sql.number("SELECT count(*) FROM version WHERE line = ?", line) == 0;
    }

    /** Contents of a line that somebody erased, so that their words are not wanted either. */
    public Set<Digest> erasedContents(long line) throws IOException {
        return new HashSet<>(sql.list(
                "SELECT v.digest FROM let_go g JOIN version v ON v.line = g.line AND v.number = g.number"
                        + " WHERE g.line = ? AND g.gone <> 0 AND g.reason = 'ERASED'",
                r -> Digest.of(r.getBytes(1)),
                line));
    }

    /** Numbers of the versions of a line whose content was erased. */
    public Set<Integer> erased(long line) throws IOException {
        return new HashSet<>(
                sql.list("SELECT number FROM let_go WHERE line = ? AND gone <> 0", r -> r.getInt(1), line));
    }

    /** Where words were found. */
    public enum In {
        /** The name of a file, as it is or once was. */
        NAME,
        /** The note of a version. */
        NOTE,
        /** A comment. */
        COMMENT,
        /** Who saved a version. */
        PERSON
    }

    /**
     * A text with the words in it.
     *
     * @param number of the version; 0 for the file
     * @param saved when that was saved, or the newest of the file, in microseconds; 0 when it has to be asked for
     */
    public record Said(In in, long line, int number, String text, long saved) {
        /** One of which it has to be asked when it was saved. */
        public Said(In in, long line, int number, String text) {
            this(in, line, number, text, 0);
        }
    }

    /** The name of a node, which is a file under a name in a folder. */
    public record Name(long node, String text) {}

    /** The next names behind a node, at most so many; what is named once keeps its name and its node. */
    public List<Name> names(long after, int most) throws IOException {
        return sql.list(
                "SELECT id, name FROM node WHERE id > ? AND line <> 0 ORDER BY id LIMIT " + most,
                r -> new Name(r.getLong(1), r.getString(2)),
                after);
    }

    /**
     * What an index knows of names.
     *
     * @param upto node up to which it knows them
     * @param nodes up to there whose names may hold what is looked for
     */
    public record Named(long upto, List<Long> nodes) {
        /** Copies the list. */
        public Named {
            nodes = List.copyOf(nodes);
        }
    }

    /** As {@link #said(List, List, Named)}, where no index knows the names. */
    public List<Said> said(List<String> words, List<String> without) throws IOException {
        return said(words, without, new Named(0, List.of()));
    }

    /** Everything whose text holds all these words, in whatever order and case, and none of the others. */
    public List<Said> said(List<String> words, List<String> without, Named named) throws IOException {
        List<Said> found = new ArrayList<>();
        if (words.isEmpty()) {
            return found;
        }
        String like = like(words.get(0));
        String nodes = named.nodes().stream().map(String::valueOf).collect(Collectors.joining(",", "[", "]"));
        found.addAll(name("json_each(?) j CROSS JOIN node n ON n.id = j.value", "n.line <> 0", nodes));
        found.addAll(name("node n", "n.id > ? AND n.line <> 0 AND n.name LIKE ? ESCAPE '\\'", named.upto(), like));
        found.addAll(sql.list(
                "SELECT line, number, note FROM version WHERE note <> '' AND note LIKE ? ESCAPE '\\'",
                r -> new Said(In.NOTE, r.getLong(1), r.getInt(2), r.getString(3)),
                like));
        found.addAll(sql.list(
                "SELECT line, number, words FROM comment WHERE words LIKE ? ESCAPE '\\'",
                r -> new Said(In.COMMENT, r.getLong(1), r.getInt(2), r.getString(3)),
                like));
        for (String who : people()) {
            if (holds(who, words, without)) {
                found.addAll(sql.list(
                        "SELECT line, max(number) FROM version WHERE who = ? AND who <> '' GROUP BY line LIMIT 2000",
                        r -> new Said(In.PERSON, r.getLong(1), r.getInt(2), who),
                        who));
            }
        }
        found.removeIf(s -> !holds(s.text(), words, without));
        return found;
    }

    private List<Said> name(String from, String where, Object... values) throws IOException {
        return sql.list(
                "SELECT DISTINCT n.line, n.name, v.saved FROM " + from + " LEFT JOIN line l ON l.id = n.line"
                        + " LEFT JOIN version v ON v.line = l.id AND v.number = l.last WHERE " + where + " LIMIT 20000",
                r -> new Said(In.NAME, r.getLong(1), 0, r.getString(2), r.getLong(3)),
                values);
    }

    /** Everybody who ever saved a version: from one to the next in their index, without going through all versions. */
    private List<String> people() throws IOException {
        return sql.list(
                "WITH RECURSIVE person(who) AS (SELECT min(who) FROM version WHERE who <> '' UNION ALL"
                        + " SELECT (SELECT min(v.who) FROM version v WHERE v.who > person.who AND v.who <> '') FROM person"
                        + " WHERE person.who IS NOT NULL) SELECT who FROM person WHERE who IS NOT NULL",
                r -> r.getString(1));
    }

    /** A snapshot whose label holds the words. */
    public record Labelled(long place, String path, java.time.Instant at, String label) {}

    /** Snapshots whose label holds all these words. */
    public List<Labelled> labels(List<String> words, List<String> without) throws IOException {
        if (words.isEmpty()) {
            return List.of();
        }
        List<Labelled> found = new ArrayList<>(sql.list(
                "SELECT place, path, at, label FROM snapshot WHERE erased = 0 AND label LIKE ? ESCAPE '\\' ORDER BY at DESC",
                r -> new Labelled(r.getLong(1), r.getString(2), Moment.instant(r.getLong(3)), r.getString(4)),
                like(words.get(0))));
        found.removeIf(s -> !holds(s.label(), words, without));
        return found;
    }

    /** LIKE knows the case of the letters A to Z only; any other letter stands for any. */
    private static String like(String word) {
        StringBuilder like = new StringBuilder("%");
        word.codePoints().forEach(c -> {
            if (c == '%' || c == '_' || c == '\\') {
                like.append('\\').appendCodePoint(c);
            } else if (c < 128) {
                like.appendCodePoint(c);
            } else {
                like.append('_');
            }
        });
        return like.append('%').toString();
    }

    private static boolean holds(String text, List<String> words, List<String> without) {
        String lower = text.toLowerCase(Locale.ROOT);
        return words.stream().allMatch(w -> lower.contains(w.toLowerCase(Locale.ROOT)))
                && without.stream().noneMatch(w -> lower.contains(w.toLowerCase(Locale.ROOT)));
    }
}
