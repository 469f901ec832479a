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
import org.mendedleaf.core.catalogue.CutSpace;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.disk.TextFile;
import org.mendedleaf.core.line.Cut;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.recovery.Failures;
import org.mendedleaf.core.snapshots.CalendarFile;
import org.mendedleaf.core.snapshots.Snapshots;
import org.mendedleaf.core.systems.Capability;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.shell.Background;
import org.mendedleaf.desktop.shell.Desk;
import org.mendedleaf.desktop.shell.Held;
import org.mendedleaf.desktop.shell.Jobs;

/** The snapshots of one place and their schedules, without a scene. */
public final class SnapshotsModel {

    private final Desk desk;
    private final Held held;
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
    public SnapshotsModel(Desk desk, Held held, String folder) {
        this.desk = desk;
        this.held = held;
        this.folder = folder;
        this.question = desk.background().new Newest();
        this.spaceQuestion = desk.background().new Newest();
        desk.changesProperty().addListener(new javafx.beans.value.WeakChangeListener<>(changes));
        reload();
    }

    /**
     * A snapshot, ours or that of another system.
     *
     * @param cut in the other system; null for ours
     * @param holds what it holds; null while it is counted, and for another system's
     */
    public record Row(Snapshot snapshot, @Nullable Cut cut, CutSpace.@Nullable Holds holds) {}

    /** The desk. */
    public Desk desk() {
        return desk;
    }

    /** The place. */
    public Held held() {
        return held;
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

    /** What is wrong, in words; empty when nothing is. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** What was done, in words; empty before anything was. */
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
        return held.place().isOutside();
    }

    /** Whether snapshots can be taken of it. */
    public boolean canTake() {
        return !isOutside()
                || desk.book()
                        .kind(held.place())
                        .map(k -> k.can(Capability.SNAPSHOTS) && k.can(Capability.WRITING))
                        .orElse(false);
    }

    private Snapshots snapshots() {
        return new Snapshots(
                held.vault(),
                held.place(),
                desk.clock(),
                desk.authors(),
                desk.home().who());
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
        desk.background()
                .run(
                        () -> isOutside()
                                ? List.<SnapshotSchedule>of()
                                : snapshots().schedules(),
                        schedules::set,
                        this::failed);
    }

    private List<Row> load() throws IOException {
        List<Row> found = new ArrayList<>();
        try (Reading reading = held.vault().read()) {
            if (isOutside()) {
                for (Cut c : reading.cuts(held.place())) {
                    if (!c.isLive()) {
                        Snapshot s = new Snapshot(0, held.place().id(), "", c.at(), c.label(), "", 0, Optional.empty());
                        found.add(0, new Row(s, c, null));
                    }
                }
            } else {
                SnapshotStore.of(reading).standing(held.place()).forEach(s -> found.add(0, new Row(s, null, null)));
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
                    try (Reading reading = held.vault().read()) {
                        return CutSpace.of(
                                reading,
                                held.place(),
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

    /** Who asked for a snapshot, in words. */
    public String origin(Row row) {
        Snapshot s = row.snapshot();
        if (row.cut() != null) {
            return held.place().where();
        }
        return s.schedule() == 0 ? Words.of("snapshot.byHand", s.who()) : Words.of("snapshot.bySchedule");
    }

    /** What erasing a snapshot means, in words. */
    public String eraseWords(Row row) {
        CutSpace.Holds h = row.holds();
        if (row.cut() != null) {
            return Words.of("snapshot.eraseThere", held.place().where());
        }
        if (row.snapshot().isHeld(desk.clock().instant())) {
            return Words.of("snapshot.eraseHeld");
        }
        return h == null
                ? Words.of("snapshot.counting")
                : Words.of("snapshot.eraseWords", h.aloneVersions(), Say.size(h.aloneBytes()));
    }

    private <T> void work(String title, Jobs.Work<T> work, java.util.function.Function<T, String> words) {
        problem.set("");
        desk.jobs()
                .start(
                        title,
                        work,
                        result -> {
                            done.set(words.apply(result));
                            desk.changed();
                        },
                        this::failed);
    }

    /** Takes a snapshot of the folder that new ones cover. */
    public void take(String label) {
        String path = scope.get();
        work(
                Words.of("job.snapshot", held.place().label()),
                progress -> isOutside()
                        ? desk.outsideWork(held).snapshot(label).at()
                        : snapshots().take(path, label, progress).at(),
                (Instant at) -> Words.of("files.snapshot", held.place().label()));
    }

    /** Gives a snapshot another label. */
    public void rename(Row row, String label) {
        work(
                Words.of("job.snapshot", held.place().label()),
                progress -> snapshots().rename(row.snapshot().id(), label),
                s -> Words.of("snapshot.renamed", s.label()));
    }

    /** Whether nothing may take a snapshot away now. */
    public boolean isHeld(Row row) {
        return row.snapshot().isHeld(desk.clock().instant());
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
                        Say.end(end, desk.clock().instant(), desk.zone())))
                .orElseGet(() -> Words.of("snapshot.isHeld", s.hold()));
    }

    /** Ends the hold on a snapshot. */
    public void endHold(Row row) {
        work(
                Words.of("job.snapshot", held.place().label()),
                progress -> snapshots().hold(row.snapshot().id(), "", Optional.empty()),
                s -> Words.of("snapshot.notHeld"));
    }

    /** Erases a snapshot; one in a folder comes back by undoing. */
    public void erase(Row row) {
        Cut cut = row.cut();
        CutSpace.Holds h = row.holds();
        work(
                Words.of("job.erase", Say.full(row.snapshot().at(), desk.zone())),
                progress -> cut == null
                        ? snapshots().erase(List.of(row.snapshot().id()))
                        : (long) desk.outsideWork(held).eraseSnapshot(cut, progress),
                n -> cut == null
                        ? Words.of(
                                "snapshot.erased",
                                1,
                                h == null ? 0 : h.aloneVersions(),
                                Say.size(h == null ? 0 : h.aloneBytes()))
                        : Words.of("cli.snapshot.erasedThere", Say.full(cut.at(), desk.zone()), n));
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
                    List<SnapshotSchedule> found =
                            CalendarFile.read(TextFile.read(file), held.place().id(), "", desk.zone());
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
                                all, held.place().label(), desk.clock().instant())),
                f -> Words.of("plan.saved", f));
    }

    /** How many snapshots of a schedule stand, and when the last of them was taken, in words. */
    public String countWords(SnapshotSchedule schedule) {
        List<Row> own = rows.get().stream()
                .filter(r -> r.snapshot().schedule() == schedule.id())
                .toList();
        return own.isEmpty()
                ? Words.of("schedule.noneYet")
                : Words.of(
                        "schedule.taken",
                        own.size(),
                        Say.moment(own.get(0).snapshot().at(), desk.clock().instant(), desk.zone()));
    }
}
