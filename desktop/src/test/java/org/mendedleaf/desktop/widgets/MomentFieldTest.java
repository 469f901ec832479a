package org.mendedleaf.desktop.widgets;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Objects;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReference;
import javafx.application.Platform;
import javafx.scene.control.Label;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mendedleaf.core.settings.UserSettings;
import org.mendedleaf.desktop.WidgetTest;
import org.mendedleaf.desktop.context.AppContext;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** A moment as it is typed: below it stands how it was understood, and an answer that comes too late is not shown. */
class MomentFieldTest extends WidgetTest {

    private static final Instant NOW = Instant.parse("2026-05-05T12:00:00Z");

    @TempDir
    Path temp;

    private final CountDownLatch slow = new CountDownLatch(1);
    private AppContext context;
    private MomentField field;

    @BeforeEach
    void show() throws Exception {
        context = new AppContext(
                UserSettings.open(temp.resolve("home")), Clock.fixed(NOW, ZoneOffset.UTC), Platform::runLater);
        AtomicReference<MomentField> made = new AtomicReference<>();
        FxToolkit.setupSceneRoot(() -> {
            made.set(new MomentField(context, "when", this::read));
            return made.get();
        });
        FxToolkit.showStage();
        field = Objects.requireNonNull(made.get());
    }

    private Instant read(String typed) throws IOException {
        if (typed.equals("slow")) {
            try {
                if (!slow.await(20, TimeUnit.SECONDS)) {
                    throw new IOException("nobody let it go on");
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            return NOW.minusSeconds(99);
        }
        if (typed.equals("never")) {
            throw new IOException("\"never\" is not a moment.");
        }
        return Instant.parse(typed);
    }

    @AfterEach
    void end() throws Exception {
        slow.countDown();
        context.close();
    }

    private void type(String words) {
        robot.interact(() -> field.text().setText(words));
    }

    private String understood() {
        return robot.lookup("#when-understood").queryAs(Label.class).getText();
    }

    private void until(String words) throws Exception {
        WaitForAsyncUtils.waitFor(10, TimeUnit.SECONDS, () -> understood().contains(words));
    }

    @Test
    void howItWasUnderstoodIsSaidBelowIt() throws Exception {
        assertThat(understood()).startsWith("Also: ");
        type("2026-05-02T12:00:00Z");
        until("3 days ago");
        assertThat(field.momentProperty().get()).isEqualTo(Instant.parse("2026-05-02T12:00:00Z"));
        type("");
        until("Also: ");
        assertThat(field.momentProperty().get()).isNull();
    }

    @Test
    void whatIsNoneIsSaidAndThereIsNoMomentThen() throws Exception {
        type("2026-05-02T12:00:00Z");
        until("3 days ago");
        type("never");
        until("not a moment");
        assertThat(field.momentProperty().get()).isNull();
        assertThat(robot.lookup("#when-understood").query().getStyleClass()).contains("error-text");
        type("2026-05-05T11:00:00Z");
        until("1 h ago");
        assertThat(robot.lookup("#when-understood").query().getStyleClass()).doesNotContain("error-text");
    }

    @Test
    void anAnswerToWhatIsNoLongerTypedIsNotShown() throws Exception {
        type("slow");
        type("2026-05-04T12:00:00Z");
        until("1 day ago");
        slow.countDown();
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(field.momentProperty().get()).isEqualTo(Instant.parse("2026-05-04T12:00:00Z"));
        assertThat(understood()).contains("1 day ago");
    }

    @Test
    void thePresentIsThePresent() throws Exception {
        type("never");
        assertThat(field.isNow()).isFalse();
        type("now");
        assertThat(field.isNow()).isTrue();
        assertThat(field.momentProperty().get()).isNull();
    }
}
