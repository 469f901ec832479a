package org.mendedleaf.desktop.retention;

import java.util.Comparator;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** All holds, and what would go if the chosen one were lifted. */
final class HoldsPane extends VBox {

    private final RetentionModel model;
    private final TableView<Hold> table = Tables.table("holds", "holds.none");
    private final Label effect = Ui.label("", "dim");
    private final Button lift;

    HoldsPane(RetentionModel model) {
        this.model = model;
        getStyleClass().add("single-sheet");
        table.getColumns().add(Tables.words("holds.what", 330, this::what, Comparator.comparing(this::what)));
        table.getColumns().add(Tables.words("holds.place", 130, this::place, Comparator.comparing(this::place)));
        table.getColumns().add(Tables.words("holds.reason", 250, Hold::reason, Comparator.comparing(Hold::reason)));
        table.getColumns().add(Tables.words("holds.who", 100, Hold::who, Comparator.comparing(Hold::who)));
        table.getColumns().add(Tables.words("holds.since", 110, this::since, Comparator.comparing(Hold::at)));
        table.getColumns()
                .add(Tables.words(
                        "holds.until",
                        110,
                        this::until,
                        Comparator.comparing(h -> h.until().orElse(java.time.Instant.MAX))));
        lift = Ui.button("holds.lift", this::lift);
        lift.setId("hold-lift");
        effect.setId("hold-effect");
        effect.setWrapText(true);
        HBox.setHgrow(effect, Priority.ALWAYS);
        effect.setMaxWidth(Double.MAX_VALUE);
        HBox foot = new HBox(12, effect, lift);
        foot.setAlignment(Pos.CENTER_LEFT);
        foot.getStyleClass().add("sheet-footer");
        VBox.setVgrow(table, Priority.ALWAYS);
        VBox sheet = new VBox(table, foot);
        VBox.setVgrow(sheet, Priority.ALWAYS);
        sheet.getStyleClass().add("sheet");
        getChildren().add(sheet);
        table.getSelectionModel().selectedItemProperty().addListener((o, a, h) -> effect(h));
        model.pictureProperty().addListener((o, a, p) -> show(p));
        show(model.pictureProperty().get());
    }

    private String what(Hold h) {
        return Words.of("hold.what." + h.kind(), h.path().isEmpty() ? place(h) : h.path(), h.number());
    }

    private String place(Hold h) {
        RetentionModel.Picture p = model.pictureProperty().get();
        return p == null ? "" : p.place(h.place());
    }

    private String since(Hold h) {
        return Say.day(h.at(), model.desk().clock().instant(), model.desk().zone());
    }

    private String until(Hold h) {
        return h.until()
                .map(u -> Say.day(
                        u.minusMillis(1),
                        model.desk().clock().instant(),
                        model.desk().zone()))
                .orElseGet(() -> Words.of("holds.lifted"));
    }

    private void show(RetentionModel.@Nullable Picture p) {
        if (p != null) {
            table.getItems().setAll(p.holds());
        }
        effect(table.getSelectionModel().getSelectedItem());
    }

    private void effect(@Nullable Hold hold) {
        RetentionModel.Picture p = model.pictureProperty().get();
        lift.setDisable(hold == null);
        if (hold == null || p == null) {
            effect.setText(Words.of("holds.hint"));
            return;
        }
        ThinPlan then = model.without(p, hold);
        effect.setText(Words.of("cli.unhold.then", then.versions(), Say.size(then.freedBytes())));
    }

    private void lift() {
        Hold hold = table.getSelectionModel().getSelectedItem();
        if (hold != null) {
            model.lift(hold);
        }
    }
}
