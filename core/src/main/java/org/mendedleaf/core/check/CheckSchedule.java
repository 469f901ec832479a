package org.mendedleaf.core.check;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.time.Moment;

/** How often every byte of a vault is read, and whether that is going on. */
public final class CheckSchedule {

    /** Every so many days, unless chosen otherwise. */
    public static final int DEFAULT_DAYS = 30;

    /** Only when somebody asks for it. */
    public static final int BY_HAND = 0;

    private static final String DAYS = "check-days";
    private static final String BEGAN = "check-began";

    private CheckSchedule() {}

    /** Every how many days it is; {@link #BY_HAND} for only when somebody asks. */
    public static int days(Reading reading) throws IOException {
        long noted = reading.note(DAYS);
        // Not noted is 0 too: so the days are noted with one more.
        return noted == 0 ? DEFAULT_DAYS : (int) noted - 1;
    }

    /**
     * Chooses how often it is.
     *
     * @param days 1 to 365, or {@link #BY_HAND}
     */
    public static void choose(OpenVault vault, int days) throws IOException {
        if (days < BY_HAND || days > 365) {
            throw new IllegalArgumentException(org.mendedleaf.core.words.Words.of("check.days", String.valueOf(days)));
        }
        note(vault, DAYS, days + 1);
    }

    /** When one that is not at its end was begun. */
    public static Optional<Instant> began(Reading reading) throws IOException {
        long at = reading.note(BEGAN);
        return at == 0 ? Optional.empty() : Optional.of(Moment.instant(at));
    }

    /** When the next one is due: one that was begun at once, else so long after the last; empty when only by hand. */
    public static Optional<Instant> due(Reading reading) throws IOException {
        int days = days(reading);
        if (days == BY_HAND) {
            return Optional.empty();
        }
        if (began(reading).isPresent()) {
            return began(reading);
        }
        return Optional.of(LastCheck.of(reading)
                .map(l -> l.at().plus(Duration.ofDays(days)))
                .orElse(Instant.EPOCH));
    }

    /** Notes that one has begun. */
    public static void begin(OpenVault vault, Instant at) throws IOException {
        note(vault, BEGAN, Moment.micros(at));
    }

    /** Notes that it came to its end. */
    public static void end(OpenVault vault) throws IOException {
        note(vault, BEGAN, 0);
    }

    private static void note(OpenVault vault, String name, long value) throws IOException {
        try (WriteSession session = vault.write()) {
            session.note(name, value);
            session.commit();
        }
    }
}
