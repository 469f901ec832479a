package org.mendedleaf.core.retention;

import java.io.IOException;
import java.lang.ref.SoftReference;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.catalogue.UnfoldQueue;

/**
 * Verdicts on all versions of a vault as they count now: with limits of space, and with what a full drive would take where
 * rules are carried out by themselves.
 */
public final class WholeVerdicts {

    /** What one line is asked about is not computed anew for each of its neighbours. */
    private static final Duration GOOD_FOR = Duration.ofMinutes(10);

    private static @Nullable Known known;

    private WholeVerdicts() {}

    private record Known(Path vault, String state, RuleSet rules, Instant at, SoftReference<Verdicts> verdicts) {}

    /** Under these rules, as a reader sees the vault. */
    public static Verdicts of(Reading reading, RuleSet rules, Instant clock, Calendar calendar) throws IOException {
        VersionTable table = VersionTable.of(reading);
        Verdicts verdicts =
                Verdicts.of(table, HoldStore.of(reading).standing(), rules, TrustedTime.of(reading, clock), calendar);
        return rules.standing() && isTight(reading)
                ? StandingRules.outlook(verdicts, new SpaceTable(table), free(reading))
                : verdicts;
    }

    /** Whether what becomes of one version depends on what others take. */
    static boolean areNeeded(Reading reading, RuleSet rules) throws IOException {
        return rules.rules().stream().anyMatch(r -> r.capBytes() > 0) || (rules.standing() && isTight(reading));
    }

    /** As {@link #of}; what was computed a moment ago for the same state of the vault is given again. */
    static synchronized Verdicts known(Reading reading, RuleSet rules, Instant clock, Calendar calendar)
            throws IOException {
        Path vault = reading.vault().folder().root();
        String state = reading.state() + "/" + reading.note(UnfoldQueue.UNFOLDED);
        Known k = known;
        Verdicts before = k == null ? null : k.verdicts().get();
        boolean same = k != null
                && k.vault().equals(vault)
                && k.state().equals(state)
                && k.rules().equals(rules)
                && Duration.between(k.at(), clock).abs().compareTo(GOOD_FOR) < 0;
        if (same && before != null) {
            return before;
        }
        Verdicts fresh = of(reading, rules, clock, calendar);
        known = new Known(vault, state, rules, clock, new SoftReference<>(fresh));
        return fresh;
    }

    private static boolean isTight(Reading reading) throws IOException {
        return free(reading) < StandingRules.LEAST_FREE;
    }

    private static long free(Reading reading) throws IOException {
        return Files.getFileStore(reading.vault().folder().root()).getUsableSpace();
    }
}
