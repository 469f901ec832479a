package org.mendedleaf.desktop.context;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.temporal.WeekFields;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.LongProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleLongProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.mendedleaf.core.capture.Authors;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.jobs.ActivityLog;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.notices.Concern;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.Recovery;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.service.IdleMemory;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.core.systems.OutsideErasing;
import org.mendedleaf.core.systems.OutsideWork;
import org.mendedleaf.core.systems.Retry;
import org.mendedleaf.core.systems.SystemConnector;
import org.mendedleaf.core.systems.SystemRegistry;
import org.mendedleaf.core.systems.wire.Systems;
import org.mendedleaf.core.words.Words;

/** What all screens share: the user's settings, the open vaults with their places, and the work that goes on. */
public final class AppContext implements AutoCloseable {

    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private static final Duration QUIET_MOST = Duration.ofSeconds(3);

    private final UserSettings settings;
    private final Clock clock;
    private final Background background;
    private final Jobs jobs;
    private final OpenedCopies openedCopies;
    private final SimpleObjectProperty<Notice> notice = new SimpleObjectProperty<>(new Notice("", false));
    private final Map<Path, OpenVault> vaults = new ConcurrentHashMap<>();
    private final Map<Path, String> closed = new ConcurrentHashMap<>();
    private final BackgroundServices services;
    private final IdleMemory memory = new IdleMemory();
    private final CaptureJobs captures = new CaptureJobs(this);
    private final SystemRegistry registry;
    private final ObservableList<OpenPlace> places = FXCollections.observableArrayList();
    private final ObjectProperty<Overview> overview = new SimpleObjectProperty<>(Overview.NOTHING);
    private final LongProperty changes = new SimpleLongProperty();
    private final LongProperty looks = new SimpleLongProperty();
    private final BooleanProperty keptByOthers = new SimpleBooleanProperty();
    private final ObjectProperty<String> trouble = new SimpleObjectProperty<>("");

    /**
     * A context with nothing open yet.
     *
     * @param screen runs something on the thread of the screen
     */
    public AppContext(UserSettings settings, Clock system, Executor screen) {
        this.settings = settings;
        this.clock = settings.clock(system);
        this.services = new BackgroundServices(this, ActivityLog.beside(settings.folder(), this.clock, "window"));
        this.registry = new SystemRegistry(settings, Systems.OPENER, this.clock, Retry.DEFAULT);
        this.background = new Background(screen);
        this.jobs = new Jobs(background);
        this.openedCopies = new OpenedCopies(settings.folder().resolve("opened"));
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

    /** Memory that is given back when nothing happens. */
    public IdleMemory memory() {
        return memory;
    }

    /** Copies that were made for other programs to open. */
    public OpenedCopies openedCopies() {
        return openedCopies;
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
    public ReadOnlyObjectProperty<Overview> overviewProperty() {
        return overview;
    }

    /** Counts up whenever something was captured or restored. */
    public ReadOnlyLongProperty changesProperty() {
        return changes;
    }

    /** Counts up when other systems were looked at again and found as they were: only how long that is ago is another. */
    public ReadOnlyLongProperty looksProperty() {
        return looks;
    }

    void looked() {
        looks.set(looks.get() + 1);
    }

    /** Whether another program of this user, such as the background service, keeps what is open here. */
    public ReadOnlyBooleanProperty keptByOthersProperty() {
        return keptByOthers;
    }

    void keptByOthers(boolean others) {
        keptByOthers.set(others);
    }

    /** Leaves all that goes on by itself to another program that is ready to do it. */
    public void leaveToService() {
        services.release();
    }

    /** What could not be opened or done, as a message; empty when all is well. */
    public ReadOnlyObjectProperty<String> troubleProperty() {
        return trouble;
    }

    /** Opens the user's vaults and keeps their places from then on; {@code ready} is called on the screen's thread. */
    public void open(Runnable ready) {
        background.run(
                () -> {
                    openedCopies.clean();
                    List<OpenPlace> found = new ArrayList<>();
                    StringBuilder wrong = new StringBuilder();
                    for (Path folder : settings.vaults()) {
                        try {
                            found.addAll(openVault(folder, words -> say(wrong, words)));
                            closed.remove(folder);
                        } catch (IOException e) {
                            closed.put(folder, Failures.named(e));
                            say(wrong, Failures.named(e));
                        }
                    }
                    background.onScreen(() -> trouble.set(wrong.toString()));
                    return found;
                },
                found -> {
                    places.setAll(found);
                    ready.run();
                    refresh();
                    // Whoever waits for the first listing does not wait for what goes on by itself.
                    background.whenQuiet(QUIET_MOST, services::start);
                },
                e -> trouble.set(Failures.named(e)));
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
        return openPlace(vault);
    }

    private static List<OpenPlace> openPlace(OpenVault vault) throws IOException {
        try (Reading reading = vault.read()) {
            return reading.places().stream().map(p -> new OpenPlace(vault, p)).toList();
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

    /** The calendar of who works here. */
    public Calendar calendar() {
        return new Calendar(zone(), WeekFields.of(java.util.Locale.getDefault()).getFirstDayOfWeek());
    }

    /** Who is taken to have saved a file. */
    public Authors authors() {
        return Authors.owners(System.getProperty("user.name"), settings.who());
    }

    /** Recovery within a folder. */
    public Recovery recovery(OpenPlace openPlace) {
        return new Recovery(workContext(openPlace));
    }

    /** Where somebody works. */
    public WorkContext workContext(OpenPlace openPlace) {
        return new WorkContext(openPlace.vault(), openPlace.place(), clock, authors(), settings.who());
    }

    /** Work with files of a place, wherever it is. */
    public FileWork work(OpenPlace openPlace) throws IOException {
        return openPlace.place().isOutside()
                ? new OutsideWork(openPlace.vault(), openPlace.place(), registry, clock, settings.who())
                : recovery(openPlace);
    }

    /** Snapshots of a place in another system, and erasing there. */
    public OutsideErasing outsideErasing(OpenPlace openPlace) throws IOException {
        return new OutsideErasing(openPlace.vault(), openPlace.place(), registry, clock, settings.who());
    }

    /** The systems of the user. */
    public SystemRegistry registry() {
        return registry;
    }

    /** Connects systems, makes places, changes their settings. */
    public SystemConnector connecting() {
        return new SystemConnector(settings, registry, clock);
    }

    /** The vaults of the user that cannot be opened, with what is wrong, as a message. */
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
                        found.addAll(openPlace(vault));
                    }
                    return found;
                },
                found -> {
                    places.setAll(found);
                    changed();
                },
                e -> trouble.set(Failures.named(e)));
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
        background.run(() -> Overview.of(now, moment, zone), overview::set, e -> trouble.set(Failures.named(e)));
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
                openPlace -> {
                    places.removeIf(h -> h.place().id() == openPlace.place().id()
                            && h.vault()
                                    .folder()
                                    .root()
                                    .equals(openPlace.vault().folder().root()));
                    places.add(openPlace);
                    changed();
                    services.start();
                    done.accept(openPlace);
                },
                failed);
    }

    /** Says on the screen's thread what could not be done; with nothing to say, that all is well. */
    void say(String words) {
        trouble.set(words);
    }

    /** Says something wherever one is. */
    public void tell(String words) {
        notice.set(new Notice(words, false));
    }

    /** Looking at a place now. */
    public CaptureJobs captures() {
        return captures;
    }

    @Override
    public void close() {
        jobs.close();
        openedCopies.clean();
        services.close();
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
