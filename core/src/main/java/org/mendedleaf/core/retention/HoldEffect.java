package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.IntPredicate;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * What a hold would keep, before it is put.
 *
 * @param hold that nobody has put yet
 * @param files that have versions under it
 * @param versions under it that are there
 * @param bytes of those versions, each counted whole
 * @param already how many of them another hold keeps too
 * @param otherwise what the rules would let go of them now if nobody held it
 */
public record HoldEffect(Hold hold, int files, int versions, long bytes, int already, ThinPlan otherwise) {

    /**
     * What this hold would keep. Pure.
     *
     * @param standing the verdicts without it
     * @param hold that nobody has put yet
     */
    public static HoldEffect of(Verdicts standing, SpaceTable space, Hold hold, Instant now, Calendar calendar) {
        VersionTable t = standing.table();
        Verdicts alone = Verdicts.of(t, List.of(hold), RuleSet.NONE, now, calendar);
        BitSet held = new BitSet(t.size());
        int files = 0;
        int already = 0;
        long bytes = 0;
        for (int line = 0; line < t.lines(); line++) {
            boolean any = false;
            for (int row = t.first(line); row < t.first(line + 1); row++) {
                if (t.stays(row) && alone.hold(row).isPresent()) {
                    held.set(row);
                    any = true;
                    bytes += t.bytes(row);
                    already += standing.hold(row).isPresent() ? 1 : 0;
                }
            }
            files += any ? 1 : 0;
        }
        ThinPlan otherwise = ThinPlan.of(standing, space, ThinPlan.Limits.RULES).only(held::get, space);
        return new HoldEffect(hold, files, held.cardinality(), bytes, already, otherwise);
    }

    /** What this hold would keep of what a vault and the systems it looks at have, under the rules that count. */
    public static HoldEffect of(Reading reading, Place place, Hold hold, Instant now, Calendar calendar)
            throws IOException {
        VersionTable table = place.isOutside()
                ? VersionTable.of(reading, reading.outside().points(place))
                : VersionTable.of(reading);
        Verdicts standing = Verdicts.of(table, HoldStore.of(reading).standing(), RuleSets.of(reading), now, calendar);
        return of(standing, new SpaceTable(table), hold, now, calendar);
    }

    /** What the rules would let go if this hold, by which these verdicts were made, were lifted. */
    public static ThinPlan lifting(Verdicts with, SpaceTable space, Hold hold, Instant now, Calendar calendar) {
        List<Hold> others =
                with.holds().stream().filter(h -> h.id() != hold.id()).toList();
        IntPredicate under =
                row -> with.hold(row).filter(h -> h.id() == hold.id()).isPresent();
        Verdicts without = Verdicts.of(with.table(), others, with.rules(), now, calendar);
        return ThinPlan.of(without, space, ThinPlan.Limits.RULES).only(under, space);
    }

    /** In sentences. */
    public String words() {
        List<String> said = new ArrayList<>();
        if (versions == 0) {
            said.add(Words.of("hold.effect.none"));
        } else {
            said.add(Words.of("hold.effect", versions, files, Formats.size(bytes)));
        }
        if (already > 0) {
            said.add(Words.of("hold.effect.already", already));
        }
        if (versions > 0) {
            said.add(
                    otherwise.versions() == 0
                            ? Words.of("hold.effect.nothing")
                            : Words.of(
                                    "hold.effect.otherwise",
                                    otherwise.versions(),
                                    Formats.size(otherwise.freedBytes())));
        }
        if (hold.kind() == Hold.Kind.LINE || hold.kind() == Hold.Kind.FOLDER) {
            said.add(Words.of("hold.effect.later"));
        }
        return String.join(" ", said);
    }
}
