package org.mendedleaf.desktop.protection;

import java.time.DayOfWeek;
import java.time.LocalTime;
import java.time.format.DateTimeParseException;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.geometry.Pos;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.control.skin.ComboBoxListViewSkin;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Ui;

/** How often a folder is captured: a choice, and for each day or each week the time, and the day, beside it. */
final class RhythmField extends HBox {

    private static final double LEAST_WIDTH = 124;

    private final ObjectProperty<Rhythm> value = new SimpleObjectProperty<>();
    private final ComboBox<Rhythm> choice;
    private final ComboBox<DayOfWeek> day;
    private final TextField time = new TextField();
    private boolean setting;

    /**
     * A field.
     *
     * @param id of the choice; the day and the time have it with an ending
     * @param words of a choice in the open list
     */
    RhythmField(String id, Rhythm now, Function<Rhythm, String> words) {
        super(8);
        setAlignment(Pos.CENTER_LEFT);
        choice = Choices.of(choices(now), RhythmField::kindWords);
        choice.setId(id);
        choice.setAccessibleText(Words.of("protect.rhythm"));
        choice.setCellFactory(list -> new ListCell<>() {
            @Override
            protected void updateItem(@Nullable Rhythm r, boolean empty) {
                super.updateItem(r, empty);
                setText(empty || r == null ? null : words.apply(r));
            }
        });
        day = Choices.of(List.of(DayOfWeek.values()), d -> d.getDisplayName(TextStyle.FULL, Words.locale()));
        day.setId(id + "-day");
        day.setAccessibleText(Words.of("protect.day"));
        time.setId(id + "-time");
        time.setAccessibleText(Words.of("protect.at"));
        time.setPrefColumnCount(5);
        // The longest choice gives way; a day and a time are read whole.
        choice.setMinWidth(LEAST_WIDTH);
        setHgrow(choice, Priority.ALWAYS);
        choice.setMaxWidth(Double.MAX_VALUE);
        day.setMinWidth(USE_PREF_SIZE);
        time.setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(choice, day, time);
        show(now);
        value.set(now);
        choice.valueProperty().addListener((o, a, b) -> chosen(b));
        day.valueProperty().addListener((o, a, b) -> timed());
        time.setOnAction(e -> timed());
        time.focusedProperty().addListener((o, was, is) -> {
            if (!is) {
                timed();
            }
        });
        value.addListener((o, a, b) -> show(b));
    }

    /** What is chosen. */
    ObjectProperty<Rhythm> valueProperty() {
        return value;
    }

    /** The words of the choices are others by now, also in a list that is open. */
    void wordsChanged() {
        if (choice.getSkin() instanceof ComboBoxListViewSkin<?> skin
                && skin.getPopupContent() instanceof ListView<?> list) {
            list.refresh();
        }
    }

    /** What can be chosen. */
    List<Rhythm> choices() {
        return choice.getItems();
    }

    private static List<Rhythm> choices(Rhythm now) {
        List<Rhythm> all = new ArrayList<>(List.of(
                Rhythm.ON_SAVE,
                Rhythm.every(10),
                Rhythm.every(30),
                Rhythm.every(60),
                Rhythm.every(240),
                Rhythm.every(720),
                Rhythm.daily(Rhythm.EVENING),
                Rhythm.weekly(DayOfWeek.FRIDAY, Rhythm.EVENING),
                Rhythm.BY_HAND));
        boolean timed = now.kind() == Rhythm.Kind.DAILY || now.kind() == Rhythm.Kind.WEEKLY;
        if (timed) {
            all.replaceAll(r -> r.kind() == now.kind() ? now : r);
        } else if (!all.contains(now)) {
            all.add(now);
        }
        return all;
    }

    /** The day and the time stand beside it. */
    private static String kindWords(Rhythm r) {
        return switch (r.kind()) {
            case DAILY -> Words.of("protect.rhythm.daily");
            case WEEKLY -> Words.of("protect.rhythm.weekly");
            default -> r.longWords();
        };
    }

    private void show(Rhythm r) {
        setting = true;
        Rhythm shown = choice.getItems().stream()
                .filter(c -> c.equals(r) || (c.kind() == r.kind() && r.kind() != Rhythm.Kind.EVERY))
                .findFirst()
                .orElse(r);
        choice.setValue(shown);
        boolean weekly = r.kind() == Rhythm.Kind.WEEKLY;
        Ui.visible(day, weekly);
        Ui.visible(time, weekly || r.kind() == Rhythm.Kind.DAILY);
        day.setValue(r.day());
        time.setText(r.at().toString());
        Ui.style(time, "field-wrong", false);
        setting = false;
    }

    private void chosen(@Nullable Rhythm r) {
        if (!setting && r != null) {
            value.set(r);
        }
    }

    private void timed() {
        Rhythm now = value.get();
        if (setting || (now.kind() != Rhythm.Kind.DAILY && now.kind() != Rhythm.Kind.WEEKLY)) {
            return;
        }
        try {
            String typed = time.getText().strip().replace('.', ':');
            LocalTime at = LocalTime.parse(typed.matches("\\d:.*") ? "0" + typed : typed);
            Ui.style(time, "field-wrong", false);
            Ui.tooltip(time, null);
            value.set(now.kind() == Rhythm.Kind.DAILY ? Rhythm.daily(at) : Rhythm.weekly(day.getValue(), at));
        } catch (DateTimeParseException e) {
            Ui.style(time, "field-wrong", true);
            Ui.tooltip(time, Words.of("protect.at.wrong"));
        }
    }
}
