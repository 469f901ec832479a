package org.mendedleaf.core.retention;

import java.util.Locale;

/** The spans of the calendar of which the last version can be kept. */
public enum Level {
    /** Each hour of the clock. */
    HOURLY(1 / 24.0),
    /** Each day. */
    DAILY(1),
    /** Each week, from its first day on. */
    WEEKLY(7),
    /** Each month. */
    MONTHLY(30.44),
    /** Each year. */
    YEARLY(365.25);

    private final double days;

    Level(double days) {
        this.days = days;
    }

    /** About how many days long. */
    double days() {
        return days;
    }

    /** As it stands in a file. */
    public String text() {
        return name().toLowerCase(Locale.ROOT);
    }
}
