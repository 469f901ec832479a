package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.line.PendingDeletion;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What keeps each version of one line, and why others went: for every version that ever was.
 *
 * @param verdicts by number
 * @param letGo what was let go, by number
 */
public record LineVerdicts(Map<Integer, Verdict> verdicts, Map<Integer, PendingDeletion> letGo) {

    /** Copies. */
    public LineVerdicts {
        verdicts = Map.copyOf(verdicts);
        letGo = Map.copyOf(letGo);
    }

    /** Of one line, as a reader sees it. */
    public static LineVerdicts of(Reading reading, long line, Instant now, Calendar calendar) throws IOException {
        RuleSet rules = RuleSets.of(reading);
        Map<Integer, Verdict> verdicts = new HashMap<>();
        if (WholeVerdicts.areNeeded(reading, rules)) {
            Verdicts all = WholeVerdicts.known(reading, rules, now, calendar);
            int l = all.table().lineRow(line);
            int end = l < 0 ? -1 : all.table().first(l + 1);
            for (int row = l < 0 ? 0 : all.table().first(l); row < end; row++) {
                verdicts.put(all.table().number(row), all.at(row));
            }
        } else {
            VersionTable t = VersionTable.ofLine(reading, line);
            Verdicts all =
                    Verdicts.of(t, HoldStore.of(reading).standing(), rules, TrustedTime.of(reading, now), calendar);
            for (int row = 0; row < t.size(); row++) {
                verdicts.put(t.number(row), all.at(row));
            }
        }
        return new LineVerdicts(verdicts, PendingDeletionStore.of(reading).of(line));
    }

    /** What is said of a version: until when it is kept and why, or since when it is gone and why; empty for nothing. */
    public String words(int number, Instant now, ZoneId zone) {
        PendingDeletion l = letGo.get(number);
        if (l != null) {
            String why = l.rule().isEmpty()
                    ? Words.of("letGo.by." + (l.reason().equals("ERASED") ? "ERASED" : "THINNED"), l.who())
                    : Words.of("letGo.byRule", Words.of("letGo.why." + l.reason()), l.rule());
            return l.gone()
                    .map(g -> Words.of("letGo.wasGone", Formats.day(g, now, zone), why))
                    .orElseGet(() -> Words.of("letGo.waits", Formats.day(l.due(), now, zone), why));
        }
        Verdict v = verdicts.get(number);
        return v == null || v.reason() == Reason.NO_RULE || v.reason() == Reason.NEWEST || v.reason() == Reason.NOT_HERE
                ? ""
                : v.words(now, zone);
    }

    /** What becomes of the whole line, in a few words: how many may go, wait, or are gone. */
    public String summary() {
        long may = verdicts.values().stream().filter(v -> !v.keeps()).count();
        long gone = letGo.values().stream().filter(l -> l.gone().isPresent()).count();
        long waiting = letGo.size() - gone;
        boolean ruled =
                verdicts.values().stream().anyMatch(v -> v.reason() != Reason.NO_RULE && v.reason() != Reason.NEWEST);
        List<String> parts = new ArrayList<>();
        if (may > 0) {
            parts.add(Words.of("letGo.may", may));
        }
        if (waiting > 0) {
            parts.add(Words.of("letGo.waiting", waiting));
        }
        if (gone > 0) {
            parts.add(Words.of("letGo.areGone", gone));
        }
        return parts.isEmpty() ? Words.of(ruled ? "letGo.none" : "letGo.noRule") : String.join(" · ", parts);
    }

    /** Whether a version is held. */
    public boolean isHeld(int number) {
        return Optional.ofNullable(verdicts.get(number))
                .filter(v -> v.reason() == Reason.HELD)
                .isPresent();
    }
}
