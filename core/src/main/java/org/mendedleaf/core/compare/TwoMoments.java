package org.mendedleaf.core.compare;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.line.Difference;
import org.mendedleaf.core.line.EntryKind;

/**
 * What became of the files of a folder from one moment to another. A file is followed along its line, so that a moved one
 * is not taken for a removed and an added one. Pure.
 *
 * @param changes files that differ, by their path at the later moment, or at the earlier one when they were removed
 */
public record TwoMoments(List<Change> changes) {

    /** Copies the list. */
    public TwoMoments {
        changes = List.copyOf(changes);
    }

    /** What became of a file. */
    public enum Kind {
        /** It was not there before. */
        ADDED,
        /** It is not there any more. */
        REMOVED,
        /** It has another content. */
        CHANGED,
        /** It has another name or folder, and the same content. */
        MOVED,
        /** It has another name or folder and another content. */
        MOVED_AND_CHANGED
    }

    /**
     * One file.
     *
     * @param line of it
     * @param before as it was at the earlier moment; empty when it was added
     * @param after as it was at the later moment; empty when it was removed
     */
    public record Change(Kind kind, long line, Optional<Difference.At> before, Optional<Difference.At> after) {

        /** Where it is at the later moment, or was at the earlier one. */
        public String path() {
            return after.or(() -> before).orElseThrow().path();
        }

        /** Its size at the earlier moment; 0 when it was not there. */
        public long sizeBefore() {
            return before.map(Difference.At::size).orElse(0L);
        }

        /** Its size at the later moment; 0 when it is not there. */
        public long sizeAfter() {
            return after.map(Difference.At::size).orElse(0L);
        }
    }

    /** Finds out from what differs. */
    public static TwoMoments of(Difference difference) {
        Map<Long, Difference.At> after = new HashMap<>();
        for (Difference.At a : difference.after()) {
            if (a.kind() != EntryKind.FOLDER) {
                after.put(a.line(), a);
            }
        }
        List<Change> changes = new ArrayList<>();
        Set<Long> seen = new HashSet<>();
        for (Difference.At b : difference.before()) {
            if (b.kind() == EntryKind.FOLDER) {
                continue;
            }
            seen.add(b.line());
            Difference.At a = after.get(b.line());
            kind(b, a).ifPresent(k -> changes.add(new Change(k, b.line(), Optional.of(b), Optional.ofNullable(a))));
        }
        for (Difference.At a : after.values()) {
            if (!seen.contains(a.line())) {
                changes.add(new Change(Kind.ADDED, a.line(), Optional.empty(), Optional.of(a)));
            }
        }
        changes.sort(Comparator.comparing(Change::path).thenComparing(Change::kind));
        return new TwoMoments(changes);
    }

    /** How one stands to the other; empty when path and content are the same. */
    private static Optional<Kind> kind(Difference.At before, Difference.@org.jspecify.annotations.Nullable At after) {
        if (after == null) {
            return Optional.of(Kind.REMOVED);
        }
        boolean moved = !before.path().equals(after.path());
        boolean same = before.kind() == after.kind()
                && (before.number() == after.number() || Objects.equals(before.digest(), after.digest()));
        if (moved) {
            return Optional.of(same ? Kind.MOVED : Kind.MOVED_AND_CHANGED);
        }
        return same ? Optional.empty() : Optional.of(Kind.CHANGED);
    }

    /** How many files this became of. */
    public long count(Kind kind) {
        return changes.stream().filter(c -> c.kind() == kind).count();
    }

    /** By how much all files together are larger, in bytes. */
    public long growth() {
        return changes.stream().mapToLong(c -> c.sizeAfter() - c.sizeBefore()).sum();
    }
}
