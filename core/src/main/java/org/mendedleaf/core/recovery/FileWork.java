package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.util.List;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;

/** What can be done with files of a place, be it a folder or a place in another system. */
public interface FileWork {

    /** What restoring these would do now; changes nothing. */
    RestorePlan plan(List<Wish> wishes, Collision rule) throws IOException;

    /** Restores versions to their paths. */
    RestoreResult restore(List<Wish> wishes, Collision rule, Progress progress) throws IOException;

    /** What became of removing files. */
    record Removal(long action, List<String> removed, List<String> failed) {}

    /** Removes files such that they can be brought back. */
    Removal remove(List<String> paths) throws IOException;

    /**
     * What became of undoing.
     *
     * @param action that was undone
     * @param done paths that are as they were before
     * @param failed paths that are not, with the reason
     */
    record Undone(Action action, List<String> done, List<String> failed) {}

    /** Puts everything that an action changed back to what was there before it. */
    Undone undo(Action action) throws IOException;
}
