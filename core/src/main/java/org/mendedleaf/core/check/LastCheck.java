package org.mendedleaf.core.check;

import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Optional;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * The last full check of a vault that came to its end.
 *
 * @param at when
 * @param lost versions that could not be brought back whole
 */
public record LastCheck(Instant at, long lost) {

    private static final String AT = "checked-full";
    private static final String LOST = "checked-lost";

    /** The last one; empty when there was none, or its note went with a catalogue that was made anew. */
    public static Optional<LastCheck> of(Reading reading) throws IOException {
        long at = reading.note(AT);
        return at == 0 ? Optional.empty() : Optional.of(new LastCheck(Moment.instant(at), reading.note(LOST)));
    }

    /** Notes what came of a check; of one that was not full, or did not come to its end, or was of a copy, nothing. */
    public static void note(OpenVault vault, VaultCheck.Report report, Instant now) throws IOException {
        if (!report.full() || report.cancelled() || vault.folder().isCopy()) {
            return;
        }
        try (WriteSession session = vault.write()) {
            session.note(AT, Moment.micros(now));
            session.note(LOST, report.lost().size());
            session.commit();
        }
    }

    /** When it was and what came of it, as a message. */
    public static String words(Optional<LastCheck> last, Instant now, ZoneId zone) {
        return last.map(l -> Words.of("check.last", Formats.moment(l.at(), now, zone), l.lost()))
                .orElse(Words.of("check.never"));
    }
}
