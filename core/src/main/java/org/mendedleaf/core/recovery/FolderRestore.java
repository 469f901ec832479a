package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedDeque;
import java.util.stream.Stream;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.Durable;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RawNames;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/** Writes versions into a folder that need not be protected. What is there is never replaced, since nobody keeps it. */
public final class FolderRestore implements Destination {

    /** Two threads that make files in one folder wait for each other; so one works on it, unless it is large. */
    private static final int BATCH = 256;

    private static final int SYNC_ALL = 16;
    private static final int ROUND_FILES = 4096;
    private static final long ROUND_BYTES = 256L << 20;

    private final OpenVault vault;
    private final Path folder;

    /** Writing into this folder, which is made when it is not there. */
    public FolderRestore(OpenVault vault, Path folder) {
        this.vault = vault;
        this.folder = folder;
    }

    @Override
    public RestorePlan plan(RestoreRequest request, Progress progress) throws IOException {
        boolean fresh = !Files.exists(folder);
        PlanTarget ground = fresh ? TargetView.empty(vault) : new TargetView(vault, this::existing);
        return RestorePlanner.plan(request, ground, TargetFacts.of(folder), progress);
    }

    private Optional<Existing> existing(String path) {
        try (SafeFolder parent = SafeFolder.open(folder, RelativePath.parent(path))) {
            Optional<DiskEntry> disk = parent.find(RelativePath.name(path));
            return disk.map(d -> new Existing(
                    d.type() == DiskEntry.Type.FOLDER ? EntryKind.FOLDER : EntryKind.FILE, Optional.empty(), 0));
        } catch (NoSuchFileException e) {
            return Optional.empty();
        } catch (NotDirectoryException e) {
            return Optional.of(Existing.BLOCKED);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** Restores into the folder, on two threads. */
    @Override
    public RestoreResult restore(RestoreRequest request, Progress progress) throws IOException {
        Optional<RestorePlan> planned = planNow(request, progress);
        if (planned.isEmpty()) {
            return RestoreResult.CANCELLED;
        }
        RestorePlan plan = planned.get();
        if (!plan.preflight().isGood()) {
            throw new IOException(plan.preflight().stops());
        }
        Files.createDirectories(folder);
        progress.begin(Words.of("restore.step"), plan.items().size(), plan.bytes());
        RestoreResult.Item[] results = new RestoreResult.Item[plan.items().size()];
        // A folder that is there already keeps its own times and permissions.
        List<TreeAt.Folder> fresh = request.folders().stream()
                .filter(f -> !Files.exists(RawNames.resolve(folder, f.path())))
                .toList();
        makeFolders(plan, request);
        for (List<List<Integer>> round : rounds(plan)) {
            if (progress.isCancelled()) {
                break;
            }
            Map<Integer, SafeWrite.Written> written = new ConcurrentHashMap<>();
            inTwo(round, batch -> write(plan, batch, results, written, progress));
            // Few files are synced one by one, many by one sync of all.
            boolean synced = written.size() >= SYNC_ALL && Durable.syncAll(folder);
            inTwo(round, batch -> place(plan, batch, results, written, synced));
            progress.advance(round.stream().mapToLong(List::size).sum(), 0);
        }
        setLooks(fresh);
        List<RestoreResult.Item> done =
                Arrays.stream(results).filter(Objects::nonNull).toList();
        return new RestoreResult(0, done, done.size() < results.length);
    }

    /** Folders get their times and permissions when nothing more is put into them, the deepest first. */
    private void setLooks(List<TreeAt.Folder> folders) {
        List<TreeAt.Folder> deepestFirst = new ArrayList<>(folders);
        deepestFirst.sort(Comparator.comparing(TreeAt.Folder::path).reversed());
        for (TreeAt.Folder f : deepestFirst) {
            try (SafeFolder above = SafeFolder.open(folder, RelativePath.parent(f.path()))) {
                above.setAttributes(RelativePath.name(f.path()), f.mtimeNanos(), f.mode());
            } catch (IOException e) {
                org.slf4j.LoggerFactory.getLogger(FolderRestore.class).debug("the look of {}", f.path(), e);
            }
        }
    }

    /** Folders are made before two threads work in them. One that cannot be made fails its files later on. */
    private void makeFolders(RestorePlan plan, RestoreRequest request) {
        Stream.concat(
                        plan.items().stream()
                                .filter(RestorePlan.Item::writes)
                                .map(i -> RelativePath.parent(i.target())),
                        request.folders().stream().map(TreeAt.Folder::path))
                .distinct()
                .forEach(path -> {
                    try {
                        SafeFolder.openOrCreate(folder, path, made -> {}).close();
                    } catch (IOException e) {
                        org.slf4j.LoggerFactory.getLogger(FolderRestore.class).debug("cannot make {}", path, e);
                    }
                });
    }

    /** Items of one folder stay together, in batches for the two threads. */
    private static List<List<Integer>> batches(RestorePlan plan) {
        Map<String, List<Integer>> byFolder = new LinkedHashMap<>();
        for (int i = 0; i < plan.items().size(); i++) {
            byFolder.computeIfAbsent(RelativePath.parent(plan.items().get(i).target()), f -> new ArrayList<>())
                    .add(i);
        }
        List<List<Integer>> batches = new ArrayList<>();
        for (List<Integer> all : byFolder.values()) {
            for (int from = 0; from < all.size(); from += BATCH) {
                batches.add(all.subList(from, Math.min(all.size(), from + BATCH)));
            }
        }
        return batches;
    }

    /** Batches in rounds of a few thousand files or some hundred megabytes. */
    private static List<List<List<Integer>>> rounds(RestorePlan plan) {
        List<List<List<Integer>>> rounds = new ArrayList<>();
        List<List<Integer>> round = new ArrayList<>();
        long files = 0;
        long bytes = 0;
        for (List<Integer> batch : batches(plan)) {
            round.add(batch);
            files += batch.size();
            bytes += batch.stream()
                    .mapToLong(i -> plan.items().get(i).version().size())
                    .sum();
            if (files >= ROUND_FILES || bytes >= ROUND_BYTES) {
                rounds.add(round);
                round = new ArrayList<>();
                files = 0;
                bytes = 0;
            }
        }
        rounds.add(round);
        return rounds;
    }

    private interface Work {
        void of(List<Integer> batch);
    }

    /** Works through batches on two threads, and waits for both. */
    private static void inTwo(List<List<Integer>> batches, Work work) {
        Deque<List<Integer>> left = new ConcurrentLinkedDeque<>(batches);
        Runnable all = () -> {
            for (List<Integer> batch = left.poll(); batch != null; batch = left.poll()) {
                work.of(batch);
            }
        };
        Thread helper = new Thread(all, "restore-2");
        helper.start();
        all.run();
        try {
            helper.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static void fail(RestorePlan plan, List<Integer> batch, RestoreResult.Item[] results, Exception e) {
        for (int i : batch) {
            if (results[i] == null) {
                results[i] = failed(plan.items().get(i), e);
            }
        }
    }

    /** Writes a batch beside its targets. */
    private void write(
            RestorePlan plan,
            List<Integer> batch,
            RestoreResult.Item[] results,
            Map<Integer, SafeWrite.Written> written,
            Progress progress) {
        List<Integer> toWrite = new ArrayList<>();
        for (int i : batch) {
            if (plan.items().get(i).writes()) {
                toWrite.add(i);
            } else {
                results[i] = RestoreResult.Item.untouched(plan.items().get(i));
            }
        }
        if (toWrite.isEmpty() || progress.isCancelled()) {
            return;
        }
        String path = RelativePath.parent(plan.items().get(toWrite.get(0)).target());
        try (Reading reading = vault.read();
                SafeFolder parent = SafeFolder.open(folder, path)) {
            SafeWrite write = new SafeWrite(parent, reading.contents());
            for (int i : toWrite) {
                try {
                    written.put(
                            i,
                            write.write(plan.items().get(i).version(), progress).closed());
                } catch (InterruptedIOException e) {
                    // Cancelled in the middle of it: it is as if it had not been begun.
                    return;
                } catch (IOException | IllegalArgumentException e) {
                    results[i] = failed(plan.items().get(i), e);
                }
            }
        } catch (IOException | IllegalArgumentException e) {
            fail(plan, toWrite, results, e);
        }
    }

    /** Proves what was written of a batch, and moves it into place. */
    private void place(
            RestorePlan plan,
            List<Integer> batch,
            RestoreResult.Item[] results,
            Map<Integer, SafeWrite.Written> written,
            boolean synced) {
        List<Integer> toPlace = batch.stream().filter(written::containsKey).toList();
        if (toPlace.isEmpty()) {
            return;
        }
        String path = RelativePath.parent(plan.items().get(toPlace.get(0)).target());
        try (Reading reading = vault.read();
                SafeFolder parent = SafeFolder.open(folder, path)) {
            SafeWrite write = new SafeWrite(parent, reading.contents());
            for (int i : toPlace) {
                RestorePlan.Item item = plan.items().get(i);
                SafeWrite.Written w = java.util.Objects.requireNonNull(written.get(i));
                try {
                    results[i] = place(write, synced ? w : write.sync(w), item);
                } catch (IOException | IllegalArgumentException e) {
                    write.deleteQuietly(w.name());
                    results[i] = failed(item, e);
                }
            }
            parent.force();
        } catch (IOException e) {
            fail(plan, toPlace, results, e);
        }
    }

    private static RestoreResult.Item place(SafeWrite write, SafeWrite.Written written, RestorePlan.Item item)
            throws IOException {
        write.proveSynced(written);
        String name = RelativePath.name(item.target());
        try {
            write.place(written.name(), name);
        } catch (FileAlreadyExistsException e) {
            write.deleteQuietly(written.name());
            return RestoreResult.Item.failed(item, Words.of("restore.changedMeanwhile"));
        }
        return RestoreResult.Item.done(item);
    }

    private static RestoreResult.Item failed(RestorePlan.Item item, Exception e) {
        return RestoreResult.Item.failed(item, Failures.words(e));
    }

    /**
     * Saves a copy of one version under a name that says which it is, and that nothing has yet.
     *
     * @return the file
     */
    public Path copy(Version version, ZoneId zone, Progress progress) throws IOException {
        String name = FileNames.ofVersion(RelativePath.name(version.path()), version.label(), version.saved(), zone);
        RestoreResult result = restore(List.of(new RestoreItem(version, name)), Collision.KEEP_BOTH, progress);
        if (result.items().isEmpty()) {
            throw new java.io.InterruptedIOException(Words.of("restore.cancelled"));
        }
        RestoreResult.Item item = result.items().get(0);
        if (item.outcome() != RestoreResult.Outcome.DONE) {
            throw new IOException(item.why());
        }
        return RawNames.resolve(folder, item.plan().target());
    }
}
