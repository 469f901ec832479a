package org.mendedleaf.desktop.shell;

import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** Says what to try next in the first minutes; it stands above everything else and can be sent away at any moment. */
final class TourBar extends HBox {

    TourBar(TourModel model) {
        super(12);
        setId("tour");
        getStyleClass().add("tour");
        setAlignment(Pos.CENTER_LEFT);
        Label count = Ui.label("", "tour-count");
        count.setId("tour-count");
        count.setMinWidth(USE_PREF_SIZE);
        Label words = Ui.label("", "tour-words");
        words.setId("tour-words");
        words.setWrapText(true);
        words.setMinHeight(USE_PREF_SIZE);
        HBox.setHgrow(words, Priority.ALWAYS);
        words.setMaxWidth(Double.MAX_VALUE);
        Button end = Ui.button("tour.end", model::end, "small");
        end.setId("tour-end");
        end.setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(count, words, end);
        model.stepProperty().subscribe(step -> {
            boolean done = step == TourModel.Step.DONE;
            Ui.visible(this, step != TourModel.Step.NONE);
            Ui.visible(count, !done);
            count.setText(done ? "" : Words.of("tour.count", step.ordinal(), TourModel.Step.RESTORE.ordinal()));
            words.setText(step == TourModel.Step.NONE ? "" : Words.of("tour." + step));
            end.setText(Words.of(done ? "tour.close" : "tour.end"));
        });
    }
}
