package org.mendedleaf.core.recovery;

import java.util.HashSet;
import java.util.List;
import org.mendedleaf.core.disk.RelativePath;

/**
 * Scattered copies that become versions of one file.
 *
 * @param keep path of the file that stays; it need not be there yet
 * @param order paths of the copies, oldest first; with {@code keep} among them where it is there
 */
public record Folding(String keep, List<String> order) {

    /** Refuses paths that are none, and one that stands twice. */
    public Folding {
        RelativePath.requirePath(keep);
        order = List.copyOf(order);
        order.forEach(RelativePath::requirePath);
        if (new HashSet<>(order).size() != order.size()) {
            throw new IllegalArgumentException("expected each copy once, got " + order);
        }
    }

    /** Whether there is anything to fold. */
    public boolean acts() {
        return order.stream().anyMatch(p -> !p.equals(keep));
    }
}
