package org.mendedleaf.core.retention;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.Tries;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.vault.VaultException;

/** Whatever anybody does, what is held comes back. */
class HoldPropertyTest {

    @TempDir
    Path temp;

    private static final Rule LITTLE =
            Rule.keepAll("little", RuleScope.ALL).withCounts(1, 1).withSpace(1_000, true);

    /** What is held, with its content. */
    private final Map<String, byte[]> held = new LinkedHashMap<>();

    /** Which lines are held from now on, those to come too. */
    private final Set<Long> lines = new java.util.HashSet<>();

    private final List<String> folders = new ArrayList<>();
    private final StringBuilder story = new StringBuilder();
    private Random random = new Random();

    static LongStream seeds() {
        return Tries.seeds(4);
    }

    @ParameterizedTest
    @MethodSource("seeds")
    void noSequenceOfStepsLosesWhatIsHeld(long seed) throws IOException {
        random = new Random(seed);
        try (TestPlace p = new TestPlace(temp)) {
            RuleSets.set(p.vault(), new RuleSet(List.of(LITTLE), Term.days(1), true), p.clock(), "Ada");
            p.save("d0/f0", noise());
            p.capture();
            for (int step = 0; step < 40; step++) {
                story.append(step).append(": ");
                step(p);
                story.append('\n');
                remember(p);
            }
            p.capture();
            new Reclaim(p.vault(), p.clock()).endGrace("Ada", Progress.NONE);
            for (Map.Entry<String, byte[]> e : held.entrySet()) {
                String[] of = e.getKey().split(":");
                try (Reading reading = p.vault().read()) {
                    var version = reading.version(Long.parseLong(of[0]), Integer.parseInt(of[1]))
                            .orElseThrow();
                    assertThat(version.recipe().isElsewhere())
                            .as(e.getKey() + " is gone after\n" + story)
                            .isFalse();
                    assertThat(reading.contents().head(version.recipe(), 10_000))
                            .as(e.getKey() + " after\n" + story)
                            .isEqualTo(e.getValue());
                }
            }
            assertThat(p.check().damages()).isEmpty();
        }
    }

    private byte[] noise() {
        byte[] b = new byte[400 + random.nextInt(400)];
        random.nextBytes(b);
        return b;
    }

    private void step(TestPlace p) throws IOException {
        switch (random.nextInt(16)) {
            case 0, 1, 2 -> {
                String path = path();
                story.append("save ").append(path);
                if (!Files.isDirectory(p.path(path))) {
                    p.save(path, noise());
                }
            }
            case 3, 4 -> {
                story.append("capture");
                p.capture();
            }
            case 5, 6 -> move(p, path(), path());
            case 7 -> move(p, "d" + random.nextInt(4), "d" + random.nextInt(4));
            case 8 -> {
                String path = path();
                story.append("rm ").append(path);
                Files.deleteIfExists(p.path(path));
            }
            case 9 -> hold(p);
            case 10 -> erase(p);
            case 11 -> thin(p);
            case 12 -> {
                int hours = random.nextInt(60);
                story.append("later ").append(hours);
                p.at(p.now().plus(Duration.ofHours(hours)));
                new StandingRules(p.vault(), p.clock(), "Ada", Histories.UTC, () -> 1L << 40).run(Progress.NONE);
            }
            case 13 -> {
                story.append("a clock twenty years ahead");
                java.time.Instant now = p.now();
                p.at(now.plus(Duration.ofDays(20 * 365)));
                new StandingRules(p.vault(), p.clock(), "Ada", Histories.UTC, () -> 1L << 20).run(Progress.NONE);
                p.at(now);
            }
            case 14 -> {
                story.append("undo");
                try (Reading reading = p.vault().read()) {
                    Optional<Action> last = JournalStore.of(reading).lastUndoable();
                    reading.close();
                    if (last.isPresent()) {
                        p.recovery().undo(last.get());
                    }
                }
            }
            default -> {
                story.append("reclaim");
                Reclaim reclaim = new Reclaim(p.vault(), p.clock());
                if (random.nextBoolean()) {
                    reclaim.endGrace("Ada", Progress.NONE);
                } else {
                    reclaim.run(Progress.NONE);
                }
            }
        }
    }

    private String path() {
        return "d" + random.nextInt(3) + "/f" + random.nextInt(3);
    }

    private void move(TestPlace p, String from, String to) throws IOException {
        if (Files.exists(p.path(from)) && !Files.exists(p.path(to))) {
            story.append("mv ").append(from).append(' ').append(to);
            Files.createDirectories(p.path(to).getParent());
            Files.move(p.path(from), p.path(to));
        }
    }

    private Optional<Line> any(TestPlace p) throws IOException {
        try (Reading reading = p.vault().read()) {
            VersionTable t = VersionTable.of(reading);
            return t.lines() == 0 ? Optional.empty() : reading.line(t.lineId(random.nextInt(t.lines())));
        }
    }

    private void hold(TestPlace p) throws IOException {
        Holds holds = new Holds(p.vault(), p.clock(), "Ada");
        // Some end in days: then a clock that stood wrong for a while must not end them. They end here after the test.
        Optional<java.time.Instant> until =
                random.nextBoolean() ? Optional.empty() : Optional.of(p.now().plus(Duration.ofDays(1000)));
        if (random.nextInt(3) == 0) {
            Optional<Line> line = any(p);
            if (line.isPresent()) {
                story.append("hold ").append(line.get().path());
                holds.line(p.place(), line.get().id(), line.get().path(), "court", until);
                lines.add(line.get().id());
            }
        } else {
            String folder = "d" + random.nextInt(3);
            story.append("hold ").append(folder);
            Hold hold = holds.folder(p.place(), folder, "court", until);
            folders.add(hold.path());
        }
    }

    private void erase(TestPlace p) throws IOException {
        Optional<Line> line = any(p);
        if (line.isEmpty()) {
            return;
        }
        Erasing.What what = Erasing.What.values()[random.nextInt(3)];
        int number = 1 + random.nextInt(Math.max(1, line.get().points().size()));
        story.append("erase ")
                .append(what)
                .append(' ')
                .append(line.get().path())
                .append(' ')
                .append(number);
        try {
            new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ada"))
                    .erase(line.get().id(), what, number, Progress.NONE);
        } catch (VaultException e) {
            throw e;
        } catch (IOException e) {
            story.append(" failed: ").append(e.getMessage());
        }
    }

    private void thin(TestPlace p) throws IOException {
        story.append("thin");
        Verdicts v = Histories.judge(p, RuleSet.NONE);
        ThinPlan.Limits limits = new ThinPlan.Limits(0, "", Set.of(), 1, Optional.empty(), Optional.empty(), false);
        new Thinning(p.vault(), p.clock(), "Ada")
                .thin(ThinPlan.of(v, new SpaceTable(v.table()), limits), Progress.NONE);
    }

    /** Writes down what is held by now, by a way of its own: of what is in the vault, by what lies in held folders. */
    private void remember(TestPlace p) throws IOException {
        try (Reading reading = p.vault().read()) {
            VersionTable t = VersionTable.of(reading);
            for (int l = 0; l < t.lines(); l++) {
                String path = t.path(l);
                if (folders.stream().anyMatch(f -> path.startsWith(f + "/"))) {
                    lines.add(t.lineId(l));
                }
                if (!lines.contains(t.lineId(l))) {
                    continue;
                }
                for (int row = t.first(l); row < t.first(l + 1); row++) {
                    String key = t.lineId(l) + ":" + t.number(row);
                    if (!held.containsKey(key) && t.stays(row)) {
                        var version =
                                reading.version(t.lineId(l), t.number(row)).orElseThrow();
                        held.put(key, reading.contents().head(version.recipe(), 10_000));
                    }
                }
            }
        }
    }

    @Test
    void whatWasInAHeldFolderStaysHeldWhenTheFolderGetsAnotherName() throws IOException {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("d/Legal/contract.txt", "first");
            p.save("d/Legal/old.txt", "removed before");
            p.capture();
            Files.delete(p.path("d/Legal/old.txt"));
            p.save("d/Legal/contract.txt", "second");
            p.capture();
            new Holds(p.vault(), p.clock(), "Ada").folder(p.place(), "d/Legal", "court", Optional.empty());
            Files.move(p.path("d/Legal"), p.path("d/Legal2"));
            p.save("d/later.txt", "came later");
            p.capture();
            Files.createDirectories(p.path("d/Legal"));
            Files.move(p.path("d/later.txt"), p.path("d/Legal/later.txt"));
            p.capture();
            Files.move(p.path("d/Legal/later.txt"), p.path("d/later.txt"));
            p.capture();
            p.save("d/later.txt", "changed");
            p.save("d/Legal2/contract.txt", "third");
            p.capture();
            Verdicts v = Histories.judge(p, RuleSet.NONE);
            assertThat(Histories.reasons(v, p.line("d/Legal2/contract.txt").id()))
                    .containsExactly(Reason.HELD, Reason.HELD, Reason.HELD);
            assertThat(Histories.reasons(v, p.line("d/later.txt").id())).containsExactly(Reason.HELD, Reason.HELD);
            thin(p);
            new Reclaim(p.vault(), p.clock()).endGrace("Ada", Progress.NONE);
            assertThat(p.check().damages()).isEmpty();
            v = Histories.judge(p, RuleSet.NONE);
            assertThat(v.table()
                            .stays(v.table().row(p.line("d/Legal2/contract.txt").id(), 1)))
                    .isTrue();
        }
    }

    @Test
    void aHoldOfAnEarlierProgramTakesHoldOfWhatWasInItsFolderSince() throws Exception {
        try (TestPlace p = new TestPlace(temp)) {
            p.save("d/a.txt", "first");
            p.capture();
            new Holds(p.vault(), p.clock(), "Ada").folder(p.place(), "d", "court", Optional.empty());
            p.save("b.txt", "elsewhere");
            p.capture();
            Files.move(p.path("b.txt"), p.path("d/b.txt"));
            p.capture();
            Files.move(p.path("d"), p.path("e"));
            p.capture();
        }
        try (var c = java.sql.DriverManager.getConnection("jdbc:sqlite:" + temp.resolve("vault/catalogue.db"));
                var s = c.createStatement()) {
            s.execute("DELETE FROM held_line");
            s.execute("DELETE FROM counter WHERE name = 'held-lines'");
        }
        try (TestPlace p = new TestPlace(temp)) {
            p.at(TestPlace.START.plusSeconds(3600));
            p.capture();
            Verdicts v = Histories.judge(p, RuleSet.NONE);
            assertThat(Histories.reasons(v, p.line("e/a.txt").id())).containsExactly(Reason.HELD);
            assertThat(Histories.reasons(v, p.line("e/b.txt").id())).containsExactly(Reason.HELD);
        }
    }
}
