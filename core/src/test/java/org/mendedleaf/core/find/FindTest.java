package org.mendedleaf.core.find;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mendedleaf.core.document.Made.rows;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.TestPlace;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.capture.WorkContext;
import org.mendedleaf.core.catalogue.FindQuery;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.catalogue.WriteSession;
import org.mendedleaf.core.document.Made;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.retention.Reclaim;

/** Anything anybody ever wrote is found, in every version, and leads to its point on the line. */
class FindTest {

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

    private void save(String path, String text) throws IOException {
        p.save(path, text);
        p.later(5);
        p.capture();
    }

    private Finder.Found find(String typed, Wanted.Narrow narrow) throws IOException {
        new Indexer(p.vault(), false).run(Progress.NONE);
        return new Finder(p.vault(), "Ines").find(Wanted.parse(typed, false, narrow), 50);
    }

    private Finder.Found find(String typed) throws IOException {
        return find(typed, Wanted.Narrow.NOT);
    }

    private List<String> paths(String typed) throws IOException {
        return find(typed).files().stream().map(h -> h.line().path()).sorted().toList();
    }

    @Test
    void theFirstAndTheLastVersionThatHeldAPhraseAreAnAnswerOfTheirOwn() throws IOException {
        save("lease.txt", "The rent is 400.");
        save("lease.txt", "The rent is 400. A cat may be kept.");
        save("lease.txt", "The rent is 450. A cat may be kept.");
        save("lease.txt", "The rent is 450.");
        Finder.FileHit hit = find("\"cat may be kept\"").files().get(0);
        assertThat(hit.spans()).singleElement().satisfies(s -> {
            assertThat(s.first().label()).isEqualTo("2");
            assertThat(s.last().label()).isEqualTo("3");
            assertThat(s.gone().map(Version::label)).contains("4");
        });
        assertThat(hit.snippet()).contains("\u0002cat may be kept\u0003");
        assertThat(hit.version().map(Version::label)).contains("3");
        Finder.FileHit rent = find("450").files().get(0);
        assertThat(rent.spans().get(0).gone()).as("still there").isEmpty();
    }

    @Test
    void wordsBeginningsPhrasesAndWhatMustNotBeThereAreTold() throws IOException {
        save("a.txt", "Apples are pressed in October");
        save("b.txt", "Pears are pressed in November");
        save("c.txt", "Äpfel für Müller");
        assertThat(paths("pressed")).containsExactly("a.txt", "b.txt");
        assertThat(paths("pressed -apples")).containsExactly("b.txt");
        assertThat(paths("press*")).containsExactly("a.txt", "b.txt");
        assertThat(paths("press")).isEmpty();
        assertThat(paths("\"pressed in november\"")).containsExactly("b.txt");
        assertThat(paths("\"in pressed\"")).isEmpty();
        assertThat(paths("APFEL muller")).as("whatever case and accents").containsExactly("c.txt");
        assertThat(paths("\" OR * (")).isEmpty();
        assertThatThrownBy(() -> Wanted.parse("  -without ", false, Wanted.Narrow.NOT))
                .isInstanceOf(IllegalArgumentException.class);
        assertThat(Wanted.parse("pres", true, Wanted.Narrow.NOT).terms().get(0).prefix())
                .isTrue();
    }

    @Test
    void documentsAreFoundByWhatTheySayAndNamesOldAndNew() throws IOException {
        p.save("fees.xlsx", Made.xlsx(rows("Kind,Kilos", "Bramley,736")));
        p.save("lease.odt", Made.odt("# The lease", "until Michaelmas"));
        p.later(5);
        p.capture();
        Files.move(p.path("lease.odt"), p.path("contract.odt"));
        p.later(5);
        p.capture();
        assertThat(paths("bramley")).containsExactly("fees.xlsx");
        assertThat(paths("michaelmas")).containsExactly("contract.odt");
        Finder.FileHit byOldName = find("lease.odt").files().get(0);
        assertThat(byOldName.line().path()).isEqualTo("contract.odt");
        assertThat(byOldName.said()).extracting(FindQuery.Said::in).containsExactly(FindQuery.In.NAME);
    }

    @Test
    void removedFilesAreFoundAndCanBeAskedForAlone() throws IOException {
        save("gone.txt", "the orchard plan");
        save("here.txt", "the orchard bill");
        Files.delete(p.path("gone.txt"));
        p.later(5);
        p.capture();
        assertThat(paths("orchard")).containsExactly("gone.txt", "here.txt");
        Wanted.Narrow removed = new Wanted.Narrow(
                Optional.empty(),
                "",
                "",
                Optional.empty(),
                Optional.empty(),
                "",
                Wanted.Presence.REMOVED,
                Wanted.Field.ALL);
        assertThat(find("orchard", removed).files())
                .extracting(h -> h.line().path())
                .containsExactly("gone.txt");
    }

    @Test
    void aSearchIsNarrowedByFolderKindTimeAndPerson() throws IOException {
        save("a/one.txt", "harvest");
        var between = p.now();
        save("b/two.md", "harvest");
        assertThat(find("harvest", narrow("a", "", null, "")).files()).hasSize(1);
        assertThat(find("harvest", narrow("", "md", null, "")).files()).hasSize(1);
        assertThat(find("harvest", narrow("", "", between.plusSeconds(1), "")).files())
                .extracting(h -> h.line().path())
                .containsExactly("b/two.md");
        assertThat(find("harvest", narrow("", "", null, "nobody")).files()).isEmpty();
        String who = p.line("a/one.txt").newest().orElseThrow().who();
        assertThat(find("harvest", narrow("", "", null, who)).files()).hasSize(2);
    }

    private static Wanted.Narrow narrow(String folder, String ending, java.time.Instant from, String who) {
        return new Wanted.Narrow(
                Optional.empty(),
                folder,
                ending,
                Optional.ofNullable(from),
                Optional.empty(),
                who,
                Wanted.Presence.ALL,
                Wanted.Field.ALL);
    }

    @Test
    void notesCommentsAndPeopleAreFound() throws IOException {
        save("a.txt", "words");
        long line = p.line("a.txt").id();
        try (WriteSession session = p.vault().write()) {
            RemarkStore.note(session, 0, line, 1, "for the auditor");
            session.commit();
        }
        assertThat(find("auditor").files().get(0).said())
                .containsExactly(new FindQuery.Said(FindQuery.In.NOTE, line, 1, "for the auditor"));
    }

    @Test
    void eachContentIsHeldOnceAndWhatIsThereIsNotReadAgain() throws IOException {
        String text = "the very same words in several versions ".repeat(50);
        for (int i = 0; i < 5; i++) {
            save("a.txt", text + (i % 2));
        }
        save("copy.txt", text + "0");
        assertThat(new Indexer(p.vault(), false).run(Progress.NONE).added()).isEqualTo(6);
        try (FindIndex index = FindIndex.open(p.vault().folder())) {
            assertThat(index.size().versions()).isEqualTo(6);
            assertThat(index.size().contents()).isEqualTo(2);
        }
        assertThat(new Indexer(p.vault(), false).run(Progress.NONE).added()).isZero();
        assertThat(find("\"same words\"").files()).hasSize(2);
    }

    @Test
    void whatIsErasedIsForgottenDownToTheBytesOfTheFile() throws IOException {
        save("a.txt", "nothing of interest");
        save("a.txt", "the secretpassphrase stood here once");
        save("a.txt", "nothing of interest any more");
        assertThat(paths("secretpassphrase")).containsExactly("a.txt");
        assertThat(inFile("secretpassphrase")).isTrue();
        new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                .erase(p.line("a.txt").id(), Erasing.What.VERSION, 2, Progress.NONE);
        new Reclaim(p.vault(), p.clock()).endGrace("Ines", Progress.NONE);
        assertThat(inFile("secretpassphrase")).isFalse();
        assertThat(find("secretpassphrase").files()).isEmpty();
        assertThat(paths("interest")).containsExactly("a.txt");
    }

    @Test
    void whatIsErasedAfterItWasReadIsNotPutIn() throws IOException {
        p.save("a.txt", "the secretpassphrase stands here");
        p.capture();
        p.save("a.txt", "nothing of interest");
        p.save("b.txt", "of interest as well");
        p.capture();
        Progress erases = new Progress() {
            private boolean done;

            @Override
            public void advance(long items, long bytes) {
                if (done) {
                    return;
                }
                done = true;
                try {
                    new Erasing(new WorkContext(p.vault(), p.place(), p.clock(), p.authors(), "Ines"))
                            .erase(p.line("a.txt").id(), Erasing.What.VERSION, 1, Progress.NONE);
                    new Reclaim(p.vault(), p.clock()).endGrace("Ines", Progress.NONE);
                } catch (IOException e) {
                    throw new java.io.UncheckedIOException(e);
                }
            }
        };
        new Indexer(p.vault(), false).run(erases);
        assertThat(inFile("secretpassphrase")).isFalse();
        assertThat(paths("interest")).containsExactlyInAnyOrder("a.txt", "b.txt");
    }

    @Test
    void filesOfMoreThanOneRoundArePutIn() throws IOException {
        for (int i = 0; i < 1100; i++) {
            p.save("many/f" + i + ".txt", "number n" + i);
        }
        p.capture();
        assertThat(new Indexer(p.vault(), false).run(Progress.NONE).added()).isEqualTo(1100);
        assertThat(paths("n0")).containsExactly("many/f0.txt");
        assertThat(paths("n1099")).containsExactly("many/f1099.txt");
        assertThat(new Indexer(p.vault(), false).run(Progress.NONE).added()).isZero();
    }

    private boolean inFile(String words) throws IOException {
        for (String ending : List.of("", "-wal")) {
            Path file = FindIndex.file(p.vault().folder()).resolveSibling("index.db" + ending);
            if (Files.exists(file)
                    && new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1).contains(words)) {
                return true;
            }
        }
        return false;
    }

    @Test
    void aPlaceCanBeLeftOutAndTakenInAgain() throws IOException {
        save("a.txt", "the private words");
        assertThat(paths("private")).containsExactly("a.txt");
        set(true);
        assertThat(paths("private")).isEmpty();
        assertThat(inFile("private")).isFalse();
        assertThat(paths("a.txt")).as("its name is still found").containsExactly("a.txt");
        set(false);
        assertThat(paths("private")).containsExactly("a.txt");
    }

    private void set(boolean off) throws IOException {
        try (Reading reading = p.vault().read();
                FindIndex index = FindIndex.open(p.vault().folder())) {
            index.off(p.place(), off, reading.lines().ids(p.place()));
        }
    }

    @Test
    void aDamagedIndexIsMadeAnewAndAMissingOneCostsTheTextOnly() throws IOException {
        save("a.txt", "some words");
        assertThat(paths("words")).containsExactly("a.txt");
        Files.write(FindIndex.file(p.vault().folder()), new byte[5000]);
        Finder finder = new Finder(p.vault(), "Ines");
        Finder.Found without = finder.find(Wanted.parse("a.txt", false, Wanted.Narrow.NOT), 5);
        assertThat(without.files()).hasSize(1);
        assertThat(without.complete()).isFalse();
        assertThat(finder.share()).isEqualTo(new Finder.Share(0, 1));
        assertThat(paths("words")).containsExactly("a.txt");
    }

    @Test
    void howMuchCanBeSearchedIsCountedAnewAfterEachSave() throws IOException {
        save("a.txt", "some words");
        Finder finder = new Finder(p.vault(), "Ines");
        assertThat(paths("words")).containsExactly("a.txt");
        Wanted name = Wanted.parse("a.txt", false, Wanted.Narrow.NOT);
        assertThat(finder.find(name, 5).complete()).isTrue();
        assertThat(finder.share()).isEqualTo(new Finder.Share(1, 1));
        save("a.txt", "other words");
        assertThat(finder.find(name, 5).complete()).isFalse();
        assertThat(finder.share()).isEqualTo(new Finder.Share(1, 2));
    }

    @Test
    void whatEachVersionChangedIsKeptInWords() throws IOException {
        save("a.csv", "k,v\na,1\n");
        save("a.csv", "k,v\na,2\n");
        save("a.csv", "k,v\na,2\nb,3\n");
        new Indexer(p.vault(), false).run(Progress.NONE);
        try (FindIndex index = FindIndex.open(p.vault().folder())) {
            assertThat(index.words(p.line("a.csv").id()))
                    .containsEntry(2, "1 cell")
                    .containsEntry(3, "+1 row")
                    .hasSize(2);
        }
    }

    @Test
    void aCancelledRunGoesOnWhereItWas() throws IOException {
        for (int i = 0; i < 30; i++) {
            p.save("f" + i + ".txt", "number " + i);
        }
        p.capture();
        Progress stops = new Progress() {
            private int seen;

            @Override
            public void advance(long items, long bytes) {
                seen++;
            }

            @Override
            public boolean isCancelled() {
                return seen > 10;
            }
        };
        Indexer.Result first = new Indexer(p.vault(), false).run(stops);
        assertThat(first.complete()).isFalse();
        assertThat(first.added()).isBetween(1L, 29L);
        assertThat(new Indexer(p.vault(), false).run(Progress.NONE).added()).isEqualTo(30 - first.added());
    }

    @Test
    void whereMostFilesHoldTheWordsTheLatestComeFirstWithAllTheirVersions() throws IOException {
        for (int v = 1; v <= 3; v++) {
            for (int f = 0; f < 9; f++) {
                p.save("f" + f + ".txt", v == 2 && f == 4 ? "pears " + f : "apples and pears " + f + " " + v);
                p.later(1);
            }
            p.later(5);
            p.capture();
        }
        new Indexer(p.vault(), false).run(Progress.NONE);
        Wanted apples = Wanted.parse("apples", false, Wanted.Narrow.NOT);
        try (FindIndex index = FindIndex.open(p.vault().folder())) {
            assertThat(index.latest(apples, 3, java.util.Set.of())).isPresent();
            assertThat(index.latest(apples, 10, java.util.Set.of()))
                    .as("there are nine")
                    .isEmpty();
        }
        Finder finder = new Finder(p.vault(), "Ines");
        Finder.Found all = finder.find(apples, 50);
        assertThat(all.files()).hasSize(9);
        assertThat(all.more()).isFalse();
        Finder.Found few = finder.find(apples, 3);
        assertThat(few.more()).isTrue();
        assertThat(few.files()).usingRecursiveComparison().isEqualTo(all.files().subList(0, 3));
        Finder.FileHit gap = all.files().stream()
                .filter(h -> h.line().path().equals("f4.txt"))
                .findFirst()
                .orElseThrow();
        assertThat(gap.spans()).as("not in the second version").hasSize(2);
    }

    /** Has the index forget a file, behind the back of who keeps it. */
    private void loseFromIndex(String path) throws IOException {
        new Indexer(p.vault(), false).run(Progress.NONE);
        try (FindIndex index = FindIndex.open(p.vault().folder())) {
            index.remove(p.line(path).id());
        }
    }

    @Test
    void onlyFilesThatChangedAreGoneThroughAgain() throws IOException {
        save("a.txt", "the orchard gate");
        Path desk = Files.createDirectories(temp.resolve("another")).toRealPath();
        Place other = Protect.place(p.vault(), desk, Rhythm.BY_HAND, List.of(), p.clock(), "Ines");
        loseFromIndex("a.txt");
        Files.writeString(desk.resolve("b.txt"), "the orchard wall");
        new Capture(p.vault(), other, p.clock(), p.authors()).run(CaptureScope.WHOLE, Progress.NONE);
        assertThat(paths("orchard")).as("nobody looked where nothing happened").containsExactly("b.txt");
        save("c.txt", "the orchard house");
        assertThat(paths("orchard")).as("nobody looked at other files").containsExactly("b.txt", "c.txt");
        try (WriteSession session = p.vault().write()) {
            session.applyUnlogged("DELETE FROM recent_change");
            session.commit();
        }
        save("c.txt", "the orchard house and its gate");
        try (WriteSession session = p.vault().write()) {
            session.applyUnlogged("DELETE FROM recent_change");
            session.commit();
        }
        assertThat(paths("orchard"))
                .as("all is gone through when nobody knows what changed")
                .containsExactly("a.txt", "b.txt", "c.txt");
    }

    @Test
    void inAVaultThatWentBackAllPlacesAreGoneThrough() throws IOException {
        save("a.txt", "the orchard gate");
        loseFromIndex("a.txt");
        assertThat(paths("orchard")).isEmpty();
        try (FindIndex index = FindIndex.open(p.vault().folder())) {
            index.filled(0, "1000000");
        }
        assertThat(paths("orchard")).containsExactly("a.txt");
    }

    @Test
    void whatAPersonSavedIsFoundByANameThatHasMoreLettersThanTheAlphabet() throws IOException {
        save("a.txt", "text");
        try (WriteSession session = p.vault().write()) {
            session.applyUnlogged("UPDATE version SET who = 'Änne Groß'");
            session.commit();
        }
        assertThat(paths("ÄNNE")).containsExactly("a.txt");
        assertThat(paths("anne")).isEmpty();
    }
}
