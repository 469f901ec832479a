package org.mendedleaf.desktop.files;

import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.words.Words;

/**
 * What became of the files of a folder since the moment that is looked at.
 *
 * @param changed files with another content now
 * @param removed files that are not there any more
 * @param added files that were not there then
 * @param moved files with another name or in another folder now
 */
public record ChangesSince(long changed, long removed, long added, long moved) {

    static final ChangesSince NOTHING = new ChangesSince(0, 0, 0, 0);

    ChangesSince plus(ChangesSince other) {
        return new ChangesSince(
                changed + other.changed, removed + other.removed, added + other.added, moved + other.moved);
    }

    /** Whether nothing did. */
    public boolean isNothing() {
        return changed + removed + added + moved == 0;
    }

    /** In words, without what is none: {@code 3 changed, 1 removed}. */
    public String words() {
        List<String> parts = new ArrayList<>();
        if (changed > 0) {
            parts.add(Words.of("since.changed", changed));
        }
        if (removed > 0) {
            parts.add(Words.of("since.removed", removed));
        }
        if (moved > 0) {
            parts.add(Words.of("since.moved", moved));
        }
        if (added > 0) {
            parts.add(Words.of("since.added", added));
        }
        return String.join(", ", parts);
    }
}
