package org.mendedleaf.core.recovery;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.Scope;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.LetGoStore;
import org.mendedleaf.core.line.LineWriter;
import org.mendedleaf.core.line.LiveEntry;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.RelativePath;
import org.mendedleaf.core.line.RemarkStore;
import org.mendedleaf.core.line.Stage;
import org.mendedleaf.core.line.TreeAt;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.line.WriteSession;
import org.mendedleaf.core.rules.Deed;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.rules.Rights;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.snapshots.Snapshots;
import org.mendedleaf.core.words.Words;

/**
 * Brings earlier contents back into a protected folder, removes files recoverably, and undoes both.
 *
 * <p>Before anything is touched, what is live and not yet captured is captured. Each file is written beside its target,
 * synced, read back, compared; the journal says what will be changed; then it is moved into place, and its point is put
 * down. A crash in between leaves either the old content or the new one, both of them in the vault, and an action that
 * can be undone.
 */
public final class Recovery implements FileWork {

    private final OpenVault vault;
    private final Place place;
    private final Clock clock;
    private final Authors authors;
    private final String who;

    /**
     * Recovery within a place.
     *
     * @param who does it; stands at the new points and in the journal
     */
    public Recovery(OpenVault vault, Place place, Clock clock, Authors authors, String who) {
        this.vault = vault;
        this.place = place;
        this.clock = clock;
        this.authors = authors;
        this.who = who;
    }

    @Override
    public RestorePlan plan(Order order) throws IOException {
        try (Reading reading = vault.read()) {
            LiveView live = new LiveView(reading, place);
            return RestorePlanner.plan(order, live::existing, TargetFacts.of(place.root()));
        }
    }

    @Override
    public RestorePlan plan(Rollback rollback, Progress progress) throws IOException {
        return plan(order(rollback, progress));
    }

    /** What is to be done for it, after a look at what is there now. */
    private Order order(Rollback rollback, Progress progress) throws IOException {
        new Capture(vault, place, clock, authors).run(Scope.WHOLE, progress);
        try (Reading reading = vault.read()) {
            return rollback.order(reading, place);
        }
    }

    @Override
    public RestoreResult rollBack(Rollback rollback, Progress progress) throws IOException {
        return restore(order(rollback, progress), progress);
    }

    @Override
    public RestoreResult restore(Order order, Progress progress) throws IOException {
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            allowed(session, Deed.CHANGE);
            InPlace files = files(session, reading);
            List<String> paths =
                    new ArrayList<>(order.wishes().stream().map(Wish::target).toList());
            order.late().forEach(l -> paths.add(l.path()));
            order.wishes().stream().map(Wish::from).filter(f -> !f.isEmpty()).forEach(paths::add);
            files.captureFirst(paths);
            RestorePlan plan = RestorePlanner.plan(order, path -> existing(files, path), TargetFacts.of(place.root()));
            if (!plan.preflight().isGood()) {
                throw new IOException(plan.preflight().stops());
            }
            progress.begin(Words.of("restore.step"), plan.acting(), plan.bytes());
            Noting noting = new Noting(session, place, clock, who, order.kind(), true);
            return carryOut(files, reading, order, plan, noting, progress);
        }
    }

    private static Optional<Existing> existing(InPlace files, String path) {
        try {
            return files.existing(path);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A plan as tasks, each with the item that it is for; a folder has none. */
    private record Steps(List<Task> tasks, List<Integer> items) {
        void add(Task task, int item) {
            tasks.add(task);
            items.add(item);
        }
    }

    private static Steps steps(InPlace files, Reading reading, Order order, RestorePlan plan) throws IOException {
        Steps steps = new Steps(new ArrayList<>(), new ArrayList<>());
        for (int i = 0; i < plan.items().size(); i++) {
            RestorePlan.Item item = plan.items().get(i);
            switch (item.step()) {
                case REMOVE -> steps.add(new Task.Remove(item.target()), i);
                case MOVE_BACK -> steps.add(new Task.Put(item.version(), item.target(), true, item.other()), i);
                case REPLACE -> steps.add(new Task.Put(item.version(), item.target(), true, ""), i);
                case CREATE, KEEP_BOTH -> steps.add(new Task.Put(item.version(), item.target(), false, ""), i);
                case KEEP_BOTH_RENAME_OTHER -> {
                    LiveEntry live = files.live(item.target()).orElseThrow();
                    Version there = reading.version(live.line(), live.number())
                            .orElseThrow()
                            .looking(live.mtimeNanos(), live.mode());
                    // The line stays with its name; what was there begins one of its own beside it.
                    String note = Words.of("restore.besideNote", RelativePath.name(item.target()), there.number());
                    steps.add(new Task.Put(there.borrowed(0, note), item.other(), false, ""), -1);
                    steps.add(new Task.Put(item.version(), item.target(), true, ""), i);
                }
                default -> {
                    // Nothing happens to it.
                }
            }
        }
        order.folders().forEach(f -> steps.add(new Task.MakeFolder(f), -1));
        order.lateFolders().forEach(f -> steps.add(new Task.RemoveFolder(f), -1));
        return steps;
    }

    private static RestoreResult carryOut(
            InPlace files, Reading reading, Order order, RestorePlan plan, Noting noting, Progress progress)
            throws IOException {
        Steps steps = steps(files, reading, order, plan);
        List<Task.Outcome> outcomes = files.run(steps.tasks(), noting, progress);
        Map<Integer, Task.Outcome> byItem = new HashMap<>();
        for (int i = 0; i < outcomes.size(); i++) {
            if (steps.items().get(i) >= 0) {
                byItem.put(steps.items().get(i), outcomes.get(i));
            }
        }
        List<RestoreResult.Item> results = new ArrayList<>();
        boolean cancelled = outcomes.size() < steps.tasks().size() || outcomes.contains(Task.Outcome.CANCELLED);
        for (int i = 0; i < plan.items().size(); i++) {
            RestorePlan.Item item = plan.items().get(i);
            Task.Outcome outcome = byItem.get(i);
            if (Task.Outcome.CANCELLED.equals(outcome)) {
                continue;
            }
            if (outcome != null) {
                results.add(new RestoreResult.Item(
                        item,
                        outcome.isGood() ? RestoreResult.Outcome.DONE : RestoreResult.Outcome.FAILED,
                        outcome.number(),
                        outcome.why()));
            } else if (!item.acts()) {
                results.add(RestoreResult.Item.untouched(item));
            }
        }
        return new RestoreResult(noting.action(), results, cancelled);
    }

    /**
     * Puts one file in.
     *
     * @param note that shall stand at the version; empty for none
     * @return number of the version; that of the current one when the content is the same
     * @throws IOException in words, when it cannot be put in
     */
    public int put(Path file, String path, String note, Progress progress) throws IOException {
        PutResult result = put(List.of(new Revision(file, path, note)), progress);
        if (!result.failed().isEmpty()) {
            throw new IOException(result.failed().get(path));
        }
        return Objects.requireNonNull(result.numbers().get(path), "expected a number of what was put in");
    }

    @Override
    public PutResult put(List<Revision> revisions, Progress progress) throws IOException {
        return put(revisions, ActionKind.PUT, Origin.UPLOADED, progress);
    }

    /**
     * Takes safety copies that programs left as versions of the files they belong to, or brings those back by them.
     *
     * @return as of putting in
     */
    public PutResult adopt(List<Revision> copies, Progress progress) throws IOException {
        return put(copies, ActionKind.ADOPTED, Origin.ADOPTED, progress);
    }

    private PutResult put(List<Revision> revisions, ActionKind kind, Origin origin, Progress progress)
            throws IOException {
        Set<String> paths = new LinkedHashSet<>();
        for (Revision r : revisions) {
            if (!paths.add(r.path())) {
                throw new IllegalArgumentException(Words.of("put.twice", r.path()));
            }
        }
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            Rights rights = allowed(session, Deed.CHANGE);
            if (revisions.stream().anyMatch(r -> r.stage() == Stage.PUBLISHED)) {
                rights.require(Deed.PUBLISH);
            }
            boolean draft = revisions.stream().anyMatch(r -> r.stage() == Stage.DRAFT);
            if (draft && !rights.settings().get(Setting.NUMBERING).equals("drafts")) {
                throw new IllegalArgumentException(Words.of("put.noDrafts", place.label()));
            }
            InPlace files = files(session, reading);
            List<String> seen = new ArrayList<>(paths);
            for (Revision r : revisions) {
                Path file = r.file().toAbsolutePath().normalize();
                if (r.take() && file.startsWith(place.root()) && !file.equals(place.root())) {
                    seen.add(place.root().relativize(file).toString());
                }
            }
            files.captureFirst(seen);
            return new PutWork(session, place, files, clock, who, kind, origin).run(revisions, progress);
        }
    }

    @Override
    public FoldResult fold(List<Folding> foldings, Progress progress) throws IOException {
        Set<String> paths = new LinkedHashSet<>();
        for (Folding f : foldings) {
            Set<String> own = new LinkedHashSet<>(f.order());
            own.add(f.keep());
            for (String path : own) {
                if (!paths.add(path)) {
                    throw new IllegalArgumentException(Words.of("fold.twice", path));
                }
            }
        }
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            allowed(session, Deed.CHANGE);
            InPlace files = files(session, reading);
            files.captureFirst(List.copyOf(paths));
            Noting noting = new Noting(session, place, clock, who, ActionKind.FOLDED, true);
            return new FoldWork(files, reading, noting, clock.getZone()).run(foldings, progress);
        }
    }

    /** Removes files from their folders; their lines get a removal point and lose nothing. */
    @Override
    public Removal remove(List<String> paths) throws IOException {
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            allowed(session, Deed.CHANGE);
            InPlace files = files(session, reading);
            files.captureFirst(paths);
            Noting noting = new Noting(session, place, clock, who, ActionKind.REMOVED, true);
            List<Task> tasks =
                    paths.stream().map(p -> (Task) new Task.Remove(p)).toList();
            List<Task.Outcome> outcomes = files.run(tasks, noting, Progress.NONE);
            List<String> removed = new ArrayList<>();
            List<String> failed = new ArrayList<>();
            for (int i = 0; i < paths.size(); i++) {
                if (outcomes.get(i).isGood()) {
                    removed.add(paths.get(i));
                } else {
                    failed.add(paths.get(i) + ": " + outcomes.get(i).why());
                }
            }
            return new Removal(noting.action(), removed, failed);
        }
    }

    @Override
    public Undone undo(Action action, Progress progress) throws IOException {
        if (action.kind() == ActionKind.SNAPSHOT_ERASED) {
            return new Undone(action, new Snapshots(vault, place, clock, authors, who).bringBack(action), List.of());
        }
        if (action.kind() == ActionKind.PUBLISHED || action.kind() == ActionKind.NOTED) {
            return sayBack(action);
        }
        if (action.kind() == ActionKind.THINNED) {
            return LetGoBack.run(vault, place, clock, who, action);
        }
        try (WriteSession session = vault.write();
                Reading reading = vault.read()) {
            allowed(session, Deed.CHANGE);
            if (action.kind() == ActionKind.LET_GO) {
                LetGoStore.back(session, action.id());
                session.commit();
            }
            InPlace files = files(session, reading);
            List<Action.Item> items = firstOfEach(action.items());
            files.captureFirst(items.stream().map(Recovery::path).toList());
            List<Task> tasks = new ArrayList<>();
            for (Action.Item item : items) {
                if (action.kind() == ActionKind.LET_GO && item.before() == item.after()) {
                    // Only the past of that file was let go; what it holds now stays.
                    continue;
                }
                back(files, reading, item, action.at()).ifPresent(tasks::add);
            }
            progress.begin(Words.of("job.undo"), tasks.size(), 0);
            Noting noting = new Noting(session, place, clock, who, ActionKind.UNDONE, false);
            List<Task.Outcome> outcomes = files.run(tasks, noting, progress);
            List<String> failed = new ArrayList<>();
            Set<String> done = new LinkedHashSet<>();
            items.stream().filter(i -> i.line() != 0).forEach(i -> done.add(path(i)));
            for (int i = 0; i < tasks.size(); i++) {
                boolean good = i < outcomes.size() && outcomes.get(i).isGood();
                if (!good) {
                    done.remove(tasks.get(i).path());
                    String why = i < outcomes.size() ? outcomes.get(i).why() : Words.of("restore.cancelled");
                    failed.add(tasks.get(i).path() + ": " + why);
                }
            }
            // Noted at the end: one that was cut short can be undone again.
            if (outcomes.size() == tasks.size()) {
                failed.addAll(TakenBack.run(session, reading, action.id()));
                noting.begin(action.id());
                session.commit();
            }
            return new Undone(action, List.copyOf(done), failed);
        }
    }

    /** Takes back what was only said of versions: that they are published, and their notes. */
    private Undone sayBack(Action action) throws IOException {
        try (WriteSession session = vault.write()) {
            boolean published = action.kind() == ActionKind.PUBLISHED;
            allowed(session, published ? Deed.PUBLISH : Deed.NOTE);
            LineWriter lines = new LineWriter(session);
            List<String> failed = new ArrayList<>();
            List<String> done = new ArrayList<>();
            for (Action.Item item : action.items()) {
                // What came later counts on that number.
                boolean newest = lines.liveLine(item.line())
                        .filter(l -> l.number() == item.after())
                        .isPresent();
                if (published && !newest) {
                    failed.add(Words.of("publish.notBack", path(item)));
                    continue;
                }
                if (published) {
                    lines.unpublish(item.line(), item.after());
                }
                done.add(path(item));
            }
            if (failed.isEmpty()) {
                RemarkStore.of(session).noteBack(session, action.id());
                new Noting(session, place, clock, who, ActionKind.UNDONE, false).begin(action.id());
                session.commit();
            }
            return new Undone(action, failed.isEmpty() ? done : List.of(), failed);
        }
    }

    /** Items the other way round; of several of one file under one name the first alone says what was there before. */
    private static List<Action.Item> firstOfEach(List<Action.Item> all) {
        Map<String, Action.Item> first = new LinkedHashMap<>();
        for (Action.Item i : all) {
            first.putIfAbsent(i.line() + "/" + path(i), i);
        }
        List<Action.Item> items = new ArrayList<>(first.values());
        java.util.Collections.reverse(items);
        return items;
    }

    /** What this person may do here, when she may do this. */
    private Rights allowed(WriteSession session, Deed deed) throws IOException {
        Rights rights = PlaceRules.of(session, place).rights(who, place);
        rights.require(deed);
        return rights;
    }

    private static String path(Action.Item item) {
        return RelativePath.child(item.folder(), item.name());
    }

    /** What takes one item back; nothing when it is as it was. */
    private Optional<Task> back(InPlace files, Reading reading, Action.Item item, Instant began) throws IOException {
        String path = path(item);
        Optional<LiveEntry> live = files.live(path);
        if (item.line() == 0) {
            if (item.before() != 0) {
                return live.isPresent() ? Optional.empty() : Optional.of(folderAgain(files, item));
            }
            if (live.isEmpty()) {
                return Optional.empty();
            }
            if (live.get().kind() == EntryKind.FOLDER) {
                return Optional.of(new Task.RemoveFolder(path));
            }
            // A new file that was cut off by a kill before its line was noted: nobody knew it before this action.
            boolean ours = reading.line(live.get().line())
                    .filter(l -> l.versions().size() == 1
                            && !l.versions().get(0).captured().isBefore(began))
                    .isPresent();
            return ours ? Optional.of(new Task.Remove(path)) : Optional.empty();
        }
        boolean there = live.isPresent() && live.get().line() == item.line();
        if (item.before() == 0) {
            return there ? Optional.of(new Task.Remove(path)) : Optional.empty();
        }
        Version before = reading.version(item.line(), item.before()).orElseThrow();
        long folder = files.lines().folder(place, item.folder());
        Optional<LineWriter.Look> look = files.lines().look(folder, item.name(), item.line(), item.before());
        Version wanted = look.map(l -> before.looking(l.mtimeNanos(), l.mode())).orElse(before);
        if (there
                && live.get().mtimeNanos() == wanted.mtimeNanos()
                && live.get().mode() == wanted.mode()
                && files.lines()
                        .content(item.line(), live.get().number())
                        .digest()
                        .equals(before.digest())) {
            return Optional.empty();
        }
        return Optional.of(new Task.Put(wanted, path, true, ""));
    }

    private Task folderAgain(InPlace files, Action.Item item) throws IOException {
        long parent = files.lines().folder(place, item.folder());
        LineWriter.Look look = files.lines()
                .look(parent, item.name(), 0, 0)
                .orElse(new LineWriter.Look(clock.millis() * 1_000_000, 0755));
        return new Task.MakeFolder(new TreeAt.Folder(path(item), look.mtimeNanos(), look.mode()));
    }

    private InPlace files(WriteSession session, Reading reading) throws IOException {
        Rights rights = PlaceRules.of(session, place).rights(who, place);
        return new InPlace(vault, session, place, clock, authors, rights, reading.contents());
    }
}
