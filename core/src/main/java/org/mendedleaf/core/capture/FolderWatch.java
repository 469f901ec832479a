package org.mendedleaf.core.capture;

import java.io.IOException;
import java.nio.file.ClosedWatchServiceException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardWatchEventKinds;
import java.nio.file.WatchEvent;
import java.nio.file.WatchKey;
import java.nio.file.WatchService;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.NetworkDrive;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.disk.SafeFolder;

/**
 * Hears from the system which folders below a root had something happen in them. What it cannot hear of (a system that
 * drops events, a folder that cannot be watched) it says too, so that the caller looks for itself.
 */
final class FolderWatch implements AutoCloseable {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(FolderWatch.class);

    private final Path root;
    private final WatchService service;
    private final Map<WatchKey, Path> folders = new HashMap<>();
    /** Which folder the root is, whatever is at its path by now; null where the file system has no such thing. */
    private final @Nullable Object rootKey;

    private boolean complete;
    private boolean rootGone;

    /** Begins to watch a root and all folders below it. */
    FolderWatch(Path root) throws IOException {
        this.root = root;
        this.rootKey = Files.readAttributes(root, BasicFileAttributes.class).fileKey();
        this.service = root.getFileSystem().newWatchService();
        this.complete = !NetworkDrive.holds(root);
        register(root);
    }

    /**
     * Whether all folders could be watched, and nobody changes them from another computer; when not, scans from time to time have to make up
     * for it.
     */
    boolean isComplete() {
        return complete;
    }

    /**
     * Whether the root itself went away, or another folder is in its place: the system goes on to watch the one that was moved, and nothing
     * is heard of what is at its path, also when it is back.
     */
    boolean isRootGone() {
        if (rootGone) {
            return true;
        }
        try {
            Object now = Files.readAttributes(root, BasicFileAttributes.class).fileKey();
            return !Objects.equals(rootKey, now);
        } catch (IOException e) {
            log.debug("{} is gone", root, e);
            return true;
        }
    }

    private void register(Path top) {
        try {
            Files.walkFileTree(top, new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes a) {
                    try {
                        WatchKey key = folder.register(
                                service,
                                StandardWatchEventKinds.ENTRY_CREATE,
                                StandardWatchEventKinds.ENTRY_MODIFY,
                                StandardWatchEventKinds.ENTRY_DELETE);
                        folders.put(key, folder);
                    } catch (IOException e) {
                        complete = false;
                        log.debug("cannot watch {}", folder, e);
                    }
                    return FileVisitResult.CONTINUE;
                }

                @Override
                public FileVisitResult visitFileFailed(Path file, IOException e) {
                    return FileVisitResult.CONTINUE;
                }
            });
        } catch (IOException e) {
            complete = false;
            log.debug("cannot watch below {}", top, e);
        }
    }

    /** Takes what was heard. */
    interface Hearer {
        /** Something happened in this folder, by its path from the root. */
        void changed(String folder);

        /** Events were lost: anything may have happened anywhere. */
        void lost();
    }

    /** Waits for events up to a time and passes on all that came. */
    void hear(Hearer hearer, long nanos) throws InterruptedException {
        try {
            WatchKey key = service.poll(nanos, TimeUnit.NANOSECONDS);
            while (key != null) {
                take(key, hearer);
                key = service.poll();
            }
        } catch (ClosedWatchServiceException e) {
            log.debug("closed while listening", e);
        }
    }

    private void take(WatchKey key, Hearer hearer) {
        Path folder = folders.get(key);
        for (WatchEvent<?> event : key.pollEvents()) {
            if (event.kind() == StandardWatchEventKinds.OVERFLOW || folder == null) {
                hearer.lost();
                continue;
            }
            if (event.context() instanceof Path name && !isOwn(name)) {
                hearer.changed(RawNames.text(root.relativize(folder)));
                Path child = folder.resolve(name);
                boolean isNew = event.kind() == StandardWatchEventKinds.ENTRY_CREATE
                        && Files.isDirectory(child, LinkOption.NOFOLLOW_LINKS);
                if (isNew) {
                    register(child);
                    // Names that came before the watch did are found by looking there.
                    hearer.changed(RawNames.text(root.relativize(child)));
                }
            }
        }
        if (!key.reset()) {
            @Nullable Path gone = folders.remove(key);
            rootGone = rootGone || root.equals(gone);
            log.debug("{} is gone", gone);
        }
    }

    /** Nothing is heard any more; who waits is woken. Any thread may call it. */
    void stop() {
        try {
            service.close();
        } catch (IOException e) {
            log.debug("{} cannot be let go", root, e);
        }
    }

    private static boolean isOwn(Path name) {
        return SafeFolder.isOwnName(name.toString());
    }

    @Override
    public void close() throws IOException {
        service.close();
    }
}
