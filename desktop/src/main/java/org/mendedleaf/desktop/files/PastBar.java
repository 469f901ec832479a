package org.mendedleaf.desktop.files;

import java.time.Instant;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** While the past is looked at: what became of this folder since, and what can be done about it. */
final class PastBar extends HBox {

    private final FilesModel model;
    private final Label words = Ui.label("", "past-words");

    PastBar(FilesModel model) {
        super(8);
        this.model = model;
        setId("past-bar");
        getStyleClass().add("past-bar");
        setAlignment(Pos.CENTER_LEFT);
        words.setId("past-words");
        words.setMinWidth(0);
        Button compare = Ui.button("past.compare", model.routes()::compare, "small");
        compare.setId("past-compare");
        Button back = Ui.button("past.rollBack", model.routes()::rollBack, "small");
        back.setId("past-roll-back");
        getChildren().addAll(words, Ui.spacer(), compare, back);
        model.momentProperty().addListener((o, a, b) -> show());
        model.listingProperty().addListener((o, a, b) -> show());
        show();
    }

    private void show() {
        Instant at = model.momentProperty().get();
        Ui.visible(this, at != null);
        ChangesSince since = model.listingProperty().get().since();
        words.setText(since.isNothing() ? Words.of("past.same") : Words.of("past.since", since.words()));
        Ui.tooltip(words, words.getText());
    }
}
