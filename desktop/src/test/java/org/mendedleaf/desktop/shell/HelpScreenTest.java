package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.words.Words;

/** F1 leads to the page of the guide for what is on the screen. */
class HelpScreenTest extends WindowTest {

    private final AtomicReference<Path> opened = new AtomicReference<>();

    private void helpIs(String page, String heading) throws Exception {
        opened.set(null);
        robot.push(KeyCode.F1);
        eventually("the page " + page, () -> opened.get() != null);
        Path file = opened.get();
        assertThat(file.getFileName()).hasToString(page + ".html");
        assertThat(Files.readString(file)).contains("<h1>" + heading);
        assertThat(file.resolveSibling("pictures")).isNotEmptyDirectory();
    }

    @Test
    void eachScreenHasItsPage() throws Exception {
        fill();
        show();
        Shell shell = Objects.requireNonNull(app.shell());
        robot.interact(() -> shell.setOpener(opened::set));
        eventually("the listing", () -> !rows().isEmpty());
        helpIs("saved-over", "I saved over it");
        robot.interact(() -> shell.files().momentProperty().set(Instant.now().minus(Duration.ofDays(4))));
        helpIs("last-thursday", "I need last Thursday");
        robot.clickOn("#tab-mend");
        helpIs("damaged", "It does not open any more");
        robot.clickOn("#tab-protection");
        helpIs("protect", "Keep the past of my files");
        robot.clickOn("#tab-retention");
        helpIs("drive-full", "The drive is full");
        robot.clickOn("#retention-rules");
        helpIs("how-long", "How long is this kept?");
        robot.clickOn("#tab-journal");
        helpIs("undo", "I did something wrong here");
        robot.push(KeyCode.CONTROL, KeyCode.K);
        helpIs("find", "I do not know where it was");
    }

    @Test
    void shiftF1StillShowsTheKeys() throws Exception {
        fill();
        show();
        eventually("the listing", () -> !rows().isEmpty());
        robot.press(KeyCode.SHIFT).push(KeyCode.F1).release(KeyCode.SHIFT);
        eventually("the keys", () -> visible("#keys"));
        everythingHasAName("the keys");
        robot.push(KeyCode.ESCAPE);
        eventually("no keys", () -> !visible("#keys"));
    }

    @Test
    void whatWentWrongLeadsToThePageThatHelpsWithIt() throws Exception {
        fill();
        show();
        Shell shell = Objects.requireNonNull(app.shell());
        robot.interact(() -> shell.setOpener(opened::set));
        eventually("the listing", () -> !rows().isEmpty());
        robot.interact(() -> shell.files().say(Words.of("vault.full", "/media/vault"), false, true));
        robot.clickOn("#message-help");
        eventually("its page", () -> opened.get() != null);
        assertThat(opened.get().getFileName()).hasToString("drive-full.html");
        robot.interact(() -> shell.files().say("All is well.", false, false));
        eventually("nothing to help with", () -> !visible("#message-help"));
    }
}
