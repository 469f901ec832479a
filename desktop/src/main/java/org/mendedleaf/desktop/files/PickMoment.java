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
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Days;
import org.mendedleaf.desktop.widgets.MomentField;
import org.mendedleaf.desktop.widgets.Ui;

/** A small sheet on which a moment is typed, or picked as a day and a time; what it was understood as stands below it. */
final class PickMoment {

    private final FilesModel model;
    private final Popup popup = new Popup();
    private final MomentField field;
    private final DatePicker day = Days.picker("pick-day", Words.of("pick.day"), null, null);
    private final TextField time = new TextField();
    private boolean filling;

    PickMoment(FilesModel model) {
        this.model = model;
        this.field = new MomentField(model.context(), "pick-text", model.steps()::understand);
        day.setPrefWidth(150);
        time.setId("pick-time");
        time.setAccessibleText(Words.of("pick.time"));
        time.setPromptText("17:00");
        time.setPrefColumnCount(5);
        Button go = Ui.button("pick.go", this::go, "accent");
        go.setId("pick-go");
        go.disableProperty().bind(field.momentProperty().isNull());
        field.text().setOnAction(e -> go());
        time.setOnAction(e -> go());
        day.valueProperty().addListener((o, a, d) -> picked());
        time.textProperty().addListener((o, a, t) -> picked());
        HBox.setHgrow(field, Priority.ALWAYS);
        HBox typed = new HBox(8, field, go);
        HBox fields = new HBox(8, day, time);
        VBox sheet = new VBox(
                10,
                Ui.label(Words.of("pick.title"), "small-title"),
                typed,
                Ui.label(Words.of("pick.or"), "dim"),
                fields);
        sheet.getStyleClass().addAll("popup-sheet", "pick-sheet");
        popup.getContent().add(sheet);
        popup.setAutoHide(true);
        popup.setHideOnEscape(true);
    }

    /** A picked day and time are written into the field, where they are understood as if they had been typed. */
    private void picked() {
        LocalDate date = day.getValue();
        if (filling || date == null) {
            return;
        }
        String clock = time.getText().strip();
        field.text().setText(clock.isEmpty() ? date.toString() : date + " " + (clock.length() == 4 ? "0" : "") + clock);
    }

    void show(Node below) {
        Instant at = model.momentProperty().get();
        ZonedDateTime shown = (at == null ? model.context().clock().instant() : at)
                .atZone(model.context().zone());
        filling = true;
        day.setValue(shown.toLocalDate());
        time.setText(DateTimeFormatter.ofPattern("HH:mm", Locale.ROOT).format(shown));
        field.text().clear();
        filling = false;
        Bounds where = below.localToScreen(below.getBoundsInLocal());
        popup.show(below, where.getMinX(), where.getMaxY() + 6);
        // How wide it is, is known once it is styled.
        javafx.application.Platform.runLater(() -> popup.setX(Math.max(0, where.getMaxX() - popup.getWidth() + 40)));
        field.text().requestFocus();
    }

    private void go() {
        Instant at = field.momentProperty().get();
        if (at != null) {
            model.momentProperty().set(field.isNow() ? null : at);
            popup.hide();
        }
    }
}
