package org.mendedleaf.core.recovery;

import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.words.Words;

/** What an error about a file means, as a message. */
public final class Failures {

    private Failures() {}

    /** An exception that stands for what was thrown: an error, such as too deep a folder, is told like any other failure. */
    public static Exception exception(Throwable thrown) {
        return thrown instanceof Exception e ? e : new IllegalStateException(Words.of("cli.defect", thrown), thrown);
    }

    /** What went wrong, as a message for whoever asked for the work. */
    public static String words(Throwable e) {
        if (Durable.saysFull(e)) {
            return Words.of("failure.full");
        }
        if (e instanceof AccessDeniedException) {
            return Words.of("failure.denied");
        }
        if (e instanceof NoSuchFileException) {
            return Words.of("failure.gone");
        }
        if (e instanceof NotDirectoryException) {
            return String.valueOf(e.getMessage());
        }
        if (e instanceof FileAlreadyExistsException) {
            return Words.of("failure.exists");
        }
        if (e instanceof FileSystemException f && f.getReason() != null) {
            return f.getReason().contains("Read-only")
                    ? Words.of("failure.readOnly")
                    : Words.of("failure.system", f.getReason());
        }
        return String.valueOf(e.getMessage());
    }
}
