package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mendedleaf.desktop.intake.IntakeModelsTest.words;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Objects;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.desktop.files.LineRow;

/** Putting in revisions in the real window: what a user drops, clicks and types, and then sees. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class IntakeScreenTest extends IntakeWindowTest {

    @Test
    void whatJustArrivedBecomesTheNextVersionAndUndoTakesItBack() throws Exception {
        office();
        select("lease.txt");
        Files.writeString(downloads.resolve("lease (1).txt"), words(1, 20) + "signed");
        robot.push(KeyCode.CONTROL, KeyCode.I);
        eventually("the pane", () -> visible("#put-pane"));
        assertThat(text("#put-title")).isEqualTo("Put in a revision of lease.txt");
        eventually(
                "what arrived",
                () -> !robot.lookup("#arrivals").queryListView().getItems().isEmpty());
        robot.clickOn("#put-note").write("from the owner");
        eventually("it to be chosen", () -> !robot.lookup("#put-go").query().isDisabled());
        robot.clickOn("#put-go");
        eventually("the version", () -> points().size() == 2);
        assertThat(newest().version().note()).isEqualTo("from the owner");
        eventually("the message", () -> text("#message").equals("lease.txt is now version 2."));
        robot.clickOn("#undo");
        eventually(
                "what was there",
                () -> Files.readString(desk.resolve("lease.txt")).equals(words(1, 20)));
    }

    @Test
    void whatCameByMailIsShownWithItsSenderWhoIsTheAuthorOfTheVersion() throws Exception {
        office();
        select("lease.txt");
        Files.writeString(
                downloads.resolve("1.eml"),
                "From: Tomas R. <tomas@orchard.example>\nSubject: The lease, signed\nDate: "
                        + java.time.format.DateTimeFormatter.RFC_1123_DATE_TIME.format(
                                java.time.ZonedDateTime.now(java.time.ZoneOffset.UTC)
                                        .plusSeconds(5))
                        + "\n"
                        + "MIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=\"b1\"\n\n"
                        + "--b1\nContent-Disposition: attachment; filename=\"Lease.txt\"\n\n" + words(1, 20)
                        + "signed\n--b1--\n");
        robot.push(KeyCode.CONTROL, KeyCode.I);
        eventually("the pane", () -> visible("#put-pane"));
        eventually(
                "the file of the message",
                () -> robot.lookup("#arrivals .label").queryAllAs(javafx.scene.control.Label.class).stream()
                        .anyMatch(l -> l.getText().equals("from Tomas: The lease, signed")));
        eventually("it to be chosen", () -> !robot.lookup("#put-go").query().isDisabled());
        assertThat(robot.lookup("#put-take").query().isDisabled())
                .as("it stays in its message")
                .isTrue();
        assertThat(robot.lookup("#put-note").queryTextInputControl().getPromptText())
                .isEqualTo("The lease, signed");
        robot.clickOn("#put-go");
        eventually("the version", () -> points().size() == 2);
        assertThat(newest().version().note()).isEqualTo("The lease, signed");
        assertThat(newest().version().who()).isEqualTo("Tomas");
    }

    @Test
    void theWrongFileIsStoppedShownAndLeft() throws Exception {
        office();
        select("lease.txt");
        Path wrong = Files.writeString(downloads.resolve("lease.txt"), words(2, 20));
        paste(wrong);
        eventually("the guard", () -> visible("#guard"));
        assertThat(text("#guard-outcome")).isEqualTo("This is most likely the wrong file.");
        everythingHasAName("the guard");
        assertThat(robot.from(robot.lookup("#guard-reasons").queryAll())
                        .lookup(".guard-against")
                        .queryAllAs(javafx.scene.control.Label.class))
                .extracting(javafx.scene.control.Label::getText)
                .contains("It is the newest version of rota.txt.");
        eventually(
                "the keys at the safe choice",
                () -> robot.lookup("#guard-leave").query().isFocused());
        robot.push(KeyCode.SPACE);
        eventually("the files again", () -> visible("#listing"));
        assertThat(desk.resolve("lease.txt")).hasContent(words(1, 20));
        paste(wrong);
        eventually("the guard", () -> visible("#guard"));
        robot.clickOn("#guard-note").write("yes, really");
        robot.clickOn("#guard-anyway");
        eventually(
                "the content", () -> Files.readString(desk.resolve("lease.txt")).equals(words(2, 20)));
        eventually("the message", () -> text("#message").equals("lease.txt is now version 2."));
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        eventually(
                "what was there",
                () -> Files.readString(desk.resolve("lease.txt")).equals(words(1, 20)));
    }

    @Test
    void manyFilesDroppedAreATableThatCanBeChanged() throws Exception {
        office();
        Path drop = Files.createDirectories(temp.resolve("drop"));
        Files.writeString(drop.resolve("lease final.txt"), words(1, 20) + "signed");
        Files.writeString(drop.resolve("rota.txt"), words(9, 20));
        Files.writeString(drop.resolve("new.txt"), "new");
        robot.interact(() -> Objects.requireNonNull(app.shell()).setFolderAsk(() -> Optional.of(drop.toFile())));
        robot.clickOn("#listing-in");
        robot.clickOn("#listing-in-folder");
        eventually(
                "the table",
                () -> text("#intake-sum").startsWith("1 new version, 1 new file, 0 there already, 1 unsure"));
        assertThat(text("#intake-go")).isEqualTo("Put in 2 files");
        eventually(
                "its rows laid out",
                () -> robot.lookup("#intake-choice-2").tryQuery().isPresent());
        ComboBox<?> choice = robot.lookup("#intake-choice-2").queryComboBox();
        robot.interact(() -> choice.getSelectionModel().select(1));
        eventually("three", () -> text("#intake-go").equals("Put in 3 files"));
        everythingHasAName("several files that come in");
        robot.clickOn("#intake-note").write("autumn");
        robot.clickOn("#intake-go");
        eventually("the end", () -> text("#intake-sum").equals("3 files put in, 0 failed"));
        assertThat(desk.resolve("rota.txt")).hasContent(words(9, 20));
        robot.clickOn("#intake-undo");
        eventually(
                "all of it back",
                () -> Files.readString(desk.resolve("rota.txt")).equals(words(2, 20))
                        && !Files.exists(desk.resolve("new.txt")));
        eventually("the files", () -> visible("#listing"));
    }

    @Test
    void scatteredCopiesAreFoldedAndUndone() throws Exception {
        office();
        robot.clickOn("#listing-in");
        robot.clickOn("#listing-in-fold");
        eventually("the family", () -> text("#fold-go").equals("Fold this family"));
        everythingHasAName("scattered copies");
        assertThat(text("#fold-sum")).isEqualTo("1 family is folded, 2 copies are removed");
        robot.interact(() -> robot.lookup("#fold-row-0-1").query().requestFocus());
        robot.push(KeyCode.ALT, KeyCode.UP);
        eventually(
                "the other order", () -> robot.lookup("#fold-row-0-0").query().isFocused());
        robot.push(KeyCode.ALT, KeyCode.DOWN);
        robot.clickOn("#fold-go");
        eventually(
                "one file", () -> Files.exists(desk.resolve("plan.txt")) && !Files.exists(desk.resolve("plan v1.txt")));
        eventually("the message", () -> text("#message").startsWith("1 file has 2 new versions"));
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        eventually(
                "both copies",
                () -> Files.exists(desk.resolve("plan v1.txt")) && !Files.exists(desk.resolve("plan.txt")));
    }

    @Test
    void aSafetyCopyIsTakenIn() throws Exception {
        office();
        robot.clickOn("#listing-in");
        robot.clickOn("#listing-in-strays");
        eventually("the copy", () -> visible("#adopt-lease-txt-bak"));
        robot.clickOn("#adopt-lease-txt-bak");
        eventually("the message", () -> text("#strays-message").contains("lease.txt is now version 2"));
        assertThat(desk.resolve("lease.txt")).hasContent(words(1, 20) + "kept by a program");
    }

    @Test
    void escapeLeavesAScreenAlsoWhileATooltipIsShown() throws Exception {
        office();
        robot.clickOn("#listing-in");
        robot.clickOn("#listing-in-strays");
        eventually("the copy", () -> visible("#adopt-lease-txt-bak"));
        robot.moveTo(robot.lookup("#strays .icon-button").queryAs(Node.class));
        eventually(
                "the tooltip", () -> robot.listWindows().stream().anyMatch(w -> w instanceof Tooltip && w.isShowing()));
        robot.push(KeyCode.ESCAPE);
        eventually("the files", () -> visible("#listing"));
    }

    @Test
    void theLineOfAFileLeadsToItsSafetyCopies() throws Exception {
        office();
        select("rota.txt");
        select("lease.txt");
        eventually("the hint", () -> visible("#work-straysLook"));
        assertThat(text("#work-strays-words")).startsWith("A safety copy of it, the newest of ");
        robot.clickOn("#work-straysLook");
        eventually("the copy", () -> visible("#adopt-lease-txt-bak"));
        robot.clickOn("#adopt-lease-txt-bak");
        eventually("the message", () -> text("#strays-message").contains("lease.txt is now version 2"));
        robot.push(KeyCode.ESCAPE);
        select("rota.txt");
        eventually("no hint at another file", () -> !visible("#work-straysLook"));
    }

    @Test
    void aRowThatFailedIsTriedAgain() throws Exception {
        office();
        Path drop = Files.createDirectories(temp.resolve("drop"));
        Path moved = Files.writeString(drop.resolve("lease (2).txt"), words(1, 20) + "signed");
        Files.writeString(drop.resolve("brand new.txt"), words(8, 20));
        robot.interact(() -> Objects.requireNonNull(app.shell()).setFolderAsk(() -> Optional.of(drop.toFile())));
        robot.clickOn("#listing-in");
        robot.clickOn("#listing-in-folder");
        eventually("the table", () -> text("#intake-go").equals("Put in 2 files"));
        Path away = Files.move(moved, temp.resolve("away"));
        robot.clickOn("#intake-go");
        eventually("the end", () -> text("#intake-sum").equals("1 file put in, 1 failed"));
        Files.move(away, moved);
        robot.clickOn("#intake-retry");
        eventually("both", () -> text("#intake-sum").contains("0 failed"));
        assertThat(desk.resolve("lease.txt")).hasContent(words(1, 20) + "signed");
    }

    @Test
    void draftsArePublishedAndAFileIsCheckedOutAndIn() throws Exception {
        office();
        robot.push(KeyCode.ALT, KeyCode.DIGIT3);
        eventually("the folder", () -> robot.lookup("#coverage").tryQuery().isPresent());
        robot.clickOnFound(() -> robot.from(robot.lookup("#coverage").queryAll())
                .lookup("Front desk")
                .query());
        eventually("its rules", () -> visible("#setting-numbering"));
        ComboBox<String> numbering = robot.lookup("#setting-numbering").queryComboBox();
        robot.interact(() -> numbering.setValue("drafts"));
        eventually("its effect", () -> text("#effect-numbering").startsWith("Changes are drafts"));
        robot.push(KeyCode.ALT, KeyCode.DIGIT1);
        select("lease.txt");
        Path next = Files.writeString(downloads.resolve("next.txt"), words(1, 20) + "draft");
        paste(next);
        eventually("a draft", () -> points().size() == 2 && newest().label().equals("1.1"));
        robot.interact(() -> Objects.requireNonNull(app.shell()).setNoteAsk(q -> Optional.of("as signed")));
        eventually("the way to publish it", () -> text("#work-publish").equals("Publish as 2"));
        robot.clickOn("#work-publish");
        eventually(
                "published",
                () -> points().stream()
                        .anyMatch(r ->
                                r instanceof LineRow.OfVersion v && v.label().equals("2")));
        robot.clickOn("#more");
        robot.clickOn("#work-checkOut");
        eventually("who has it", () -> text("#work-out").startsWith("Checked out by you since"));
        robot.clickOn("#work-checkIn");
        eventually("nobody has it", () -> !visible("#work-out"));
        eventually("the message", () -> text("#message").contains("nothing had changed"));
    }

    @Test
    void notesAndCommentsAreWrittenAndSeenInTheLine() throws Exception {
        office();
        select("lease.txt");
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT4);
        eventually("the notes", () -> visible("#note-text"));
        robot.clickOn("#note-text").write("signed by both");
        robot.push(KeyCode.ENTER);
        eventually("the note in the line", () -> newest().words().contains("“signed by both”"));
        robot.clickOn("#comment-text").write("he called back");
        robot.clickOn("#comment-add");
        eventually("the comment", () -> newest().words().contains("1 comment"));
        robot.clickOn("#card-category").write("Leases");
        robot.push(KeyCode.ENTER);
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        eventually("no undo while typing", () -> newest().words().contains("signed by both"));
    }
}
