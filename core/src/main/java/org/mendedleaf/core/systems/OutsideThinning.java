package org.mendedleaf.core.systems;

import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.OutsideQuery;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.TrustedTime;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/**
 * Thinning in another system that can erase single versions. The same verdicts as in the vault, on all that the system
 * holds; each version that goes is taken into the vault, erased in the system, and let go in the vault, where it can be
 * taken back until its grace ends.
 */
public final class OutsideThinning {

    private final OpenVault vault;
    private final Place place;
    private final SystemRegistry registry;
    private final Clock clock;
    private final String who;

    /** Thinning of this place, by this person. */
    public OutsideThinning(OpenVault vault, Place place, SystemRegistry registry, Clock clock, String who) {
        this.vault = vault;
        this.place = place;
        this.registry = registry;
        this.clock = clock;
        this.who = who;
    }

    /**
     * What would go.
     *
     * @throws SystemException.Unable when the system cannot erase versions; says what can be done there instead
     */
    public ThinPlan plan(RuleSet rules, ThinPlan.Limits limits, Calendar calendar) throws IOException {
        SystemKind kind = registry.system(place).kind();
        if (!kind.can(Capability.ERASING)) {
            throw new SystemException.Unable(
                    Words.of(kind.keepsCuts() ? "outside.thin.cuts" : "outside.thin.none", place.where()));
        }
        try (Reading reading = vault.read()) {
            List<OutsideQuery.HeldPoint> held = reading.outside().points(place);
            VersionTable table = VersionTable.of(reading, held);
            BitSet rows = new BitSet();
            held.stream()
                    .mapToInt(h -> table.row(h.line(), h.number()))
                    .filter(r -> r >= 0)
                    .forEach(rows::set);
            Verdicts verdicts = Verdicts.of(
                    table, HoldStore.of(reading).standing(), rules, TrustedTime.of(reading, clock.instant()), calendar);
            SpaceTable space = new SpaceTable(table);
            return ThinPlan.of(verdicts, space, limits.in(place.id(), limits.path()))
                    .only(rows::get, space);
        }
    }

    /** A plan in one sentence. */
    public String words(ThinPlan plan) {
        return plan.versions() == 0
                ? Words.of("outside.thin.nothing", place.where())
                : Words.of(
                        "outside.thin.sum",
                        plan.versions(),
                        plan.files().size(),
                        Formats.size(plan.bytes()),
                        place.where());
    }

    /**
     * What came of it.
     *
     * @param erased versions that the system no longer holds
     * @param letGo how they wait in the vault
     * @param failed why others are still there, by path and number
     */
    public record Done(int erased, Optional<Thinning.Done> letGo, Map<String, String> failed) {

        /** Copies, in order. */
        public Done {
            failed = new LinkedHashMap<>(failed);
        }
    }

    /** Carries a plan out. Cut short at any moment, what the system does not hold any more is in the vault. */
    public Done run(ThinPlan plan, Progress progress) throws IOException {
        VersionTable table = plan.verdicts().table();
        Map<String, Integer> rows = new LinkedHashMap<>();
        List<Version> versions = new ArrayList<>();
        try (Reading reading = vault.read()) {
            for (int row = plan.going().nextSetBit(0);
                    row >= 0;
                    row = plan.going().nextSetBit(row + 1)) {
                long line = table.lineId(table.lineOf(row));
                int number = table.number(row);
                Optional<Version> v = reading.line(line).flatMap(l -> l.version(number));
                if (v.isPresent()) {
                    versions.add(v.get());
                    rows.put(OutsideErasing.named(v.get()), row);
                }
            }
        }
        Map<String, String> failed = new OutsideErasing(vault, place, registry, clock, who).erase(versions, progress);
        BitSet erased = rows.entrySet().stream()
                .filter(e -> !failed.containsKey(e.getKey()))
                .map(Map.Entry::getValue)
                .collect(Collectors.collectingAndThen(Collectors.toList(), all -> {
                    BitSet set = new BitSet();
                    all.forEach(set::set);
                    return set;
                }));
        Optional<Thinning.Done> letGo = Optional.empty();
        if (!erased.isEmpty()) {
            ThinPlan done = plan.only(erased::get, new SpaceTable(table));
            letGo = Optional.of(new Thinning(vault, clock, who).thin(done, Progress.NONE));
        }
        return new Done(erased.cardinality(), letGo, failed);
    }
}
