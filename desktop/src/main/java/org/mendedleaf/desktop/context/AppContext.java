package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.temporal.WeekFields;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import javafx.beans.property.LongProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleLongProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureResult;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Guardian;
import org.mendedleaf.core.capture.Lateness;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.Duties;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Present;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.copies.Copies;
import org.mendedleaf.core.copies.CopyKeeper;
import org.mendedleaf.core.find.FindKeeper;
import org.mendedleaf.core.findings.Findings;
import org.mendedleaf.core.findings.HealthKeeper;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.jobs.Supervisor;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.PlaceState;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.Space;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.notices.Concern;
import org.mendedleaf.core.notices.DesktopNotice;
import org.mendedleaf.core.notices.NoticeKeeper;
import org.mendedleaf.core.recovery.Failures;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.RetentionKeeper;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.snapshots.SnapshotKeeper;
import org.mendedleaf.core.systems.BackupRun;
import org.mendedleaf.core.systems.CheckKeeper;
import org.mendedleaf.core.systems.Healing;
import org.mendedleaf.core.systems.Mirror;
import org.mendedleaf.core.systems.OutsideSystem;
import org.mendedleaf.core.systems.OutsideWork;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemKind;
import org.mendedleaf.core.systems.SystemRegistry;
import org.mendedleaf.core.systems.SystemWatch;
import org.mendedleaf.core.systems.wire.Systems;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** What all screens share: the user's settings, the open vaults with their places, and the work that goes on. */
public final class AppContext implements AutoCloseable {

    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final UserSettings settings;
    private final Clock clock;
    private final Background background;
    private final Jobs jobs;
    private final SimpleObjectProperty<Notice> notice = new SimpleObjectProperty<>(new Notice("", false));
    private final Map<Path, OpenVault> vaults = new ConcurrentHashMap<>();
    private final Map<Path, String> closed = new ConcurrentHashMap<>();
    private final Map<Path, Supervisor> supervisors = new HashMap<>();
    private final SystemRegistry book;
    private final ObservableList<OpenPlace> places = FXCollections.observableArrayList();
    private final ObjectProperty<Standing> standing = new SimpleObjectProperty<>(Standing.NOTHING);
    private final LongProperty changes = new SimpleLongProperty();
    private final ObjectProperty<String> trouble = new SimpleObjectProperty<>("");

    /**
     * A desk with nothing open yet.
     *
     * @param screen runs something on the thread of the screen
     */
    public AppContext(UserSettings settings, Clock system, Executor screen) {
        this.settings = settings;
        this.clock = settings.clock(system);
        this.book = new SystemRegistry(settings, Systems.OPENER, this.clock, Retry.STANDARD);
        this.background = new Background(screen);
        this.jobs = new Jobs(background);
    }

    /**
     * Something that is said wherever one is. Two of the same words are two: it is compared by identity.
     *
     * @param needsSomebody whether it is a trouble, rather than an answer
     */
    public record Notice(String words, boolean needsSomebody) {
        @Override
        public boolean equals(@org.jspecify.annotations.Nullable Object other) {
            return this == other;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(this);
        }
    }

    /**
     * How everything stands, for the status bar.
     *
     * @param folders number of protected folders
     * @param watched how many of them are there and captured on every save
     * @param lastSave when something that was saved in one of them last came in; the epoch when never
     * @param space what the vaults hold and take together
     * @param troubles what somebody should know
     */
    public record Standing(int folders, int watched, Instant lastSave, Space space, List<String> troubles) {
        static final Standing NOTHING = new Standing(0, 0, Instant.EPOCH, new Space(0, 0, 0, 0), List.of());

        /** Copies the list. */
        public Standing {
            troubles = List.copyOf(troubles);
        }
    }

    /** The user's settings. */
    public UserSettings settings() {
        return settings;
    }

    /** The clock by which this desk lives. */
    public Clock clock() {
        return clock;
    }

    /** The user's time zone. */
    public ZoneId zone() {
        return clock.getZone();
    }

    /** Work off the screen. */
    public Background background() {
        return background;
    }

    /** Long work. */
    public Jobs jobs() {
        return jobs;
    }

    /** The protected folders of all open vaults. */
    public ObservableList<OpenPlace> places() {
        return places;
    }

    /** How everything stands. */
    public ReadOnlyObjectProperty<Standing> standingProperty() {
        return standing;
    }

    /** Counts up whenever something was captured or restored. */
    public ReadOnlyLongProperty changesProperty() {
        return changes;
    }

    /** What could not be opened or done, in words; empty when all is well. */
    public ReadOnlyObjectProperty<String> troubleProperty() {
        return trouble;
    }

    /** Opens the user's vaults and keeps their places from then on; {@code ready} is called on the screen's thread. */
    public void open(Runnable ready) {
        background.run(
                () -> {
                    List<OpenPlace> found = new ArrayList<>();
                    StringBuilder wrong = new StringBuilder();
                    for (Path folder : settings.vaults()) {
                        try {
                            found.addAll(openVault(folder, words -> say(wrong, words)));
                            closed.remove(folder);
                        } catch (IOException e) {
                            closed.put(folder, String.valueOf(e.getMessage()));
                            say(wrong, String.valueOf(e.getMessage()));
                        }
                    }
                    background.onScreen(() -> trouble.set(wrong.toString()));
                    return found;
                },
                found -> {
                    places.setAll(found);
                    ready.run();
                    refresh();
                    guard();
                },
                e -> trouble.set(String.valueOf(e.getMessage())));
    }

    private static void say(StringBuilder all, String words) {
        all.append(all.isEmpty() ? "" : "\n").append(words);
    }

    private List<OpenPlace> openVault(Path folder, Consumer<String> hearer) throws IOException {
        OpenVault vault = vaults.get(folder);
        if (vault == null) {
            vault = OpenVault.open(folder, Words.of("desktop.holder"), PATIENCE);
            vaults.put(folder, vault);
            if (vault.wasOpenToOthers()) {
                hearer.accept(Words.of("vault.tightened", folder));
            }
            if (vault.folder().isCopy()) {
                hearer.accept(Words.of("vault.isCopy", folder));
            }
        }
        return held(vault);
    }

    private static List<OpenPlace> held(OpenVault vault) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.places().stream().map(p -> new OpenPlace(vault, p)).toList();
        }
    }

    /** Keeps all vaults that are open. */
    private void guard() {
        for (Map.Entry<Path, OpenVault> e : Map.copyOf(vaults).entrySet()) {
            if (supervisors.containsKey(e.getKey())) {
                // Its folders and their settings are seen by itself.
                continue;
            }
            OpenVault vault = e.getValue();
            if (vault.folder().isCopy()) {
                // It can only be read.
                continue;
            }
            Supervisor supervisor =
                    new Supervisor(Supervisor.Backoff.STANDARD, new Duties(vault, clock, this::dutyWent));
            supervisors.put(e.getKey(), supervisor);
            supervisor.add(new Guardian(supervisor, vault, clock, authors(), new Listener()));
            supervisor.add(new SystemWatch(vault, book, clock, new SystemListener()));
            supervisor.add(new SnapshotKeeper(vault, clock, authors(), settings.who(), new SnapshotListener()));
            supervisor.add(new FindKeeper(vault));
            supervisor.add(new HealthKeeper(vault, clock, () -> background.onScreen(this::changed)));
            Copies copies = new Copies(vault, clock, settings.who());
            supervisor.add(new CopyKeeper(copies, clock, () -> background.onScreen(this::changed)));
            supervisor.add(new CheckKeeper(
                    vault,
                    new Healing(vault, book, clock, authors()),
                    copies,
                    clock,
                    false,
                    result -> background.onScreen(this::changed)));
            supervisor.add(new NoticeKeeper(
                    vault, settings, clock, DesktopNotice::tell, came -> background.onScreen(() -> noticed(came))));
            supervisor.add(new RetentionKeeper(
                    vault,
                    clock,
                    settings.who(),
                    calendar(),
                    () -> new Findings(vault, settings.who())
                            .pausing(clock.instant())
                            .isPresent(),
                    new RetentionListener()));
        }
    }

    /** Says at the foot of the window what has just come up. */
    public void noticed(List<Concern> came) {
        notice.set(new Notice(Words.of("notices.came", came.size(), came.get(0).words()), true));
        changed();
    }

    /** What is said wherever one is. */
    public ReadOnlyObjectProperty<Notice> noticeProperty() {
        return notice;
    }

    private void dutyWent(Duties.Failing duty) {
        background.onScreen(() -> {
            trouble.set(duty.trouble().isEmpty() ? "" : Words.of("cli.watch.failed", duty.name(), duty.trouble()));
            changed();
        });
    }

    /** The calendar of who works here. */
    public Calendar calendar() {
        return new Calendar(zone(), WeekFields.of(java.util.Locale.getDefault()).getFirstDayOfWeek());
    }

    /** Who is taken to have saved a file. */
    public Authors authors() {
        return Authors.owners(System.getProperty("user.name"), settings.who());
    }

    /** Recovery within a folder. */
    public Recovery recovery(OpenPlace held) {
        return new Recovery(held.vault(), held.place(), clock, authors(), settings.who());
    }

    /** Work with files of a place, wherever it is. */
    public FileWork work(OpenPlace held) throws IOException {
        return held.place().isOutside() ? outsideWork(held) : recovery(held);
    }

    /** Work with files of a place in another system. */
    public OutsideWork outsideWork(OpenPlace held) throws IOException {
        return new OutsideWork(held.vault(), held.place(), book, clock, settings.who());
    }

    /** The systems of the user. */
    public SystemRegistry book() {
        return book;
    }

    /** Connects systems, makes places, changes their settings. */
    public SystemConnector connecting() {
        return new SystemConnector(settings, book, clock);
    }

    /** The vaults of the user that cannot be opened, with what is wrong, in words. */
    public Map<Path, String> closedVaults() {
        return Map.copyOf(closed);
    }

    /** The open vaults, by folder. */
    public Map<Path, OpenVault> vaults() {
        return Map.copyOf(vaults);
    }

    /** Looks again which places the vaults have, as after a system was connected. */
    public void placesChanged() {
        background.run(
                () -> {
                    List<OpenPlace> found = new ArrayList<>();
                    for (OpenVault vault : vaults().values()) {
                        found.addAll(held(vault));
                    }
                    return found;
                },
                found -> {
                    places.setAll(found);
                    changed();
                },
                e -> trouble.set(String.valueOf(e.getMessage())));
    }

    /** Says that something changed, so that the screens look again. */
    public void changed() {
        changes.set(changes.get() + 1);
        refresh();
    }

    private void refresh() {
        List<OpenPlace> now = List.copyOf(places);
        Instant moment = clock.instant();
        ZoneId zone = zone();
        background.run(() -> stand(now, moment, zone), standing::set, e -> trouble.set(String.valueOf(e.getMessage())));
    }

    private static Standing stand(List<OpenPlace> places, Instant now, ZoneId zone) throws IOException {
        Instant last = Instant.EPOCH;
        List<String> troubles = new ArrayList<>();
        List<Duties.Failing> duties = new ArrayList<>();
        Map<OpenVault, Space> spaces = new HashMap<>();
        int folders = 0;
        int watched = 0;
        for (OpenPlace held : places) {
            boolean folder = !held.place().isOutside() && held.place().versioning() != Versioning.OFF;
            folders += folder ? 1 : 0;
            boolean onSave = held.place().isKept() && held.place().rhythm().kind() == Rhythm.Kind.ON_SAVE;
            watched += onSave && Files.isDirectory(held.place().root()) ? 1 : 0;
            try (Reading reading = held.vault().read()) {
                PlaceState state = reading.state(held.place());
                Instant good = state.lastGood().orElse(Instant.EPOCH);
                Instant save = folder ? reading.lastSave(held.place()).orElse(Instant.EPOCH) : Instant.EPOCH;
                last = save.isAfter(last) ? save : last;
                // Whoever paused or ended it knows.
                boolean kept = held.place().versioning() == Versioning.ON;
                if (kept && !state.trouble().isEmpty()) {
                    troubles.add(state.trouble());
                } else if (kept && folder && !Files.isDirectory(held.place().root())) {
                    // One that is captured by hand may be away for long before anybody looks.
                    troubles.add(Words.of("capture.placeGone", held.place().root()));
                } else if (kept && state.lastGood().isPresent() && Lateness.isLate(held.place(), state, now)) {
                    troubles.add(Words.of("status.late", held.place().name(), Formats.moment(good, now, zone)));
                }
                if (!spaces.containsKey(held.vault())) {
                    Present.ahead(reading, now).ifPresent(a -> troubles.add(Present.words(a, now, zone)));
                    duties.addAll(Duties.failing(reading));
                }
                long gaps = state.skipped().stream()
                        .filter(s -> s.reason().isTrouble())
                        .count();
                if (kept && gaps > 0) {
                    troubles.add(Words.of("status.gaps", held.place().name(), gaps));
                }
                spaces.put(held.vault(), reading.space());
            }
        }
        // What a folder says of itself is not said once more as the failure of what captures it.
        duties.stream()
                .filter(d -> !troubles.contains(d.trouble()))
                .map(d -> Words.of("cli.watch.failed", d.name(), d.trouble()))
                .forEach(troubles::add);
        Space sum = new Space(0, 0, 0, 0);
        for (Space r : spaces.values()) {
            sum = new Space(
                    sum.lines() + r.lines(),
                    sum.versions() + r.versions(),
                    sum.versionBytes() + r.versionBytes(),
                    sum.storedBytes() + r.storedBytes());
        }
        return new Standing(folders, watched, last, sum, troubles);
    }

    /** Protects a folder and captures it for the first time, as a job. */
    public void protect(
            Path folder,
            Path vaultFolder,
            Rhythm rhythm,
            List<String> exclusions,
            Consumer<OpenPlace> done,
            Consumer<Exception> failed) {
        jobs.start(
                Words.of("job.protect", String.valueOf(folder.getFileName())),
                progress -> {
                    Path root = Protect.check(folder, vaultFolder, exclusions);
                    Path real = Protect.realOfNew(vaultFolder);
                    OpenVault.openOrCreate(real, Words.of("desktop.holder"), PATIENCE)
                            .close();
                    settings.addVault(real);
                    openVault(real, words -> background.onScreen(() -> trouble.set(words)));
                    OpenVault vault = vaults.get(real);
                    if (vault == null) {
                        throw new IllegalStateException("expected an open vault at " + real);
                    }
                    Place place = Protect.place(vault, root, rhythm, exclusions, clock, settings.who());
                    new Capture(vault, place, clock, authors()).run(CaptureScope.WHOLE, progress);
                    return new OpenPlace(vault, place);
                },
                held -> {
                    places.removeIf(h -> h.place().id() == held.place().id()
                            && h.vault()
                                    .folder()
                                    .root()
                                    .equals(held.vault().folder().root()));
                    places.add(held);
                    changed();
                    guard();
                    done.accept(held);
                },
                failed);
    }

    /** Looks at a place in another system now, or backs up to it, as a job. */
    public void look(OpenPlace held, Runnable done) {
        boolean drive = book.kind(held.place())
                .filter(k -> k == SystemKind.BACKUP_DRIVE)
                .isPresent();
        jobs.start(
                Words.of(drive ? "job.backup" : "job.look", held.place().where()),
                progress -> {
                    OutsideSystem system = book.system(held.place());
                    if (drive) {
                        new BackupRun(held.vault(), held.place(), system, clock).run(progress);
                    } else {
                        new Mirror(held.vault(), held.place(), system, clock).run(progress);
                    }
                    return true;
                },
                ok -> {
                    trouble.set("");
                    changed();
                    done.run();
                },
                e -> {
                    trouble.set(String.valueOf(e.getMessage()));
                    changed();
                    done.run();
                });
    }

    /** Says something wherever one is. */
    public void tell(String words) {
        notice.set(new Notice(words, false));
    }

    /** Looks at a folder now, as a job; a place in another system likewise. One that is paused or ended is not looked at. */
    public void capture(OpenPlace held, Consumer<CaptureResult> done) {
        if (held.place().isOutside()) {
            look(held, () -> {});
            return;
        }
        // Screens may hold a place as it was before somebody paused it.
        Versioning versioning = places.stream()
                .filter(h -> h.vault() == held.vault()
                        && h.place().id() == held.place().id())
                .findFirst()
                .orElse(held)
                .place()
                .versioning();
        if (versioning != Versioning.ON) {
            tell(Words.of("desktop.capture." + versioning.text(), held.place().name()));
            return;
        }
        capture(held, new Capture(held.vault(), held.place(), clock, authors()), done);
    }

    /** Looks at a folder that goes on being captured, as a job. */
    public void captureAgain(OpenPlace held, Consumer<CaptureResult> done) {
        capture(held, new Capture(held.vault(), held.place(), clock, authors()), done);
    }

    /** Captures a folder as empty that somebody emptied on purpose. */
    public void captureEmptied(OpenPlace held) {
        capture(held, new Capture(held.vault(), held.place(), clock, authors()).emptiedOnPurpose(), r -> {});
    }

    private void capture(OpenPlace held, Capture capture, Consumer<CaptureResult> done) {
        jobs.start(
                Words.of("job.capture", held.place().name()),
                progress -> capture.run(CaptureScope.WHOLE, progress),
                result -> {
                    changed();
                    done.accept(result);
                },
                e -> {
                    trouble.set(Failures.words(e));
                    changed();
                });
    }

    /** What is looked at by itself is a job only when it moves bytes; what fails stands with its place. */
    private final class SystemListener implements SystemWatch.Listener {
        private final Map<Long, Job> running = new HashMap<>();

        @Override
        public synchronized Progress begins(Place place, boolean backup) {
            if (!backup) {
                return Progress.NONE;
            }
            Job job = jobs.begin(Words.of("job.backup", place.where()));
            running.put(place.id(), job);
            return job;
        }

        private synchronized void end(Place place, Job.State state) {
            Job job = running.remove(place.id());
            if (job != null) {
                jobs.end(job, state);
            }
        }

        @Override
        public void ended(Place place, boolean changed) {
            end(place, Job.State.DONE);
            background.onScreen(AppContext.this::changed);
        }

        @Override
        public void failed(Place place, IOException why) {
            end(place, Job.State.FAILED);
            background.onScreen(AppContext.this::changed);
        }
    }

    private final class RetentionListener implements RetentionKeeper.Listener {
        @Override
        public void kept(org.mendedleaf.core.retention.StandingRules.Done done) {
            background.onScreen(() -> {
                if (!done.trouble().isEmpty()) {
                    trouble.set(String.join(" ", done.trouble()));
                }
                changed();
            });
        }
    }

    private final class SnapshotListener implements SnapshotKeeper.Listener {
        @Override
        public void taken(Place place, Snapshot snapshot) {
            background.onScreen(AppContext.this::changed);
        }

        @Override
        public void failed(Place place, IOException why) {
            background.onScreen(
                    () -> trouble.set(Words.of("status.snapshot", place.name(), String.valueOf(why.getMessage()))));
        }
    }

    private final class Listener implements Guardian.Listener {
        private final Map<Long, Job> running = new HashMap<>();

        @Override
        public synchronized Progress capturing(Place place, CaptureScope scope) {
            Job job = jobs.begin(Words.of("job.capture", place.name()));
            running.put(place.id(), job);
            return job;
        }

        private synchronized void end(Place place, Job.State state) {
            Job job = running.remove(place.id());
            if (job != null) {
                jobs.end(job, state);
            }
        }

        @Override
        public void captured(Place place, CaptureResult result) {
            end(place, Job.State.DONE);
            background.onScreen(() -> {
                trouble.set("");
                changed();
            });
        }

        @Override
        public void failed(Place place, IOException why) {
            end(place, Job.State.FAILED);
            background.onScreen(() -> trouble.set(String.valueOf(why.getMessage())));
        }
    }

    @Override
    public void close() {
        jobs.close();
        supervisors.values().forEach(Supervisor::close);
        background.close();
        for (OpenVault vault : vaults.values()) {
            try {
                vault.close();
            } catch (IOException e) {
                org.slf4j.LoggerFactory.getLogger(AppContext.class).debug("closing a vault", e);
            }
        }
    }
}
