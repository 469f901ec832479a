package org.mendedleaf.desktop.files;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.desktop.context.AppContextTest;
import org.mendedleaf.desktop.context.Navigator;

/** What is done with a file, a folder and a line, and where the screen leads: each of it said, none of it lost. */
class FileActionsTest extends AppContextTest {

    private FilesModel files;

    @BeforeEach
    void look() throws Exception {
        files = new FilesModel(context);
        files.open(openPlace, "");
        until(() -> !files.listingProperty().get().top().isEmpty());
    }

    private void select(String name) throws InterruptedException {
        files.select(files.listingProperty().get().top().stream()
                .filter(r -> r.entry().name().equals(name))
                .findFirst()
                .orElseThrow());
        until(() -> files.line().lineProperty().get() != null);
    }

    private Version version(int number) {
        return files.line().lineProperty().get().version(number).orElseThrow();
    }

    private Message said(String beginning) throws InterruptedException {
        until(() -> files.messageProperty().get().words().startsWith(beginning));
        return files.messageProperty().get();
    }

    private Line line(String path) throws Exception {
        try (Reading reading = openPlace.vault().read()) {
            return reading.line(openPlace.place(), path).orElseThrow();
        }
    }

    // Files.

    @Test
    void aRemovedFileIsSaidToKeepItsVersionsAndComesBackByUndo() throws Exception {
        select("ledger.csv");
        files.remove();
        assertThat(said("ledger.csv is removed. All its versions are kept.").undo())
                .isTrue();
        assertThat(folder.resolve("ledger.csv")).doesNotExist();
        files.undo();
        assertThat(said("Undone: ").offer()).isEqualTo(Offer.REDO);
        assertThat(folder.resolve("ledger.csv")).hasContent("saved over by a letter");
    }

    @Test
    void aFileThatWentMeanwhileIsNotSaidToBeRemoved() throws Exception {
        select("ledger.csv");
        Files.delete(folder.resolve("ledger.csv"));
        files.remove();
        until(() -> files.messageProperty().get().failed());
        assertThat(files.messageProperty().get().words()).startsWith("ledger.csv");
    }

    @Test
    void aNewNameIsTakenWhereItIsFreeAndRefusedWhereItIsNot() throws Exception {
        files.rename("ledger.csv", "book.csv");
        said("ledger.csv is now called book.csv.");
        assertThat(folder.resolve("book.csv")).hasContent("saved over by a letter");
        assertThat(line("book.csv").versions()).as("its line goes on").hasSize(2);
        files.rename("book.csv", "sub");
        assertThat(said("There is something called sub already.").failed()).isTrue();
        files.rename("book.csv", "a/b");
        assertThat(said("\"a/b\" cannot be a name.").failed()).isTrue();
        files.rename("gone.csv", "new.csv");
        assertThat(said("gone.csv is not there any more.").failed()).isTrue();
        assertThat(folder.resolve("book.csv")).exists();
    }

    @Test
    void aCopyIsSavedUnderANameThatSaysWhichVersionItIs() throws Exception {
        select("ledger.csv");
        Path into = Files.createDirectory(temp.resolve("into"));
        List<Path> done = new ArrayList<>();
        files.copy(version(1), into, done::add);
        said("Saved ");
        assertThat(done).singleElement().satisfies(copy -> {
            assertThat(copy).hasContent("kind,kilos\nKaty,412\n");
            assertThat(copy.getFileName().toString())
                    .startsWith("ledger")
                    .contains("v1")
                    .endsWith(".csv");
        });
        files.copy(version(1), Files.writeString(temp.resolve("a file"), "no folder"), done::add);
        until(() -> files.messageProperty().get().failed());
        assertThat(done).hasSize(1);
    }

    @Test
    void aCopyForAnotherProgramIsReadOnlyAndNotInTheFolder() throws Exception {
        select("ledger.csv");
        List<Path> done = new ArrayList<>();
        files.openCopy(version(1), done::add);
        until(() -> !done.isEmpty());
        assertThat(done.get(0)).hasContent("kind,kilos\nKaty,412\n");
        assertThat(done.get(0).startsWith(folder)).isFalse();
        assertThat(Files.getPosixFilePermissions(done.get(0)).toString()).doesNotContain("WRITE");
    }

    @Test
    void restoringWhatIsThereAlreadyChangesNothingAndSaysSo() throws Exception {
        select("ledger.csv");
        files.restore(version(2));
        assertThat(said("ledger.csv has the content of version 2 already.").undo())
                .isFalse();
        assertThat(line("ledger.csv").versions()).hasSize(2);
        files.restore(version(1));
        assertThat(said("ledger.csv: version 1 is current again, as version 3.").undo())
                .isTrue();
    }

    @Test
    void whereNothingWasDoneNothingIsUndoneAndNothingIsTakenBack() throws Exception {
        files.undo();
        assertThat(said("There is nothing to undo.").failed()).isFalse();
        files.redo();
        said("There is no undo to take back.");
        files.dismiss();
        assertThat(files.messageProperty().get().words()).isEmpty();
    }

    @Test
    void anUndoIsTakenBackOnlyWhileNothingElseWasDone() throws Exception {
        select("ledger.csv");
        files.restore(version(1));
        said("ledger.csv: version 1 is current");
        files.undo();
        said("Undone: ");
        files.rename("sub", "other");
        said("sub is now called other.");
        select("ledger.csv");
        files.restore(version(1));
        said("ledger.csv: version 1 is current");
        files.redo();
        said("There is no undo to take back.");
        assertThat(folder.resolve("ledger.csv")).hasContent("kind,kilos\nKaty,412\n");
    }

    // Lines.

    @Test
    void notesAndCommentsStandAtTheVersionTheyAreAbout() throws Exception {
        select("ledger.csv");
        files.lineActions().note(version(1), "before the letter");
        said("The note of version 1 of ledger.csv is changed.");
        assertThat(line("ledger.csv").version(1).orElseThrow().note()).isEqualTo("before the letter");
        files.lineActions().comment(version(1), "looks right");
        until(() -> files.line().saidProperty().get() != null
                && !files.line().saidProperty().get().comments().isEmpty());
        files.lineActions().comment(version(1), "  ");
        assertThat(said("A comment needs words.").failed()).isTrue();
        files.lineActions().card(new FileProperties("ledgers", FileProperties.Visibility.EVERYBODY));
        until(() -> files.line().saidProperty().get().card().category().equals("ledgers"));
    }

    @Test
    void whatNeedsDraftsIsRefusedInWordsWhereThereAreNone() throws Exception {
        select("ledger.csv");
        files.lineActions().publish("agreed");
        until(() -> files.messageProperty().get().failed());
        assertThat(files.messageProperty().get().words()).contains("ledger.csv");
        files.lineActions().giveUp();
        assertThat(said("ledger.csv is not checked out.").failed()).isTrue();
        files.lineActions().checkOut();
        assertThat(said("ledger.csv is checked out by you.").failed()).isFalse();
        files.lineActions().checkIn("nothing done");
        said("ledger.csv is checked in; nothing had changed.");
    }

    @Test
    void withoutALineNothingIsDoneToOne() throws Exception {
        files.lineActions().publish("");
        files.lineActions().checkOut();
        files.intake().open();
        assertThat(files.messageProperty().get().words()).isEmpty();
        assertThat(files.intake().putting().openProperty().get()).isFalse();
    }

    // Where it leads.

    private Navigator navigator() {
        Navigator navigator = mock(Navigator.class);
        files.routes().setNavigator(navigator);
        return navigator;
    }

    @Test
    void eachWayLeadsToWhatIsSelectedOrLookedAt() throws Exception {
        Navigator navigator = navigator();
        files.enter("sub");
        until(() -> files.listingProperty().get().rows().containsKey("sub"));
        files.routes().compare();
        verify(navigator).compare(openPlace, "sub", null);
        files.routes().snapshots();
        verify(navigator).snapshots(openPlace, "sub");
        files.routes().fold();
        verify(navigator).fold(openPlace, "sub");
        files.routes().strays();
        verify(navigator).strays(openPlace, "sub");
        files.routes().holdFolder();
        verify(navigator).hold(openPlace, Hold.ofFolder(openPlace.place(), "sub"), "");
        files.up();
        until(() -> files.folderProperty().get().isEmpty());
        until(() -> files.listingProperty().get().top().stream()
                .anyMatch(r -> r.entry().name().equals("ledger.csv")));
        select("ledger.csv");
        files.routes().hold(1);
        verify(navigator).hold(openPlace, Hold.ofFile(openPlace.place(), line("ledger.csv"), 1), "1");
        files.routes().erase(Erasing.What.OLDER, 0);
        verify(navigator).erase(eq(openPlace), any(), eq(Erasing.What.OLDER), eq(0));
        files.routes().straysOfFile();
        verify(navigator).strays(openPlace, "");
    }

    @Test
    void intoThePastNothingIsPut() throws Exception {
        Navigator navigator = navigator();
        Path coming = Files.writeString(temp.resolve("coming.txt"), "new");
        files.momentProperty().set(between());
        files.intake().comeIn(List.of(coming), null);
        assertThat(said("Files are put in now, not into the past.").failed()).isTrue();
        files.routes().fold();
        files.routes().strays();
        files.intake().putOnto(coming, "ledger.csv");
        verify(navigator, never()).intake(any(), any(), anyString());
        verify(navigator, never()).fold(any(), anyString());
        verify(navigator, never()).strays(any(), anyString());
        assertThat(folder.resolve("ledger.csv")).hasContent("saved over by a letter");
    }

    @Test
    void oneFileGoesOntoAnotherAndManyGoIntoATable() throws Exception {
        Navigator navigator = navigator();
        Path one = Files.writeString(temp.resolve("one.txt"), "one");
        Path two = Files.writeString(temp.resolve("two.txt"), "two");
        files.intake().comeIn(List.of(one, two), null);
        verify(navigator).intake(openPlace, List.of(one, two), "");
        FileRow sub = files.listingProperty().get().top().stream()
                .filter(FileRow::isFolder)
                .findFirst()
                .orElseThrow();
        files.intake().comeIn(List.of(one), sub);
        verify(navigator).intake(openPlace, List.of(one), "sub");
        FileRow ledger = files.listingProperty().get().top().stream()
                .filter(r -> !r.isFolder())
                .findFirst()
                .orElseThrow();
        files.intake().comeIn(List.of(one, two), ledger);
        verify(navigator, org.mockito.Mockito.times(2)).intake(eq(openPlace), any(), eq(""));
        // One onto a file is its next version, and this one is doubtful: it has nothing in common with it.
        files.intake().comeIn(List.of(one), ledger);
        until(() -> org.mockito.Mockito.mockingDetails(navigator).getInvocations().stream()
                .anyMatch(i -> i.getMethod().getName().equals("guard")));
        assertThat(folder.resolve("ledger.csv")).hasContent("saved over by a letter");
    }

    @Test
    void withoutAPlaceNoWayLeadsAnywhere() {
        FilesModel none = new FilesModel(context);
        Navigator navigator = mock(Navigator.class);
        none.routes().setNavigator(navigator);
        none.routes().recover();
        none.routes().rollBack();
        none.routes().compare();
        none.routes().snapshots();
        none.routes().fold();
        none.routes().strays();
        none.routes().holdFolder();
        none.routes().hold(1);
        none.routes().erase(Erasing.What.ALL, 0);
        none.routes().straysOfFile();
        none.steps().earlier();
        none.steps().later();
        none.undo();
        none.redo();
        verifyNoInteractions(navigator);
        verify(navigator, never()).erase(any(), any(), any(), anyInt());
    }

    // Through time.

    @Test
    void stepsGoFromChangeToChangeAndEndAtNow() throws Exception {
        files.steps().earlier();
        until(() -> files.momentProperty().get() != null);
        assertThat(files.momentProperty().get()).isBefore(later).isAfter(then);
        until(() -> files.listingProperty().get().since().changed() == 1);
        files.steps().later();
        until(() -> files.momentProperty().get() != null
                && files.momentProperty().get().isAfter(later.minusMillis(1)));
        Instant last = files.momentProperty().get();
        while (files.momentProperty().get() != null) {
            assertThat(files.momentProperty().get()).isAfterOrEqualTo(last);
            last = files.momentProperty().get();
            Instant from = last;
            files.steps().later();
            until(() -> !from.equals(files.momentProperty().get()));
        }
    }

    @Test
    void nobodyStepsBeforeTheFirstCapture() throws Exception {
        files.momentProperty().set(then.plusSeconds(60));
        CountDownLatch asked = new CountDownLatch(1);
        files.steps().earlier();
        context.background().run(() -> true, ok -> asked.countDown(), e -> asked.countDown());
        until(() -> asked.getCount() == 0);
        until(() -> screen.isEmpty());
        assertThat(files.momentProperty().get()).isEqualTo(then.plusSeconds(60));
    }

    @Test
    void aSaveThatComesInLeavesWhoLooksAtAnOlderVersionThereAndTakesWhoLooksAtTheNewestAlong() throws Exception {
        select("ledger.csv");
        until(() -> files.line().chosenProperty().get() != null);
        assertThat(files.line().chosenProperty().get().number()).isEqualTo(2);
        save("ledger.csv", "third", later.plusSeconds(60));
        capture();
        until(() -> files.line().lineProperty().get().versions().size() == 3);
        assertThat(files.line().chosenProperty().get().number()).as("along").isEqualTo(3);
        files.line().step(1);
        assertThat(files.line().chosenProperty().get().number()).isEqualTo(2);
        save("ledger.csv", "fourth", later.plusSeconds(120));
        capture();
        until(() -> files.line().lineProperty().get().versions().size() == 4);
        assertThat(files.line().chosenProperty().get().number()).as("there").isEqualTo(2);
        files.line().step(-9);
        assertThat(files.line().chosenProperty().get().number()).isEqualTo(4);
        files.line().step(9);
        assertThat(files.line().chosenProperty().get().number()).isEqualTo(1);
    }

    private void capture() throws Exception {
        boolean[] done = {false};
        context.captures().capture(openPlace, r -> done[0] = true);
        until(() -> done[0]);
        context.changed();
    }
}
