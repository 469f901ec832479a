package org.mendedleaf.core.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.catalogue.JournalStore;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.jobs.Job;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.recovery.FileWork;
import org.mendedleaf.core.recovery.FoldResult;
import org.mendedleaf.core.recovery.Folding;
import org.mendedleaf.core.recovery.PutResult;
import org.mendedleaf.core.recovery.Revision;

/** Many files put in, scattered copies folded, and both undone. */
class PutAndFoldTest {

    @TempDir
    Path temp;

    private TestPlace p;
    private Path in;

    @BeforeEach
    void open() throws IOException {
        p = new TestPlace(temp);
        in = Files.createDirectories(temp.resolve("in"));
    }

    @AfterEach
    void close() throws IOException {
        p.close();
    }

    private Path file(String name, String text) throws IOException {
        Path file = in.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        Files.setLastModifiedTime(file, FileTime.from(p.later(3)));
        return file;
    }

    private Action last() throws IOException {
        return last(p);
    }

    private static Action last(TestPlace place) throws IOException {
        try (Reading reading = place.vault().read()) {
            return JournalStore.of(reading).lastUndoable().orElseThrow();
        }
    }

    private Intake intake() {
        return new Intake(p.vault(), p.place(), new Evidence(p.vault(), p.place(), p.clock(), VersionBytes.VAULT_ONLY));
    }

    @Test
    void manyFilesGoInAsOneStepAndComeOutAsOne() throws IOException {
        p.save("d/a.txt", "a old");
        p.save("d/b.txt", "b");
        p.capture();
        List<Revision> all = List.of(
                new Revision(file("a.txt", "a new"), "d/a.txt", "better"),
                new Revision(file("b.txt", "b"), "d/b.txt", ""),
                new Revision(file("c.txt", "c"), "e/c.txt", ""),
                new Revision(in.resolve("missing"), "d/m.txt", ""));
        PutResult result = p.recovery().put(all, Progress.NONE);
        assertThat(result.labels()).containsEntry("d/a.txt", "2").containsEntry("e/c.txt", "1");
        assertThat(result.same()).containsExactly("d/b.txt");
        assertThat(result.failed()).containsOnlyKeys("d/m.txt");
        assertThat(p.line("d/a.txt").newest().orElseThrow().note()).isEqualTo("better");
        assertThat(last().words()).isEqualTo("2 files put in");
        p.recovery().undo(last());
        assertThat(p.read("d/a.txt")).isEqualTo("a old");
        assertThat(p.path("e/c.txt")).doesNotExist();
        assertThat(p.path("e")).doesNotExist();
        assertThat(p.line("e/c.txt").removed()).isPresent();
    }

    @Test
    void newFilesOfAPutThatWasCutOffBeforeTheirLinesWereNotedAreTakenBackToo() throws IOException {
        p.save("mine.txt", "mine");
        p.capture();
        Path in = file("brought.txt", "new");
        p.recovery().put(List.of(new Revision(in, "new.txt", "")), Progress.NONE);
        Action whole = last();
        Action cut = new Action(
                whole.id(),
                whole.at(),
                whole.who(),
                whole.kind(),
                whole.place(),
                0,
                false,
                List.of(new Action.Item(0, "", "new.txt", 0, 0), new Action.Item(0, "", "mine.txt", 0, 0)));
        p.recovery().undo(cut);
        assertThat(p.path("new.txt")).doesNotExist();
        assertThat(p.path("mine.txt")).hasContent("mine");
        assertThat(p.line("new.txt").versions()).hasSize(1);
    }

    @Test
    void aFileTakenFromWhereItWasIsBackAfterTheUndo() throws IOException {
        p.save("a.txt", "old");
        p.capture();
        Path source = file("a (1).txt", "new");
        PutResult result =
                p.recovery().put(List.of(new Revision(source, "a.txt", "", DraftChoice.BY_RULE, true)), Progress.NONE);
        assertThat(result.stayed()).isEmpty();
        assertThat(source).doesNotExist();
        assertThat(p.read("a.txt")).isEqualTo("new");
        assertThat(p.recovery().undo(last()).failed()).isEmpty();
        assertThat(source).hasContent("new");
        assertThat(p.read("a.txt")).isEqualTo("old");
    }

    @Test
    void aFileOfTheSameFolderBecomesAVersionAndItsLineIsRemovedRecoverably() throws IOException {
        p.save("plan.txt", "old");
        p.save("plan v2.txt", "new");
        p.capture();
        p.recovery()
                .put(
                        List.of(new Revision(p.path("plan v2.txt"), "plan.txt", "", DraftChoice.BY_RULE, true)),
                        Progress.NONE);
        assertThat(p.path("plan v2.txt")).doesNotExist();
        assertThat(p.read("plan.txt")).isEqualTo("new");
        p.recovery().undo(last());
        assertThat(p.read("plan v2.txt")).isEqualTo("new");
        assertThat(p.read("plan.txt")).isEqualTo("old");
    }

    @Test
    void whatIsThereAlreadyIsNotTakenAway() throws IOException {
        p.save("a.txt", "same");
        p.capture();
        Path source = file("a.txt", "same");
        PutResult result =
                p.recovery().put(List.of(new Revision(source, "a.txt", "", DraftChoice.BY_RULE, true)), Progress.NONE);
        assertThat(source).exists();
        assertThat(result.stayed()).hasSize(1);
        assertThat(result.action()).isZero();
    }

    @Test
    void aNameThatComesBackGoesOnWithItsLine() throws IOException {
        p.save("a.txt", "one");
        p.capture();
        p.recovery().remove(List.of("a.txt"));
        p.recovery().put(file("x.txt", "two"), "a.txt", "", Progress.NONE);
        assertThat(p.line("a.txt").versions()).hasSize(2);
    }

    @Test
    void aCancelledPutLeavesWhatWasNotBegun() throws IOException {
        List<Revision> all = new ArrayList<>();
        for (int i = 0; i < 30; i++) {
            all.add(new Revision(file("f" + i, "content " + i), "f" + i, ""));
        }
        Job job = new Job("test", () -> {});
        job.cancel();
        PutResult result = p.recovery().put(all, job);
        assertThat(result.cancelled()).isTrue();
        assertThat(result.labels()).isEmpty();
        assertThat(p.folder()).isEmptyDirectory();
    }

    @Test
    void aPathThatTwoFilesShallHaveIsRefused() throws IOException {
        Revision a = new Revision(file("a", "1"), "t", "");
        Revision b = new Revision(file("b", "2"), "t", "");
        assertThatThrownBy(() -> p.recovery().put(List.of(a, b), Progress.NONE))
                .isInstanceOf(IllegalArgumentException.class);
        assertThat(p.path("t")).doesNotExist();
    }

    @Test
    void aDroppedFolderIsMatchedFileByFile() throws IOException {
        List<String> letter = Documents.paragraphs(1, 10);
        p.save("d/letter.txt", Documents.text(letter));
        p.save("d/list.csv", Documents.text(Documents.paragraphs(2, 10)));
        p.save("d/same.md", Documents.text(Documents.paragraphs(3, 10)));
        p.save("d/wrong.md", Documents.text(Documents.paragraphs(4, 10)));
        p.capture();
        List<String> edit = new ArrayList<>(letter);
        edit.add("one line more of it");
        file("drop/letter final.txt", new String(Documents.text(edit), java.nio.charset.StandardCharsets.UTF_8));
        Files.write(file("drop/same.md", ""), Documents.text(Documents.paragraphs(3, 10)));
        Files.write(file("drop/wrong.md", ""), Documents.text(Documents.paragraphs(5, 10)));
        file("drop/new/thing.txt", "something new");
        file("drop/.~lock.x#", "a lock");
        List<String> list = new ArrayList<>(Documents.paragraphs(2, 10));
        list.set(3, "other words");
        Files.write(file("drop/renamed beyond recognition.csv", ""), Documents.text(list));
        IntakePlan plan = intake().plan(List.of(in.resolve("drop")), "d", NameTaken.VERSION, Progress.NONE);
        Map<String, String> said = new TreeMap<>();
        plan.rows().forEach(r -> said.put(r.incoming().relative(), r.fate() + " " + r.target()));
        assertThat(said)
                .containsOnly(
                        Map.entry("letter final.txt", "NEW_VERSION d/letter.txt"),
                        Map.entry("same.md", "IDENTICAL d/same.md"),
                        Map.entry("wrong.md", "UNSURE d/wrong.md"),
                        Map.entry("new/thing.txt", "NEW_FILE d/new/thing.txt"),
                        Map.entry("renamed beyond recognition.csv", "UNSURE d/list.csv"));
        IntakeRow unsure = plan.rows().stream()
                .filter(r -> r.incoming().relative().startsWith("renamed"))
                .findFirst()
                .orElseThrow();
        assertThat(unsure.how()).isEqualTo(Matcher.How.CONTENT);
        assertThat(unsure.judgement().orElseThrow().shared()).isGreaterThan(60);
        IntakePlan chosen =
                plan.with(plan.rows().indexOf(unsure), unsure.choose(IntakeRow.Fate.NEW_VERSION, "d/list.csv"));
        assertThat(chosen.problem()).isEmpty();
        PutResult put = p.recovery().put(chosen.revisions("all of it", DraftChoice.BY_RULE, false), Progress.NONE);
        assertThat(put.labels()).containsOnlyKeys("d/letter.txt", "d/list.csv", "d/new/thing.txt");
        assertThat(p.line("d/list.csv").newest().orElseThrow().note()).isEqualTo("all of it");
    }

    @Test
    void theRuleForTakenNamesIsFollowed() throws IOException {
        p.save("a.txt", Documents.text(Documents.paragraphs(1, 5)));
        p.capture();
        Files.write(file("a.txt", ""), Documents.text(Documents.paragraphs(9, 5)));
        IntakePlan both = intake().plan(List.of(in.resolve("a.txt")), "", NameTaken.KEEP_BOTH, Progress.NONE);
        assertThat(both.rows().get(0).fate()).isEqualTo(IntakeRow.Fate.NEW_FILE);
        assertThat(both.rows().get(0).target()).isEqualTo("a (2).txt");
        IntakePlan skip = intake().plan(List.of(in.resolve("a.txt")), "", NameTaken.SKIP, Progress.NONE);
        assertThat(skip.acting()).isZero();
    }

    @Test
    void twoRowsForOneTargetAreAProblemThatIsSaid() throws IOException {
        file("x.txt", "x");
        file("y.txt", "y");
        IntakePlan plan = intake().plan(List.of(in), "", NameTaken.VERSION, Progress.NONE);
        IntakePlan clash = plan.with(1, plan.rows().get(1).choose(IntakeRow.Fate.NEW_FILE, "x.txt"));
        assertThat(clash.clashes()).containsExactly("x.txt");
        assertThat(clash.problem().orElseThrow()).contains("x.txt");
    }

    private void copies() throws IOException {
        List<String> plan = new ArrayList<>(Documents.paragraphs(1, 10));
        p.save("plan v1.txt", Documents.text(plan));
        plan.add("second");
        p.save("plan.txt", Documents.text(plan));
        plan.add("third");
        p.save("plan v2 FINAL.txt", Documents.text(plan));
        p.save("plan (1).txt", Documents.text(plan));
        plan.add("fourth");
        p.save("plan 2026-03-02.txt", Documents.text(plan));
        p.save("plan old.txt", Documents.text(Documents.paragraphs(77, 10)));
        p.save("minutes 2026-03-02.txt", Documents.text(Documents.paragraphs(50, 10)));
        p.save("minutes 2026-04-02.txt", Documents.text(Documents.paragraphs(51, 10)));
        p.capture();
    }

    private List<Family> families() throws IOException {
        Evidence evidence = new Evidence(p.vault(), p.place(), p.clock(), VersionBytes.VAULT_ONLY);
        return new ScatteredCopies(p.vault(), p.place(), evidence).find("", Progress.NONE);
    }

    @Test
    void copiesAreProposedInTheirOrderAndForeignOnesAreLeftOut() throws IOException {
        copies();
        List<Family> families = families();
        assertThat(families).hasSize(1);
        Family family = families.get(0);
        assertThat(family.keep()).isEqualTo("plan.txt");
        assertThat(family.members())
                .extracting(Family.Member::path)
                .containsExactly("plan v1.txt", "plan.txt", "plan v2 FINAL.txt", "plan (1).txt", "plan 2026-03-02.txt");
        assertThat(family.leftOut()).containsExactly("plan old.txt");
        assertThat(family.members().get(3).same()).isTrue();
        assertThat(family.members().get(1).shared()).isGreaterThan(80);
        assertThat(family.versions()).isEqualTo(4);
    }

    @Test
    void foldedCopiesAreVersionsOfOneLineAndComeBackWithOneUndo() throws IOException {
        copies();
        Map<String, String> before = contents();
        FoldResult result = p.recovery().fold(List.of(families().get(0).folding()), Progress.NONE);
        assertThat(result.failed()).isEmpty();
        assertThat(result.removed()).hasSize(4);
        Line line = p.line("plan.txt");
        // plan.txt itself; v1; what plan.txt was, again; v2 and (1), which are the same; the last.
        assertThat(line.versions()).hasSize(5);
        assertThat(line.versions().stream().map(Version::origin))
                .containsExactly(Origin.FOLDED, Origin.FOLDED, Origin.RESTORED, Origin.FOLDED, Origin.FOUND);
        assertThat(line.newest().orElseThrow().note()).startsWith("was plan 2026-03-02.txt of ");
        assertThat(p.read("plan.txt")).isEqualTo(before.get("plan 2026-03-02.txt"));
        assertThat(p.path("plan v1.txt")).doesNotExist();
        assertThat(p.path("plan old.txt")).exists();
        FileWork.Undone undone = p.recovery().undo(last());
        assertThat(undone.failed()).isEmpty();
        assertThat(contents()).isEqualTo(before);
    }

    @Test
    void theNameToKeepNeedNotBeThere() throws IOException {
        p.save("list v1.txt", "one");
        p.save("list v2.txt", "two");
        p.capture();
        p.recovery().fold(List.of(new Folding("list.txt", List.of("list v1.txt", "list v2.txt"))), Progress.NONE);
        assertThat(p.read("list.txt")).isEqualTo("two");
        assertThat(p.line("list.txt").versions()).hasSize(2);
        p.recovery().undo(last());
        assertThat(contents().keySet()).containsExactly("list v1.txt", "list v2.txt");
    }

    @Test
    void aFamilyInTwoFoldingsIsRefused() {
        Folding a = new Folding("x", List.of("a", "b"));
        Folding b = new Folding("y", List.of("b", "c"));
        assertThatThrownBy(() -> p.recovery().fold(List.of(a, b), Progress.NONE))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Folding("x", List.of("a", "a"))).isInstanceOf(IllegalArgumentException.class);
    }

    private Map<String, String> contents() throws IOException {
        return contents(p);
    }

    private static Map<String, String> contents(TestPlace place) throws IOException {
        Map<String, String> all = new TreeMap<>();
        try (var files = Files.walk(place.folder())) {
            for (Path f : files.filter(Files::isRegularFile).toList()) {
                all.put(place.folder().relativize(f).toString(), Files.readString(f));
            }
        }
        return all;
    }

    @Property(tries = 25)
    void noFoldingLosesAContentAndOneUndoGivesAllBack(@ForAll Random random) throws IOException {
        Path own = Files.createTempDirectory("fold");
        try (TestPlace place = new TestPlace(own)) {
            int count = 2 + random.nextInt(5);
            List<String> paths = new ArrayList<>();
            for (int i = 0; i < count; i++) {
                String path = (random.nextBoolean() ? "d/" : "") + "copy" + i;
                place.save(path, "content " + random.nextInt(4));
                paths.add(path);
                if (random.nextInt(3) == 0) {
                    place.capture();
                    place.save(path, "content " + random.nextInt(4));
                }
            }
            place.capture();
            java.util.Collections.shuffle(paths, random);
            String keep = random.nextInt(4) == 0 ? "new name" : paths.get(random.nextInt(count));
            Map<String, String> before = contents(place);
            Set<String> texts = Set.copyOf(before.values());
            FoldResult result = place.recovery().fold(List.of(new Folding(keep, paths)), Progress.NONE);
            assertThat(result.failed()).isEmpty();
            assertThat(contents(place).keySet()).containsExactly(keep);
            assertThat(place.read(keep)).isEqualTo(before.get(paths.get(count - 1)));
            Map<String, Integer> onTheLine = new HashMap<>();
            try (Reading reading = place.vault().read()) {
                for (Version v : place.line(keep).versions()) {
                    onTheLine.put(new String(reading.contents().head(v.recipe(), 100)), v.number());
                }
            }
            assertThat(onTheLine.keySet()).containsAll(texts);
            if (result.action() != 0) {
                assertThat(place.recovery().undo(last(place)).failed()).isEmpty();
                assertThat(contents(place)).isEqualTo(before);
            }
        }
    }
}
