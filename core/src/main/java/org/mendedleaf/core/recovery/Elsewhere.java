package org.mendedleaf.core.recovery;

import java.io.IOException;
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
import java.util.concurrent.ConcurrentLinkedDeque;
import java.util.stream.Stream;
import org.mendedleaf.core.disk.DiskEntry;
import org.mendedleaf.core.disk.SafeFolder;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;

/** Writes versions into a folder that need not be protected. What is there is never replaced, since nobody keeps it. */
public final class Elsewhere implements Destination {

    private static final int BATCH = 64;

    private final OpenVault vault;
    private final Path folder;

    /** Writing into this folder, which is made when it is not there. */
    public Elsewhere(OpenVault vault, Path folder) {
        this.vault = vault;
        this.folder = folder;
    }

    @Override
    public RestorePlan plan(Order order) {
        boolean fresh = !Files.exists(folder);
        return RestorePlanner.plan(order, fresh ? p -> Optional.empty() : this::existing, TargetFacts.of(folder));
    }

    private Optional<Existing> existing(String path) {
        try (SafeFolder parent = SafeFolder.open(folder, RelativePath.parent(path))) {
            Optional<DiskEntry> disk = parent.find(RelativePath.name(path));
            return disk.map(d -> new Existing(
                    d.type() == DiskEntry.Type.FOLDER ? EntryKind.FOLDER : EntryKind.FILE, Optional.empty(), 0));
        } catch (NoSuchFileException e) {
            return Optional.empty();
        } catch (NotDirectoryException e) {
            return Optional.of(new Existing(EntryKind.FOLDER, Optional.empty(), 0));
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    /** Restores into the folder, on two threads. */
    @Override
    public RestoreResult restore(Order order, Progress progress) throws IOException {
        RestorePlan plan = plan(order);
        if (!plan.preflight().isGood()) {
            throw new IOException(plan.preflight().stops());
        }
        Files.createDirectories(folder);
        progress.begin(Words.of("restore.step"), plan.items().size(), plan.bytes());
        RestoreResult.Item[] results = new RestoreResult.Item[plan.items().size()];
        makeFolders(plan, order);
        Deque<List<Integer>> batches = batches(plan);
        Thread helper = new Thread(() -> work(plan, batches, results, progress), "restore-2");
        helper.start();
        work(plan, batches, results, progress);
        try {
            helper.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        setLooks(order);
        List<RestoreResult.Item> done =
                Arrays.stream(results).filter(Objects::nonNull).toList();
        return new RestoreResult(0, done, done.size() < results.length);
    }

    /** Folders get their times and permissions when nothing more is put into them, the deepest first. */
    private void setLooks(Order order) {
        List<TreeAt.Folder> deepestFirst = new ArrayList<>(order.folders());
        deepestFirst.sort(Comparator.comparing(TreeAt.Folder::path).reversed());
        for (TreeAt.Folder f : deepestFirst) {
            try (SafeFolder above = SafeFolder.open(folder, RelativePath.parent(f.path()))) {
                above.setAttributes(RelativePath.name(f.path()), f.mtimeNanos(), f.mode());
            } catch (IOException e) {
                org.slf4j.LoggerFactory.getLogger(Elsewhere.class).debug("the look of {}", f.path(), e);
            }
        }
    }

    /** Folders are made before two threads work in them. One that cannot be made fails its files later on. */
    private void makeFolders(RestorePlan plan, Order order) {
        Stream.concat(
                        plan.items().stream()
                                .filter(RestorePlan.Item::writes)
                                .map(i -> RelativePath.parent(i.target())),
                        order.folders().stream().map(TreeAt.Folder::path))
                .distinct()
                .forEach(path -> {
                    try {
                        SafeFolder.openOrCreate(folder, path, made -> {}).close();
                    } catch (IOException e) {
                        org.slf4j.LoggerFactory.getLogger(Elsewhere.class).debug("cannot make {}", path, e);
                    }
                });
    }

    /** Items of one folder stay together, in batches that are synced as one: the first sync carries the others. */
    private static Deque<List<Integer>> batches(RestorePlan plan) {
        Map<String, List<Integer>> byFolder = new LinkedHashMap<>();
        for (int i = 0; i < plan.items().size(); i++) {
            byFolder.computeIfAbsent(RelativePath.parent(plan.items().get(i).target()), f -> new ArrayList<>())
                    .add(i);
        }
        Deque<List<Integer>> batches = new ConcurrentLinkedDeque<>();
        for (List<Integer> all : byFolder.values()) {
            for (int from = 0; from < all.size(); from += BATCH) {
                batches.add(all.subList(from, Math.min(all.size(), from + BATCH)));
            }
        }
        return batches;
    }

    private void work(RestorePlan plan, Deque<List<Integer>> batches, RestoreResult.Item[] results, Progress progress) {
        List<Integer> batch = batches.poll();
        while (batch != null && !progress.isCancelled()) {
            try (Reading reading = vault.read()) {
                batch(plan, batch, results, reading, progress);
            } catch (IOException | IllegalArgumentException e) {
                for (int i : batch) {
                    if (results[i] == null) {
                        results[i] = failed(plan.items().get(i), e);
                    }
                }
            }
            progress.advance(batch.size(), 0);
            batch = batches.poll();
        }
    }

    private void batch(
            RestorePlan plan, List<Integer> batch, RestoreResult.Item[] results, Reading reading, Progress progress)
            throws IOException {
        Map<Integer, SafeWrite.Written> written = new LinkedHashMap<>();
        String path = RelativePath.parent(plan.items().get(batch.get(0)).target());
        boolean writes = batch.stream().anyMatch(i -> plan.items().get(i).writes());
        try (SafeFolder parent = SafeFolder.open(folder, writes ? path : "")) {
            SafeWrite write = new SafeWrite(parent, reading.contents());
            for (int i : batch) {
                RestorePlan.Item item = plan.items().get(i);
                if (!item.writes()) {
                    results[i] = RestoreResult.Item.untouched(item);
                    continue;
                }
                try {
                    written.put(i, write.write(item.version(), progress));
                } catch (IOException | IllegalArgumentException e) {
                    results[i] = failed(item, e);
                }
            }
            for (Map.Entry<Integer, SafeWrite.Written> e : written.entrySet()) {
                results[e.getKey()] =
                        place(parent, write, e.getValue(), plan.items().get(e.getKey()));
            }
            parent.force();
        }
    }

    private static RestoreResult.Item place(
            SafeFolder parent, SafeWrite write, SafeWrite.Written written, RestorePlan.Item item) {
        try {
            write.prove(written);
            String name = RelativePath.name(item.target());
            if (parent.find(name).isPresent()) {
                write.deleteQuietly(written.name());
                return new RestoreResult.Item(
                        item, RestoreResult.Outcome.FAILED, 0, Words.of("restore.changedMeanwhile"));
            }
            write.place(written.name(), name);
            return new RestoreResult.Item(item, RestoreResult.Outcome.DONE, 0, "");
        } catch (IOException | IllegalArgumentException e) {
            return failed(item, e);
        }
    }

    private static RestoreResult.Item failed(RestorePlan.Item item, Exception e) {
        return new RestoreResult.Item(item, RestoreResult.Outcome.FAILED, 0, Failures.words(e));
    }

    /**
     * Saves a copy of one version under a name that says which it is, and that nothing has yet.
     *
     * @return the file
     */
    public Path copy(Version version, ZoneId zone, Progress progress) throws IOException {
        String name = FileNames.ofVersion(RelativePath.name(version.path()), version.number(), version.saved(), zone);
        RestoreResult result = restore(List.of(new Wish(version, name)), Collision.KEEP_BOTH, progress);
        if (result.items().isEmpty()) {
            throw new java.io.InterruptedIOException(Words.of("restore.cancelled"));
        }
        RestoreResult.Item item = result.items().get(0);
        if (item.outcome() != RestoreResult.Outcome.DONE) {
            throw new IOException(item.why());
        }
        return folder.resolve(item.plan().target());
    }
}
