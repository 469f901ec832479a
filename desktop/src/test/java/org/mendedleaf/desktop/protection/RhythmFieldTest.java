package org.mendedleaf.desktop.protection;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Function;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.desktop.WidgetTest;
import org.testfx.api.FxToolkit;

/** How often a folder is captured, as it is chosen: the day and the time stand beside what needs them. */
class RhythmFieldTest extends WidgetTest {

    private RhythmField field(Rhythm now) throws Exception {
        return field(now, Rhythm::longWords);
    }

    private RhythmField field(Rhythm now, Function<Rhythm, String> words) throws Exception {
        AtomicReference<RhythmField> made = new AtomicReference<>();
        FxToolkit.setupSceneRoot(() -> {
            RhythmField field = new RhythmField("how-often", now, words);
            made.set(field);
            return field;
        });
        FxToolkit.showStage();
        return Objects.requireNonNull(made.get());
    }

    private static <T extends Node> T part(RhythmField field, String id, Class<T> kind) {
        Scene scene = field.getScene();
        return kind.cast(Objects.requireNonNull(scene.lookup("#" + id)));
    }

    @SuppressWarnings("unchecked")
    private static ComboBox<Rhythm> choice(RhythmField field) {
        return part(field, "how-often", ComboBox.class);
    }

    @SuppressWarnings("unchecked")
    private static ComboBox<DayOfWeek> day(RhythmField field) {
        return part(field, "how-often-day", ComboBox.class);
    }

    private static TextField time(RhythmField field) {
        return part(field, "how-often-time", TextField.class);
    }

    /** Types a time and presses Enter. */
    private void type(RhythmField field, String typed) {
        robot.interact(() -> {
            time(field).setText(typed);
            time(field).fireEvent(new javafx.event.ActionEvent());
        });
    }

    private Stream<String> offered() {
        return robot.lookup(".combo-box-popup .list-cell").queryAllAs(Labeled.class).stream()
                .map(Labeled::getText)
                .filter(Objects::nonNull);
    }

    @Test
    void whatAChoiceCostsIsShownAlsoInAListThatIsOpenByThen() throws Exception {
        AtomicReference<String> cost = new AtomicReference<>("");
        RhythmField field = field(Rhythm.ON_SAVE, r -> r.longWords() + cost.get());
        robot.interact(() -> choice(field).show());
        assertThat(offered()).contains("every 10 minutes");
        cost.set(": +1 MB");
        robot.interact(field::wordsChanged);
        assertThat(offered()).contains("every 10 minutes: +1 MB").doesNotContain("every 10 minutes");
        robot.interact(() -> choice(field).hide());
    }

    @Test
    void aTimeIsAskedForWhereThereIsOneAndADayBesideItForEachWeek() throws Exception {
        RhythmField field = field(Rhythm.ON_SAVE);
        assertThat(time(field).isVisible()).isFalse();
        assertThat(day(field).isVisible()).isFalse();
        robot.interact(() -> choice(field).setValue(Rhythm.daily(Rhythm.EVENING)));
        assertThat(field.valueProperty().get()).isEqualTo(Rhythm.daily(Rhythm.EVENING));
        assertThat(time(field).isVisible()).isTrue();
        assertThat(time(field).getText()).isEqualTo("18:00");
        assertThat(day(field).isVisible()).isFalse();
        robot.interact(() -> choice(field).setValue(Rhythm.weekly(DayOfWeek.FRIDAY, Rhythm.EVENING)));
        assertThat(day(field).isVisible()).isTrue();
        assertThat(day(field).getValue()).isEqualTo(DayOfWeek.FRIDAY);
    }

    @Test
    void aTypedTimeCountsHoweverItIsWrittenAndAWrongOneIsMarkedAndChangesNothing() throws Exception {
        RhythmField field = field(Rhythm.daily(Rhythm.EVENING));
        for (String typed : new String[] {"7:30", "07:30", " 7.30 "}) {
            type(field, typed);
            assertThat(field.valueProperty().get()).as(typed).isEqualTo(Rhythm.daily(LocalTime.of(7, 30)));
        }
        for (String wrong : new String[] {"25:00", "", "noon", "7"}) {
            type(field, wrong);
            assertThat(time(field).getStyleClass()).as(wrong).contains("field-wrong");
            assertThat(time(field).getAccessibleHelp()).isEqualTo("A time is written as 18:00.");
            assertThat(field.valueProperty().get()).as(wrong).isEqualTo(Rhythm.daily(LocalTime.of(7, 30)));
        }
        type(field, "20:15");
        assertThat(time(field).getStyleClass()).doesNotContain("field-wrong");
        assertThat(time(field).getAccessibleHelp()).isNull();
        assertThat(field.valueProperty().get()).isEqualTo(Rhythm.daily(LocalTime.of(20, 15)));
    }

    @Test
    void anotherDayKeepsTheTimeAndAnotherTimeTheDay() throws Exception {
        RhythmField field = field(Rhythm.weekly(DayOfWeek.FRIDAY, LocalTime.of(16, 0)));
        robot.interact(() -> day(field).setValue(DayOfWeek.SUNDAY));
        assertThat(field.valueProperty().get()).isEqualTo(Rhythm.weekly(DayOfWeek.SUNDAY, LocalTime.of(16, 0)));
        type(field, "9:05");
        assertThat(field.valueProperty().get()).isEqualTo(Rhythm.weekly(DayOfWeek.SUNDAY, LocalTime.of(9, 5)));
    }

    @Test
    void whatAFolderHasCanBeChosenAlsoWhenItIsNoneOfTheUsualOnes() throws Exception {
        assertThat(field(Rhythm.every(45)).choices()).contains(Rhythm.every(45)).hasSize(10);
        Rhythm early = Rhythm.daily(LocalTime.of(5, 45));
        assertThat(field(early).choices()).contains(early).hasSize(9);
    }

    @Test
    void whatIsSetFromOutsideIsShown() throws Exception {
        RhythmField field = field(Rhythm.ON_SAVE);
        robot.interact(() -> field.valueProperty().set(Rhythm.weekly(DayOfWeek.MONDAY, LocalTime.of(6, 30))));
        assertThat(time(field).getText()).isEqualTo("06:30");
        assertThat(day(field).getValue()).isEqualTo(DayOfWeek.MONDAY);
        assertThat(choice(field).getValue().kind()).isEqualTo(Rhythm.Kind.WEEKLY);
    }
}
