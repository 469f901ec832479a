package org.mendedleaf.desktop.retention;

import java.util.Comparator;
import javafx.scene.control.Button;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** All holds, and what would go if the chosen one were lifted. */
final class HoldsPane extends ListPane<Hold> {

    private final Button lift;

    HoldsPane(RetentionModel model) {
        super(model, "holds", "hold-effect", "holds.none");
        table.getColumns().add(Tables.words("holds.what", 330, this::what, Comparator.comparing(this::what)));
        table.getColumns().add(Tables.words("holds.place", 130, this::place, Comparator.comparing(this::place)));
        table.getColumns().add(Tables.words("holds.reason", 250, Hold::reason, Comparator.comparing(Hold::reason)));
        table.getColumns().add(Tables.words("holds.who", 100, Hold::who, Comparator.comparing(Hold::who)));
        table.getColumns()
                .add(Tables.words("holds.since", Ui.moment(110), this::since, Comparator.comparing(Hold::at)));
        table.getColumns()
                .add(Tables.words(
                        "holds.until",
                        110,
                        this::until,
                        Comparator.comparing(h -> h.until().orElse(java.time.Instant.MAX))));
        lift = Ui.button("holds.lift", this::lift);
        lift.setId("hold-lift");
        table.getSelectionModel().selectedItemProperty().addListener((o, a, h) -> effect(h));
        finish(lift);
    }

    private String what(Hold h) {
        RetentionModel.Picture p = model.pictureProperty().get();
        String version = p == null ? "" : p.heldVersions().getOrDefault(h.id(), "");
        return Words.of("hold.what." + h.kind(), h.path().isEmpty() ? place(h) : h.path(), version);
    }

    private String place(Hold h) {
        RetentionModel.Picture p = model.pictureProperty().get();
        return p == null ? "" : p.place(h.place());
    }

    private String since(Hold h) {
        return Formats.day(
                h.at(), model.context().clock().instant(), model.context().zone());
    }

    private String until(Hold h) {
        return h.until()
                .map(u -> Formats.end(
                        u, model.context().clock().instant(), model.context().zone()))
                .orElseGet(() -> Words.of("holds.lifted"));
    }

    @Override
    void show(RetentionModel.@Nullable Picture p) {
        if (p != null) {
            table.getItems().setAll(p.holds());
        }
        effect(table.getSelectionModel().getSelectedItem());
    }

    private void effect(@Nullable Hold hold) {
        lift.setDisable(hold == null);
        if (hold == null) {
            effect.setText(Words.of("holds.hint"));
            return;
        }
        model.without(
                hold,
                then -> effect.setText(Words.of("cli.unhold.then", then.versions(), Formats.size(then.freedBytes()))));
    }

    private void lift() {
        Hold hold = table.getSelectionModel().getSelectedItem();
        if (hold != null) {
            model.lift(hold);
        }
    }
}
