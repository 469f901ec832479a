package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.util.List;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.words.Words;

/** What can be done with files of a place, be it a folder or a place in another system. */
public interface FileWork extends Destination {

    /** What rolling back would do, after a look at what is there now. */
    RestorePlan plan(Rollback rollback, Progress progress) throws IOException;

    /** Rolls back, as one step that one undo takes back. */
    RestoreResult rollBack(Rollback rollback, Progress progress) throws IOException;

    /**
     * Puts files from anywhere in as next versions or new files, as one step that one undo takes back. One that cannot be
     * put in does not stop the others.
     *
     * @throws org.mendedleaf.core.rules.NotAllowedException when they may not
     */
    PutResult put(List<Revision> revisions, Progress progress) throws IOException;

    /** Makes scattered copies the versions of one file each, as one step that one undo takes back. */
    FoldResult fold(List<Folding> foldings, Progress progress) throws IOException;

    /** What became of removing files. */
    record Removal(long action, List<String> removed, List<String> failed) {}

    /** Removes files such that they can be brought back. */
    Removal remove(List<String> paths) throws IOException;

    /**
     * What became of undoing, or of taking an undoing back.
     *
     * @param action that was undone, or done again
     * @param done paths that are as they were before, or as that action left them
     * @param failed paths that are not, with the reason
     * @param nothing whether all was like that already, so that nothing was changed
     */
    record Undone(Action action, List<String> done, List<String> failed, boolean nothing) {

        Undone(Action action, List<String> done, List<String> failed) {
            this(action, done, failed, false);
        }

        /** Copies. */
        public Undone {
            done = List.copyOf(done);
            failed = List.copyOf(failed);
        }

        /** What was undone, in one sentence. */
        public String undoneWords() {
            return words("undo.");
        }

        /** What was done again, in one sentence. */
        public String redoneWords() {
            return words("redo.");
        }

        private String words(String which) {
            if (!failed.isEmpty()) {
                return Words.of(which + "some", action.words(), action.who(), done.size(), String.join("; ", failed));
            }
            return Words.of(nothing ? which + "nothing" : which + "all", action.words(), action.who(), done.size());
        }
    }

    /** Puts everything that an action changed back to what was there before it. */
    default Undone undo(Action action) throws IOException {
        return undo(action, Progress.NONE);
    }

    /** As {@link #undo(Action)}; cancelled, the action can be undone again, and what was done stays. */
    Undone undo(Action action, Progress progress) throws IOException;

    /**
     * Takes an undoing back: everything is as the action had left it that was undone.
     *
     * @param undo the undoing
     */
    Undone redo(Action undo, Progress progress) throws IOException;
}
