package org.mendedleaf.desktop.files;

import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** What is ticked, in number and bytes, and what can be done with it. */
final class TicksBar extends HBox {

    private final Label words = Ui.label("", "ticks-words");

    TicksBar(FilesModel model) {
        super(8);
        getStyleClass().add("ticks-bar");
        setAlignment(Pos.CENTER_LEFT);
        words.setId("ticks");
        Button recover = Ui.button("ticks.recover", model.routes()::recover, "accent", "small");
        recover.setId("ticks-recover");
        Button back = Ui.button("ticks.rollBack", model.routes()::rollBack, "small");
        back.setId("ticks-roll-back");
        back.visibleProperty().bind(model.momentProperty().isNotNull());
        back.managedProperty().bind(back.visibleProperty());
        Button clear = Ui.button("ticks.clear", () -> model.ticks().clear(), "flat", "small");
        clear.setId("ticks-clear");
        getChildren().addAll(words, Ui.spacer(), recover, back, clear);
        model.ticks().sumProperty().addListener((o, a, s) -> show(s));
        show(model.ticks().sumProperty().get());
    }

    private void show(TicksModel.Sum s) {
        Ui.visible(this, s.ticks() > 0);
        words.setText(
                s.files() < 0
                        ? Words.of("ticks.counting")
                        : Words.of("ticks.sum", Formats.number(s.files()), s.files(), Formats.size(s.bytes())));
    }
}
