package org.mendedleaf.core.disk;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What is in a folder and below it, of which files may go while it is read, as those of a database at work do. */
public final class FilesBelow {

    private FilesBelow() {}

    /** Bytes of all regular files in a folder and below it. */
    public static long bytes(Path folder) throws IOException {
        long[] sum = {0};
        Files.walkFileTree(folder, new Passing() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes is) {
                sum[0] += is.isRegularFile() ? is.size() : 0;
                return FileVisitResult.CONTINUE;
            }
        });
        return sum[0];
    }

    /** A folder, all folders below it, and all files in them; links are not among them. */
    public static List<Path> paths(Path folder) throws IOException {
        List<Path> all = new ArrayList<>();
        Files.walkFileTree(folder, new Passing() {
            @Override
            public FileVisitResult preVisitDirectory(Path dir, BasicFileAttributes is) {
                all.add(dir);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes is) {
                if (!is.isSymbolicLink()) {
                    all.add(file);
                }
                return FileVisitResult.CONTINUE;
            }
        });
        return all;
    }

    /** Passes over what has gone. */
    private static class Passing extends SimpleFileVisitor<Path> {
        @Override
        public FileVisitResult visitFileFailed(Path file, IOException e) throws IOException {
            if (e instanceof NoSuchFileException) {
                return FileVisitResult.CONTINUE;
            }
            throw e;
        }

        @Override
        public FileVisitResult postVisitDirectory(Path dir, @Nullable IOException e) throws IOException {
            if (e == null || e instanceof NoSuchFileException) {
                return FileVisitResult.CONTINUE;
            }
            throw e;
        }
    }
}
