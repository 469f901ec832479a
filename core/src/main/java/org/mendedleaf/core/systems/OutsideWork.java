package org.mendedleaf.core.systems;

import java.io.IOException;
import java.io.InputStream;
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
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.HeldLines;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.LineWriter;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideWriter;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.disk.TemporaryFiles;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.journal.ActionKind;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.Existing;
import org.mendedleaf.core.recovery.Failures;
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
import org.mendedleaf.core.rules.PlaceSettings;
import org.mendedleaf.core.rules.Setting;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Words;

/**
 * Work with files of a place in another system, as in a folder. What the system would not keep is taken into the vault
 * before it is replaced, removed or erased. After each piece of work the place is looked at again, so that its lines show
 * what is there.
 */
public final class OutsideWork implements FileWork {

    /** So often is asked anew when somebody saves at the same moment. */
    private static final int TRIES = 3;

    private final OpenVault vault;
    private final Place place;
    private final OutsideSystem system;
    private final Clock clock;
    private final String who;
    private final String name;
    private final ContentFetch fetch;
    private volatile @Nullable Map<String, OutsideWriter.Known> known;

    /**
     * Work in this place.
     *
     * @param who does it; stands in the journal
     * @throws SystemException.Missing when its system is not connected
     */
    public OutsideWork(OpenVault vault, Place place, SystemRegistry registry, Clock clock, String who)
            throws IOException {
        this.vault = vault;
        this.place = place;
        this.system = registry.system(place);
        this.clock = clock;
        this.who = who;
        this.name = place.outside().orElseThrow().place();
        this.fetch = new ContentFetch(vault, registry);
    }

    private Mirror mirror() {
        return new Mirror(vault, place, system, clock);
    }

    /** Looks at the place now. */
    public Mirror.Result look(Progress progress) throws IOException {
        Mirror.Result result = mirror().run(progress);
        known = null;
        return result;
    }

    /** What is at a path as it was seen last, so that nothing is replaced or removed that nobody keeps. */
    private OutsideSystem.Before before(String path) throws IOException {
        if (system.kind() != SystemKind.WEBDAV && system.kind() != SystemKind.FILE_SERVER) {
            return OutsideSystem.Before.ANYTHING;
        }
        Map<String, OutsideWriter.Known> tags = known;
        try (Reading reading = vault.read()) {
            if (tags == null) {
                tags = reading.outside().files(place);
                known = tags;
            }
            Optional<Version> live =
                    reading.line(place, path).filter(l -> l.removed().isEmpty()).flatMap(Line::newest);
            OutsideWriter.Known file = tags.get(path);
            return live.isEmpty()
                    ? OutsideSystem.Before.NOTHING
                    : OutsideSystem.Before.of(
                            file == null ? "" : file.tag(), live.get().sha256());
        }
    }

    /** Does something to a file that is as it was seen last. Where it is not, what it is now is kept first. */
    private void unlessChanged(String path, Changing changing) throws IOException {
        for (int i = 1; ; i++) {
            try {
                changing.change(before(path));
                return;
            } catch (SystemException.Conflict e) {
                if (i == TRIES) {
                    throw e;
                }
                look(Progress.NONE);
                secure(path);
            }
        }
    }

    private interface Changing {
        void change(OutsideSystem.Before before) throws IOException;
    }

    /** Removes a file, once what it is now is kept. */
    void remove(String path) throws IOException {
        unlessChanged(path, before -> system.remove(name, path, before, key()));
    }

    static String key() {
        return UUID.randomUUID().toString();
    }

    private void needs(Capability capability) throws SystemException {
        if (!system.kind().can(capability)) {
            throw new SystemException.Unable(Words.of(
                    "system.unable", Words.of("system.kind." + system.kind().text())));
        }
    }

    Optional<Line> line(String path) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.line(place, path);
        }
    }

    static int current(Optional<Line> line) {
        return line.filter(l -> l.removed().isEmpty())
                .flatMap(Line::newest)
                .map(Version::number)
                .orElse(0);
    }

    @Override
    public PutResult put(List<Revision> revisions, Progress progress) throws IOException {
        needs(Capability.WRITING);
        return new OutsidePuts(this, vault, system, clock).put(revisions, progress);
    }

    @Override
    public FoldResult fold(List<Folding> foldings, Progress progress) throws IOException {
        needs(Capability.WRITING);
        return new OutsidePuts(this, vault, system, clock).fold(foldings, progress);
    }

    Place place() {
        return place;
    }

    /** The name of the place in its system. */
    String name() {
        return name;
    }

    /** Whether there are drafts between whole versions here. */
    boolean hasDrafts() throws IOException {
        try (Reading reading = vault.read()) {
            return system.kind().can(Capability.DRAFTS)
                    && OutsidePlaceState.of(reading, place)
                            .filter(f -> f.settings().get(Setting.NUMBERING).equals("drafts"))
                            .isPresent();
        }
    }

    static Digest digest(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return Digest.of(in);
        }
    }

    /** Puts one content in; returns the id of the version there. */
    String putOne(String path, Path file, Digest sha256, Instant modified, String note) throws IOException {
        String key = key();
        String[] point = {""};
        int[] tries = {0};
        unlessChanged(path, before -> {
            boolean there = tries[0]++ > 0
                    && before.expected() == OutsideSystem.Before.Expected.THIS
                    && before.sha256().filter(sha256::equals).isPresent();
            // A server that keeps no versions has this content already: a request came through whose answer did not.
            point[0] = there
                    ? ""
                    : system.put(
                            name, new OutsideSystem.Put(path, fileBytes(file), sha256, modified, note, key, before));
        });
        return point[0];
    }

    /** Puts the content of a version in under a path, from wherever it is held. */
    void putContent(String path, Version v, String note) throws IOException {
        Path temp = TemporaryFiles.file(".content");
        try {
            fetch.toFile(v, temp, Progress.NONE);
            Instant modified = Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000));
            putOne(path, temp, digest(temp), modified, note);
        } finally {
            Files.deleteIfExists(temp);
        }
    }

    static OutsideSystem.Bytes fileBytes(Path file) {
        return new OutsideSystem.Bytes() {
            @Override
            public long size() throws IOException {
                return Files.size(file);
            }

            @Override
            public InputStream open() throws IOException {
                return Files.newInputStream(file);
            }
        };
    }

    /** Takes what is live into the vault, when the system would not keep it once it is replaced or removed. */
    void secure(String path) throws IOException {
        Optional<Line> line = line(path);
        Optional<Version> live = line.filter(l -> l.removed().isEmpty())
                .flatMap(Line::newest)
                .filter(v -> v.recipe().isElsewhere());
        if (live.isPresent() && !keeps(line.get(), live.get())) {
            fetch.intoVault(live.get(), Progress.NONE);
        }
    }

    private boolean keeps(Line line, Version version) throws IOException {
        try (Reading reading = vault.read()) {
            boolean inCut = reading.outside().holders(line).getOrDefault(version.number(), List.of()).stream()
                    .anyMatch(h -> h.kind() == Holder.Kind.CUT);
            boolean versioned = system.kind().can(Capability.VERSIONS)
                    && OutsidePlaceState.of(reading, place)
                            .map(f -> keepsReplaced(f.settings()))
                            .orElse(false);
            return inCut || versioned;
        }
    }

    /** Whether what is replaced or removed stays for a while; a limit of one version keeps nothing that is replaced. */
    private static boolean keepsReplaced(PlaceSettings settings) {
        return settings.get(Setting.VERSIONING).equals("on")
                && settings.number(Setting.KEEP_VERSIONS) != 1
                && settings.number(Setting.REMOVED_DAYS) != 0;
    }

    /** Notes what changed in the journal, by what the lines show now; returns the action. */
    long note(ActionKind kind, long undoes, Map<String, Integer> before, Map<String, Integer> numbers)
            throws IOException {
        record Changed(String path, long line, int before, int after) {}
        List<Changed> changed = new ArrayList<>();
        for (Map.Entry<String, Integer> e : before.entrySet()) {
            Optional<Line> line = line(e.getKey());
            int after = current(line);
            if (line.isPresent() && after != e.getValue()) {
                changed.add(new Changed(e.getKey(), line.get().id(), e.getValue(), after));
                numbers.put(e.getKey(), after);
            }
        }
        if (changed.isEmpty() && undoes == 0) {
            return 0;
        }
        try (WriteSession session = vault.write()) {
            long id = JournalStore.begin(
                    session, new Action(0, clock.instant(), who, kind, place.id(), undoes, false, List.of()));
            LineWriter lines = new LineWriter(session);
            int seq = 0;
            for (Changed c : changed) {
                long folder = lines.folder(place, RelativePath.parent(c.path()));
                JournalStore.add(
                        session,
                        id,
                        seq++,
                        folder,
                        new Action.Item(c.line(), "", RelativePath.name(c.path()), c.before(), c.after()));
            }
            session.commit();
            return id;
        }
    }

    @Override
    public RestorePlan plan(RestoreRequest request) throws IOException {
        needs(Capability.WRITING);
        Map<String, Optional<Existing>> there = new HashMap<>();
        Map<String, Version> wanted = new HashMap<>();
        request.requested().forEach(w -> wanted.put(w.target(), w.version()));
        try (Reading reading = vault.read()) {
            return RestorePlanner.plan(
                    request, path -> there.computeIfAbsent(path, p -> existing(reading, p, wanted.get(p))));
        }
    }

    @Override
    public RestorePlan plan(Rollback rollback, Progress progress) throws IOException {
        return plan(request(rollback, progress));
    }

    private RestoreRequest request(Rollback rollback, Progress progress) throws IOException {
        needs(Capability.WRITING);
        look(progress);
        try (Reading reading = vault.read()) {
            return rollback.request(reading, place);
        }
    }

    @Override
    public RestoreResult rollBack(Rollback rollback, Progress progress) throws IOException {
        return restore(request(rollback, progress), progress);
    }

    private Optional<Existing> existing(
            Reading reading, String path, @org.jspecify.annotations.Nullable Version wanted) {
        try {
            Optional<Line> line = reading.line(place, path)
                    .filter(l -> l.removed().isEmpty() && l.path().equals(path));
            Optional<Version> v = line.flatMap(Line::newest);
            if (v.isPresent()) {
                Digest digest = wanted != null && v.get().sameContent(wanted)
                        ? wanted.digest()
                        : v.get().digest();
                return Optional.of(new Existing(
                        EntryKind.FILE, Optional.of(digest), v.get().line()));
            }
            boolean folder =
                    !reading.folders().listing(place, path, Moment.FAR, false).isEmpty();
            return folder ? Optional.of(new Existing(EntryKind.FOLDER, Optional.empty(), 0)) : Optional.empty();
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    @Override
    public RestoreResult restore(RestoreRequest request, Progress progress) throws IOException {
        look(Progress.NONE);
        RestorePlan plan = plan(request);
        progress.begin(Words.of("restore.step"), plan.acting(), plan.bytes());
        Map<String, Integer> before = new LinkedHashMap<>();
        List<RestorePlan.Item> toDo =
                plan.items().stream().filter(RestorePlan.Item::acts).toList();
        for (RestorePlan.Item i : toDo) {
            for (String path : List.of(i.target(), i.other())) {
                if (!path.isEmpty()) {
                    before.put(path, current(line(path)));
                    secure(path);
                }
            }
        }
        Mirror mirror = mirror();
        Map<String, String> failed = Transfers.run(
                toDo,
                RestorePlan.Item::target,
                i -> {
                    carryOut(i, mirror);
                    progress.advance(1, i.writes() ? i.version().size() : 0);
                },
                progress);
        mirror.run(Progress.NONE);
        Map<String, Integer> numbers = new LinkedHashMap<>();
        long action = note(request.kind(), 0, before, numbers);
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
                    : line(i.target()).map(l -> l.label(number)).orElse("");
            results.add(new RestoreResult.Item(i, outcome, number, label, why));
        }
        return new RestoreResult(action, results, cancelled);
    }

    private void carryOut(RestorePlan.Item item, Mirror mirror) throws IOException {
        switch (item.step()) {
            case REMOVE -> remove(item.target());
            case MOVE_BACK -> {
                putBack(item, mirror);
                remove(item.other());
            }
            case KEEP_BOTH_RENAME_OTHER -> {
                Version there = line(item.target()).flatMap(Line::newest).orElseThrow();
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
        Version v = item.version();
        boolean ownLine = line(item.target()).map(l -> l.id() == v.line()).orElse(false);
        v.sha256().ifPresent(sha -> mirror.expect(item.target(), sha, ownLine ? v.number() : 0));
        Optional<Holder> cut = ownLine && v.path().equals(item.target()) ? cutWith(v) : Optional.empty();
        if (cut.isPresent() && system.takeBack(name, cut.get().point(), item.target(), key())) {
            return;
        }
        Path temp = TemporaryFiles.file(".content");
        try {
            fetch.toFile(v, temp, Progress.NONE);
            Instant modified = Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000));
            Digest sha = digest(temp);
            mirror.expect(item.target(), sha, ownLine ? v.number() : 0);
            String note = v.number() == 0 ? v.note() : Words.of("outside.restoredNote", v.label());
            putOne(item.target(), temp, sha, modified, note);
        } finally {
            Files.deleteIfExists(temp);
        }
    }

    private Optional<Holder> cutWith(Version v) throws IOException {
        try (Reading reading = vault.read()) {
            Line line = reading.line(v.line()).orElseThrow();
            return reading.outside().holders(line).getOrDefault(v.number(), List.of()).stream()
                    .filter(h -> h.kind() == Holder.Kind.CUT)
                    .findFirst();
        }
    }

    @Override
    public Removal remove(List<String> paths) throws IOException {
        needs(Capability.WRITING);
        look(Progress.NONE);
        Map<String, Integer> before = new LinkedHashMap<>();
        for (String path : paths) {
            before.put(path, current(line(path)));
            secure(path);
        }
        Map<String, String> failed = Transfers.run(paths, p -> p, this::remove, Progress.NONE);
        look(Progress.NONE);
        long action = note(ActionKind.REMOVED, 0, before, new HashMap<>());
        return new Removal(
                action,
                paths.stream().filter(p -> !failed.containsKey(p)).toList(),
                failed.entrySet().stream()
                        .map(e -> e.getKey() + ": " + e.getValue())
                        .toList());
    }

    /**
     * Erases a version in the system. The vault takes its content first, so that nothing is lost by it.
     *
     * @throws SystemException.Missing when the system does not hold it
     * @throws SystemException.Refused when it is held
     */
    public void erase(Version version, Progress progress) throws IOException {
        needs(Capability.ERASING);
        eraseOne(version, progress);
        look(Progress.NONE);
        noteErased();
    }

    /** How a version is named among failures. */
    static String named(Version version) {
        return Words.of("hold.what.VERSION", version.path(), version.label());
    }

    /**
     * Erases versions in the system; the vault takes the content of each first.
     *
     * @return why some were not erased, by {@link #named}; those that were not reached because it was cancelled too
     */
    public Map<String, String> erase(List<Version> versions, Progress progress) throws IOException {
        needs(Capability.ERASING);
        progress.begin(
                Words.of("outside.thinning", place.where()),
                versions.size(),
                versions.stream().mapToLong(Version::size).sum());
        Map<String, String> failed = new LinkedHashMap<>();
        String stopped = "";
        for (Version v : versions) {
            if (stopped.isEmpty() && progress.isCancelled()) {
                stopped = Words.of("restore.cancelled");
            }
            if (!stopped.isEmpty()) {
                failed.put(named(v), stopped);
                continue;
            }
            try {
                eraseOne(v, Progress.NONE);
            } catch (SystemException.Unreachable | SystemException.Unplugged e) {
                stopped = e.words();
                failed.put(named(v), stopped);
            } catch (SystemException e) {
                failed.put(named(v), e.words());
            }
            progress.advance(1, v.size());
        }
        if (failed.size() < versions.size()) {
            look(Progress.NONE);
            noteErased();
        }
        return failed;
    }

    private void eraseOne(Version version, Progress progress) throws IOException {
        List<Holder> points;
        try (Reading reading = vault.read()) {
            Line line = reading.line(version.line()).orElseThrow();
            points = reading.outside().holders(line).getOrDefault(version.number(), List.of()).stream()
                    .filter(h -> h.kind() == Holder.Kind.POINT)
                    .toList();
            Instant now = TrustedTime.of(reading, clock.instant());
            List<Hold> holds = HoldStore.of(reading).standing().stream()
                    .filter(h -> h.holds(now))
                    .toList();
            Optional<Hold> hold = HeldLines.covering(reading, holds, place, line, version.number());
            if (hold.isPresent()) {
                throw new SystemException.Refused(
                        Words.of("outside.held", named(version), hold.get().reason()));
            }
        }
        if (points.isEmpty()) {
            throw new SystemException.Missing(Words.of("outside.notHeld", place.where(), version.label()));
        }
        fetch.intoVault(version, progress);
        for (Holder h : points) {
            system.erase(name, version.path(), h.point(), key());
        }
    }

    private void noteErased() throws IOException {
        try (WriteSession session = vault.write()) {
            JournalStore.begin(
                    session, new Action(0, clock.instant(), who, ActionKind.ERASED, place.id(), 0, false, List.of()));
            session.commit();
        }
    }

    /**
     * Erases a snapshot in the system. Versions that nobody else holds are taken into the vault first.
     *
     * @return how many those were
     */
    public int eraseSnapshot(RemoteSnapshot cut, Progress progress) throws IOException {
        needs(Capability.SNAPSHOTS);
        List<Version> alone = new ArrayList<>();
        try (Reading reading = vault.read()) {
            for (Version v :
                    reading.folders().treeAt(place, "", cut.at()).files().values()) {
                Line line = reading.line(v.line()).orElseThrow();
                List<Holder> holders = reading.outside().holders(line).getOrDefault(v.number(), List.of());
                if (holders.stream().allMatch(h -> h.point().equals(cut.key()))) {
                    alone.add(line.version(v.number()).orElseThrow());
                }
            }
        }
        progress.begin(
                Words.of("outside.securing", place.where()),
                alone.size(),
                alone.stream().mapToLong(Version::size).sum());
        for (Version v : alone) {
            if (progress.isCancelled()) {
                throw new java.io.InterruptedIOException(Words.of("restore.cancelled"));
            }
            fetch.intoVault(v, Progress.NONE);
            progress.advance(1, v.size());
        }
        system.eraseCut(name, cut.key());
        look(Progress.NONE);
        try (WriteSession session = vault.write()) {
            JournalStore.begin(
                    session,
                    new Action(0, clock.instant(), who, ActionKind.SNAPSHOT_ERASED, place.id(), 0, false, List.of()));
            session.commit();
        }
        return alone.size();
    }

    /** Takes a snapshot. */
    public RemoteSnapshot snapshot(String label) throws IOException {
        needs(Capability.SNAPSHOTS);
        RemoteSnapshot cut = system.snapshot(name, label, key());
        look(Progress.NONE);
        try (WriteSession session = vault.write()) {
            JournalStore.begin(
                    session, new Action(0, clock.instant(), who, ActionKind.SNAPSHOT, place.id(), 0, false, List.of()));
            session.commit();
        }
        return cut;
    }

    @Override
    public Undone undo(Action action, Progress progress) throws IOException {
        if (action.kind() == ActionKind.THINNED) {
            // Only what the vault had of it was let go; in the system nothing has changed.
            return ThinningUndo.run(vault, place, clock, who, action);
        }
        return back(action, action, ActionKind.UNDONE);
    }

    @Override
    public Undone redo(Action undo, Progress progress) throws IOException {
        Action original;
        try (Reading reading = vault.read()) {
            original = JournalStore.of(reading).get(undo.undoes()).orElseThrow();
        }
        return original.kind() == ActionKind.THINNED
                ? ThinningUndo.again(vault, place, clock, who, original, undo)
                : back(undo, original, ActionKind.REDONE);
    }

    private Undone back(Action action, Action about, ActionKind kind) throws IOException {
        look(Progress.NONE);
        List<String> done = new ArrayList<>();
        List<String> failed = new ArrayList<>();
        Map<String, Integer> before = new LinkedHashMap<>();
        Mirror mirror = mirror();
        List<Action.Item> items = new ArrayList<>(action.items());
        java.util.Collections.reverse(items);
        for (Action.Item item : items) {
            String path = RelativePath.child(item.folder(), item.name());
            before.put(path, current(line(path)));
            try {
                undo(item, path, mirror);
                done.add(path);
            } catch (IOException e) {
                failed.add(path + ": " + Failures.words(e));
            }
        }
        mirror.run(Progress.NONE);
        note(kind, action.id(), before, new HashMap<>());
        if (kind == ActionKind.UNDONE) {
            try (WriteSession session = vault.write();
                    Reading reading = vault.read()) {
                failed.addAll(RemovalUndo.run(session, reading, action.id()));
                session.commit();
            }
        }
        return new Undone(about, done, failed, false);
    }

    private void undo(Action.Item item, String path, Mirror mirror) throws IOException {
        if (item.before() == 0) {
            secure(path);
            remove(path);
            return;
        }
        if (item.after() == 0 && system.kind().can(Capability.DELETION_POINTS)) {
            system.bringBack(name, path, key());
            return;
        }
        Version version;
        try (Reading reading = vault.read()) {
            version = reading.line(item.line())
                    .flatMap(l -> l.version(item.before()))
                    .orElseThrow(() -> new SystemException.Missing(Words.of("fetch.unknown", path)));
        }
        secure(path);
        putBack(new RestorePlan.Item(version, path, path, RestorePlan.Step.REPLACE, "", ""), mirror);
    }
}
