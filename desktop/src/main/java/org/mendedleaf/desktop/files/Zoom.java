package org.mendedleaf.desktop.files;

import java.time.Instant;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Optional;

/** How long a step is, and how many of them the ruler shows. */
public enum Zoom {
    /** Hours of the last four days. */
    HOUR(ChronoUnit.HOURS, 96),
    /** Days of the last three months. */
    DAY(ChronoUnit.DAYS, 91),
    /** Weeks of the last two years. */
    WEEK(ChronoUnit.WEEKS, 104),
    /** Months of the last ten years. */
    MONTH(ChronoUnit.MONTHS, 120);

    /** Steps that the ruler has at least. */
    private static final int FEWEST = 24;

    private final ChronoUnit unit;
    final int steps;

    Zoom(ChronoUnit unit, int steps) {
        this.unit = unit;
        this.steps = steps;
    }

    /** The unit of a step. */
    public ChronoUnit unit() {
        return unit;
    }

    /** The steps for a history that began then: as many as it takes, but no handful. */
    int steps(Optional<Instant> beginning, ZonedDateTime now) {
        if (beginning.isEmpty()) {
            return steps;
        }
        long needed = unit.between(floor(beginning.get().atZone(now.getZone())), floor(now)) + 1;
        return (int) Math.max(Math.min(FEWEST, steps), Math.min(steps, needed));
    }

    /** The one that shows a history of the last three months at its best. */
    static Zoom of(Optional<Instant> beginning, ZonedDateTime now) {
        return beginning
                        .filter(b -> HOUR.unit.between(b.atZone(now.getZone()), now) < HOUR.steps)
                        .isPresent()
                ? HOUR
                : DAY;
    }

    ZonedDateTime floor(ZonedDateTime t) {
        return switch (this) {
            case HOUR -> t.truncatedTo(ChronoUnit.HOURS);
            case DAY -> t.truncatedTo(ChronoUnit.DAYS);
            case WEEK ->
                t.truncatedTo(ChronoUnit.DAYS).minusDays(t.getDayOfWeek().getValue() - 1L);
            case MONTH -> t.truncatedTo(ChronoUnit.DAYS).withDayOfMonth(1);
        };
    }
}
