package org.mendedleaf.core.recovery;

import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/** One thing to do within a protected folder. */
sealed interface Task {

    /** The path that it is about. */
    String path();

    /**
     * Writes a version to a path.
     *
     * @param mayReplace whether what is there, and kept, may be replaced
     * @param from where the file of this line is and shall no longer be; empty when it does not move
     * @param stage whether the new version is a draft
     */
    record Put(Version version, String path, boolean mayReplace, String from, DraftChoice stage) implements Task {
        Put(Version version, String path, boolean mayReplace, String from) {
            this(version, path, mayReplace, from, DraftChoice.BY_RULE);
        }
    }

    /** Removes a file whose content is in the vault. */
    record Remove(String path) implements Task {}

    /** Makes a folder that is not there. */
    record MakeFolder(TreeAt.Folder folder) implements Task {
        @Override
        public String path() {
            return folder.path();
        }
    }

    /** Removes a folder when nothing is in it. */
    record RemoveFolder(String path) implements Task {}

    /**
     * What became of a task.
     *
     * @param number of the new version; 0 when there is none
     * @param label what that version is called; empty when there is none
     * @param why it failed, as a message; empty when it did not
     */
    record Outcome(int number, String label, String why) {

        static final Outcome DONE = new Outcome(0, "", "");

        /** Somebody cancelled it in the middle; it is as if it had not been begun. */
        static final Outcome CANCELLED = failed(-1, Words.of("restore.cancelled"));

        static Outcome failed(String why) {
            return failed(0, why);
        }

        private static Outcome failed(int number, String why) {
            return new Outcome(number, "", why);
        }

        boolean isGood() {
            return why.isEmpty();
        }
    }
}
