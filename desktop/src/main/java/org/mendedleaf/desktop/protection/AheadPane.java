package org.mendedleaf.desktop.protection;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.retention.Forecast;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.ForecastChart;
import org.mendedleaf.desktop.widgets.Ui;

/** What the versions of a folder will take: in words, and as a curve over a year. */
final class AheadPane extends VBox {

    private final AheadModel model;

    AheadPane(AheadModel model) {
        super(6);
        this.model = model;
        setId("ahead");
        model.aheadProperty().addListener((o, a, b) -> show());
        model.problemProperty().addListener((o, a, b) -> show());
        sceneProperty().addListener((o, a, scene) -> model.seen(scene != null));
        show();
    }

    private void show() {
        getChildren().setAll(Ui.label(Words.of("forecast.title"), "small-title"));
        AheadModel.Ahead ahead = model.aheadProperty().get();
        String problem = model.problemProperty().get();
        if (ahead == null) {
            getChildren().add(wrapped(problem.isEmpty() ? Words.of("space.reading") : problem, "dim"));
            return;
        }
        List<String> words = model.words();
        for (int i = 0; i < words.size(); i++) {
            Label sentence = wrapped(words.get(i), i == 1 ? "plain" : "dim");
            sentence.setId("ahead-" + i);
            getChildren().add(sentence);
        }
        Forecast f = ahead.asItIs();
        getChildren().add(new ForecastChart(f, f));
    }

    private static Label wrapped(String words, String style) {
        Label label = Ui.label(words, style);
        label.setWrapText(true);
        return label;
    }
}
