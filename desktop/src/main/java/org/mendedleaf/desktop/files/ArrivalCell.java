package org.mendedleaf.desktop.files;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.intake.Arrivals;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.widgets.Ui;

/** A file that came in: its name, where it lies, how large it is and when it came. */
final class ArrivalCell extends ListCell<Arrivals.Arrival> {

    private final Label name = Ui.label("", "point-when");
    private final Label where = Ui.label("", "point-what");
    private final Label size = Ui.label("", "point-size");
    private final Label when = Ui.label("", "point-what");
    private final Label likely = Ui.label(Words.of("arrivals.likely"), "badge", "badge-moss");
    private final HBox box;
    private final PutModel model;
    private final AppContext context;

    ArrivalCell(PutModel model) {
        this.model = model;
        this.context = model.context();
        likely.setMinWidth(USE_PREF_SIZE);
        HBox first = new HBox(8, name, likely);
        first.setAlignment(Pos.CENTER_LEFT);
        VBox words = new VBox(1, first, where);
        words.setAlignment(Pos.CENTER_LEFT);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        VBox right = new VBox(1, size, when);
        right.setAlignment(Pos.CENTER_RIGHT);
        right.setMinWidth(USE_PREF_SIZE);
        box = new HBox(6, words, right);
        box.setAlignment(Pos.CENTER_LEFT);
        getStyleClass().add("line-cell");
        setPrefWidth(0);
    }

    @Override
    protected void updateItem(Arrivals.@Nullable Arrival a, boolean empty) {
        super.updateItem(a, empty);
        setText(null);
        if (empty || a == null) {
            setGraphic(null);
            return;
        }
        name.setText(a.name());
        Ui.visible(likely, a.likely());
        where.setText(a.mail()
                .map(m -> Words.of("arrivals.mail", model.author(m), m.subject()))
                .orElse(String.valueOf(a.file().getParent())));
        size.setText(Formats.size(a.size()));
        when.setText(Formats.ago(a.came(), context.clock().instant(), context.zone()));
        setGraphic(box);
        setAccessibleText(a.name() + ", " + where.getText() + ", " + size.getText() + ", " + when.getText());
    }
}
