package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What is there now, whatever clocks say. When the clock of a computer once stood in the future, something is dated then, and
 * a moment by the clock as it is again would show what was there before. What is current is what has not ended.
 */
public final class Present {

    /** The highest moment at which anything in a vault begins or ended. */
    static final String HIGHEST = "highest-moment";

    /** Clocks of computers differ a little, and nobody needs to hear of it. */
    private static final Duration TOLERANCE = Duration.ofHours(26);

    private Present() {}

    /** A moment at which a place holds what it holds now: by the clock, or right after what is dated later. */
    static Instant moment(Sql sql, Place place, Instant clock) throws IOException {
        if (sql.number("SELECT value FROM counter WHERE name = ?", HIGHEST) <= Moment.micros(clock)) {
            return clock;
        }
        long last = sql.number(
                "SELECT max(max(s.valid_from), coalesce(max(nullif(s.valid_to, ?)), 0)) FROM folder f"
                        + " JOIN span s ON s.folder = f.id WHERE f.place = ?",
                Moment.OPEN,
                place.id());
        return last < Moment.micros(clock) ? clock : Moment.instant(last + 1);
    }

    /** As {@link #moment(Sql, Place, Instant)}, within a session. */
    public static Instant moment(WriteSession session, Place place, Instant clock) throws IOException {
        return moment(session.sql(), place, clock);
    }

    /** What a moment that was read from the clock just now means for a reader: what has not ended. */
    public static Instant since(Instant asked, Instant clock) {
        return asked.isBefore(clock) ? asked : Moment.FAR;
    }

    /** The highest moment that a vault has seen, when the clock stands well before it. */
    public static Optional<Instant> ahead(Reading reading, Instant clock) throws IOException {
        Instant highest = Moment.instant(reading.note(HIGHEST));
        return highest.isAfter(clock.plus(TOLERANCE)) ? Optional.of(highest) : Optional.empty();
    }

    /** That in words. */
    public static String words(Instant highest, Instant clock, java.time.ZoneId zone) {
        return Words.of("clock.before", Formats.full(clock, zone), Formats.full(highest, zone));
    }
}
