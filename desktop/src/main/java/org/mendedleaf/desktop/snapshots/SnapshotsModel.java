package org.mendedleaf.desktop.snapshots;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotSpace;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.TextFile;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.snapshots.CalendarFile;
import org.mendedleaf.core.snapshots.Snapshots;
import org.mendedleaf.core.systems.Capability;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.Jobs;
import org.mendedleaf.desktop.context.OpenPlace;

/** The snapshots of one place and their schedules, without a scene. */
public final class SnapshotsModel {

    private final AppContext context;
    private final OpenPlace openPlace;
    private final String folder;
    private final StringProperty scope = new SimpleStringProperty("");
    private final Background.Newest question;
    private final Background.Newest spaceQuestion;
    private final ReadOnlyObjectWrapper<List<Row>> rows = new ReadOnlyObjectWrapper<>(List.of());
    private final ReadOnlyObjectWrapper<List<SnapshotSchedule>> schedules = new ReadOnlyObjectWrapper<>(List.of());
    private final ObjectProperty<@Nullable Row> selected = new SimpleObjectProperty<>();
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");
    private final ReadOnlyObjectWrapper<String> done = new ReadOnlyObjectWrapper<>("");
    private final javafx.beans.value.ChangeListener<Number> changes = (o, a, b) -> reload();

    /**
     * The snapshots of this place.
     *
     * @param folder in it that new ones may cover alone; empty for none
     */
    public SnapshotsModel(AppContext context, OpenPlace openPlace, String folder) {
        this.context = context;
        this.openPlace = openPlace;
        this.folder = folder;
        this.question = context.background().new Newest();
        this.spaceQuestion = context.background().new Newest();
        context.changesProperty().addListener(new javafx.beans.value.WeakChangeListener<>(changes));
        reload();
    }

    /**
     * A snapshot, ours or that of another system.
     *
     * @param cut in the other system; null for ours
     * @param holds what it holds; null while it is counted, and for another system's
     */
    public record Row(Snapshot snapshot, @Nullable RemoteSnapshot cut, SnapshotSpace.@Nullable Holds holds) {}

    /** The desk. */
    public AppContext context() {
        return context;
    }

    /** The place. */
    public OpenPlace openPlace() {
        return openPlace;
    }

    /** Its snapshots, newest first. */
    public ReadOnlyObjectProperty<List<Row>> rowsProperty() {
        return rows.getReadOnlyProperty();
    }

    /** The schedules that go on. */
    public ReadOnlyObjectProperty<List<SnapshotSchedule>> schedulesProperty() {
        return schedules.getReadOnlyProperty();
    }

    /** The selected snapshot; null when none is. */
    public ObjectProperty<@Nullable Row> selectedProperty() {
        return selected;
    }

    /** What is wrong, as a message; empty when nothing is. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** What was done, as a message; empty before anything was. */
    public ReadOnlyObjectProperty<String> doneProperty() {
        return done.getReadOnlyProperty();
    }

    /** The folders that new snapshots can cover; the empty path is all of the place. */
    public List<String> scopes() {
        return folder.isEmpty() || isOutside() ? List.of("") : List.of("", folder);
    }

    /** The folder that new snapshots cover. */
    public StringProperty scopeProperty() {
        return scope;
    }

    /** Whether it is a place in another system. */
    public boolean isOutside() {
        return openPlace.place().isOutside();
    }

    /** Whether snapshots can be taken of it. */
    public boolean canTake() {
        return !isOutside()
                || context.registry()
                        .kind(openPlace.place())
                        .map(k -> k.can(Capability.SNAPSHOTS) && k.can(Capability.WRITING))
                        .orElse(false);
    }

    private Snapshots snapshots() {
        return new Snapshots(context.workContext(openPlace));
    }

    private void reload() {
        question.ask(
                this::load,
                found -> {
                    rows.set(found);
                    reselect(found);
                    count(found);
                },
                this::failed);
        context.background()
                .run(
                        () -> isOutside()
                                ? List.<SnapshotSchedule>of()
                                : snapshots().schedules(),
                        schedules::set,
                        this::failed);
    }

    private List<Row> load() throws IOException {
        List<Row> found = new ArrayList<>();
        try (Reading reading = openPlace.vault().read()) {
            if (isOutside()) {
                for (RemoteSnapshot c : reading.outside().cuts(openPlace.place())) {
                    if (!c.isLive()) {
                        Snapshot s =
                                new Snapshot(0, openPlace.place().id(), "", c.at(), c.label(), "", 0, Optional.empty());
                        found.add(0, new Row(s, c, null));
                    }
                }
            } else {
                SnapshotStore.of(reading)
                        .standing(openPlace.place())
                        .forEach(s -> found.add(0, new Row(s, null, null)));
            }
        }
        return found;
    }

    /** What each holds takes a look at all versions; it is shown when it is known. */
    private void count(List<Row> found) {
        if (isOutside() || found.isEmpty()) {
            spaceQuestion.drop();
            return;
        }
        spaceQuestion.ask(
                () -> {
                    try (Reading reading = openPlace.vault().read()) {
                        return SnapshotSpace.of(
                                reading,
                                openPlace.place(),
                                found.stream().map(Row::snapshot).toList());
                    }
                },
                holds -> {
                    List<Row> counted = found.stream()
                            .map(r -> new Row(
                                    r.snapshot(),
                                    r.cut(),
                                    holds.get(r.snapshot().id())))
                            .toList();
                    rows.set(counted);
                    reselect(counted);
                },
                this::failed);
    }

    private void reselect(List<Row> found) {
        Row before = selected.get();
        selected.set(
                before == null
                        ? null
                        : found.stream()
                                .filter(r -> same(r, before))
                                .findFirst()
                                .orElse(null));
    }

    private static boolean same(Row a, Row b) {
        return a.snapshot().id() == b.snapshot().id()
                && a.snapshot().at().equals(b.snapshot().at());
    }

    private void failed(Exception e) {
        problem.set(Failures.words(e));
    }

    /** Who asked for a snapshot, as a message. */
    public String origin(Row row) {
        Snapshot s = row.snapshot();
        if (row.cut() != null) {
            return openPlace.place().where();
        }
        return s.schedule() == 0 ? Words.of("snapshot.byHand", s.who()) : Words.of("snapshot.bySchedule");
    }

    /** What erasing a snapshot means, as a message. */
    public String eraseWords(Row row) {
        SnapshotSpace.Holds h = row.holds();
        if (row.cut() != null) {
            return Words.of("snapshot.eraseThere", openPlace.place().where());
        }
        if (row.snapshot().isHeld(context.clock().instant())) {
            return Words.of("snapshot.eraseHeld");
        }
        return h == null
                ? Words.of("snapshot.counting")
                : Words.of("snapshot.eraseWords", h.aloneVersions(), Formats.size(h.aloneBytes()));
    }

    private <T> void work(String title, Jobs.Work<T> work, java.util.function.Function<T, String> words) {
        problem.set("");
        context.jobs()
                .start(
                        title,
                        work,
                        result -> {
                            done.set(words.apply(result));
                            context.changed();
                        },
                        this::failed);
    }

    /** Takes a snapshot of the folder that new ones cover. */
    public void take(String label) {
        String path = scope.get();
        work(
                Words.of("job.snapshot", openPlace.place().label()),
                progress -> isOutside()
                        ? context.outsideErasing(openPlace).snapshot(label).at()
                        : snapshots().take(path, label, progress).at(),
                (Instant at) -> Words.of("files.snapshot", openPlace.place().label()));
    }

    /** Gives a snapshot another label. */
    public void rename(Row row, String label) {
        work(
                Words.of("job.snapshot", openPlace.place().label()),
                progress -> snapshots().rename(row.snapshot().id(), label),
                s -> Words.of("snapshot.renamed", s.label()));
    }

    /** Whether nothing may take a snapshot away now. */
    public boolean isHeld(Row row) {
        return row.snapshot().isHeld(context.clock().instant());
    }

    /** Why and until when a snapshot is held, or what holding it would do. */
    public String holdWords(Row row) {
        Snapshot s = row.snapshot();
        if (!isHeld(row)) {
            return Words.of("snapshot.holdHint");
        }
        return s.holdEnds()
                .map(end -> Words.of(
                        "snapshot.isHeldUntil",
                        s.hold(),
                        Formats.end(end, context.clock().instant(), context.zone())))
                .orElseGet(() -> Words.of("snapshot.isHeld", s.hold()));
    }

    /** Ends the hold on a snapshot. */
    public void endHold(Row row) {
        work(
                Words.of("job.snapshot", openPlace.place().label()),
                progress -> snapshots().hold(row.snapshot().id(), "", Optional.empty()),
                s -> Words.of("snapshot.notHeld"));
    }

    /** Erases a snapshot; one in a folder comes back by undoing. */
    public void erase(Row row) {
        RemoteSnapshot cut = row.cut();
        SnapshotSpace.Holds h = row.holds();
        work(
                Words.of("job.erase", Formats.full(row.snapshot().at(), context.zone())),
                progress -> cut == null
                        ? snapshots().erase(List.of(row.snapshot().id()))
                        : (long) context.outsideErasing(openPlace).eraseSnapshot(cut, progress),
                n -> cut == null
                        ? Words.of(
                                "snapshot.erased",
                                1,
                                h == null ? 0 : h.aloneVersions(),
                                Formats.size(h == null ? 0 : h.aloneBytes()))
                        : Words.of("cli.snapshot.erasedThere", Formats.full(cut.at(), context.zone()), n));
    }

    /** Stores a schedule. */
    public void schedule(SnapshotSchedule schedule) {
        work(Words.of("job.schedule"), progress -> snapshots().schedule(schedule), s -> Words.of("schedule.stored"));
    }

    /** Ends a schedule; its snapshots stay. */
    public void end(SnapshotSchedule schedule) {
        work(
                Words.of("job.schedule"),
                progress -> {
                    snapshots().end(schedule.id());
                    return schedule;
                },
                s -> Words.of("schedule.endedWords"));
    }

    /** Reads schedules from an iCalendar file. */
    public void importFrom(Path file) {
        work(
                Words.of("job.schedule"),
                progress -> {
                    List<SnapshotSchedule> found = CalendarFile.read(
                            TextFile.read(file), openPlace.place().id(), "", context.zone());
                    for (SnapshotSchedule s : found) {
                        snapshots().schedule(s);
                    }
                    return found;
                },
                found -> Words.of("schedule.imported", found.size()));
    }

    /** Writes the schedules into an iCalendar file. */
    public void exportTo(Path file) {
        List<SnapshotSchedule> all = schedules.get();
        work(
                Words.of("job.schedule"),
                progress -> Files.writeString(
                        file,
                        CalendarFile.write(
                                all, openPlace.place().label(), context.clock().instant())),
                f -> Words.of("plan.saved", f));
    }

    /** How many snapshots of a schedule stand, and when the last of them was taken, as a message. */
    public String countWords(SnapshotSchedule schedule) {
        List<Row> own = rows.get().stream()
                .filter(r -> r.snapshot().schedule() == schedule.id())
                .toList();
        return own.isEmpty()
                ? Words.of("schedule.noneYet")
                : Words.of(
                        "schedule.taken",
                        own.size(),
                        Formats.moment(
                                own.get(0).snapshot().at(), context.clock().instant(), context.zone()));
    }
}
