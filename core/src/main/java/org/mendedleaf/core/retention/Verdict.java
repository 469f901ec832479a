package org.mendedleaf.core.retention;

import java.time.Instant;
import java.time.ZoneId;
import java.util.Optional;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What becomes of one version, and why.
 *
 * @param reason why it is kept, or may go
 * @param until when that ends, as far as it is known; empty while it is not, or for good
 * @param rule by name; empty when no rule said it
 * @param detail what the reason speaks of: who holds it and why, or the label of a snapshot; empty otherwise
 */
public record Verdict(Reason reason, Optional<Instant> until, String rule, String detail) {

    /** Whether it stays. */
    public boolean keeps() {
        return reason.keeps();
    }

    /** In words: {@code kept until 4 May 2027, the last of its day (rule “Office”)}. */
    public String words(Instant now, ZoneId zone) {
        String when = until.map(u -> Formats.day(u, now, zone)).orElse("");
        String what = Words.of(until.isPresent() ? "verdict." + reason + ".until" : "verdict." + reason, when, detail);
        if (reason == Reason.CAP) {
            return Words.of("verdict.CAP", detail, rule);
        }
        return rule.isEmpty() ? what : Words.of("verdict.byRule", what, rule);
    }
}
