package org.mendedleaf.desktop.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.Objects;
import javafx.geometry.Bounds;
import javafx.geometry.Point2D;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.desktop.files.RulerModel;
import org.mendedleaf.desktop.files.Zoom;

/** The time ruler in the real window, by mouse, wheel and keys: wherever it is taken to, that moment is looked at. */
@EnabledIfEnvironmentVariable(named = "DISPLAY", matches = ".+", disabledReason = "there is no display")
class RulerScreenTest extends WindowTest {

    @BeforeEach
    void past() throws Exception {
        fill();
        show();
        eventually("the listing", () -> !rows().isEmpty());
        eventually("the ruler", () -> stretch().beginning().isPresent());
    }

    private RulerModel.Stretch stretch() {
        return Objects.requireNonNull(
                app.shell().files().ruler().stretchProperty().get());
    }

    private Instant at() {
        Instant at = app.shell().files().momentProperty().get();
        return at == null ? Instant.MAX : at;
    }

    private boolean isNow() {
        return at().equals(Instant.MAX);
    }

    /** A point on the screen, at this share of the ruler. */
    private Point2D point(double share) {
        Node ruler = robot.lookup("#ruler").query();
        Bounds all = ruler.localToScreen(ruler.getBoundsInLocal());
        return new Point2D(all.getMinX() + share * all.getWidth(), all.getMinY() + all.getHeight() / 3);
    }

    private void focus() {
        Node ruler = robot.lookup("#ruler").query();
        robot.interact(ruler::requestFocus);
    }

    @Test
    void keysGoStepByStepToTheFirstCaptureAndBackToNow() {
        focus();
        robot.push(KeyCode.LEFT);
        eventually("a step back", () -> !isNow());
        Instant once = at();
        assertThat(once.until(Instant.now(), ChronoUnit.HOURS)).isBetween(stepHours() - 1, stepHours() + 1);
        robot.push(KeyCode.LEFT);
        eventually("two steps back", () -> at().isBefore(once));
        robot.push(KeyCode.RIGHT);
        eventually("one again", () -> at().equals(once));
        robot.push(KeyCode.RIGHT);
        eventually("now", this::isNow);
        robot.push(KeyCode.HOME);
        eventually("the first capture", () -> at().equals(stretch().beginning().orElseThrow()));
        robot.push(KeyCode.LEFT);
        assertThat(at())
                .as("nothing is known before")
                .isEqualTo(stretch().beginning().orElseThrow());
        robot.push(KeyCode.END);
        eventually("now", this::isNow);
    }

    @Test
    void whoStepsBackToNowIsThereThoughTimeHasGoneOn() {
        focus();
        robot.push(KeyCode.LEFT);
        eventually("a step back", () -> !isNow());
        Instant then = stretch().now();
        Zoom zoom = stretch().zoom();
        // It is looked at again, later.
        robot.push(KeyCode.MINUS);
        eventually("longer steps", () -> stretch().zoom() != zoom);
        robot.push(KeyCode.PLUS);
        eventually(
                "a later now", () -> stretch().zoom() == zoom && stretch().now().isAfter(then));
        robot.push(KeyCode.RIGHT);
        eventually("now", this::isNow);
    }

    private long stepHours() {
        return stretch().zoom().unit().getDuration().toHours();
    }

    @Test
    void longerAndShorterStepsAreChosenByKeysAndByTheWheel() {
        focus();
        Zoom first = stretch().zoom();
        robot.push(KeyCode.MINUS);
        eventually("longer steps", () -> stretch().zoom().ordinal() == first.ordinal() + 1);
        robot.push(KeyCode.MINUS);
        robot.push(KeyCode.MINUS);
        robot.push(KeyCode.MINUS);
        eventually("the longest", () -> stretch().zoom() == Zoom.MONTH);
        robot.push(KeyCode.PLUS);
        eventually("shorter again", () -> stretch().zoom() == Zoom.WEEK);
        robot.moveTo(point(0.5)).press(KeyCode.CONTROL);
        try {
            robot.scroll(1, javafx.geometry.VerticalDirection.UP);
            robot.scroll(1, javafx.geometry.VerticalDirection.DOWN);
        } finally {
            robot.release(KeyCode.CONTROL);
        }
        assertThat(stretch().zoom()).as("one step there and one back").isEqualTo(Zoom.WEEK);
        assertThat(isNow()).as("the moment stays").isTrue();
    }

    @Test
    void theMarkerIsPulledThroughTheTimeAndToNow() {
        robot.moveTo(point(0.9)).press(MouseButton.PRIMARY);
        try {
            robot.moveTo(point(0.7)).moveTo(point(0.6));
            eventually("a moment of the past", () -> !isNow());
            RulerModel.Stretch s = stretch();
            Instant middle = s.at(0.6);
            assertThat(Duration.between(middle, at()).abs())
                    .as("where the mouse is")
                    .isLessThan(Duration.between(s.at(0), s.now()).dividedBy(20));
            robot.moveTo(point(0.999));
        } finally {
            robot.release(MouseButton.PRIMARY);
        }
        eventually(
                "now, at its right end",
                () -> isNow() || at().isAfter(Instant.now().minus(Duration.ofDays(1))));
    }

    @Test
    void aClickOnABarGoesToBeforeWhatHappenedInIt() {
        RulerModel.Stretch s = stretch();
        int index = -1;
        for (int i = 0; i < s.steps().size(); i++) {
            if (s.steps().get(i).changes() > 0) {
                index = i;
            }
        }
        assertThat(index).isNotNegative();
        RulerModel.Step last = s.steps().get(index);
        robot.clickOn(point((index + 0.5) / s.steps().size()));
        eventually("that moment", () -> !isNow());
        assertThat(at()).isBetween(last.from().minusMillis(1), last.to());
        Instant changed = Instant.now().minus(Duration.ofDays(5)).plusSeconds(180_000);
        assertThat(at().atZone(ZoneOffset.UTC).toInstant()).isBefore(changed.plusSeconds(120));
        robot.push(KeyCode.ESCAPE);
        eventually("now", this::isNow);
    }

    @Test
    void manyChangesAtOnceAreSaidBesideTheirBar() throws Exception {
        for (int i = 0; i < 150; i++) {
            save("delivery/note " + i + ".txt", "note " + i, Instant.now());
        }
        try (OpenVault vault = OpenVault.open(temp.resolve("vault"), "test", Duration.ofSeconds(5));
                Reading reading = vault.read()) {
            capture(vault, reading.places().get(0), Instant.now());
        }
        eventually("its words beside the bar", () -> {
            Bounds words = robot.lookup(".ruler-burst-label").query().getBoundsInParent();
            Bounds bar = robot.lookup(".ruler-burst").query().getBoundsInParent();
            double width = robot.lookup("#ruler").query().getBoundsInLocal().getWidth();
            boolean beside = words.getMaxX() <= bar.getMinX() || words.getMinX() >= bar.getMaxX();
            return beside && words.getWidth() > 10 && words.getMinX() >= 0 && words.getMaxX() <= width;
        });
        assertThat(robot.lookup(".ruler-burst-label").queryAs(Label.class).getText())
                .contains("150");
    }
}
