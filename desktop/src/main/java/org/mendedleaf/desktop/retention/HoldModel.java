package org.mendedleaf.desktop.retention;

import java.io.IOException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.HoldEffect;
import org.mendedleaf.core.retention.Holds;
import org.mendedleaf.core.snapshots.Snapshots;
import org.mendedleaf.core.systems.OutsideHolds;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** Putting a hold, without its scene: on what, why, until when, and what that keeps. */
public final class HoldModel {

    private final AppContext context;
    private final OpenPlace openPlace;
    private final List<Hold> choices;
    private final String version;
    private final Background.Newest question;
    private final ObjectProperty<Hold> what;
    private final StringProperty reason = new SimpleStringProperty("");
    private final ObjectProperty<@Nullable LocalDate> lastDay = new SimpleObjectProperty<>();
    private final ReadOnlyObjectWrapper<@Nullable HoldEffect> effect = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");

    /**
     * Putting a hold on one of these.
     *
     * @param choices that nobody has put yet; the first is chosen
     * @param version what the version is called that one of them is of; empty where none is
     */
    public HoldModel(AppContext context, OpenPlace openPlace, List<Hold> choices, String version) {
        this.context = context;
        this.openPlace = openPlace;
        this.choices = List.copyOf(choices);
        this.version = version;
        this.question = context.background().new Newest();
        this.what = new SimpleObjectProperty<>(choices.get(0));
        what.addListener((o, a, b) -> weigh());
        lastDay.addListener((o, a, b) -> problem.set(""));
        reason.addListener((o, a, b) -> problem.set(""));
        weigh();
    }

    /** What can be held. */
    public List<Hold> choices() {
        return choices;
    }

    /** What of it is chosen. */
    public ObjectProperty<Hold> whatProperty() {
        return what;
    }

    /** Why. */
    public StringProperty reasonProperty() {
        return reason;
    }

    /** The last day of it; null for until somebody lifts it. */
    public ObjectProperty<@Nullable LocalDate> lastDayProperty() {
        return lastDay;
    }

    /** What it would keep; null while that is not known. */
    public ReadOnlyObjectProperty<@Nullable HoldEffect> effectProperty() {
        return effect.getReadOnlyProperty();
    }

    /** What is wrong, as a message; empty for nothing. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** Today, where the person at the screen is. */
    public LocalDate today() {
        return context.clock().instant().atZone(context.zone()).toLocalDate();
    }

    /** What it is about, in one line. */
    public String heading() {
        return Words.of("hold.title", name(choices.get(0)));
    }

    private String name(Hold of) {
        return of.path().isEmpty() || of.kind() == Hold.Kind.SNAPSHOT
                ? openPlace.place().label()
                : RelativePath.name(of.path());
    }

    /** One of the choices, as a message. */
    public String words(Hold of) {
        String whole = of.kind() == Hold.Kind.FOLDER && of.path().isEmpty()
                ? "PLACE"
                : of.kind().name();
        return Words.of("hold.choice." + whole, name(of), version);
    }

    private void weigh() {
        effect.set(null);
        Hold of = what.get();
        Instant now = context.clock().instant();
        question.ask(
                () -> {
                    try (Reading reading = openPlace.vault().read()) {
                        return HoldEffect.of(reading, openPlace.place(), of, now, context.calendar());
                    }
                },
                effect::set,
                e -> problem.set(Failures.words(e)));
    }

    /** What it would keep, in sentences; empty while that is not known. */
    public String effectWords() {
        HoldEffect e = effect.get();
        if (e == null) {
            return "";
        }
        return openPlace.place().isOutside()
                ? e.words() + " " + Words.of("hold.outside", openPlace.place().where())
                : e.words();
    }

    /** What came of it. */
    private record Done(Optional<Instant> until, OutsideHolds.Taken taken) {}

    /**
     * Puts the hold, as a job. Of a place in another system the vault takes what is held.
     *
     * @param done is told in words what was done
     */
    public void hold(Consumer<String> done) {
        // Said anew, also when it is the same as before.
        problem.set("");
        String why = reason.get().strip();
        if (why.isEmpty()) {
            problem.set(Words.of("hold.noReason"));
            return;
        }
        Hold of = what.get();
        Optional<Instant> until = Optional.ofNullable(lastDay.get())
                .map(d -> d.plusDays(1).atStartOfDay(context.zone()).toInstant());
        context.jobs()
                .start(
                        Words.of("job.hold", words(of)),
                        progress -> put(of, why, until, progress),
                        d -> {
                            done.accept(said(of, d));
                            context.changed();
                        },
                        e -> problem.set(Failures.words(e)));
    }

    private Done put(Hold of, String why, Optional<Instant> until, Progress progress) throws IOException {
        String who = context.settings().who();
        Place place = openPlace.place();
        if (of.kind() == Hold.Kind.SNAPSHOT) {
            new Snapshots(context.workContext(openPlace)).hold(of.snapshot(), why, until);
        } else {
            new Holds(openPlace.vault(), context.clock(), who).put(place, of, why, until);
        }
        // No system can be kept from forgetting, so the vault takes what is held.
        return new Done(
                until,
                place.isOutside()
                        ? new OutsideHolds(openPlace.vault(), context.registry())
                                .take(place, context.clock().instant(), progress)
                        : new OutsideHolds.Taken(0, Map.of()));
    }

    private String said(Hold of, Done d) {
        List<String> all = new ArrayList<>();
        all.add(d.until()
                .map(u -> Words.of(
                        "hold.doneUntil",
                        words(of),
                        Formats.end(u, context.clock().instant(), context.zone())))
                .orElseGet(() -> Words.of("hold.done", words(of))));
        if (d.taken().versions() > 0) {
            all.add(Words.of(
                    "cli.hold.taken", d.taken().versions(), openPlace.place().where()));
        }
        d.taken().failed().forEach((what, why) -> all.add(Words.of("cli.hold.notTaken", what, why)));
        return String.join(" ", all);
    }
}
