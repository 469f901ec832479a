package org.mendedleaf.core.disk;

import java.io.UncheckedIOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import org.mendedleaf.core.words.Words;

/** What an error about a file means, as a message. */
public final class Failures {

    private Failures() {}

    /** An exception that stands for what was thrown: an error, such as too deep a folder, is told like any other failure. */
    public static Exception exception(Throwable thrown) {
        return thrown instanceof Exception e
                ? e
                : new IllegalStateException(
                        saysNoMemory(thrown) ? Words.of("failure.memory") : Words.of("cli.defect", thrown), thrown);
    }

    /** Whether there was not enough memory for it, which is no defect. */
    public static boolean saysNoMemory(Throwable thrown) {
        Throwable e = thrown;
        while (e != null && !(e instanceof OutOfMemoryError)) {
            e = e.getCause() == e ? null : e.getCause();
        }
        return e != null;
    }

    /** As {@link #words}, with the file that it is about, for who does not know that. */
    public static String named(Throwable thrown) {
        Throwable e = cause(thrown);
        String file = e instanceof FileSystemException f ? f.getFile() : null;
        boolean said = file == null || file.isEmpty() || e instanceof NotDirectoryException;
        return said ? words(e) : Words.of("failure.of", file, words(e));
    }

    private static Throwable cause(Throwable e) {
        return e instanceof UncheckedIOException && e.getCause() != null ? e.getCause() : e;
    }

    /** What went wrong with a file, as a message for whoever asked for the work and knows which file it is. */
    public static String words(Throwable thrown) {
        Throwable e = cause(thrown);
        if (Durable.saysFull(e)) {
            return Words.of("failure.full");
        }
        if (saysNoMemory(e)) {
            return Words.of("failure.memory");
        }
        if (e instanceof AccessDeniedException) {
            return Words.of("failure.denied");
        }
        if (e instanceof NoSuchFileException) {
            return Words.of("failure.gone");
        }
        if (e instanceof NotDirectoryException n) {
            return Words.of("disk.inTheWay", n.getFile());
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
