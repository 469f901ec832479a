package org.mendedleaf.desktop.files;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.line.CaptureRecord;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.Background;
import org.mendedleaf.desktop.context.OpenPlace;

/** The time ruler without its scene: a stretch of time in equal steps, with the number of changes in each. */
public final class RulerModel {

    private final AppContext context;
    private final Background.Newest question;
    private final ReadOnlyObjectWrapper<Stretch> stretch;
    private @Nullable OpenPlace openPlace;
    private Zoom zoom = Zoom.DAY;
    /** Whether somebody chose how long steps are, for the place that is looked at. */
    private boolean chosen;

    RulerModel(AppContext context) {
        this.context = context;
        this.question = context.background().new Newest();
        this.stretch =
                new ReadOnlyObjectWrapper<>(empty(context.clock().instant().atZone(context.zone())));
    }

    /**
     * One step of the ruler.
     *
     * @param from its first moment
     * @param to the first moment after it
     * @param changes in it
     * @param burst number of changes of the largest capture in it, when that stands out; 0 otherwise
     */
    public record Step(Instant from, Instant to, int changes, long burst) {}

    /**
     * A snapshot on the ruler.
     *
     * @param label what people call it; may be empty
     * @param byHand whether somebody took it, and no schedule
     */
    public record Peg(Instant at, String label, boolean byHand) {

        /** Its moment, and what people call it. */
        String words(ZoneId zone) {
            String when = Formats.full(at, zone);
            return label.isEmpty() ? when : Words.of("ruler.peg", label, when);
        }
    }

    /**
     * What the ruler shows.
     *
     * @param zoom of it
     * @param steps from the oldest to the newest
     * @param now the present
     * @param beginning when the place was first captured; empty before it was
     * @param pegs all snapshots, oldest first, also those before the first step
     */
    public record Stretch(Zoom zoom, List<Step> steps, Instant now, Optional<Instant> beginning, List<Peg> pegs) {
        /** Copies the lists. */
        public Stretch {
            steps = List.copyOf(steps);
            pegs = List.copyOf(pegs);
        }

        /** The pegs that stand on it. */
        public List<Peg> shown() {
            Instant start = steps.get(0).from();
            return pegs.stream().filter(p -> !p.at().isBefore(start)).toList();
        }

        /** Where a moment stands, 0 at the start to 1 at the end; clipped. */
        public double position(Instant at) {
            Instant start = steps.get(0).from();
            Instant end = steps.get(steps.size() - 1).to();
            double share = (double) Duration.between(start, at).toMillis()
                    / Duration.between(start, end).toMillis();
            return Math.max(0, Math.min(1, share));
        }

        /** The moment at a position, never later than now nor before the first capture. */
        public Instant at(double position) {
            Instant start = steps.get(0).from();
            Instant end = steps.get(steps.size() - 1).to();
            long millis = (long) (Duration.between(start, end).toMillis() * Math.max(0, Math.min(1, position)));
            return clip(start.plusMillis(millis));
        }

        /** A moment brought between the first capture and now. */
        public Instant clip(Instant at) {
            Instant first = beginning.orElse(Instant.MIN);
            if (at.isBefore(first)) {
                return first;
            }
            return at.isAfter(now) ? now : at;
        }

        /** The step in which a moment lies. */
        public int index(Instant at) {
            for (int i = steps.size() - 1; i >= 0; i--) {
                if (!at.isBefore(steps.get(i).from())) {
                    return i;
                }
            }
            return 0;
        }
    }

    /** What the ruler shows. */
    public ReadOnlyObjectProperty<Stretch> stretchProperty() {
        return stretch.getReadOnlyProperty();
    }

    private Stretch empty(ZonedDateTime now) {
        return stretch(zoom, now, Map.of(), List.of(), List.of());
    }

    /** Shows shorter or longer steps. */
    public void zoom(int by) {
        Zoom[] all = Zoom.values();
        zoom = all[Math.max(0, Math.min(all.length - 1, zoom.ordinal() + by))];
        chosen = true;
        load(openPlace);
    }

    void load(@Nullable OpenPlace of) {
        OpenPlace before = openPlace;
        openPlace = of;
        if (of == null) {
            return;
        }
        chosen &= before != null && before.place().id() == of.place().id() && before.vault() == of.vault();
        Zoom set = zoom;
        boolean byHand = chosen;
        ZonedDateTime now = context.clock().instant().atZone(context.zone());
        question.ask(
                () -> {
                    try (Reading reading = of.vault().read()) {
                        List<CaptureRecord> captures = reading.changes().captures(of.place());
                        Zoom wanted = byHand ? set : Zoom.of(beginning(captures), now);
                        long to = now.toEpochSecond() / 3600 + 1;
                        long from =
                                to - wanted.steps * wanted.unit().getDuration().toHours() - 24 * 32;
                        return stretch(
                                wanted,
                                now,
                                reading.changes().density(of.place(), from, to),
                                captures,
                                pegs(reading, of));
                    }
                },
                s -> {
                    zoom = s.zoom();
                    stretch.set(s);
                },
                e -> org.slf4j.LoggerFactory.getLogger(RulerModel.class).warn("no ruler", e));
    }

    private static List<Peg> pegs(Reading reading, OpenPlace of) throws java.io.IOException {
        return SnapshotStore.of(reading).all(of.place()).stream()
                .map(s -> new Peg(s.at(), s.label(), s.schedule() == 0))
                .toList();
    }

    /** Puts a stretch together. Pure. */
    static Stretch stretch(
            Zoom zoom, ZonedDateTime now, Map<Long, Integer> density, List<CaptureRecord> captures, List<Peg> pegs) {
        ZoneId zone = now.getZone();
        ZonedDateTime last = zoom.floor(now);
        List<Step> steps = new ArrayList<>();
        Optional<Instant> beginning = beginning(captures);
        ZonedDateTime from = zoom.floor(last.minus(zoom.steps(beginning, now) - 1L, zoom.unit()));
        long usual = CaptureCounts.usual(captures);
        while (!from.isAfter(now)) {
            ZonedDateTime to = from.plus(1, zoom.unit());
            steps.add(new Step(
                    from.toInstant(),
                    to.toInstant(),
                    CaptureCounts.sum(density, from, to),
                    CaptureCounts.burst(captures, from, to, usual)));
            from = to;
        }
        return new Stretch(zoom, steps, now.withZoneSameInstant(zone).toInstant(), beginning, pegs);
    }

    private static Optional<Instant> beginning(List<CaptureRecord> captures) {
        return captures.isEmpty()
                ? Optional.empty()
                : Optional.of(captures.get(0).started());
    }
}
