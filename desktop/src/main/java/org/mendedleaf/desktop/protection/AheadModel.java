package org.mendedleaf.desktop.protection;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.retention.Forecast;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.SpaceReport;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** How much space the versions of a folder will take, as it is captured and at each other interval, without its scene. */
public final class AheadModel {

    /** A save more or less changes little of what is to come. */
    private static final Duration AGAIN = Duration.ofMinutes(10);

    private final AppContext context;
    private final Background.Newest question;
    private @Nullable OpenPlace target;
    private List<Rhythm> intervals = List.of();
    private boolean seen;
    private @Nullable OpenPlace lookedAt;
    private Instant looked = Instant.EPOCH;
    private final ReadOnlyObjectWrapper<@Nullable Ahead> ahead = new ReadOnlyObjectWrapper<>();
    private final ReadOnlyObjectWrapper<String> problem = new ReadOnlyObjectWrapper<>("");

    /**
     * A folder's forecasts.
     *
     * @param present how it is captured
     * @param asItIs with that
     * @param others at other intervals; those between which nothing can be told apart are left out
     */
    public record Ahead(Rhythm present, Forecast asItIs, Map<Rhythm, Forecast> others) {

        /** Copies, in order. */
        public Ahead {
            others = new LinkedHashMap<>(others);
        }
    }

    AheadModel(AppContext context) {
        this.context = context;
        this.question = context.background().new Newest();
    }

    /** The forecasts; null while they are not known. */
    public ReadOnlyObjectProperty<@Nullable Ahead> aheadProperty() {
        return ahead.getReadOnlyProperty();
    }

    /** What went wrong, as a message; empty for nothing. */
    public ReadOnlyObjectProperty<String> problemProperty() {
        return problem.getReadOnlyProperty();
    }

    /** Says for which folder it is, and of which intervals it is asked what they would come to. */
    public void show(OpenPlace openPlace, List<Rhythm> others) {
        target = openPlace;
        intervals = List.copyOf(others);
        lookWhereItIsDue();
    }

    /** Says whether anybody sees it; a look at all versions of a large vault is not made for nobody. */
    public void seen(boolean is) {
        seen = is;
        lookWhereItIsDue();
    }

    private void lookWhereItIsDue() {
        OpenPlace openPlace = target;
        if (!seen || openPlace == null) {
            return;
        }
        Instant now = context.clock().instant();
        OpenPlace before = lookedAt;
        boolean same = before != null
                && before.vault() == openPlace.vault()
                && before.place().id() == openPlace.place().id()
                && before.place().rhythm().equals(openPlace.place().rhythm());
        if (same && now.isBefore(looked.plus(AGAIN))) {
            return;
        }
        if (!same) {
            ahead.set(null);
        }
        lookedAt = openPlace;
        looked = now;
        problem.set("");
        List<Rhythm> others = intervals;
        question.ask(() -> look(openPlace, others, now), ahead::set, e -> problem.set(Failures.words(e)));
    }

    private Ahead look(OpenPlace openPlace, List<Rhythm> intervals, Instant now) throws IOException {
        Place place = openPlace.place();
        Rhythm present = place.rhythm();
        try (Reading reading = openPlace.vault().read()) {
            VersionTable table = VersionTable.of(reading);
            Verdicts verdicts =
                    Verdicts.of(table, HoldStore.of(reading).standing(), RuleSets.of(reading), now, context.calendar());
            long free = SpaceReport.of(openPlace.vault().folder(), new SpaceTable(table))
                    .free();
            Map<Rhythm, Forecast> others = new LinkedHashMap<>();
            for (Rhythm r : intervals) {
                // How often somebody will ask for a capture by hand is not known.
                if (!r.equals(present) && r.kind() != Rhythm.Kind.BY_HAND && present.kind() != Rhythm.Kind.BY_HAND) {
                    others.put(r, forecast(verdicts, now, place, r, free));
                }
            }
            return new Ahead(present, forecast(verdicts, now, place, present, free), others);
        }
    }

    private static Forecast forecast(Verdicts verdicts, Instant now, Place place, Rhythm then, long free) {
        return Forecast.of(
                verdicts,
                now,
                new Forecast.Asked(place.rhythm().intervalMinutes(), then.intervalMinutes(), free, place.id(), ""));
    }

    /** What an interval costs beside the present one; empty for that one, and while it is not known. */
    public Optional<String> cost(Rhythm rhythm) {
        Ahead a = ahead.get();
        Forecast f = a == null ? null : a.others().get(rhythm);
        return a == null || f == null
                ? Optional.empty()
                : Optional.of(Words.of(
                        "ahead.cost",
                        Formats.sizeChange(f.monthBytes() - a.asItIs().monthBytes())));
    }

    /** The forecast as it is, in sentences; empty while it is not known. */
    public List<String> words() {
        Ahead a = ahead.get();
        if (a == null) {
            return List.of();
        }
        Forecast f = a.asItIs();
        Instant now = context.clock().instant();
        return List.of(
                Words.of(f.assumed() ? "forecast.assumed" : "forecast.basis", f.observedDays()),
                Words.of(
                        "forecast.words",
                        Formats.oneDecimal(f.versionsPerDay()),
                        Formats.size(f.curve().get(0).bytes()),
                        Formats.size(f.monthBytes()),
                        Formats.size(f.yearBytes())),
                f.fullAt(now)
                        .map(at -> Words.of("forecast.full", Formats.day(at, now, context.zone())))
                        .orElseGet(() -> Words.of("forecast.notFull")));
    }
}
