package org.mendedleaf.desktop.widgets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import javafx.scene.control.DatePicker;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.mendedleaf.desktop.WidgetTest;
import org.testfx.api.FxToolkit;

/** A field for a day: what is typed counts at once, and what is no day is said and never taken for none. */
class DaysTest extends WidgetTest {

    private static final LocalDate MAY = LocalDate.of(2027, 5, 4);

    private DatePicker picker(@Nullable LocalDate value, @Nullable LocalDate first) throws Exception {
        AtomicReference<DatePicker> made = new AtomicReference<>();
        FxToolkit.setupSceneRoot(() -> {
            DatePicker picker = Days.picker("until", "Until", value, first);
            made.set(picker);
            return new javafx.scene.layout.VBox(picker, new javafx.scene.control.Button("next"));
        });
        FxToolkit.showStage();
        return Objects.requireNonNull(made.get());
    }

    private void type(DatePicker picker, String typed) {
        robot.interact(() -> picker.getEditor().setText(typed));
    }

    /** What loses the keys takes over what stands in it. */
    private void leave(DatePicker picker) {
        robot.interact(picker::requestFocus);
        robot.interact(() -> picker.getParent().getChildrenUnmodifiable().get(1).requestFocus());
    }

    @Test
    void aTypedDayCountsBeforeAnythingIsPressed() throws Exception {
        DatePicker picker = picker(null, null);
        assertThat(Days.in(picker)).isEmpty();
        type(picker, "2027-05-04");
        assertThat(Days.in(picker)).contains(MAY);
        type(picker, "  2027-05-04 ");
        assertThat(Days.in(picker)).contains(MAY);
        type(picker, " ");
        assertThat(Days.in(picker)).isEqualTo(Optional.empty());
    }

    @Test
    void whatIsNoDayIsSaidWithTheWordsThatWereTyped() throws Exception {
        DatePicker picker = picker(MAY, null);
        for (String wrong : new String[] {"soon", "2027-02-30", "04/2027"}) {
            type(picker, wrong);
            assertThatThrownBy(() -> Days.in(picker))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageContaining("\"" + wrong + "\"");
        }
        type(picker, "2027-05-05");
        assertThat(Days.in(picker)).contains(MAY.plusDays(1));
    }

    @Test
    void itIsSaidAlsoAfterTheFieldTookItOverAndNeverTakenForNoDay() throws Exception {
        DatePicker picker = picker(MAY, null);
        type(picker, "whenever");
        leave(picker);
        assertThatThrownBy(() -> Days.in(picker)).hasMessageContaining("\"whenever\"");
        robot.interact(() -> picker.setValue(MAY.plusDays(3)));
        assertThat(Days.in(picker)).contains(MAY.plusDays(3));
    }

    @Test
    void aDayThatIsThereIsShownAsPeopleWriteIt() throws Exception {
        DatePicker picker = picker(MAY, MAY);
        assertThat(picker.getEditor().getText()).contains("2027");
        assertThat(Days.in(picker)).contains(MAY);
        assertThat(picker.getAccessibleText()).isEqualTo("Until");
    }
}
