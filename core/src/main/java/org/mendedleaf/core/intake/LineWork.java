package org.mendedleaf.core.intake;

import java.io.IOException;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.StoredFinding;
import org.mendedleaf.core.line.Version;

/**
 * What can be done with a file's line besides changing its content: publishing, check-out, notes, comments. In a folder
 * and, as far as it can, in another system. What somebody may not do is refused with {@link
 * org.mendedleaf.core.rules.NotAllowedException}, or by the system; what makes no sense now with {@link
 * IllegalArgumentException} in words.
 */
public interface LineWork {

    /**
     * What became of it.
     *
     * @param action in the journal; 0 when nothing changed
     * @param number of the version it is about
     * @param label what that version is called now
     */
    record Done(long action, int number, String label) {}

    /**
     * Makes the newest draft of a file the next published version.
     *
     * @param note that shall stand at it; empty leaves what stands there
     */
    Done publish(String path, String note) throws IOException;

    /** Takes a file to work on it alone. Who has it already keeps it. */
    CheckOut checkOut(String path) throws IOException;

    /**
     * Hands back a file: what was done since it was checked out becomes one version, with a note. Where versions are
     * numbered whole that version is published; where there are drafts it stays one, unless it shall be published.
     *
     * @param note that shall stand at the version; empty leaves what stands there
     * @param publish whether a draft is published at once
     */
    Done checkIn(String path, String note, boolean publish) throws IOException;

    /** Gives up what was checked out; what was done meanwhile stays as drafts. */
    void giveUp(String path) throws IOException;

    /** Ends what somebody else has checked out; for owners. */
    void endCheckOut(String path) throws IOException;

    /** Changes the note of a version; returns the action. */
    long note(Version version, String note) throws IOException;

    /** Says something of a version, below its note. */
    void comment(Version version, String words) throws IOException;

    /** Says what a file is filed under and who may see it. */
    void card(String path, FileProperties card) throws IOException;

    /** Says that somebody saw to a finding. */
    void settle(StoredFinding finding) throws IOException;
}
