package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.nio.file.Path;
import org.mendedleaf.core.capture.MovedAside;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.words.Words;

/** Files outside of any place: given a name that nothing has, and taken away as they were read. */
public final class OwnFile {

    private OwnFile() {}

    private static SafeFolder parent(Path file) throws IOException {
        Path parent = file.toAbsolutePath().getParent();
        return SafeFolder.open(parent == null ? file.toAbsolutePath() : parent, "");
    }

    /**
     * Moves a file to another name in its folder.
     *
     * @throws java.nio.file.FileAlreadyExistsException when something has that name by now; it stays as it is
     */
    static void place(Path beside, Path file) throws IOException {
        try (SafeFolder folder = parent(file)) {
            folder.renameNew(name(beside), name(file));
        }
    }

    private static String name(Path file) {
        return String.valueOf(file.getFileName());
    }

    /**
     * Deletes a file if it is still what was read. It gets another name first, so that nobody can save into it between the look
     * and the end.
     *
     * @param isAsRead asked with the name that it has then
     * @throws IOException with a message for the user, when it was changed; it has its own name again
     */
    public static void delete(Path file, Check isAsRead) throws IOException {
        try (SafeFolder folder = parent(file)) {
            String aside = SafeFolder.ownName();
            folder.rename(name(file), aside);
            boolean same = false;
            try {
                same = !MovedAside.isInUse(folder, aside) && isAsRead.test(file.resolveSibling(aside));
            } finally {
                if (!same) {
                    folder.renameNew(aside, name(file));
                }
            }
            if (!same) {
                throw new IOException(Words.of("restore.changedMeanwhile"));
            }
            folder.delete(aside);
        }
    }

    /** Whether a file is what was read. */
    @FunctionalInterface
    public interface Check {
        /** Of the file under this name. */
        boolean test(Path file) throws IOException;
    }
}
