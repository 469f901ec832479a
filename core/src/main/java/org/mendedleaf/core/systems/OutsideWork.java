package org.mendedleaf.core.systems;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Existing;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.FoldResult;
import org.mendedleaf.core.recovery.Folding;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.RemovalUndo;
import org.mendedleaf.core.recovery.RestorePlan;
import org.mendedleaf.core.recovery.RestorePlanner;
import org.mendedleaf.core.recovery.RestoreRequest;
import org.mendedleaf.core.recovery.RestoreResult;
import org.mendedleaf.core.recovery.Revision;
import org.mendedleaf.core.recovery.Rollback;
import org.mendedleaf.core.recovery.ThinningUndo;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Work with files of a place in another system, as in a folder. What the system would not keep is taken into the vault
 * before it is replaced, removed or erased. After each piece of work the place is looked at again, so that its lines show
 * what is there.
 */
public final class OutsideWork implements FileWork {

    private final OutsideFiles files;

    /**
     * Work in this place.
     *
     * @param who does it; stands in the journal
     * @throws SystemException.Missing when its system is not connected
     */
    public OutsideWork(OpenVault vault, Place place, SystemRegistry registry, Clock clock, String who)
            throws IOException {
        this.files = new OutsideFiles(vault, place, registry, clock, who);
    }

    /** Looks at the place now. */
    public Mirror.Result look(Progress progress) throws IOException {
        return files.look(progress);
    }

    @Override
    public PutResult put(List<Revision> revisions, Progress progress) throws IOException {
        files.needs(Capability.WRITING);
        return new OutsidePuts(files).put(revisions, progress);
    }

    @Override
    public FoldResult fold(List<Folding> foldings, Progress progress) throws IOException {
        files.needs(Capability.WRITING);
        return new OutsideFolds(files).fold(foldings, progress);
    }

    @Override
    public RestorePlan plan(RestoreRequest request, Progress progress) throws IOException {
        files.needs(Capability.WRITING);
        Map<String, Optional<Existing>> there = new HashMap<>();
        Map<String, Version> wanted = new HashMap<>();
        request.requested().forEach(w -> wanted.put(w.target(), w.version()));
        try (Reading reading = files.vault.read()) {
            return RestorePlanner.plan(
                    request, path -> there.computeIfAbsent(path, p -> existing(reading, p, wanted.get(p))), progress);
        }
    }

    @Override
    public RestorePlan plan(Rollback rollback, Progress progress) throws IOException {
        return plan(request(rollback, progress), progress);
    }

    private RestoreRequest request(Rollback rollback, Progress progress) throws IOException {
        files.needs(Capability.WRITING);
        files.look(progress);
        try (Reading reading = files.vault.read()) {
            return rollback.request(reading, files.place, progress);
        }
    }

    @Override
    public RestoreResult rollBack(Rollback rollback, Progress progress) throws IOException {
        return restore(() -> request(rollback, progress), progress);
    }

    private Optional<Existing> existing(
            Reading reading, String path, @org.jspecify.annotations.Nullable Version wanted) {
        try {
            Optional<Line> line = reading.line(files.place, path)
                    .filter(l -> l.removed().isEmpty() && l.path().equals(path));
            Optional<Version> v = line.flatMap(Line::newest);
            if (v.isPresent()) {
                Digest digest = wanted != null && v.get().sameContent(wanted)
                        ? wanted.digest()
                        : v.get().digest();
                return Optional.of(new Existing(
                        EntryKind.FILE, Optional.of(digest), v.get().line()));
            }
            boolean folder = !reading.folders()
                    .listing(files.place, path, Moment.FAR, false)
                    .isEmpty();
            return folder ? Optional.of(new Existing(EntryKind.FOLDER, Optional.empty(), 0)) : Optional.empty();
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @Override
    public RestoreResult restore(RestoreRequest request, Progress progress) throws IOException {
        files.look(Progress.NONE);
        Optional<RestorePlan> planned = planNow(request, progress);
        if (planned.isEmpty()) {
            return RestoreResult.CANCELLED;
        }
        RestorePlan plan = planned.get();
        progress.begin(Words.of("restore.step"), plan.acting(), plan.bytes());
        Map<String, Integer> before = new LinkedHashMap<>();
        List<RestorePlan.Item> toDo =
                plan.items().stream().filter(RestorePlan.Item::acts).toList();
        for (RestorePlan.Item i : toDo) {
            for (String path : List.of(i.target(), i.other())) {
                if (!path.isEmpty()) {
                    before.put(path, OutsideFiles.current(files.line(path)));
                    files.secure(path);
                }
            }
        }
        Mirror mirror = files.mirror();
        Set<String> written = toDo.stream()
                .filter(RestorePlan.Item::writes)
                .map(RestorePlan.Item::target)
                .collect(Collectors.toSet());
        Map<String, String> failed = Transfers.run(
                toDo,
                RestorePlan.Item::target,
                i -> {
                    carryOut(i, written, mirror);
                    progress.advance(1, i.writes() ? i.version().size() : 0);
                },
                progress);
        mirror.run(Progress.NONE);
        Map<String, Integer> numbers = new LinkedHashMap<>();
        long action = files.note(request.kind(), 0, before, numbers);
        List<RestoreResult.Item> results = new ArrayList<>();
        boolean cancelled = false;
        for (RestorePlan.Item i : plan.items()) {
            String why = failed.getOrDefault(i.target(), i.why());
            if (Transfers.NOT_STARTED.equals(why)) {
                cancelled = true;
                continue;
            }
            RestoreResult.Outcome outcome = !i.acts()
                    ? (i.step() == RestorePlan.Step.REFUSE ? RestoreResult.Outcome.FAILED : RestoreResult.Outcome.LEFT)
                    : failed.containsKey(i.target()) ? RestoreResult.Outcome.FAILED : RestoreResult.Outcome.DONE;
            int number = numbers.getOrDefault(i.target(), 0);
            String label = number == 0
                    ? ""
                    : files.line(i.target()).map(l -> l.label(number)).orElse("");
            results.add(new RestoreResult.Item(i, outcome, number, label, why));
        }
        return new RestoreResult(action, results, cancelled);
    }

    /**
     * Does one of several things that go on at once.
     *
     * @param written paths that one of them writes to: what moves away from there is not removed, since another file may be there by then
     */
    private void carryOut(RestorePlan.Item item, Set<String> written, Mirror mirror) throws IOException {
        switch (item.step()) {
            case REMOVE -> files.remove(item.target());
            case MOVE_BACK -> {
                putBack(item, mirror);
                if (!written.contains(item.other())) {
                    files.remove(item.other());
                }
            }
            case KEEP_BOTH_RENAME_OTHER -> {
                Version there = files.line(item.target()).flatMap(Line::newest).orElseThrow();
                putBack(
                        new RestorePlan.Item(there, item.other(), item.other(), RestorePlan.Step.CREATE, "", ""),
                        mirror);
                putBack(item, mirror);
            }
            default -> putBack(item, mirror);
        }
    }

    /** Within the system where it can, else fetched and put in. */
    private void putBack(RestorePlan.Item item, Mirror mirror) throws IOException {
        Version v = asItIsKept(item.version());
        boolean ownLine = files.line(item.target()).map(l -> l.id() == v.line()).orElse(false);
        v.sha256().ifPresent(sha -> mirror.expect(item.target(), sha, ownLine ? v.number() : 0));
        Optional<Holder> cut = ownLine && v.path().equals(item.target()) ? cutWith(v) : Optional.empty();
        if (cut.isPresent()
                && files.system.takeBack(files.name, cut.get().point(), item.target(), OutsideFiles.key())) {
            return;
        }
        Path temp = TemporaryFiles.file(".content");
        try {
            files.fetch.toFile(v, temp, Progress.NONE);
            Instant modified = Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000));
            Digest sha = OutsideFiles.digest(temp);
            mirror.expect(item.target(), sha, ownLine ? v.number() : 0);
            String note = v.number() == 0 ? v.note() : Words.of("outside.restoredNote", v.label());
            files.putOne(item.target(), temp, sha, modified, note);
        } finally {
            Files.deleteIfExists(temp);
        }
    }

    /** What was planned while only the system had it may be in the vault by now, and there no longer. */
    private Version asItIsKept(Version v) throws IOException {
        if (!v.recipe().isElsewhere()) {
            return v;
        }
        try (Reading reading = files.vault.read()) {
            return reading.version(v.line(), v.number())
                    .map(kept -> kept.looking(v.mtimeNanos(), v.mode()))
                    .orElse(v);
        }
    }

    private Optional<Holder> cutWith(Version v) throws IOException {
        try (Reading reading = files.vault.read()) {
            Line line = reading.line(v.line()).orElseThrow();
            return reading.outside().holders(line).getOrDefault(v.number(), List.of()).stream()
                    .filter(h -> h.kind() == Holder.Kind.CUT)
                    .findFirst();
        }
    }

    @Override
    public Removal remove(List<String> paths) throws IOException {
        files.needs(Capability.WRITING);
        files.look(Progress.NONE);
        Map<String, Integer> before = new LinkedHashMap<>();
        for (String path : paths) {
            before.put(path, OutsideFiles.current(files.line(path)));
            files.secure(path);
        }
        Map<String, String> failed = Transfers.run(paths, p -> p, files::remove, Progress.NONE);
        files.look(Progress.NONE);
        long action = files.note(ActionKind.REMOVED, 0, before, new HashMap<>());
        return new Removal(
                action,
                paths.stream().filter(p -> !failed.containsKey(p)).toList(),
                failed.entrySet().stream()
                        .map(e -> e.getKey() + ": " + e.getValue())
                        .toList());
    }

    @Override
    public Undone undo(Action action, Progress progress) throws IOException {
        if (action.kind() == ActionKind.THINNED) {
            // Only what the vault had of it was let go; in the system nothing has changed.
            return ThinningUndo.run(files.vault, files.place, files.clock, files.who, action);
        }
        return back(action, action, ActionKind.UNDONE);
    }

    @Override
    public Undone redo(Action undo, Progress progress) throws IOException {
        Action original;
        try (Reading reading = files.vault.read()) {
            original = JournalStore.of(reading).get(undo.undoes()).orElseThrow();
        }
        return original.kind() == ActionKind.THINNED
                ? ThinningUndo.again(files.vault, files.place, files.clock, files.who, original, undo)
                : back(undo, original, ActionKind.REDONE);
    }

    private Undone back(Action action, Action about, ActionKind kind) throws IOException {
        files.look(Progress.NONE);
        List<String> done = new ArrayList<>();
        List<String> failed = new ArrayList<>();
        Map<String, Integer> before = new LinkedHashMap<>();
        Mirror mirror = files.mirror();
        List<Action.Item> items = new ArrayList<>(action.items());
        java.util.Collections.reverse(items);
        for (Action.Item item : items) {
            String path = RelativePath.child(item.folder(), item.name());
            before.put(path, OutsideFiles.current(files.line(path)));
            try {
                undo(item, path, mirror);
                done.add(path);
            } catch (IOException e) {
                failed.add(path + ": " + Failures.words(e));
            }
        }
        mirror.run(Progress.NONE);
        files.note(kind, action.id(), before, new HashMap<>());
        if (kind == ActionKind.UNDONE) {
            try (WriteSession session = files.vault.write();
                    Reading reading = files.vault.read()) {
                failed.addAll(RemovalUndo.run(session, reading, action.id()));
                session.commit();
            }
        }
        return new Undone(about, done, failed, false);
    }

    private void undo(Action.Item item, String path, Mirror mirror) throws IOException {
        if (item.before() == 0) {
            files.secure(path);
            files.remove(path);
            return;
        }
        if (item.after() == 0 && files.system.kind().can(Capability.DELETION_POINTS)) {
            files.system.bringBack(files.name, path, OutsideFiles.key());
            return;
        }
        Version version;
        try (Reading reading = files.vault.read()) {
            version = reading.line(item.line())
                    .flatMap(l -> l.version(item.before()))
                    .orElseThrow(() -> new SystemException.Missing(Words.of("fetch.unknown", path)));
        }
        files.secure(path);
        putBack(new RestorePlan.Item(version, path, path, RestorePlan.Step.REPLACE, "", ""), mirror);
    }
}
