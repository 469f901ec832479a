package org.mendedleaf.core.recovery;

import java.nio.file.Path;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.DraftChoice;

/**
 * A file to put in as the next version of a line, or as a new file.
 *
 * @param file on this computer
 * @param path in the place
 * @param note that shall stand at the version; empty for none
 * @param stage whether it is a draft
 * @param take whether the file is removed from where it was, once its content is a version
 * @param author who wrote it, when that is somebody else than who puts it in; empty otherwise
 */
public record Revision(Path file, String path, String note, DraftChoice stage, boolean take, String author) {

    /** Refuses a path that is none. */
    public Revision {
        RelativePath.requirePath(path);
    }

    /** One of whoever puts it in. */
    public Revision(Path file, String path, String note, DraftChoice stage, boolean take) {
        this(file, path, note, stage, take, "");
    }

    /** One that is a draft or not as the place's rules say, and whose file stays where it is. */
    public Revision(Path file, String path, String note) {
        this(file, path, note, DraftChoice.BY_RULE, false);
    }
}
