package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.vault.Digest;

/**
 * Which files the last commits changed. Who keeps something beside the catalogue in step with it, as the index does, goes through
 * these instead of through all files of a folder.
 */
public final class RecentChanges {

    /** The commit changed no file. */
    private static final long NONE = 0;

    /** The commit changed more than are named, or let something go. */
    private static final long MANY = -1;

    /** Of more files, none is named. */
    private static final int NAMED = 500;

    /** Of a commit that changes more files, as those of a first capture do, none is named. */
    private static final int NAMED_OF_COMMIT = 60;

    /** So many commits are known. */
    private static final int KEPT = 2000;

    private RecentChanges() {}

    /**
     * The files that were changed after a commit, each with the numbers of the versions that came or to which something happened.
     *
     * @param commit the number of the commit up to which everything is known
     * @return empty when everything has to be gone through: too much was changed, something was let go, or it is too long ago
     */
    public static Optional<Map<Long, Set<Integer>>> since(Reading reading, long commit) throws IOException {
        long now = reading.commit();
        if (commit <= 0 || commit > now) {
            return Optional.empty();
        }
        Map<Long, Set<Integer>> lines = new HashMap<>();
        Set<Long> commits = new HashSet<>();
        reading.sql()
                .list(
                        "SELECT seq, line, number FROM recent_change WHERE seq > ?",
                        r -> {
                            commits.add(r.getLong(1));
                            Set<Integer> numbers = lines.computeIfAbsent(r.getLong(2), k -> new HashSet<>());
                            return r.getInt(3) == 0 || numbers.add(r.getInt(3));
                        },
                        commit);
        lines.remove(NONE);
        // A commit that is not known was made by a crash, or is too long ago.
        boolean all = commits.size() == now - commit && !lines.containsKey(MANY) && lines.size() <= NAMED;
        return all ? Optional.of(lines) : Optional.empty();
    }

    /** Notes what a session changes, until it commits. */
    static final class Noting {
        private final Sql sql;
        private final Map<Long, Set<Integer>> lines = new HashMap<>();
        private boolean many;

        Noting(Sql sql) {
            this.sql = sql;
        }

        /** Takes a change, before it is made. */
        void before(Op op, @Nullable Object[] values) throws IOException {
            switch (op) {
                case VERSION -> line(values[0], values[1]);
                case EVENT -> line(values[1], values[7]);
                case VERSION_SHA256 -> line(values[1], 0);
                case LINE_STATE -> line(values[2], 0);
                case VERSION_CONTENT -> {
                    // One that was unfolded is what it was.
                    if (isOther(values)) {
                        line(values[2], 0);
                    }
                }
                case VERSION_GONE, LET_GO, LET_GO_BACK, LET_GO_ONE_BACK, LET_GO_DUE, LET_GO_OF_DUE, LET_GO_GONE ->
                    many = true;
                default -> {
                    // No file is another by it.
                }
            }
        }

        private boolean isOther(@Nullable Object[] values) throws IOException {
            if (!(values[0] instanceof byte[] digest)) {
                return true;
            }
            return sql.number(
                            "SELECT count(*) FROM version WHERE line = ? AND number = ? AND digest = ? AND length(recipe) > 1",
                            values[2],
                            values[3],
                            Digest.of(digest).bytes())
                    == 0;
        }

        private void line(@Nullable Object line, @Nullable Object number) {
            if (line instanceof Number l && number instanceof Number n && !many) {
                Set<Integer> numbers = lines.computeIfAbsent(l.longValue(), k -> new HashSet<>());
                numbers.add(n.intValue());
                many = lines.size() > NAMED_OF_COMMIT;
            }
        }

        /** Writes what was taken as the changes of a commit, in the same transaction. */
        void write(long commit) throws IOException {
            if (many) {
                put(commit, MANY, 0);
            } else if (lines.isEmpty()) {
                put(commit, NONE, 0);
            } else {
                for (Map.Entry<Long, Set<Integer>> line : lines.entrySet()) {
                    for (int number : line.getValue()) {
                        put(commit, line.getKey(), number);
                    }
                }
            }
            sql.run("DELETE FROM recent_change WHERE seq <= ?", commit - KEPT);
            lines.clear();
            many = false;
        }

        private void put(long commit, long line, int number) throws IOException {
            sql.run("INSERT OR REPLACE INTO recent_change(seq, line, number) VALUES (?,?,?)", commit, line, number);
        }
    }
}
