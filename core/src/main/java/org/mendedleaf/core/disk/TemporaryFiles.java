package org.mendedleaf.core.disk;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Files that this process needs for a moment only, such as a content on its way from another system. They lie in one folder of
 * this user that nobody else may read. What a process holds goes when it ends; what one left that was killed goes when the next
 * one needs a file.
 */
public final class TemporaryFiles {

    private static final String IN_USE = ".in-use";

    /** A folder without its lock is one that is being made, unless it is older than this. */
    private static final Duration BEING_MADE = Duration.ofHours(1);

    private static @Nullable TemporaryFiles ours;

    private final Path folder;
    private final FileChannel channel;
    private final FileLock lock;

    private TemporaryFiles(Path folder, FileChannel channel, FileLock lock) {
        this.folder = folder;
        this.channel = channel;
        this.lock = lock;
    }

    /** An empty file, which its maker deletes when it is needed no more. */
    public static Path file(String ending) throws IOException {
        return Files.createTempFile(own().folder, "content", ending);
    }

    /** An empty folder, which its maker deletes when it is needed no more. */
    public static Path folder() throws IOException {
        return Files.createTempDirectory(own().folder, "folder");
    }

    private static synchronized TemporaryFiles own() throws IOException {
        TemporaryFiles now = ours;
        if (now == null || !Files.isDirectory(now.folder) || !now.lock.isValid()) {
            Path base = base(Path.of(System.getProperty("java.io.tmpdir")), System.getProperty("user.name"));
            clean(base, Instant.now());
            now = open(base);
            ours = now;
            Runtime.getRuntime().addShutdownHook(new Thread(now::end, "temporary files"));
        }
        return now;
    }

    static TemporaryFiles open(Path base) throws IOException {
        Path folder = Files.createTempDirectory(base, "run");
        FileChannel channel = FileChannel.open(
                folder.resolve(IN_USE), Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE));
        return new TemporaryFiles(folder, channel, channel.lock());
    }

    Path root() {
        return folder;
    }

    /** Removes all of it. */
    void end() {
        try {
            lock.release();
            channel.close();
            remove(folder);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(TemporaryFiles.class).debug("{} stays", folder, e);
        }
    }

    /** The folder of this user; one with another name where something that is not theirs has that one. */
    static Path base(Path temporary, String user) throws IOException {
        Path base = temporary.resolve("mended-leaf-" + user.replaceAll("[^\\p{L}\\p{N}._-]", "_"));
        try {
            Access.OWNER.createFolders(base);
            if (Files.isDirectory(base, LinkOption.NOFOLLOW_LINKS) && isOurs(base)) {
                Access.OWNER.tighten(base);
                return base;
            }
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(TemporaryFiles.class).debug("{} cannot be used", base, e);
        }
        return Files.createTempDirectory(temporary, "mended-leaf");
    }

    /** Whether it belongs to whoever makes files here. */
    private static boolean isOurs(Path base) throws IOException {
        try {
            Path mine = Files.createTempFile(base, "owner", "");
            try {
                return Files.getOwner(base, LinkOption.NOFOLLOW_LINKS).equals(Files.getOwner(mine));
            } finally {
                Files.deleteIfExists(mine);
            }
        } catch (UnsupportedOperationException e) {
            return true;
        }
    }

    /** Removes what processes left that are no more. */
    static void clean(Path base, Instant now) throws IOException {
        try (DirectoryStream<Path> all = Files.newDirectoryStream(base)) {
            for (Path each : all) {
                if (Files.isDirectory(each, LinkOption.NOFOLLOW_LINKS) && isLeft(each, now)) {
                    remove(each);
                }
            }
        }
    }

    private static boolean isLeft(Path folder, Instant now) {
        try (FileChannel channel = FileChannel.open(folder.resolve(IN_USE), StandardOpenOption.WRITE);
                FileLock lock = channel.tryLock()) {
            return lock != null;
        } catch (OverlappingFileLockException e) {
            return false;
        } catch (NoSuchFileException e) {
            return isOld(folder, now);
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(TemporaryFiles.class).debug("{} cannot be looked at", folder, e);
            return false;
        }
    }

    private static boolean isOld(Path folder, Instant now) {
        try {
            FileTime changed = Files.getLastModifiedTime(folder, LinkOption.NOFOLLOW_LINKS);
            return changed.toInstant().plus(BEING_MADE).isBefore(now);
        } catch (IOException e) {
            return false;
        }
    }

    /** Removes a folder and all in it, without following links; what cannot be removed stays. */
    private static void remove(Path folder) throws IOException {
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                Files.deleteIfExists(file);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException e) {
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path dir, @Nullable IOException e) throws IOException {
                Files.deleteIfExists(dir);
                return FileVisitResult.CONTINUE;
            }
        });
    }
}
