package org.mendedleaf.desktop.files;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.DatePicker;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** A small sheet on which a moment is picked: a day and a time, or typed as one. */
final class PickMoment {

    private final FilesModel model;
    private final Popup popup = new Popup();
    private final DatePicker day = new DatePicker();
    private final TextField time = new TextField();
    private final Label wrong = Ui.label("", "error-text");

    PickMoment(FilesModel model) {
        this.model = model;
        day.setId("pick-day");
        day.setAccessibleText(Words.of("pick.day"));
        time.setId("pick-time");
        time.setAccessibleText(Words.of("pick.time"));
        time.setPromptText("17:00");
        time.setPrefColumnCount(5);
        wrong.setWrapText(true);
        wrong.setId("pick-wrong");
        Button go = Ui.button("pick.go", this::go, "accent");
        go.setId("pick-go");
        go.setDefaultButton(false);
        time.setOnAction(e -> go());
        HBox fields = new HBox(8, day, time, go);
        VBox sheet = new VBox(8, Ui.label(Words.of("pick.title"), "small-title"), fields, wrong);
        sheet.getStyleClass().add("popup-sheet");
        popup.getContent().add(sheet);
        popup.setAutoHide(true);
        popup.setHideOnEscape(true);
    }

    void show(Node below) {
        Instant at = model.momentProperty().get();
        ZonedDateTime shown = (at == null ? model.desk().clock().instant() : at)
                .atZone(model.desk().zone());
        day.setValue(shown.toLocalDate());
        time.setText(DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT).format(shown));
        complain("");
        Bounds where = below.localToScreen(below.getBoundsInLocal());
        popup.show(below, where.getMinX() - 160, where.getMaxY() + 6);
        day.requestFocus();
    }

    private void complain(String words) {
        wrong.setText(words);
        Ui.visible(wrong, !words.isEmpty());
    }

    private void go() {
        LocalDate date = day.getValue();
        String clock = time.getText().strip();
        if (date == null) {
            complain(Words.of("pick.noDay"));
            return;
        }
        String problem =
                model.go(clock.isEmpty() ? date.toString() : date + "T" + (clock.length() == 4 ? "0" : "") + clock);
        complain(problem);
        if (problem.isEmpty()) {
            popup.hide();
        }
    }
}
