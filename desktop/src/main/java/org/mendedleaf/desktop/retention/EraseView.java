package org.mendedleaf.desktop.retention;

import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.retention.Erasing;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** What erasing would lose, in sentences, with the way back as the first button. */
public final class EraseView extends BorderPane {

    private final EraseModel model;
    private final VBox sentences = new VBox(8);
    private final Button erase;

    /**
     * The view.
     *
     * @param leave goes back to the files
     * @param done says what was done, which can be undone
     */
    public EraseView(EraseModel model, Runnable leave, Consumer<String> done) {
        this.model = model;
        setId("erase");
        getStyleClass().addAll("files", "plan");
        Label title = Ui.label(model.heading(), "big-title");
        title.setId("erase-title");
        title.setMinWidth(0);
        HBox head = new HBox(12, title, Ui.spacer(), Ui.iconButton(Feather.X, "erase.leave", leave));
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("plan-top");
        setTop(head);
        sentences.setId("erase-words");
        Label grace = Ui.label(Words.of("erase.grace"), "dim");
        grace.setWrapText(true);
        Label problem = Ui.label("", "error-text");
        problem.setWrapText(true);
        problem.textProperty().bind(model.problemProperty());
        Button stay = Ui.button("erase.leave", leave, "accent");
        stay.setId("erase-leave");
        erase = Ui.button("erase.go", () -> {}, "danger-text");
        erase.setId("erase-go");
        erase.setOnAction(e -> {
            erase.setDisable(true);
            model.erase(words -> {
                leave.run();
                done.accept(words);
            });
        });
        HBox buttons = new HBox(8, stay, erase);
        VBox body = new VBox(14, sentences, grace, problem, buttons);
        setCenter(Ui.narrow(body));
        model.consequencesProperty().addListener((o, a, c) -> show());
        show();
        javafx.application.Platform.runLater(stay::requestFocus);
    }

    private void show() {
        Erasing.Consequences c = model.consequencesProperty().get();
        sentences.getChildren().clear();
        List<String> words = c == null ? List.of(Words.of("space.reading")) : model.words();
        for (int i = 0; i < words.size(); i++) {
            Label sentence = Ui.label(words.get(i), i == 0 ? "small-title" : "dim");
            sentence.setWrapText(true);
            sentences.getChildren().add(sentence);
        }
        erase.setDisable(c == null || c.numbers().isEmpty());
    }
}
