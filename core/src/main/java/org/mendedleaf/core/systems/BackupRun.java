package org.mendedleaf.core.systems;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicReference;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Present;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Relation;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * A backup run: what the vault knows of the chosen folders at one moment goes onto a drive. Contents that the drive holds
 * already are only named. A run that was interrupted is gone on with, at its own moment, so that what it keeps was really
 * there together; it is given up when nothing of that moment is kept any more. A file that the drive does not take is left
 * out of the run and named, and the next run tries it again; only a drive that is gone, or takes nothing at all, stops a run.
 */
public final class BackupRun {

    private static final int NAMED_AT_ONCE = 500;

    private final OpenVault vault;
    private final Place set;
    private final OutsideSystem system;
    private final Clock clock;
    private final String name;

    /** A run of this set. */
    public BackupRun(OpenVault vault, Place set, OutsideSystem system, Clock clock) {
        this.vault = vault;
        this.set = set;
        this.system = system;
        this.clock = clock;
        this.name = set.outside().orElseThrow().place();
    }

    /**
     * What a run did.
     *
     * @param files in it
     * @param sent files whose content had to go over
     * @param sentBytes of those
     * @param finished whether it came to its end; when not, it is gone on with next time
     * @param failed files that did not go over, and why; they stand with the place until a run has them
     */
    public record Result(long files, long sent, long sentBytes, boolean finished, Map<String, String> failed) {}

    private record Item(String path, Version version) {}

    /**
     * Runs.
     *
     * @throws SystemException when the drive went away or takes nothing at all; the run stays open there
     */
    public Result run(Progress progress) throws IOException {
        try {
            Result result = carryOut(progress);
            new Mirror(vault, set, system, clock).run(Progress.NONE);
            return result;
        } catch (SystemException e) {
            noteTrouble(e);
            throw e;
        }
    }

    /** A scan that fails in the same way says it where others see it; where it does not, what stopped the run is said. */
    private void noteTrouble(SystemException why) throws IOException {
        if (!(why instanceof SystemException.Full)) {
            try {
                new Mirror(vault, set, system, clock).run(Progress.NONE);
            } catch (SystemException again) {
                org.slf4j.LoggerFactory.getLogger(BackupRun.class).debug("{}", again.words());
                return;
            }
        }
        MirrorNotes.trouble(vault, set, clock.instant(), why);
    }

    private Result carryOut(Progress progress) throws IOException {
        progress.begin(Words.of("backup.looking", set.where()), 0, 0);
        BackupTarget target = system.target();
        Instant now = clock.instant();
        BackupTarget.Run run = target.open(name, now);
        List<Item> items = items(Present.since(run.at(), now));
        if (items.isEmpty() && run.at().isBefore(now)) {
            // What it wanted is no more: other folders were chosen since, or all of it was erased.
            target.giveUp(name, run.id());
            run = target.open(name, now);
            items = items(Present.since(run.at(), now));
        }
        if (items.isEmpty()) {
            target.giveUp(name, run.id());
            throw new IllegalArgumentException(Words.of("backup.nothing", set.where()));
        }
        return carryOut(target, run, items, progress);
    }

    private Result carryOut(BackupTarget target, BackupTarget.Run run, List<Item> items, Progress progress)
            throws IOException {
        List<Item> open =
                items.stream().filter(i -> !run.have().contains(i.path())).toList();
        Map<String, Digest> digests = digests(open);
        List<Item> toSend = new ArrayList<>();
        for (int from = 0; from < open.size(); from += NAMED_AT_ONCE) {
            List<Item> some = open.subList(from, Math.min(open.size(), from + NAMED_AT_ONCE));
            Set<String> missing = target.same(
                    name, run.id(), some.stream().map(i -> named(i, digests)).toList());
            some.stream().filter(i -> missing.contains(i.path())).forEach(toSend::add);
        }
        long bytes = toSend.stream().mapToLong(i -> i.version().size()).sum();
        progress.begin(Words.of("backup.step", set.where()), toSend.size(), bytes);
        AtomicReference<SystemException> stopped = new AtomicReference<>();
        AtomicReference<SystemException> refused = new AtomicReference<>();
        Map<String, String> failed = Transfers.run(
                toSend,
                Item::path,
                i -> {
                    if (stopped.get() == null) {
                        try {
                            send(target, run, i, digests);
                            progress.advance(1, i.version().size());
                        } catch (SystemException e) {
                            if (isGone(e)) {
                                // Without the drive the others need not be tried.
                                stopped.compareAndSet(null, e);
                            }
                            refused.compareAndSet(null, e);
                            throw e;
                        }
                    }
                },
                progress);
        SystemException why = stopped.get();
        if (why != null) {
            throw why;
        }
        boolean cancelled = failed.containsValue(Transfers.NOT_STARTED);
        failed.values().removeIf(Transfers.NOT_STARTED::equals);
        if (!cancelled) {
            why = refused.get();
            if (failed.size() == items.size()) {
                // A run without any file would look as if all of them were removed.
                throw why != null
                        ? why
                        : new IOException(failed.values().iterator().next());
            }
            target.finish(name, run.id(), failed);
        }
        return new Result(items.size(), toSend.size(), bytes, !cancelled, failed);
    }

    /** Whether the drive is gone, and not only unwilling to take one file. */
    private boolean isGone(SystemException why) throws IOException {
        if (why instanceof SystemException.Unplugged) {
            return true;
        }
        if (!(why instanceof SystemException.Unreachable)) {
            return false;
        }
        try {
            system.state();
            return false;
        } catch (SystemException e) {
            return true;
        }
    }

    /** What the chosen folders held at a moment. */
    private List<Item> items(Instant at) throws IOException {
        Map<String, Item> items = new LinkedHashMap<>();
        try (Reading reading = vault.read()) {
            Map<Long, Place> places = new HashMap<>();
            reading.places().forEach(p -> places.put(p.id(), p));
            for (Relation r : reading.outside().relations()) {
                if (r.other() != set.id()) {
                    continue;
                }
                Place from = java.util.Objects.requireNonNull(places.get(r.place()));
                for (Map.Entry<String, Entry> e :
                        reading.folders().tree(from, r.path(), at).entrySet()) {
                    if (e.getValue().kind() == EntryKind.FILE) {
                        String path = r.there(from.id(), e.getKey()).orElseThrow();
                        Version v = reading.line(e.getValue().line())
                                .flatMap(l -> l.version(e.getValue().number()))
                                .orElseThrow();
                        if (!v.recipe().isElsewhere()) {
                            items.put(path, new Item(path, v));
                        }
                    }
                }
            }
        }
        return List.copyOf(items.values());
    }

    private Map<String, Digest> digests(List<Item> items) throws IOException {
        Map<String, Digest> digests = new HashMap<>();
        try (Reading reading = vault.read()) {
            for (Item i : items) {
                Version v = i.version();
                digests.put(
                        i.path(),
                        v.sha256().isPresent()
                                ? v.sha256().get()
                                : reading.contents().sha256(v.recipe()));
            }
        }
        return digests;
    }

    private static Instant modified(Version v) {
        return Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000));
    }

    private static OutsideSystem.InTree named(Item i, Map<String, Digest> digests) {
        return new OutsideSystem.InTree(
                i.path(),
                i.version().size(),
                modified(i.version()),
                i.version().who(),
                Optional.ofNullable(digests.get(i.path())),
                "");
    }

    private void send(BackupTarget target, BackupTarget.Run run, Item item, Map<String, Digest> digests)
            throws IOException {
        Path temp = TemporaryFiles.file(".content");
        try {
            try (Reading reading = vault.read();
                    FileChannel out = FileChannel.open(temp, StandardOpenOption.WRITE)) {
                reading.contents().copy(item.version().recipe(), out);
            }
            Digest sha = java.util.Objects.requireNonNull(digests.get(item.path()));
            // Who saved it goes along where a note would.
            target.add(
                    name,
                    run.id(),
                    new OutsideSystem.Put(
                            item.path(),
                            OutsideFiles.fileBytes(temp),
                            sha,
                            modified(item.version()),
                            item.version().who(),
                            UUID.randomUUID().toString()));
        } finally {
            Files.deleteIfExists(temp);
        }
    }

    /** Declares that a folder is backed up into this set. */
    public static Relation relation(Place folder, String path, Place set) {
        return new Relation(folder.id(), path, set.id(), path.isEmpty() ? folder.name() : RelativePath.name(path));
    }
}
