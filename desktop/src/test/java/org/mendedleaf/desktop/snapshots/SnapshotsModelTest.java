package org.mendedleaf.desktop.snapshots;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.ZoneOffset;
import org.junit.jupiter.api.Test;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.desktop.context.AppContextTest;

class SnapshotsModelTest extends AppContextTest {

    private final Instant now = Instant.parse("2026-11-20T09:45:00Z");

    private ScheduleModel choices() {
        return new ScheduleModel(ZoneOffset.UTC, now);
    }

    private String sentence(ScheduleModel made) {
        return ScheduleModel.sentence(made.schedule(1, ""), now);
    }

    @Test
    void plainChoicesComeToARuleThatIsSaidInASentence() {
        ScheduleModel made = choices();
        assertThat(sentence(made))
                .isEqualTo("Every day at 18:00, the last 14 are kept, a missed one is caught up.\n"
                        + "Next: Fri 20 Nov 18:00 · Sat 21 Nov 18:00 · Sun 22 Nov 18:00.");
        made.often(ScheduleModel.Often.WORKDAYS);
        made.time("7:05");
        made.keep("0");
        made.missed(SnapshotSchedule.Missed.SKIP);
        assertThat(sentence(made)).startsWith("Monday to Friday at 07:05, all are kept, a missed one is skipped.");
        made.often(ScheduleModel.Often.WEEKLY);
        made.day(DayOfWeek.MONDAY, false);
        assertThat(sentence(made)).startsWith("Thursday at 07:05");
        made.often(ScheduleModel.Often.MONTH_DAY);
        made.monthDay(15);
        assertThat(sentence(made)).startsWith("Every month on day 15");
        made.often(ScheduleModel.Often.MONTH_END);
        assertThat(sentence(made)).contains("Mon 30 Nov 07:05");
        made.often(ScheduleModel.Often.MONTH_WEEKDAY);
        made.monthWeekday(-1, DayOfWeek.FRIDAY);
        assertThat(sentence(made)).contains("on the last Friday").contains("Fri 27 Nov 07:05");
        made.often(ScheduleModel.Often.HOURLY);
        made.hours(6);
        assertThat(sentence(made)).startsWith("Every 6 hours, from 07:05").contains("Fri 20 Nov 13:05");
        made.often(ScheduleModel.Often.OWN);
        made.rule("FREQ=YEARLY;BYMONTH=12;BYMONTHDAY=24");
        assertThat(sentence(made))
                .contains("by the rule FREQ=YEARLY".substring(3))
                .contains("Thu 24 Dec 07:05");
    }

    @Test
    void whatComesToNoneIsSaid() {
        ScheduleModel made = choices();
        made.time("soon");
        assertThatThrownBy(() -> made.schedule(1, "")).hasMessageContaining("no time of day");
        made.time("18:00");
        made.keep("many");
        assertThatThrownBy(() -> made.schedule(1, "")).hasMessageContaining("from 0 (all)");
        made.keep("3");
        made.often(ScheduleModel.Often.WEEKLY);
        made.days().forEach(d -> made.day(d, false));
        assertThatThrownBy(() -> made.schedule(1, "")).hasMessageContaining("Choose a day");
        made.often(ScheduleModel.Often.OWN);
        made.rule("NOW AND THEN");
        assertThatThrownBy(() -> made.schedule(1, "")).hasMessageContaining("no recurrence rule");
    }

    @Test
    void aSnapshotOfOneFolderCoversThatAlone() throws Exception {
        SnapshotsModel model = new SnapshotsModel(context, openPlace, "sub");
        assertThat(model.scopes()).containsExactly("", "sub");
        model.scopeProperty().set("sub");
        model.take("only here");
        until(() -> model.rowsProperty().get().size() == 1
                && model.rowsProperty().get().get(0).holds() != null);
        SnapshotsModel.Row row = model.rowsProperty().get().get(0);
        assertThat(row.snapshot().path()).isEqualTo("sub");
        assertThat(row.holds().files()).isEqualTo(2);
        assertThat(model.origin(row)).isEqualTo("taken by Ines");
        assertThat(model.eraseWords(row))
                .contains("No version is held by it alone")
                .contains("nothing is freed");
        model.selectedProperty().set(row);
        model.rename(row, "the folder");
        until(() -> model.rowsProperty().get().get(0).snapshot().label().equals("the folder"));
        until(() -> model.selectedProperty().get() != null
                && model.selectedProperty().get().snapshot().label().equals("the folder"));
    }

    @Test
    void schedulesGoOutAndComeInAndWhatIsNoCalendarIsSaid() throws Exception {
        SnapshotsModel model = new SnapshotsModel(context, openPlace, "");
        model.schedule(choices().schedule(openPlace.place().id(), ""));
        until(() -> model.schedulesProperty().get().size() == 1);
        assertThat(model.countWords(model.schedulesProperty().get().get(0))).isEqualTo("none taken yet");
        Path file = temp.resolve("s.ics");
        model.exportTo(file);
        until(() -> Files.exists(file));
        model.end(model.schedulesProperty().get().get(0));
        until(() -> model.schedulesProperty().get().isEmpty());
        model.importFrom(file);
        until(() -> model.schedulesProperty().get().size() == 1);
        model.importFrom(Files.writeString(temp.resolve("no.ics"), "no calendar"));
        until(() -> model.problemProperty().get().contains("no recurring event"));
    }
}
