package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mendedleaf.core.retention.Histories.judge;
import static org.mendedleaf.core.retention.Histories.reasons;
import static org.mendedleaf.core.retention.Histories.rules;
import static org.mendedleaf.core.retention.Histories.save;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.intake.ContentKind;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.snapshots.Snapshots;

/** What becomes of versions, case by case. */
class VerdictsTest {

    private static final Instant DAY = Instant.parse("2026-05-04T10:00:00Z");

    @TempDir
    Path temp;

    private TestPlace p;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private static Instant day(int day, int hour) {
        return DAY.plus(Duration.ofDays(day)).plus(Duration.ofHours(hour));
    }

    /** Two versions on each of six days, four hours apart. */
    private long ledger() throws IOException {
        for (int d = 0; d < 6; d++) {
            save(p, "ledger.csv", "day " + d + " morning", day(d, 0));
            save(p, "ledger.csv", "day " + d + " evening", day(d, 4));
        }
        p.at(day(5, 20));
        return p.line("ledger.csv").id();
    }

    @Test
    void withoutRulesAllIsKept() throws IOException {
        long line = ledger();
        assertThat(reasons(judge(p, RuleSet.NONE), line))
                .containsOnly(Reason.NO_RULE, Reason.NEWEST)
                .hasSize(12);
    }

    @Test
    void theLastOfEachDayIsKeptForItsTime() throws IOException {
        long line = ledger();
        Verdicts v = judge(p, rules(Rule.keepAll("r", RuleScope.ALL).withLast(Level.DAILY, Optional.of(Term.days(4)))));
        assertThat(reasons(v, line))
                .containsExactly(
                        Reason.THINNED,
                        Reason.THINNED, // replaced on day 1, more than four days ago
                        Reason.THINNED,
                        Reason.DAILY,
                        Reason.THINNED,
                        Reason.DAILY,
                        Reason.THINNED,
                        Reason.DAILY,
                        Reason.THINNED,
                        Reason.DAILY,
                        Reason.THINNED,
                        Reason.NEWEST);
        int row = v.table().row(line, 4);
        assertThat(v.at(row).until().orElseThrow()).isBetween(day(6, 0).minusSeconds(120), day(6, 0));
        assertThat(v.at(row).words(p.now(), p.clock().getZone()))
                .isEqualTo("kept until 10 May, the last of its day (rule “r”)");
    }

    @Test
    void timesCountFromWhenAVersionWasReplaced() throws IOException {
        save(p, "plan.odg", "old", DAY.minus(Duration.ofDays(400)));
        save(p, "plan.odg", "new", DAY);
        p.at(DAY.plus(Duration.ofDays(2)));
        long line = p.line("plan.odg").id();
        RuleSet threeDays = rules(Rule.keepAll("r", RuleScope.ALL).withEverything(Optional.of(Term.days(3))));
        assertThat(reasons(judge(p, threeDays), line)).containsExactly(Reason.EVERYTHING, Reason.NEWEST);
        p.at(DAY.plus(Duration.ofDays(4)));
        assertThat(reasons(judge(p, threeDays), line)).containsExactly(Reason.THINNED, Reason.NEWEST);
    }

    @Test
    void theMinimumIsKeptWhateverTheTimesSay() throws IOException {
        long line = ledger();
        Rule hard = Rule.keepAll("r", RuleScope.ALL)
                .withEverything(Optional.of(new Term(1, Term.Unit.HOURS)))
                .withEnds(Optional.of(new Term(2, Term.Unit.HOURS)), Optional.empty())
                .withCounts(4, 0);
        assertThat(reasons(judge(p, rules(hard)), line).subList(8, 12))
                .containsExactly(Reason.AT_LEAST, Reason.AT_LEAST, Reason.AT_LEAST, Reason.NEWEST);
        assertThat(reasons(judge(p, rules(hard)), line).subList(0, 8)).containsOnly(Reason.TOO_OLD);
    }

    @Test
    void noMoreThanTheMostAreKept() throws IOException {
        long line = ledger();
        List<Reason> all =
                reasons(judge(p, rules(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 5))), line);
        assertThat(all.subList(0, 7)).containsOnly(Reason.TOO_MANY);
        assertThat(all.subList(7, 11)).containsOnly(Reason.ALL);
    }

    @Test
    void aHoldBeatsEverythingUntilItEnds() throws IOException {
        long line = ledger();
        Holds holds = new Holds(p.vault(), p.clock(), "Ada");
        holds.version(p.place(), line, 2, "ledger.csv", "audit", Optional.of(day(8, 0)));
        RuleSet none = rules(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 1));
        Verdicts v = judge(p, none);
        assertThat(v.reason(v.table().row(line, 2))).isEqualTo(Reason.HELD);
        assertThat(v.at(v.table().row(line, 2)).words(p.now(), p.clock().getZone()))
                .isEqualTo("held until 12 May by Ada: audit");
        Verdicts later = judge(p, none, day(9, 0));
        assertThat(later.reason(later.table().row(line, 2))).isEqualTo(Reason.TOO_MANY);
    }

    @Test
    void holdsOnFilesAndFoldersHoldAllTheirVersions() throws IOException {
        save(p, "a/x.txt", "1", day(0, 0));
        save(p, "a/x.txt", "2", day(1, 0));
        save(p, "a/b/y.txt", "1", day(0, 1));
        save(p, "a/b/y.txt", "2", day(1, 1));
        save(p, "ab/z.txt", "1", day(0, 2));
        save(p, "ab/z.txt", "2", day(1, 2));
        p.at(day(5, 0));
        Holds holds = new Holds(p.vault(), p.clock(), "Ada");
        org.mendedleaf.core.line.Hold hold = holds.folder(p.place(), "a", "inquiry", Optional.empty());
        RuleSet hard = rules(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 1));
        Verdicts v = judge(p, hard);
        assertThat(reasons(v, p.line("a/x.txt").id())).containsOnly(Reason.HELD);
        assertThat(reasons(v, p.line("a/b/y.txt").id())).containsOnly(Reason.HELD);
        assertThat(reasons(v, p.line("ab/z.txt").id())).containsExactly(Reason.TOO_MANY, Reason.NEWEST);
        holds.lift(hold.id());
        assertThat(reasons(judge(p, hard), p.line("a/x.txt").id())).containsExactly(Reason.TOO_MANY, Reason.NEWEST);
        assertThat(holds.standing()).isEmpty();
    }

    @Test
    void whatAStandingSnapshotShowsIsKept() throws IOException {
        save(p, "x.txt", "1", day(0, 0));
        p.at(day(0, 1));
        Snapshots snapshots = new Snapshots(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"));
        org.mendedleaf.core.line.Snapshot snapshot =
                snapshots.take("", "before pressing", org.mendedleaf.core.jobs.Progress.NONE);
        save(p, "x.txt", "2", day(1, 0));
        save(p, "x.txt", "3", day(2, 0));
        p.at(day(5, 0));
        long line = p.line("x.txt").id();
        RuleSet hard = rules(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 1));
        Verdicts v = judge(p, hard);
        assertThat(reasons(v, line)).containsExactly(Reason.SNAPSHOT, Reason.TOO_MANY, Reason.NEWEST);
        assertThat(v.at(v.table().row(line, 1)).words(p.now(), p.clock().getZone()))
                .isEqualTo("kept while the snapshot before pressing stands");
        snapshots.erase(List.of(snapshot.id()));
        assertThat(reasons(judge(p, hard), line)).containsExactly(Reason.TOO_MANY, Reason.TOO_MANY, Reason.NEWEST);
    }

    @Test
    void aHeldSnapshotIsAmongTheHoldsAndWhatItShowsIsHeld() throws IOException {
        save(p, "x.txt", "1", day(0, 0));
        p.at(day(0, 1));
        Snapshots snapshots = new Snapshots(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"));
        long id = snapshots
                .take("", "before pressing", org.mendedleaf.core.jobs.Progress.NONE)
                .id();
        save(p, "x.txt", "2", day(1, 0));
        snapshots.hold(id, "audit", Optional.empty());
        RuleSet hard = rules(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 1));
        long line = p.line("x.txt").id();
        assertThat(reasons(judge(p, hard), line)).containsExactly(Reason.HELD, Reason.NEWEST);
        Holds holds = new Holds(p.vault(), p.clock(), "Ada");
        assertThat(holds.standing())
                .singleElement()
                .satisfies(h -> assertThat(h.reason()).isEqualTo("audit"));
        holds.lift(holds.standing().get(0).id());
        assertThat(reasons(judge(p, hard), line)).containsExactly(Reason.SNAPSHOT, Reason.NEWEST);
        snapshots.hold(id, "again", Optional.empty());
        snapshots.hold(id, "", Optional.empty());
        assertThat(holds.standing()).isEmpty();
        snapshots.erase(List.of(id));
    }

    @Test
    void beforeAHoldIsPutItSaysWhatItWouldKeepAndWhatWouldGoOtherwise() throws IOException {
        for (int i = 0; i < 4; i++) {
            save(p, "lease/plan.txt", "plan " + i, day(i, 0));
        }
        save(p, "lease/old/map.txt", "map", day(4, 0));
        save(p, "notes.txt", "notes", day(4, 0));
        RuleSet hard = rules(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 1));
        p.at(day(9, 0));
        Holds holds = new Holds(p.vault(), p.clock(), "Ada");
        Line plan = p.line("lease/plan.txt");
        holds.version(p.place(), plan.id(), 1, plan.path(), "audit", Optional.empty());
        Verdicts v = judge(p, hard);
        Hold folder = Hold.of(p.place(), Hold.Kind.FOLDER, 0, 0, "lease", 0);
        HoldEffect effect = HoldEffect.of(v, new SpaceTable(v.table()), folder, p.now(), Histories.UTC);
        assertThat(effect.files()).isEqualTo(2);
        assertThat(effect.versions()).isEqualTo(5);
        assertThat(effect.already()).isEqualTo(1);
        assertThat(effect.otherwise().versions())
                .as("the held one would not go")
                .isEqualTo(2);
        assertThat(effect.words())
                .isEqualTo("5 versions of 2 files are kept by it, 27 B in all."
                        + " 1 of them is held already. Without the hold 2 of them would go by the rules now, "
                        + org.mendedleaf.core.words.Formats.size(
                                effect.otherwise().freedBytes())
                        + ". What is saved later is held too.");
        Hold put = holds.folder(p.place(), "lease", "boundary", Optional.empty());
        Verdicts with = judge(p, hard);
        assertThat(HoldEffect.lifting(with, new SpaceTable(with.table()), put, p.now(), Histories.UTC)
                        .versions())
                .isEqualTo(2);
    }

    @Test
    void removedFilesAreKeptForTheirTime() throws IOException {
        save(p, "gone.txt", "1", day(0, 0));
        save(p, "gone.txt", "2", day(1, 0));
        long line = p.line("gone.txt").id();
        p.at(day(2, 0));
        Files.delete(p.path("gone.txt"));
        p.capture();
        Rule base = Rule.keepAll("r", RuleScope.ALL).withEverything(Optional.of(Term.days(1)));
        Rule month = base.withEnds(Optional.empty(), Optional.of(Term.days(30)));
        assertThat(reasons(judge(p, rules(base), day(300, 0)), line))
                .containsExactly(Reason.THINNED, Reason.REMOVED_FILE);
        assertThat(reasons(judge(p, rules(month), day(10, 0)), line))
                .containsExactly(Reason.THINNED, Reason.REMOVED_FILE);
        assertThat(reasons(judge(p, rules(month), day(40, 0)), line)).containsOnly(Reason.REMOVED_LONG_AGO);
    }

    @Test
    void theMostSpecificRuleCounts() throws IOException {
        for (String path : List.of("Labels/art.png", "Labels/art.txt", "Labels/deep/a.png", "note.png")) {
            save(p, path, "1 " + path, day(0, 0));
            save(p, path, "2 " + path, day(1, 0));
        }
        Rule all = Rule.keepAll("all", RuleScope.ALL);
        Rule pictures =
                Rule.keepAll("pictures", new RuleScope(List.of(), List.of(), List.of(), Set.of(ContentKind.PICTURE)));
        Rule labels = Rule.keepAll("labels", new RuleScope(List.of(), List.of("Labels"), List.of(), Set.of()));
        Rule deep = Rule.keepAll("deep", new RuleScope(List.of("desk"), List.of("Labels/deep"), List.of(), Set.of()));
        Rule named = Rule.keepAll("named", new RuleScope(List.of(), List.of("Labels"), List.of("ART.*"), Set.of()));
        RuleSet rules = rules(all, pictures, labels, deep, named);
        Verdicts v = judge(p, rules, day(3, 0));
        assertThat(ruleOf(v, "Labels/art.png")).isEqualTo("named");
        assertThat(ruleOf(v, "Labels/art.txt")).isEqualTo("named");
        assertThat(ruleOf(v, "Labels/deep/a.png")).isEqualTo("deep");
        assertThat(ruleOf(v, "note.png")).isEqualTo("pictures");
        assertThat(ruleOf(judge(p, rules(labels, all), day(3, 0)), "Labels/art.txt"))
                .isEqualTo("labels");
        assertThat(ruleOf(judge(p, rules(all, labels), day(3, 0)), "Labels/art.txt"))
                .isEqualTo("labels");
    }

    private String ruleOf(Verdicts v, String path) throws IOException {
        int row = v.table().row(p.line(path).id(), 1);
        return v.rules().rules().get(v.rule(row)).name();
    }

    @Test
    void whatWasLetGoIsNotJudgedAgain() throws IOException {
        long line = ledger();
        RuleSet hard = rules(Rule.keepAll("r", RuleScope.ALL).withCounts(1, 3));
        Verdicts v = judge(p, hard);
        ThinPlan plan = ThinPlan.of(v, new SpaceTable(v.table()), ThinPlan.Limits.RULES);
        new Thinning(p.vault(), p.clock(), "Ada").thin(plan, org.mendedleaf.core.jobs.Progress.NONE);
        assertThat(reasons(judge(p, hard), line).subList(0, 9)).containsOnly(Reason.WAITING);
        assertThat(reasons(judge(p, hard), line).subList(9, 12)).containsExactly(Reason.ALL, Reason.ALL, Reason.NEWEST);
    }

    @Test
    void aVersionIsNeverJudgedWithoutItsLine() throws IOException {
        long line = ledger();
        Version newest = p.line("ledger.csv").newest().orElseThrow();
        Verdicts v = judge(p, RuleSet.NONE);
        assertThat(v.table().row(line, newest.number())).isEqualTo(v.table().size() - 1);
        assertThat(v.table().row(line, 99)).isEqualTo(-1);
        assertThat(v.table().row(4711, 1)).isEqualTo(-1);
    }
}
