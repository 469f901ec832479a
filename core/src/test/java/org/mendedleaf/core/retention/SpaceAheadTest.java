package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mendedleaf.core.retention.Histories.judge;
import static org.mendedleaf.core.retention.Histories.rules;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.PendingDeletionStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;

/** Space that is needed, space that will be needed, and rules that carry themselves out. */
class SpaceAheadTest {

    private static final Instant FIRST = Instant.parse("2026-03-02T10:00:00Z");
    private static final int DAYS = 30;

    @TempDir
    Path temp;

    private TestPlace p;
    private final Random random = new Random(11);

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    /** One version a day of 10 kB that share nothing. */
    private void daily() throws IOException {
        for (int d = 0; d < DAYS; d++) {
            p.at(FIRST.plus(Duration.ofDays(d)));
            byte[] content = new byte[10_000];
            random.nextBytes(content);
            p.save("log.bin", content);
            p.capture();
        }
        p.at(FIRST.plus(Duration.ofDays(DAYS)));
    }

    private Forecast forecast(RuleSet rules, Forecast.Asked asked) throws IOException {
        return Forecast.of(judge(p, rules), p.now(), asked);
    }

    private static final Forecast.Asked ASKED = Forecast.Asked.asItIs(-1);

    @Test
    void whatChangesEveryDayGrowsByThat() throws IOException {
        daily();
        Forecast f = forecast(RuleSet.NONE, ASKED);
        assertThat(f.assumed()).isFalse();
        assertThat(f.observedDays()).isBetween(29, 30);
        assertThat(f.versionsPerDay()).isBetween(0.9, 1.1);
        assertThat(f.curve().get(0).bytes()).isBetween(299_000L, 301_000L);
        assertThat(f.monthBytes()).isBetween(570_000L, 630_000L);
        assertThat(f.yearBytes()).isBetween(3_700_000L, 4_100_000L);
        assertThat(f.full()).isEmpty();
        f.curve().forEach(point -> {
            assertThat(point.lowBytes()).isLessThanOrEqualTo(point.bytes());
            assertThat(point.highBytes()).isGreaterThanOrEqualTo(point.bytes());
        });
    }

    @Test
    void rulesBendTheCurve() throws IOException {
        daily();
        Rule tenDays = Rule.keepAll("r", RuleScope.ALL).withEverything(Optional.of(Term.days(10)));
        Forecast f = forecast(rules(tenDays), ASKED);
        // Ten days of versions and the newest.
        assertThat(f.yearBytes()).isBetween(90_000L, 130_000L);
        Rule weekly = tenDays.withLast(Level.WEEKLY, Optional.of(new Term(1, Term.Unit.YEARS)));
        assertThat(forecast(rules(weekly), ASKED).yearBytes())
                .isGreaterThan(f.yearBytes() + 300_000)
                .isLessThan(f.yearBytes() + 700_000);
        Rule atMost = Rule.keepAll("r", RuleScope.ALL).withCounts(1, 5);
        assertThat(forecast(rules(atMost), ASKED).yearBytes()).isLessThan(110_000);
    }

    @Test
    void theDayOnWhichTheDriveIsFullIsSaid() throws IOException {
        daily();
        Forecast f = forecast(RuleSet.NONE, Forecast.Asked.asItIs(1_000_000));
        assertThat(f.full().getAsInt()).isBetween(95, 108);
        assertThat(f.fullAt(p.now())).isPresent();
    }

    @Test
    void capturingLessOftenCostsLess() throws IOException {
        for (int d = 0; d < 10; d++) {
            for (int k = 0; k < 8; k++) {
                p.at(FIRST.plus(Duration.ofDays(d)).plus(Duration.ofHours(k)));
                byte[] content = new byte[5_000];
                random.nextBytes(content);
                p.save("log.bin", content);
                p.capture();
            }
        }
        p.at(FIRST.plus(Duration.ofDays(10)));
        long often = forecast(RuleSet.NONE, ASKED).monthBytes();
        long seldom =
                forecast(RuleSet.NONE, new Forecast.Asked(0, 240, -1, 0, "")).monthBytes();
        long same =
                forecast(RuleSet.NONE, new Forecast.Asked(60, 60, -1, 0, "")).monthBytes();
        assertThat(seldom).isLessThan(often);
        assertThat(same).isEqualTo(often);
    }

    @Test
    void withoutAHistoryAnAssumptionIsStated() throws IOException {
        p.save("a.txt", "x".repeat(50_000));
        p.capture();
        Forecast f = forecast(RuleSet.NONE, ASKED);
        assertThat(f.assumed()).isTrue();
        assertThat(f.yearBytes()).isGreaterThan(f.curve().get(0).bytes());
    }

    @Test
    void underACapTheOldestGoFirstAndTheMinimumAndWhatIsHeldStay() throws IOException {
        daily();
        long line = p.line("log.bin").id();
        new Holds(p.vault(), p.clock(), "Ada").version(p.place(), line, 2, "log.bin", "why", Optional.empty());
        Rule capped = Rule.keepAll("r", RuleScope.ALL)
                .withEverything(Optional.of(Term.days(365)))
                .withCounts(3, 0)
                .withSpace(100_000, false);
        Verdicts v = judge(p, rules(capped));
        List<Integer> numbers = going(v);
        assertThat(numbers)
                .hasSize(20)
                .startsWith(1, 3, 4)
                .doesNotContain(2, 28, 29, 30)
                .endsWith(21);
        assertThat(v.unmet()).isEmpty();
        assertThat(Pressure.taken(v))
                .singleElement()
                .satisfies(cap -> assertThat(cap.takenBytes()).isBetween(299_000L, 301_000L));
        Verdicts tight = judge(p, rules(capped.withSpace(20_000, false)));
        assertThat(going(tight)).hasSize(26);
        assertThat(tight.unmet())
                .singleElement()
                .satisfies(cap -> assertThat(cap.takenBytes()).isBetween(39_000L, 41_000L));
    }

    private static List<Integer> going(Verdicts v) {
        List<Integer> numbers = new ArrayList<>();
        for (int row = 0; row < v.table().size(); row++) {
            if (v.goes(row)) {
                assertThat(v.reason(row)).isEqualTo(Reason.CAP);
                numbers.add(v.table().number(row));
            }
        }
        return numbers;
    }

    @Test
    void aLimitOfRoomIsPartOfEveryPreviewAndEveryReason() throws IOException {
        daily();
        Rule capped = Rule.keepAll("Office papers", RuleScope.ALL)
                .withEverything(Optional.of(Term.days(365)))
                .withCounts(3, 0)
                .withSpace(100_000, false);
        Verdicts v = judge(p, rules(capped));
        ThinPlan plan = ThinPlan.of(v, new SpaceTable(v.table()), ThinPlan.Limits.RULES);
        assertThat(plan.versions()).isEqualTo(20);
        assertThat(plan.warnings()).noneMatch(w -> w.contains("limit"));
        RuleSets.set(p.vault(), new RuleSet(List.of(capped), Term.days(7), true), p.clock(), "Ada");
        try (Reading reading = p.vault().read()) {
            LineVerdicts line = LineVerdicts.of(reading, p.line("log.bin").id(), p.now(), Histories.UTC);
            assertThat(line.words(1, p.now(), java.time.ZoneOffset.UTC))
                    .isEqualTo("may go: by the limit of 100 kB on “Office papers”");
            assertThat(line.words(30, p.now(), java.time.ZoneOffset.UTC)).doesNotContain("limit");
            assertThat(line.summary()).startsWith("20 ");
        }

        StandingRules standing = new StandingRules(p.vault(), p.clock(), "Ada", Histories.UTC, () -> 1L << 40);
        StandingRules.Done done = standing.run(Progress.NONE);

        assertThat(done.letGo().orElseThrow().versions())
                .as("no more than what was said before")
                .isEqualTo(20);
        assertThat(done.trouble()).isEmpty();
        try (Reading reading = p.vault().read()) {
            LineVerdicts line = LineVerdicts.of(reading, p.line("log.bin").id(), p.now(), Histories.UTC);
            assertThat(line.words(1, p.now(), java.time.ZoneOffset.UTC)).contains("space limit", "Office papers");
        }
    }

    @Test
    void aLimitThatCannotBeKeptSaysSo() throws IOException {
        daily();
        Rule tight = Rule.keepAll("Office papers", RuleScope.ALL)
                .withEverything(Optional.of(Term.days(365)))
                .withCounts(3, 0)
                .withSpace(20_000, false);
        Verdicts v = judge(p, rules(tight));
        ThinPlan plan = ThinPlan.of(v, new SpaceTable(v.table()), ThinPlan.Limits.RULES);
        assertThat(plan.warnings())
                .anyMatch(w -> w.startsWith("The limit of 20.0 kB on “Office papers” cannot be kept"));
        RuleSets.set(p.vault(), new RuleSet(List.of(tight), Term.days(7), true), p.clock(), "Ada");
        StandingRules standing = new StandingRules(p.vault(), p.clock(), "Ada", Histories.UTC, () -> 1L << 40);
        assertThat(standing.run(Progress.NONE).trouble())
                .singleElement()
                .asString()
                .contains("cannot be kept");
    }

    @Test
    void whatAFullDriveWouldTakeIsInTheOutlook() throws IOException {
        daily();
        Rule lazy = Rule.keepAll("r", RuleScope.ALL)
                .withEverything(Optional.of(Term.days(365)))
                .withCounts(5, 0)
                .withSpace(0, true);
        Verdicts v = judge(p, new RuleSet(List.of(lazy), Term.days(7), true));
        SpaceTable space = new SpaceTable(v.table());
        Verdicts tight = StandingRules.outlook(v, space, StandingRules.LEAST_FREE - 45_000);
        assertThat(ThinPlan.of(tight, space, ThinPlan.Limits.RULES).versions()).isEqualTo(5);
        assertThat(tight.reason(0)).isEqualTo(Reason.ROOM);
        assertThat(ThinPlan.of(StandingRules.outlook(v, space, 1L << 40), space, ThinPlan.Limits.RULES)
                        .versions())
                .isZero();
        Verdicts hopeless = StandingRules.outlook(v, space, StandingRules.LEAST_FREE - 10_000_000);
        assertThat(ThinPlan.of(hopeless, space, ThinPlan.Limits.RULES).warnings())
                .anyMatch(w -> w.startsWith("The drive still lacks"));
    }

    @Test
    void whatMayGoStaysUntilTheRoomIsNeeded() throws IOException {
        daily();
        Rule lazy = Rule.keepAll("r", RuleScope.ALL)
                .withEverything(Optional.of(Term.days(10)))
                .withSpace(0, true);
        Verdicts v = judge(p, rules(lazy));
        SpaceTable space = new SpaceTable(v.table());
        assertThat(ThinPlan.of(v, space, ThinPlan.Limits.RULES).versions()).isZero();
        Pressure.Choice c = Pressure.space(v, space, 25_000);
        assertThat(c.rows().cardinality()).isEqualTo(3);
        assertThat(v.table().number(c.rows().nextSetBit(0))).isEqualTo(1);
        assertThat(Pressure.space(v, space, 0).rows().isEmpty()).isTrue();
    }

    @Test
    void standingRulesCarryThemselvesOutOnceADayAndGiveRoomBackAfterTheirGrace() throws IOException {
        daily();
        Rule tenDays = Rule.keepAll("r", RuleScope.ALL).withEverything(Optional.of(Term.days(10)));
        long[] free = {1L << 40};
        StandingRules standing = new StandingRules(p.vault(), p.clock(), "Ada", Histories.UTC, () -> free[0]);
        assertThat(standing.isDue()).isFalse();
        RuleSets.set(p.vault(), new RuleSet(List.of(tenDays), Term.days(7), true), p.clock(), "Ada");
        assertThat(standing.isDue()).isTrue();
        assertThat(standing.run(Progress.NONE).letGo().orElseThrow().versions()).isEqualTo(19);
        assertThat(standing.isDue()).isFalse();
        p.later(8 * 24 * 60);
        assertThat(standing.isDue()).isTrue();
        StandingRules.Done done = standing.run(Progress.NONE);
        assertThat(done.reclaimed().orElseThrow().versions()).isEqualTo(19);
        assertThat(p.check().damages()).isEmpty();
    }

    @Test
    void onAFullDriveTheGraceOfWhatSomebodyLetGoGoesOn() throws IOException {
        daily();
        long line = p.line("log.bin").id();
        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"))
                .erase(line, Erasing.What.VERSION, 29, Progress.NONE);
        Rule lazy = Rule.keepAll("r", RuleScope.ALL)
                .withEverything(Optional.of(Term.days(365)))
                .withCounts(5, 0)
                .withSpace(0, true);
        RuleSets.set(p.vault(), new RuleSet(List.of(lazy), Term.days(7), true), p.clock(), "Ada");
        new StandingRules(p.vault(), p.clock(), "Ada", Histories.UTC, () -> StandingRules.LEAST_FREE - 45_000)
                .run(Progress.NONE);
        try (Reading reading = p.vault().read()) {
            assertThat(PendingDeletionStore.of(reading).of(line).get(29).gone()).isEmpty();
            assertThat(PendingDeletionStore.of(reading).of(line).get(1).gone()).isPresent();
        }
    }

    @Test
    void onAFullDriveTheOldestExpendableGoAtOnceAndWhatIsMissingIsSaid() throws IOException {
        daily();
        Rule lazy = Rule.keepAll("r", RuleScope.ALL)
                .withEverything(Optional.of(Term.days(365)))
                .withCounts(5, 0)
                .withSpace(0, true);
        RuleSets.set(p.vault(), new RuleSet(List.of(lazy), Term.days(7), true), p.clock(), "Ada");
        StandingRules standing =
                new StandingRules(p.vault(), p.clock(), "Ada", Histories.UTC, () -> StandingRules.LEAST_FREE - 45_000);
        StandingRules.Done done = standing.run(Progress.NONE);
        assertThat(done.forSpace()).isEqualTo(5);
        assertThat(done.missingBytes()).isZero();
        assertThat(done.reclaimed().orElseThrow().versions()).isEqualTo(5);
        try (Reading reading = p.vault().read()) {
            assertThat(PendingDeletionStore.of(reading)
                            .of(p.line("log.bin").id())
                            .get(1)
                            .reason())
                    .isEqualTo("ROOM");
        }
        StandingRules none = new StandingRules(
                p.vault(), p.clock(), "Ada", Histories.UTC, () -> StandingRules.LEAST_FREE - 10_000_000);
        StandingRules.Done tight = none.run(Progress.NONE);
        assertThat(tight.missingBytes()).isGreaterThan(9_000_000);
        assertThat(p.line("log.bin").versions().stream()
                        .filter(v -> !v.recipe().isElsewhere())
                        .count())
                .isEqualTo(5);
    }
}
