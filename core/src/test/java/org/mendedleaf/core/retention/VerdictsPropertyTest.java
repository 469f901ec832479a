package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.HoldStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.time.Moment;

/** Promises of verdicts that hold for all histories and all rules. */
class VerdictsPropertyTest {

    private static final List<String> FILES = List.of("a/x.txt", "a/y.csv", "b/z.png", "w.odt");

    private interface Body {
        void run(TestPlace p) throws IOException;
    }

    private static void in(Body body) throws IOException {
        Path folder = Files.createTempDirectory("verdicts");
        try (TestPlace p = new TestPlace(folder)) {
            body.run(p);
        } finally {
            Histories.delete(folder);
        }
    }

    /** Some months of saving and removing, a few saves at a time. */
    private static void history(TestPlace p, Random random, int saves) throws IOException {
        Instant at = TestPlace.START;
        for (int i = 0; i < saves; i++) {
            at = at.plus(Duration.ofMinutes(5 + random.nextInt(random.nextInt(4) == 0 ? 40_000 : 400)));
            p.at(at);
            String path = FILES.get(random.nextInt(FILES.size()));
            if (random.nextInt(12) == 0) {
                Files.deleteIfExists(p.path(path));
            } else {
                p.save(path, "version " + i);
            }
            p.capture();
        }
        p.at(p.now().plus(Duration.ofHours(1)));
    }

    private static Optional<Term> term(Random random) {
        return switch (random.nextInt(5)) {
            case 0 -> Optional.empty();
            case 1 -> Optional.of(new Term(1 + random.nextInt(48), Term.Unit.HOURS));
            case 2 -> Optional.of(Term.days(1 + random.nextInt(60)));
            case 3 -> Optional.of(new Term(1 + random.nextInt(6), Term.Unit.MONTHS));
            default -> Optional.of(Term.FOREVER);
        };
    }

    private static Rule rule(String name, RuleScope scope, Random random, boolean stable) {
        Rule rule = Rule.keepAll(name, scope).withEverything(term(random));
        for (Level level : Level.values()) {
            rule = rule.withLast(level, random.nextInt(3) == 0 ? term(random) : Optional.empty());
        }
        if (!stable) {
            int least = random.nextInt(4);
            rule = rule.withCounts(least, random.nextInt(3) == 0 ? least + 1 + random.nextInt(5) : 0);
        } else {
            rule = rule.withCounts(0, 0);
        }
        return rule.withEnds(random.nextInt(4) == 0 ? term(random) : Optional.empty(), term(random));
    }

    private static RuleSet anyRules(Random random) {
        List<Rule> all = new ArrayList<>();
        all.add(rule("all", RuleScope.ALL, random, false));
        all.add(rule("a", new RuleScope(List.of(), List.of("a"), List.of(), Set.of()), random, false));
        Collections.shuffle(all, random);
        return new RuleSet(all, Term.days(7), false);
    }

    private static Set<Integer> dropped(Verdicts v) {
        Set<Integer> all = new TreeSet<>();
        for (int row = 0; row < v.table().size(); row++) {
            if (v.goes(row)) {
                all.add(row);
            }
        }
        return all;
    }

    @Property(tries = 4)
    void noRuleDropsTheNewestOfALiveFileOrGoesBelowTheMinimum(@ForAll Random random) throws IOException {
        in(p -> {
            history(p, random, 25);
            for (int i = 0; i < 10; i++) {
                Verdicts v = Histories.judge(p, anyRules(random));
                VersionTable t = v.table();
                for (int line = 0; line < t.lines(); line++) {
                    int last = t.first(line + 1) - 1;
                    if (t.removed(line) == 0) {
                        assertThat(v.goes(last)).isFalse();
                        int least = v.rules().rules().get(v.rule(last)).atLeast();
                        int kept = 0;
                        for (int row = t.first(line); row <= last; row++) {
                            kept += v.goes(row) ? 0 : 1;
                        }
                        assertThat(kept).isGreaterThanOrEqualTo(Math.min(least, last - t.first(line) + 1));
                    }
                }
            }
        });
    }

    @Property(tries = 4)
    void aHoldIsNeverDroppedAndNeverDropsMore(@ForAll Random random) throws IOException {
        in(p -> {
            history(p, random, 25);
            RuleSet rules = anyRules(random);
            Set<Integer> before = dropped(Histories.judge(p, rules));
            Holds holds = new Holds(p.vault(), p.clock(), "Ada");
            VersionTable t = Histories.table(p);
            int row = random.nextInt(t.size());
            int line = t.lineOf(row);
            Hold hold = random.nextBoolean()
                    ? holds.version(p.place(), t.lineId(line), t.number(row), t.path(line), "why", Optional.empty())
                    : holds.line(p.place(), t.lineId(line), t.path(line), "why", Optional.empty());
            Verdicts v = Histories.judge(p, rules);
            assertThat(v.reason(row)).isEqualTo(Reason.HELD);
            assertThat(before).containsAll(dropped(v));
            holds.lift(hold.id());
            assertThat(dropped(Histories.judge(p, rules))).isEqualTo(before);
        });
    }

    @Property(tries = 4)
    void theOrderOfRulesForDifferentFilesDoesNotMatter(@ForAll Random random) throws IOException {
        in(p -> {
            history(p, random, 25);
            List<Rule> all = new ArrayList<>();
            for (String folder : List.of("a", "b")) {
                all.add(rule(folder, new RuleScope(List.of(), List.of(folder), List.of(), Set.of()), random, false));
            }
            all.add(rule("odt", new RuleScope(List.of(), List.of(), List.of("*.odt"), Set.of()), random, false));
            Set<Integer> one = dropped(Histories.judge(p, new RuleSet(all, Term.days(7), false)));
            Collections.reverse(all);
            assertThat(dropped(Histories.judge(p, new RuleSet(all, Term.days(7), false))))
                    .isEqualTo(one);
        });
    }

    @Property(tries = 3)
    void thinningEveryFewDaysComesToTheSameAsThinningOnceInTheEnd(@ForAll Random random) throws IOException {
        in(p -> {
            history(p, random, 40);
            Rule stable = rule("r", RuleScope.ALL, random, true).withEnds(Optional.empty(), Optional.empty());
            RuleSet rules = new RuleSet(List.of(stable), Term.days(7), false);
            Instant end = p.now().plus(Duration.ofDays(200));
            Set<String> once = kept(Histories.judge(p, rules, end));
            Instant from = p.now();
            for (int i = 1; i <= 20; i++) {
                p.at(from.plus(Duration.ofDays(10L * i)));
                Verdicts v = Histories.judge(p, rules);
                ThinPlan plan = ThinPlan.of(v, new SpaceTable(v.table()), ThinPlan.Limits.RULES);
                if (plan.versions() > 0) {
                    new Thinning(p.vault(), p.clock(), "Ada").thin(plan, Progress.NONE);
                }
            }
            p.at(end);
            assertThat(kept(Histories.judge(p, rules))).isEqualTo(once);
        });
    }

    private static Set<String> kept(Verdicts v) {
        Set<String> all = new TreeSet<>();
        VersionTable t = v.table();
        for (int row = 0; row < t.size(); row++) {
            if (t.stays(row) && !v.goes(row)) {
                all.add(t.path(t.lineOf(row)) + " " + t.number(row));
            }
        }
        return all;
    }

    @Property(tries = 4)
    void roomIsWhatARecountSays(@ForAll Random random) throws IOException {
        in(p -> {
            // Contents that share chunks with each other, in one file and across files.
            byte[][] blocks = new byte[6][150_000];
            for (byte[] b : blocks) {
                random.nextBytes(b);
            }
            for (int i = 0; i < 14; i++) {
                String path = FILES.get(random.nextInt(FILES.size()));
                java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
                for (int k = 0; k < 1 + random.nextInt(4); k++) {
                    out.write(blocks[random.nextInt(blocks.length)]);
                }
                p.save(path, out.toByteArray());
                p.capture();
            }
            VersionTable t = Histories.table(p);
            SpaceTable space = new SpaceTable(t);
            java.util.BitSet going = new java.util.BitSet();
            for (int row = 0; row < t.size(); row++) {
                going.set(row, random.nextBoolean());
            }
            Set<Integer> all = chunks(t, row -> true);
            Set<Integer> staying = chunks(t, row -> !going.get(row));
            assertThat(space.freedBy(going)).isEqualTo(bytes(t, all) - bytes(t, staying));
            assertThat(space.taken(going)).isEqualTo(bytes(t, chunks(t, going::get)));
            assertThat(space.sums().inUse()).isEqualTo(bytes(t, all));
            int one = random.nextInt(t.size());
            assertThat(space.taken(one)).isEqualTo(bytes(t, chunks(t, row -> row == one)));
            assertThat(space.only(one)).isEqualTo(bytes(t, all) - bytes(t, chunks(t, row -> row != one)));
            try (Reading reading = p.vault().read()) {
                assertThat(HoldStore.of(reading).standing()).isEmpty();
            }
            SpaceTree tree = SpaceTree.of(t, p.now());
            check(t, tree.root(), all);
            long[] kinds = {0};
            tree.kinds().forEach((k, s) -> kinds[0] += s.versions());
            assertThat(kinds[0]).isEqualTo(t.size());
            assertThat(tree.root().share().takenBytes()).isEqualTo(bytes(t, all));
        });
    }

    private static void check(VersionTable t, SpaceTree.Node node, Set<Integer> all) {
        Set<Integer> inside = chunks(t, row -> isIn(t, node, row));
        Set<Integer> outside = chunks(t, row -> !isIn(t, node, row));
        assertThat(node.share().takenBytes()).as(node.path()).isEqualTo(bytes(t, inside));
        assertThat(node.share().onlyBytes()).as(node.path()).isEqualTo(bytes(t, all) - bytes(t, outside));
        node.children().forEach(c -> check(t, c, all));
    }

    private static boolean isIn(VersionTable t, SpaceTree.Node node, int row) {
        String path = t.path(t.lineOf(row));
        return node.place() == null
                || node.path().isEmpty()
                || path.equals(node.path())
                || path.startsWith(node.path() + "/");
    }

    private static Set<Integer> chunks(VersionTable t, java.util.function.IntPredicate rows) {
        Set<Integer> all = new TreeSet<>();
        for (int row = 0; row < t.size(); row++) {
            if (rows.test(row)) {
                t.chunks(row, all::add);
            }
        }
        return all;
    }

    private static long bytes(VersionTable t, Set<Integer> chunks) {
        return chunks.stream().mapToLong(t::chunkBytes).sum();
    }

    @Property(tries = 8)
    void bucketsOfAgesCoverAll(@ForAll Random random) {
        long now = Moment.micros(TestPlace.START);
        long saved = now - (long) (random.nextDouble() * 4e15);
        assertThat(SpaceAge.of(saved, now)).isNotNull();
    }

    @Property(tries = 3)
    void whatIsSaidOfAVersionDoesNotDependOnWhichWasAskedBefore(@ForAll Random random) throws IOException {
        in(p -> {
            history(p, random, 25);
            RuleSet rules = anyRules(random);
            Verdicts once = Histories.judge(p, rules);
            Verdicts other = Histories.judge(p, rules);
            List<Long> untils = new ArrayList<>();
            for (int row = 0; row < once.table().size(); row++) {
                untils.add(once.until(row));
            }
            for (int i = 0; i < 100; i++) {
                int row = random.nextInt(untils.size());
                assertThat(other.until(row)).isEqualTo(untils.get(row));
                assertThat(other.at(row)).isEqualTo(once.at(row));
            }
        });
    }

    @Property(tries = 3)
    void theOldestGoFirstAndOfOneMomentTheLowerRows(@ForAll Random random) throws IOException {
        in(p -> {
            history(p, random, 30);
            VersionTable t = Histories.table(p);
            BitSet some = new BitSet();
            for (int row = 0; row < t.size(); row++) {
                some.set(row, random.nextInt(4) > 0);
            }
            List<Integer> expected = some.stream()
                    .boxed()
                    .sorted(Comparator.comparingLong((Integer row) -> t.replaced(row))
                            .thenComparing(row -> row))
                    .toList();
            assertThat(java.util.Arrays.stream(OldestFirst.of(t, some)).boxed().toList())
                    .isEqualTo(expected);
            assertThat(OldestFirst.of(t, new BitSet())).isEmpty();
        });
    }
}
