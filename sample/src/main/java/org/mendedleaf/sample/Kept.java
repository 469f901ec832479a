package org.mendedleaf.sample;

import java.io.IOException;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Optional;
import java.util.Set;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.Holds;
import org.mendedleaf.core.retention.RuleFile;
import org.mendedleaf.core.retention.RuleSet;
import org.mendedleaf.core.retention.RuleSets;
import org.mendedleaf.core.retention.SpaceTable;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.retention.Thinning;
import org.mendedleaf.core.retention.Verdicts;
import org.mendedleaf.core.retention.VersionTable;

/** What the office keeps: its rules, what it holds, and old weather that it let go two days ago. */
final class Kept {

    private static final String RULES = """
            grace: P7D
            rules:
              - name: Office papers
                everything: P30D
                last: {daily: P90D, monthly: P2Y}
                atLeast: 2
                removed: P1Y
              - name: Talks
                scope: {kinds: [slides]}
                everything: P60D
                atLeast: 3
                capBytes: 8000000
              - name: Pictures
                scope: {kinds: [picture, drawing]}
                last: {weekly: P1Y}
                removed: P90D
            """;

    private static final int WEATHER_KEPT = 12;

    private Kept() {}

    static void make(OpenVault vault, Place desk, Instant today, ZoneId zone) throws IOException {
        Clock before = Clock.fixed(today.minus(Duration.ofDays(2)), zone);
        thinWeather(vault, desk, before);
        RuleSets.set(vault, RuleFile.read(RULES), before, "Ines");
        Holds holds = new Holds(vault, before, "Ines");
        Line ledger;
        Line talk;
        try (Reading reading = vault.read()) {
            ledger =
                    reading.line(desk, Furniture.HARVEST + "Harvest ledger.ods").orElseThrow();
            talk = reading.line(desk, Furniture.HARVEST + "Season talk.odp").orElseThrow();
        }
        holds.version(
                desk,
                ledger.id(),
                14,
                ledger.path(),
                "the tax office asked for it",
                Optional.of(LocalDate.of(2027, 4, 1).atStartOfDay(zone).toInstant()));
        holds.folder(desk, "Lease", "the meadow's owner disputes the boundary", Optional.empty());
        new Holds(vault, before, "Tomas")
                .version(desk, talk.id(), 2, talk.path(), "shown to the district", Optional.empty());
    }

    private static void thinWeather(OpenVault vault, Place desk, Clock before) throws IOException {
        ThinPlan plan;
        try (Reading reading = vault.read()) {
            VersionTable table = VersionTable.of(reading);
            Verdicts verdicts = Verdicts.of(
                    table,
                    HoldStore.of(reading).standing(),
                    RuleSet.NONE,
                    before.instant(),
                    new Calendar(before.getZone(), DayOfWeek.MONDAY));
            plan = ThinPlan.of(
                    verdicts,
                    new SpaceTable(table),
                    new ThinPlan.Limits(
                            desk.id(), "Weather", Set.of(), WEATHER_KEPT, Optional.empty(), Optional.empty(), false));
        }
        new Thinning(vault, before, "Ines").thin(plan, Progress.NONE);
    }
}
