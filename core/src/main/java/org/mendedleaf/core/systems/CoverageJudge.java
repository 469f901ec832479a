package org.mendedleaf.core.systems;

import java.time.Instant;
import java.util.Optional;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.rules.Setting;

/** Says how well a place is covered, by what is known of it. Pure. */
final class CoverageJudge {

    /** A scan that is this much later than its rhythm is late. */
    private static final int LATE_AFTER = 3;

    private CoverageJudge() {}

    /** The state of a place, by what is known of it. */
    static CoverageState judge(
            Place place,
            String trouble,
            Optional<OutsidePlaceState> facts,
            Optional<Instant> lastGood,
            long missed,
            boolean drive,
            int gaps) {
        if (place.versioning() != Versioning.ON) {
            return place.versioning() == Versioning.OFF ? CoverageState.OFF : CoverageState.PAUSED;
        }
        if (facts.flatMap(OutsidePlaceState::awaySince).isPresent()) {
            return CoverageState.AWAY;
        }
        if (!trouble.isEmpty()) {
            return facts.map(OutsidePlaceState::full).orElse(false) ? CoverageState.FULL : CoverageState.FAILING;
        }
        if (facts.flatMap(OutsidePlaceState::unfinished).isPresent()) {
            return CoverageState.INTERRUPTED;
        }
        if (lastGood.isEmpty()) {
            return CoverageState.NEVER;
        }
        String versioning = facts.map(f -> f.settings().values().getOrDefault(Setting.VERSIONING, "on"))
                .orElse("on");
        if (versioning.equals("off")) {
            return CoverageState.OFF;
        }
        if (versioning.equals("paused")) {
            return CoverageState.PAUSED;
        }
        if (missed >= (drive ? 2 : LATE_AFTER) && place.rhythm().kind() == Rhythm.Kind.EVERY) {
            return CoverageState.LATE;
        }
        return gaps > 0 ? CoverageState.GAPS : CoverageState.GOOD;
    }
}
