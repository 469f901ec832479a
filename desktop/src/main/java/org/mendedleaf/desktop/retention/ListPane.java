package org.mendedleaf.desktop.retention;

import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/**
 * A list of the Retention screen: a table, and below it what the buttons beside it would do.
 *
 * @param <R> what stands in a row
 */
abstract class ListPane<R> extends VBox {

    final RetentionModel model;
    final TableView<R> table;
    final Label effect = Ui.label("", "dim");

    /**
     * @param id of the table
     * @param effectId of what the buttons would do
     * @param emptyKey what stands in the table while it is empty
     */
    ListPane(RetentionModel model, String id, String effectId, String emptyKey) {
        this.model = model;
        table = Tables.table(id, emptyKey);
        effect.setId(effectId);
        effect.setWrapText(true);
        effect.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(effect, Priority.ALWAYS);
        getStyleClass().add("single-sheet");
    }

    /** Puts the parts together, and shows what the model has; called at the end of making the columns and buttons. */
    final void finish(Button... buttons) {
        HBox foot = new HBox(10, effect);
        for (Button b : buttons) {
            b.setMinWidth(USE_PREF_SIZE);
            foot.getChildren().add(b);
        }
        foot.setAlignment(Pos.CENTER_LEFT);
        foot.getStyleClass().add("sheet-footer");
        VBox.setVgrow(table, Priority.ALWAYS);
        VBox sheet = new VBox(table, foot);
        VBox.setVgrow(sheet, Priority.ALWAYS);
        sheet.getStyleClass().add("sheet");
        getChildren().setAll(sheet);
        model.pictureProperty().addListener((o, a, p) -> show(p));
        show(model.pictureProperty().get());
    }

    abstract void show(RetentionModel.@Nullable Picture p);
}
