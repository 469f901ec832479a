package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.systems.Capability;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/**
 * The Files screen without its scene: a place and a folder in it, a moment, what was there then, which of it is selected,
 * and what can be done with that.
 */
public final class FilesModel {

    private final AppContext context;
    private final Background.Newest listingQuestion;
    private final ObjectProperty<@Nullable OpenPlace> place = new SimpleObjectProperty<>();
    private final ReadOnlyObjectWrapper<String> folder = new ReadOnlyObjectWrapper<>("");
    private final ObjectProperty<@Nullable Instant> moment = new SimpleObjectProperty<>();
    private final BooleanProperty showRemoved = new SimpleBooleanProperty(true);
    private final ReadOnlyObjectWrapper<Listing> listing = new ReadOnlyObjectWrapper<>(Listing.EMPTY);
    private final ReadOnlyObjectWrapper<@Nullable FileRow> selected = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<Message> message = new ReadOnlyObjectWrapper<>(Message.NONE);
    private final Set<String> unfolded = new HashSet<>();
    private final BooleanProperty showAdded = new SimpleBooleanProperty(true);
    private final LineModel line;
    private final RulerModel ruler;
    private final TicksModel ticks;
    private final FilesIntake intake;
    private final LineActions lineActions;
    private final VersionActions versionActions;
    private final UndoActions undoActions;
    private final FolderActions folderActions;
    private final ReadingModel reading;
    private final PickModel picking;
    private final FilesRoutes routes;
    private final MomentSteps steps;

    /** The model over this desk. */
    public FilesModel(AppContext context) {
        this.context = context;
        this.listingQuestion = context.background().new Newest();
        this.line = new LineModel(context);
        this.ruler = new RulerModel(context);
        this.ticks = new TicksModel(context);
        this.intake = new FilesIntake(this, new PutModel(context));
        this.lineActions = new LineActions(context, line, this::say);
        this.versionActions = new VersionActions(context, line, this::say);
        this.undoActions = new UndoActions(context, this::say);
        this.folderActions = new FolderActions(context, message::set);
        moment.addListener((o, a, b) -> {
            // What is ticked is ticked of one moment.
            ticks.clear();
            reload();
        });
        showAdded.addListener((o, a, b) -> reload());
        showRemoved.addListener((o, a, b) -> reload());
        this.reading = new ReadingModel(context, line);
        this.routes = new FilesRoutes(this);
        this.steps = new MomentSteps(context, this);
        this.picking = new PickModel(context, line, message::set);
        context.changesProperty().addListener((o, a, b) -> {
            reload();
            line.reload();
            ruler.load(place.get());
        });
    }

    /** The line of the selected file. */
    public LineModel line() {
        return line;
    }

    /** What is ticked. */
    public TicksModel ticks() {
        return ticks;
    }

    /** Ticks a row, or takes its tick away. */
    public void tick(FileRow row, boolean on) {
        tick(List.of(row), on);
    }

    private void tick(List<FileRow> rows, boolean on) {
        OpenPlace openPlace = place.get();
        if (openPlace != null) {
            List<String> paths =
                    rows.stream().filter(r -> !r.isAdded()).map(FileRow::path).toList();
            ticks.tick(openPlace, ListingLoader.moment(moment.get()), paths, on);
        }
    }

    /** Ticks all rows of the folder that is looked at; when all are ticked, none. */
    public void tickAll() {
        List<FileRow> rows =
                listing.get().top().stream().filter(r -> !r.isAdded()).toList();
        tick(rows, !rows.stream().allMatch(r -> ticks.isTicked(r.path())));
    }

    /** Whether files are shown that were not there at the moment that is looked at. */
    public BooleanProperty showAddedProperty() {
        return showAdded;
    }

    /** Goes to a file: its folder is opened and its line shown. */
    public void reveal(OpenPlace of, String path, long lineId, @Nullable Instant at) {
        if (!of.equals(place.get())) {
            open(of, RelativePath.parent(path));
        } else {
            enter(RelativePath.parent(path));
        }
        moment.set(at);
        line.show(of, lineId);
    }

    /** Says what was done. */
    public void say(String words, boolean undo, boolean failed) {
        say(new Message(words, undo, failed));
    }

    void say(Message said) {
        message.set(said);
    }

    /** Where this screen leads. */
    public FilesRoutes routes() {
        return routes;
    }

    /** Ways to another moment. */
    public MomentSteps steps() {
        return steps;
    }

    /** The time ruler. */
    public RulerModel ruler() {
        return ruler;
    }

    /** The desk. */
    public AppContext context() {
        return context;
    }

    /** The place that is looked at; null before there is one. */
    public ReadOnlyObjectProperty<@Nullable OpenPlace> placeProperty() {
        return place;
    }

    /** The folder in it, from the place's root. */
    public ReadOnlyObjectProperty<String> folderProperty() {
        return folder.getReadOnlyProperty();
    }

    /** The moment that is looked at; null is now. */
    public ObjectProperty<@Nullable Instant> momentProperty() {
        return moment;
    }

    /** Whether removed files are shown where they were. */
    public BooleanProperty showRemovedProperty() {
        return showRemoved;
    }

    /** What is listed. */
    public ReadOnlyObjectProperty<Listing> listingProperty() {
        return listing.getReadOnlyProperty();
    }

    /** The selected row; null when none is. */
    public ReadOnlyObjectProperty<@Nullable FileRow> selectedProperty() {
        return selected.getReadOnlyProperty();
    }

    /** What was done last. */
    public ReadOnlyObjectProperty<Message> messageProperty() {
        return message.getReadOnlyProperty();
    }

    /** Goes to a place, and to the folder in it that was looked at last. */
    public void open(OpenPlace openPlace, String inFolder) {
        place.set(openPlace);
        ticks.clear();
        unfolded.clear();
        select(null);
        folder.set(inFolder);
        ruler.load(openPlace);
        steps.begin(openPlace);
        reload();
    }

    static <T> T read(OpenPlace openPlace, Query<T> query) throws IOException {
        try (Reading reading = openPlace.vault().read()) {
            return query.ask(reading);
        }
    }

    /** What is asked of a vault. */
    interface Query<T> {
        T ask(Reading reading) throws IOException;
    }

    /** Looks into a folder. */
    public void enter(String path) {
        select(null);
        folder.set(path);
        reload();
    }

    /** Looks into the folder above. */
    public void up() {
        if (!folder.get().isEmpty()) {
            enter(RelativePath.parent(folder.get()));
        }
    }

    /** Unfolds a folder in the listing, or folds it. */
    public void unfold(String path, boolean open) {
        boolean changed = open ? unfolded.add(path) : unfolded.remove(path);
        if (changed && open && !listing.get().rows().containsKey(path)) {
            reload();
        }
    }

    /** Whether a folder is unfolded. */
    public boolean isUnfolded(String path) {
        return unfolded.contains(path);
    }

    /** Selects a row. */
    public void select(@Nullable FileRow row) {
        FileRow before = selected.get();
        if (before != null && (row == null || !row.path().equals(before.path()))) {
            intake.putting().close();
        }
        selected.set(row);
        OpenPlace openPlace = place.get();
        if (row == null || row.isFolder() || openPlace == null) {
            line.show(null, 0);
        } else {
            line.show(openPlace, row.entry().line());
        }
    }

    /** Looks again. */
    public void reload() {
        OpenPlace openPlace = place.get();
        if (openPlace == null) {
            return;
        }
        String in = folder.get();
        Instant past = moment.get();
        boolean removed = showRemoved.get();
        boolean added = showAdded.get();
        Set<String> open = Set.copyOf(unfolded);
        Instant at = ListingLoader.moment(past);
        listingQuestion.ask(
                () -> read(openPlace, r -> new ListingLoader(r, openPlace.place(), at, removed, added).load(in, open)),
                found -> {
                    listing.set(found);
                    if (past != null) {
                        mark(openPlace, in, open, at);
                    }
                },
                this::unread);
    }

    /** What was listed at once gets its marks against now, unless something else is asked for meanwhile. */
    private void mark(OpenPlace openPlace, String in, Set<String> open, Instant at) {
        boolean removed = showRemoved.get();
        boolean added = showAdded.get();
        listingQuestion.ask(
                () -> read(
                        openPlace,
                        r -> new ListingLoader(r, openPlace.place(), at, removed, added).loadMarked(in, open)),
                listing::set,
                this::unread);
    }

    private void unread(Exception e) {
        message.set(new Message(Failures.named(e), false, true));
    }

    /** The place that is looked at, where there is one. */
    OpenPlace openPlace() {
        OpenPlace openPlace = place.get();
        if (openPlace == null) {
            throw new IllegalStateException("expected a place");
        }
        return openPlace;
    }

    /** Makes the chosen version the current one; for a removed file, brings it back. */
    public void restore(Version version) {
        versionActions.restore(openPlace(), version);
    }

    /** What comes in here. */
    public FilesIntake intake() {
        return intake;
    }

    /** What can be done with the selected line besides changing its content. */
    public LineActions lineActions() {
        return lineActions;
    }

    /** Files go in now, and not into the past. */
    boolean isNow() {
        if (moment.get() == null) {
            return true;
        }
        message.set(new Message(Words.of("files.putPast"), false, true));
        return false;
    }

    /** Says what taking a snapshot of the place asks for and costs. */
    void beforeSnapshot(Consumer<String> words) {
        folderActions.beforeSnapshot(openPlace(), words);
    }

    /** Takes a snapshot of the place that is looked at. */
    public void snapshot(String label) {
        folderActions.snapshot(openPlace(), label);
    }

    /** Gives a file or folder another name where it lies. */
    public void rename(String path, String name) {
        folderActions.rename(openPlace(), path, name);
    }

    /** Removes the selected file from its folder. */
    public void remove() {
        folderActions.remove(openPlace(), line.path());
    }

    /** Erases the chosen version in its system; the vault takes it first. */
    public void erase(Version version) {
        versionActions.erase(openPlace(), version);
    }

    /** Whether the system of the place that is looked at can do this; a folder can be written to and no more. */
    boolean can(Capability capability) {
        OpenPlace openPlace = place.get();
        if (openPlace == null) {
            return false;
        }
        return openPlace.place().isOutside()
                ? context.registry()
                        .kind(openPlace.place())
                        .map(k -> k.can(capability))
                        .orElse(false)
                : capability == Capability.WRITING;
    }

    void failed(Exception e) {
        message.set(new Message(Failures.words(e), false, true));
        context.changed();
    }

    /** Whether what is at this path has a name here that can be changed: it lies in a folder of this computer, now. */
    boolean canRename() {
        OpenPlace openPlace = place.get();
        return openPlace != null && !openPlace.place().isOutside() && moment.get() == null;
    }

    /** Undoes the last action in the vault of the place that is looked at. */
    public void undo() {
        OpenPlace openPlace = place.get();
        if (openPlace != null) {
            undoActions.undoLast(openPlace);
        }
    }

    /** Takes the last undoing back, while nothing else was done since. */
    public void redo() {
        OpenPlace openPlace = place.get();
        if (openPlace != null) {
            undoActions.redoLast(openPlace);
        }
    }

    /** Undoing what was done, and taking that back. */
    public UndoActions undoActions() {
        return undoActions;
    }

    /** Saves a copy of a version into a folder. */
    public void copy(Version version, Path into, Consumer<Path> done) {
        versionActions.copy(openPlace(), version, into, done);
    }

    /** Makes a read-only copy of a version for another program to open. */
    public void openCopy(Version version, Consumer<Path> done) {
        versionActions.openCopy(openPlace(), version, done);
    }

    /** Leads to a version of a line, in the folder where the file is or was. */
    public void lead(OpenPlace openPlace, Line to, @Nullable Version version) {
        moment.set(null);
        open(openPlace, RelativePath.parent(to.path()));
        line.show(openPlace, to.id(), version);
    }

    /** Leads to a file or a folder by its path, and says why where that cannot be. */
    public void leadTo(java.nio.file.Path path) {
        PathLead.go(this, path);
    }

    /** The large view of the chosen version. */
    public ReadingModel reading() {
        return reading;
    }

    /** Taking single changes back. */
    public PickModel picking() {
        return picking;
    }

    /** Takes the message away. */
    public void dismiss() {
        message.set(Message.NONE);
    }
}
