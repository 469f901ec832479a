package org.mendedleaf.core.capture;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.FolderScans;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.words.Words;

/** Walks through a place and finds the folders whose names, sizes, times or files are not as the last scan saw them. */
final class TreeScanner {

    private static final org.slf4j.Logger log = org.slf4j.LoggerFactory.getLogger(TreeScanner.class);
    /** From so many folders on, two threads look at them. */
    private static final int WORTH_TWO = 4;

    private static final int PROGRESS_STEP = 512;

    /** Folders are followed so deep; each level keeps a folder open and takes some of the stack. */
    static final int DEEPEST = 500;

    /** So many names of one folder are followed; each takes some memory until the folder is put down. */
    private static final int MOST_NAMES = 1_000_000;

    private final Place place;
    private final Exclusions exclusions;
    private final FolderScans known;
    private final Progress progress;
    private final List<FolderScan> changed = new ArrayList<>();
    private final List<String> unreadable = new ArrayList<>();
    private final Map<String, SeenName.Skip> gaps;
    private final int mostNames;
    private final Set<String> looked = new HashSet<>();
    private long files;
    private int sinceProgress;

    /** A walk that compares with {@code known}: what the last scan saw. */
    TreeScanner(Place place, Exclusions exclusions, FolderScans known, Progress progress) {
        this(place, exclusions, known, progress, MOST_NAMES);
    }

    /** A walk that takes at most so many names of one folder. */
    TreeScanner(Place place, Exclusions exclusions, FolderScans known, Progress progress, int mostNames) {
        this(place, exclusions, known, progress, new ConcurrentHashMap<>(), mostNames);
    }

    private TreeScanner(
            Place place,
            Exclusions exclusions,
            FolderScans known,
            Progress progress,
            Map<String, SeenName.Skip> gaps,
            int mostNames) {
        this.gaps = gaps;
        this.mostNames = mostNames;
        this.place = place;
        this.exclusions = exclusions;
        this.known = known;
        this.progress = progress;
    }

    /** Folders that changed, parents before children. */
    List<FolderScan> changed() {
        return changed;
    }

    /** Folders that could not be listed; what is known of them stays as it is. */
    List<String> unreadable() {
        return unreadable;
    }

    /** Files and links that were seen. */
    long files() {
        return files;
    }

    /** Looks at the whole place. */
    void whole() throws IOException {
        try (SafeFolder root = SafeFolder.open(place.root(), "")) {
            look(root, true);
        }
    }

    /** Looks at some folders, and below them only at what is new. */
    void some(Set<String> paths) throws IOException {
        for (String path : paths) {
            try (SafeFolder folder = SafeFolder.open(place.root(), path)) {
                look(folder, false);
            } catch (NoSuchFileException | NotDirectoryException e) {
                // Its parent, which is looked at too, will tell.
                log.debug("{} is gone since", path, e);
            } catch (IOException e) {
                gap(path, e);
            }
        }
    }

    private void look(SafeFolder folder, boolean deep) throws IOException {
        // A folder that is new is found by the one above it, and may be named besides.
        if (progress.isCancelled() || !looked.add(folder.path())) {
            return;
        }
        List<SeenName> seen = new ArrayList<>();
        try {
            folder.list(new Collector(folder.path(), seen));
        } catch (IOException e) {
            if (e instanceof TooManyException && folder.path().isEmpty()) {
                throw new FileSystemException(place.where(), null, Words.of("skipped.TOO_MANY"));
            }
            gap(folder.path(), e);
            return;
        }
        List<SafeChild> below = new ArrayList<>();
        for (int i = 0; i < seen.size(); i++) {
            SeenName s = seen.get(i);
            if (s.isKept() && s.entry().type() == DiskEntry.Type.FOLDER) {
                below.add(new SafeChild(s.name(), i));
            } else if (s.isKept()) {
                files++;
            }
        }
        List<Opened> opened = new ArrayList<>();
        for (SafeChild child : below) {
            openChild(folder, child, seen, opened);
        }
        sinceProgress += seen.size();
        if (sinceProgress > PROGRESS_STEP) {
            progress.advance(sinceProgress, 0);
            sinceProgress = 0;
        }
        if (deep && folder.path().isEmpty() && opened.size() >= WORTH_TWO) {
            onTwoThreads(folder, opened);
        } else {
            below(folder, new ConcurrentLinkedQueue<>(opened), deep);
        }
        // What could not be entered is a gap in the folder above it.
        for (SafeChild child : below) {
            SeenName.Skip gap = gaps.remove(RelativePath.child(folder.path(), child.name()));
            if (gap != null) {
                seen.set(
                        child.index(),
                        new SeenName(child.name(), seen.get(child.index()).entry(), gap));
            }
        }
        seen.sort(Comparator.comparing(SeenName::name));
        byte[] before = known.entries(folder.path());
        if (before == null || !Arrays.equals(before, ScanBlob.encode(seen, Set.of()))) {
            changed.add(new FolderScan(folder.path(), List.copyOf(seen), before));
        }
    }

    private void below(SafeFolder folder, Queue<Opened> children, boolean deep) throws IOException {
        for (Opened child = children.poll(); child != null; child = children.poll()) {
            boolean isNew = !known.isKnown(child.path());
            if ((deep || isNew) && isTooDeep(child.path())) {
                gaps.put(child.path(), new SeenName.Skip(Skipped.Reason.TOO_DEEP.code(), ""));
                unreadable.add(child.path());
            } else if (deep || isNew) {
                try (SafeFolder inside = folder.child(child.name())) {
                    look(inside, true);
                } catch (NoSuchFileException | NotDirectoryException e) {
                    log.debug("{} is gone since", child.path(), e);
                } catch (IOException e) {
                    gap(child.path(), e);
                }
            }
        }
    }

    private static boolean isTooDeep(String path) {
        return path.chars().filter(c -> c == '/').count() >= DEEPEST;
    }

    /** One folder that cannot be read costs itself. */
    private void gap(String path, IOException why) throws IOException {
        if (why instanceof InterruptedIOException) {
            throw why;
        }
        log.info("{} cannot be looked at", path, why);
        unreadable.add(path);
        if (why instanceof TooManyException) {
            gaps.put(path, new SeenName.Skip(Skipped.Reason.TOO_MANY.code(), ""));
            return;
        }
        Skipped.Reason reason =
                why instanceof AccessDeniedException ? Skipped.Reason.NO_PERMISSION : Skipped.Reason.UNREADABLE;
        gaps.put(path, new SeenName.Skip(reason.code(), String.valueOf(why.getMessage())));
    }

    private void onTwoThreads(SafeFolder folder, List<Opened> children) throws IOException {
        Queue<Opened> queue = new ConcurrentLinkedQueue<>(children);
        TreeScanner other = new TreeScanner(place, exclusions, known, progress, gaps, mostNames);
        AtomicReference<@Nullable Throwable> failure = new AtomicReference<>();
        Thread helper = new Thread(
                () -> {
                    try {
                        other.below(folder, queue, true);
                    } catch (IOException | RuntimeException | Error e) {
                        failure.set(e);
                    }
                },
                "look-2");
        helper.start();
        try {
            below(folder, queue, true);
        } finally {
            join(helper);
        }
        Throwable failed = failure.get();
        if (failed instanceof IOException e) {
            throw e;
        } else if (failed != null) {
            throw new IllegalStateException(failed);
        }
        changed.addAll(other.changed);
        unreadable.addAll(other.unreadable);
        files += other.files;
    }

    private static void join(Thread helper) throws InterruptedIOException {
        try {
            helper.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        }
    }

    private record SafeChild(String name, int index) {}

    private record Opened(String name, String path) {}

    /** A folder that we may not enter is listed as skipped in the folder above it. */
    private void openChild(SafeFolder folder, SafeChild child, List<SeenName> seen, List<Opened> opened)
            throws IOException {
        String path = RelativePath.child(folder.path(), child.name());
        DiskEntry entry = seen.get(child.index()).entry();
        // Only folders without read permission for somebody need the trial of opening them.
        if ((entry.mode() & 0b100_000_000) == 0 || (entry.mode() & 0b101_101_101) != 0b101_101_101) {
            try (SafeFolder tried = folder.child(child.name())) {
                opened.add(new Opened(child.name(), tried.path()));
            } catch (AccessDeniedException e) {
                unreadable.add(path);
                seen.set(
                        child.index(),
                        new SeenName(child.name(), entry, new SeenName.Skip(Skipped.Reason.NO_PERMISSION.code(), "")));
            } catch (NoSuchFileException | NotDirectoryException e) {
                opened.add(new Opened(child.name(), path));
            }
        } else {
            opened.add(new Opened(child.name(), path));
        }
    }

    /** A folder has more names than are followed. */
    private static final class TooManyException extends IOException {
        private static final long serialVersionUID = 1;
    }

    private final class Collector implements SafeFolder.Visitor {
        private final String folder;
        private final List<SeenName> into;

        Collector(String folder, List<SeenName> into) {
            this.folder = folder;
            this.into = into;
        }

        @Override
        public void entry(String name, DiskEntry entry) throws IOException {
            if (into.size() == mostNames) {
                throw new TooManyException();
            }
            boolean isFolder = entry.type() == DiskEntry.Type.FOLDER;
            SeenName.Skip skip = exclusions
                    .find(folder, name, isFolder)
                    .map(p -> new SeenName.Skip(Skipped.Reason.LEFT_OUT.code(), p))
                    .orElse(SeenName.Skip.NONE);
            if (entry.type() == DiskEntry.Type.SPECIAL) {
                skip = new SeenName.Skip(Skipped.Reason.SPECIAL.code(), "");
            }
            into.add(new SeenName(name, entry, skip));
        }

        @Override
        public void failed(String name, IOException why) {
            Skipped.Reason reason =
                    why instanceof AccessDeniedException ? Skipped.Reason.NO_PERMISSION : Skipped.Reason.UNREADABLE;
            DiskEntry unknown = new DiskEntry(DiskEntry.Type.FILE, 0, 0, 0, 0);
            into.add(new SeenName(name, unknown, new SeenName.Skip(reason.code(), String.valueOf(why.getMessage()))));
        }
    }
}
