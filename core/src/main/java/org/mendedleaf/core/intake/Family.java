package org.mendedleaf.core.intake;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.recovery.Folding;

/**
 * Scattered copies of one file, as a proposal.
 *
 * @param keep path of the name to keep; it need not be there yet
 * @param members oldest first
 * @param leftOut files of like names that have nothing in common with them
 */
public record Family(String keep, List<Member> members, List<String> leftOut) {

    /** Copies the lists. */
    public Family {
        members = List.copyOf(members);
        leftOut = List.copyOf(leftOut);
    }

    /**
     * A copy.
     *
     * @param path from the place's root
     * @param modified when it was last changed
     * @param size bytes
     * @param shared how much it has in common with the one before it, percent; -1 for the first and where it cannot be told
     * @param same whether its content is that of the one before it
     */
    public record Member(String path, Instant modified, long size, int shared, boolean same) {}

    /** The same with another name to keep. */
    public Family keeping(String path) {
        return new Family(path, members, leftOut);
    }

    /** The same with a member at another place in the order; what they share is told of the order by age only. */
    public Family moved(int from, int to) {
        List<Member> order = new ArrayList<>(members);
        order.add(to, order.remove(from));
        return new Family(keep, order, leftOut);
    }

    /** The same without a member. */
    public Family without(String path) {
        List<Member> rest = members.stream().filter(m -> !m.path().equals(path)).toList();
        return new Family(keep, rest, leftOut);
    }

    /** Number of versions that it becomes: contents that are the same as the one before are no versions of their own. */
    public long versions() {
        return members.stream().filter(m -> !m.same()).count();
    }

    /** What is to be done for it. */
    public Folding folding() {
        return new Folding(keep, members.stream().map(Member::path).toList());
    }
}
