package org.mendedleaf.desktop.files;

import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.Version;

/** One row of a drawn line. */
public sealed interface LineRow {

    /**
     * A version.
     *
     * @param version the version
     * @param change what changed against the version before, as a message; empty when nothing is known
     * @param current whether it is the one that is in the folder now
     * @param lane how the thread of mending runs past it
     * @param equalTo number of an older version with the same content; 0 when there is none
     * @param heldBy who holds its content, where that is not the vault alone
     * @param words what else is said of it: where it came from, what it is equal to, its note, its comments
     * @param kept until when it is kept, or that it is gone
     * @param trouble what is wrong with it, as a message; empty when nothing is, as far as anybody looked
     */
    record OfVersion(
            Version version,
            String change,
            boolean current,
            Lane lane,
            int equalTo,
            Held heldBy,
            String words,
            Kept kept,
            String trouble)
            implements LineRow {

        /** What people call it: what its system does, else its edition. */
        public String label() {
            return heldBy.label().isEmpty() ? version.edition().label() : heldBy.label();
        }
    }

    /**
     * Who holds a content.
     *
     * @param foreign where the version is, when it is not on the file's own line; empty when it is
     * @param label what its system calls the version, where that is not its number
     * @param words who holds it; empty where the vault alone does
     * @param warn whether that calls for attention: one system only, soon forgotten, nobody any more
     */
    record Held(String foreign, String label, String words, boolean warn) {
        /** The vault holds it, and nobody else. */
        static final Held VAULT = new Held("", "", "", false);
    }

    /**
     * What becomes of a version.
     *
     * @param words in short; empty for nothing to say
     * @param style of the field in which they stand
     * @param why at length
     */
    record Kept(String words, String style, String why) {
        /** There is nothing to say. */
        static final Kept NOTHING = new Kept("", "", "");
    }

    /**
     * Something else that happened.
     *
     * @param event what
     * @param lane how the thread of mending runs past it
     */
    record OfEvent(Event event, Lane lane) implements LineRow {}

    /**
     * Several versions that are folded away.
     *
     * @param key by which they can be unfolded
     * @param count of versions
     * @param day in words
     * @param lane how the thread of mending runs past them
     */
    record Folded(String key, int count, String day, Lane lane) implements LineRow {}

    /** How the thread of mending runs past a row: from a restored version down to the one it came from. */
    enum Lane {
        /** It does not. */
        NONE,
        /** It begins here, at a restored version. */
        FROM,
        /** It runs past. */
        PAST,
        /** It ends here, at the version that was restored. */
        TO,
        /** One ends here and the next begins. */
        THROUGH
    }

    /** How the thread of mending runs past this row. */
    Lane lane();
}
