package org.mendedleaf.core.retention;

/** Spans of age, counted from when a version was saved. */
public enum SpaceAge {
    /** The last 24 hours. */
    DAY(1),
    /** The last 7 days. */
    WEEK(7),
    /** The last 30 days. */
    MONTH(30),
    /** The last 91 days. */
    QUARTER(91),
    /** The last 365 days. */
    YEAR(365),
    /** Before. */
    OLDER(Long.MAX_VALUE / 100_000_000_000L);

    private final long days;

    SpaceAge(long days) {
        this.days = days;
    }

    /** Into which a moment falls. */
    public static SpaceAge of(long saved, long now) {
        for (SpaceAge a : values()) {
            if (now - saved < a.days * 86_400_000_000L) {
                return a;
            }
        }
        return OLDER;
    }
}
