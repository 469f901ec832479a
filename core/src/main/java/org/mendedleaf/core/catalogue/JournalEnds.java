package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * How actions ended: how long they took, what of them failed, and a digest of all files that they name, in a chain as that of
 * {@link JournalChain}. So what an entry says it did cannot be changed afterwards without showing. An action without an end was
 * cut short. Entries from before version 11 of the catalogue have none.
 */
public final class JournalEnds {

    private static final byte[] FIRST = new byte[32];

    private JournalEnds() {}

    /**
     * How an action ended.
     *
     * @param took how long it took
     * @param failed how many files did not come about
     */
    public record End(Duration took, int failed) {}

    /** Notes ends with the commit that brings the last change of an action. */
    static final class Keeper {
        private final Set<Long> touched = new LinkedHashSet<>();
        private final Set<Long> open = new HashSet<>();
        private final Map<Long, End> ends = new HashMap<>();

        /** Sees a change before it is applied. */
        void before(Op op, @Nullable Object[] values) {
            Object action = switch (op) {
                case JOURNAL, JOURNAL_ITEM, JOURNAL_ITEM_VOID, JOURNAL_ITEMS_VOID -> values[0];
                case JOURNAL_ITEM_BEFORE, JOURNAL_UNDOES -> values[1];
                case JOURNAL_ITEM_DONE -> values[2];
                default -> null;
            };
            if (action instanceof Number id) {
                touched.add(id.longValue());
            }
        }

        /** An action goes on over several commits, until {@link #end}. */
        void hold(long action) {
            open.add(action);
        }

        void end(long action, End end) {
            open.remove(action);
            ends.put(action, end);
            touched.add(action);
        }

        /** Notes the ends of what was changed and does not go on. */
        void note(WriteSession session) throws IOException {
            for (long action : Set.copyOf(touched)) {
                if (!open.contains(action)) {
                    End before = JournalEnds.of(session.sql(), action).orElse(new End(Duration.ZERO, 0));
                    add(session, action, ends.getOrDefault(action, before));
                    touched.remove(action);
                }
            }
        }
    }

    private static void add(WriteSession session, long action, End end) throws IOException {
        Sql sql = session.sql();
        byte[] content = content(sql, action);
        long id = 1 + sql.number("SELECT coalesce(max(id), 0) FROM journal_end");
        byte[] before = sql.first("SELECT digest FROM journal_end WHERE id = ?", r -> r.getBytes(1), id - 1)
                .orElse(FIRST);
        long took = end.took().toNanos() / 1000;
        session.apply(
                Op.JOURNAL_END,
                id,
                action,
                took,
                end.failed(),
                content,
                digest(before, id, action, took, end.failed(), content));
    }

    private static byte[] digest(byte[] before, long id, long action, long took, int failed, byte[] content) {
        MessageDigest sha = Digest.sha256();
        sha.update(before);
        sha.update((id + "\n" + action + "\n" + took + "\n" + failed + "\n").getBytes(StandardCharsets.UTF_8));
        return sha.digest(content);
    }

    /** A digest of what an action undid and of all files that it names. */
    private static byte[] content(Sql sql, long action) throws IOException {
        MessageDigest sha = Digest.sha256();
        sha.update((sql.number("SELECT undoes FROM journal WHERE id = ?", action) + "\n")
                .getBytes(StandardCharsets.UTF_8));
        sql.list(
                "SELECT seq, line, folder, name, before, after FROM journal_item WHERE journal = ? ORDER BY seq",
                r -> {
                    sha.update((r.getLong(1) + "\n" + r.getLong(2) + "\n" + r.getLong(3) + "\n" + r.getString(4) + "\n"
                                    + r.getLong(5) + "\n" + r.getLong(6) + "\n")
                            .getBytes(StandardCharsets.UTF_8));
                    return action;
                },
                action);
        return sha.digest();
    }

    private static Optional<End> of(Sql sql, long action) throws IOException {
        return sql.first(
                "SELECT took, failed FROM journal_end WHERE journal = ? ORDER BY id DESC LIMIT 1",
                r -> new End(Duration.ofNanos(r.getLong(1) * 1000), r.getInt(2)),
                action);
    }

    /** The ends of all actions that have one, by action. */
    static Map<Long, End> all(Sql sql) throws IOException {
        Map<Long, End> ends = new HashMap<>();
        sql.list(
                "SELECT journal, took, failed FROM journal_end ORDER BY id",
                r -> ends.put(r.getLong(1), new End(Duration.ofNanos(r.getLong(2) * 1000), r.getInt(3))));
        return ends;
    }

    /** The first action whose end was noted; those before it have none. */
    static long first(Sql sql) throws IOException {
        return sql.first("SELECT journal FROM journal_end ORDER BY id LIMIT 1", r -> r.getLong(1))
                .orElse(Long.MAX_VALUE);
    }

    /** What is wrong, as a message: the first entry whose end, or whose files, are not what was written; empty when none is. */
    public static Optional<String> broken(Sql sql) throws IOException {
        record Row(long id, long action, long took, int failed, byte[] content, byte[] digest) {}
        Map<Long, byte[]> last = new LinkedHashMap<>();
        byte[] before = FIRST;
        long expected = 1;
        for (Row row : sql.list(
                "SELECT id, journal, took, failed, content, digest FROM journal_end ORDER BY id",
                r -> new Row(r.getLong(1), r.getLong(2), r.getLong(3), r.getInt(4), r.getBytes(5), r.getBytes(6)))) {
            byte[] digest = digest(before, row.id(), row.action(), row.took(), row.failed(), row.content());
            if (row.id() != expected || !MessageDigest.isEqual(digest, row.digest())) {
                return Optional.of(Words.of("check.journal.changed", String.valueOf(row.action())));
            }
            last.put(row.action(), row.content());
            before = row.digest();
            expected++;
        }
        for (Map.Entry<Long, byte[]> e : last.entrySet()) {
            if (!MessageDigest.isEqual(content(sql, e.getKey()), e.getValue())) {
                return Optional.of(Words.of("check.journal.files", String.valueOf(e.getKey())));
            }
        }
        return Optional.empty();
    }
}
