package org.mendedleaf.desktop.snapshots;

import java.time.DayOfWeek;
import java.time.format.TextStyle;
import java.util.List;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.line.SnapshotSchedule;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Ui;

/** A new schedule in plain choices. Below them stands what they come to, with the next three times. */
final class ScheduleForm extends VBox {

    private final SnapshotsModel model;
    private final ScheduleModel made;
    private final Runnable asked;
    private final HBox details = new HBox(6);
    private final Label sentence = Ui.label("", "outlook-words");
    private final Button go;

    /**
     * The form.
     *
     * @param asked is told when a schedule is asked for
     */
    ScheduleForm(SnapshotsModel model, Runnable asked) {
        super(10);
        this.model = model;
        this.asked = asked;
        this.made = new ScheduleModel(
                model.context().zone(), model.context().clock().instant());
        getStyleClass().add("schedule-form");
        ComboBox<ScheduleModel.Often> often =
                Choices.of(List.of(ScheduleModel.Often.values()), o -> Words.of("schedule.often." + o));
        often.setId("schedule-often");
        often.setAccessibleText(Words.of("schedule.oftenName"));
        often.setValue(made.often());
        often.valueProperty().addListener((o, a, v) -> {
            made.often(v);
            details();
            show();
        });
        TextField time = field("schedule-time", "schedule.time", "18:00", 5, made::time);
        TextField keep = field("schedule-keep", "schedule.keepLast", "14", 4, made::keep);
        TextField label = field("schedule-label", "schedule.named", "", 12, made::label);
        label.setPromptText(Words.of("snapshot.label"));
        ComboBox<SnapshotSchedule.Missed> missed =
                Choices.of(List.of(SnapshotSchedule.Missed.values()), m -> Words.of("schedule.missedChoice." + m));
        missed.setId("schedule-missed");
        missed.setAccessibleText(Words.of("schedule.missedName"));
        missed.setValue(SnapshotSchedule.Missed.CATCH_UP);
        missed.valueProperty().addListener((o, a, v) -> {
            made.missed(v);
            show();
        });
        details.setAlignment(Pos.CENTER_LEFT);
        sentence.setId("schedule-sentence");
        sentence.setWrapText(true);
        sentence.setMinHeight(USE_PREF_SIZE);
        VBox outlook = new VBox(sentence);
        outlook.getStyleClass().add("outlook");
        go = Ui.button("schedule.add", this::add, "accent");
        go.setId("schedule-add");
        getChildren()
                .addAll(
                        Ui.label(Words.of("schedule.new"), "small-title"),
                        line(often, Ui.label(Words.of("schedule.at")), time),
                        details,
                        line(
                                Ui.label(Words.of("schedule.keepLast")),
                                keep,
                                Ui.label(Words.of("schedule.keepHint"), "dim")),
                        line(Ui.label(Words.of("schedule.missedName")), missed),
                        line(Ui.label(Words.of("schedule.named")), label),
                        outlook,
                        go);
        details();
        show();
    }

    private static HBox line(Node... nodes) {
        HBox line = new HBox(8, nodes);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }

    private TextField field(String id, String key, String text, int columns, java.util.function.Consumer<String> into) {
        TextField field = new TextField(text);
        field.setId(id);
        field.setPrefColumnCount(columns);
        field.setAccessibleText(Words.of(key));
        field.textProperty().addListener((o, a, typed) -> {
            into.accept(typed);
            show();
        });
        return field;
    }

    /** What the choice of how often asks for beside it. */
    private void details() {
        details.getChildren().clear();
        switch (made.often()) {
            case WEEKLY -> {
                for (DayOfWeek d : DayOfWeek.values()) {
                    ToggleButton day = new ToggleButton(d.getDisplayName(TextStyle.SHORT, Words.locale()));
                    day.setSelected(made.days().contains(d));
                    day.setOnAction(e -> {
                        made.day(d, day.isSelected());
                        show();
                    });
                    details.getChildren().add(day);
                }
            }
            case MONTH_DAY -> {
                ComboBox<Integer> day =
                        Choices.of(IntStream.rangeClosed(1, 28).boxed().toList(), String::valueOf);
                day.setValue(1);
                day.valueProperty().addListener((o, a, v) -> {
                    made.monthDay(v);
                    show();
                });
                details.getChildren().addAll(Ui.label(Words.of("schedule.onDay")), day);
            }
            case MONTH_WEEKDAY -> {
                ComboBox<Integer> which =
                        Choices.of(List.of(1, 2, 3, 4, -1), n -> Words.of("schedule.which." + (n < 0 ? "last" : n)));
                ComboBox<DayOfWeek> day =
                        Choices.of(List.of(DayOfWeek.values()), d -> d.getDisplayName(TextStyle.FULL, Words.locale()));
                which.setValue(1);
                day.setValue(DayOfWeek.MONDAY);
                which.valueProperty().addListener((o, a, v) -> weekday(v, day.getValue()));
                day.valueProperty().addListener((o, a, v) -> weekday(which.getValue(), v));
                details.getChildren().addAll(which, day);
            }
            case HOURLY -> {
                ComboBox<Integer> hours = Choices.of(List.of(1, 2, 3, 4, 6, 8, 12), n -> Words.of("schedule.hours", n));
                hours.setValue(4);
                hours.valueProperty().addListener((o, a, v) -> {
                    made.hours(v);
                    show();
                });
                details.getChildren().add(hours);
            }
            case OWN -> details.getChildren().add(field("schedule-rule", "schedule.rule", made.rule(), 30, made::rule));
            default -> {
                // Nothing more to choose.
            }
        }
        Ui.visible(details, !details.getChildren().isEmpty());
    }

    private void weekday(int which, DayOfWeek day) {
        made.monthWeekday(which, day);
        show();
    }

    private void show() {
        try {
            SnapshotSchedule s = made.schedule(
                    model.openPlace().place().id(), model.scopeProperty().get());
            sentence.setText(ScheduleModel.sentence(s, model.context().clock().instant()));
            Ui.style(sentence, "error-text", false);
            go.setDisable(false);
        } catch (IllegalArgumentException e) {
            sentence.setText(Failures.named(e));
            Ui.style(sentence, "error-text", true);
            go.setDisable(true);
        }
    }

    private void add() {
        asked.run();
        model.schedule(made.schedule(
                model.openPlace().place().id(), model.scopeProperty().get()));
    }
}
