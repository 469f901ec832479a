package org.mendedleaf.desktop.protection;

import java.io.File;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.beans.binding.Bindings;
import javafx.beans.property.StringProperty;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.retention.UsualRules;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Shapes;
import org.mendedleaf.desktop.widgets.Ui;

/** The sheet on which a folder is protected; on the first run, the whole screen. */
public final class ProtectView extends StackPane {

    private final ProtectModel model;
    private final Function<File, Optional<File>> folderAsk;

    /**
     * The sheet over this model.
     *
     * @param first whether it is the first run, with nothing to go back to
     * @param folderAsk asks for a folder, beginning at one
     * @param done goes on with the protected folder
     * @param back goes back without
     */
    public ProtectView(
            ProtectModel model,
            boolean first,
            Function<File, Optional<File>> folderAsk,
            Consumer<OpenPlace> done,
            Runnable back) {
        this.model = model;
        this.folderAsk = folderAsk;
        getStyleClass().add("protect");
        VBox sheet = new VBox(12);
        sheet.getStyleClass().addAll("sheet", "protect-sheet");
        sheet.setMaxWidth(680);
        sheet.setMaxHeight(USE_PREF_SIZE);

        HBox title =
                new HBox(14, Shapes.mark(), Ui.label(Words.of(first ? "first.title" : "protect.title"), "big-title"));
        title.setAlignment(Pos.CENTER_LEFT);
        Label text = Ui.label(Words.of(first ? "first.text" : "protect.text"), "dim");
        text.setWrapText(true);

        GridPane form = new GridPane();
        form.getStyleClass().add("form");
        form.addRow(
                0, name("protect.folder"), field(model.folderProperty(), "protect-folder", "protect.folder.prompt"));
        form.addRow(1, name("protect.vault"), field(model.vaultProperty(), "protect-vault", "protect.vault.prompt"));
        form.addRow(2, name("protect.rhythm"), rhythm());
        TextField out = new TextField();
        out.setId("protect-exclusions");
        out.setPromptText(Words.of("protect.exclusions.prompt"));
        out.textProperty().bindBidirectional(model.exclusionsProperty());
        out.setAccessibleText(Words.of("protect.exclusions"));
        form.addRow(3, name("protect.exclusions"), out);
        GridPane.setHgrow(out, Priority.ALWAYS);
        ComboBox<UsualRules> keeping = Choices.of(List.of(UsualRules.values()), r -> Words.of("usualRules." + r));
        keeping.setId("protect-keep");
        keeping.setMaxWidth(Double.MAX_VALUE);
        keeping.setAccessibleText(Words.of("protect.keep"));
        keeping.valueProperty().bindBidirectional(model.keepingProperty());
        form.addRow(4, name("protect.keep"), keeping);
        GridPane.setHgrow(keeping, Priority.ALWAYS);
        form.addRow(5, name("protect.copy"), field(model.copyProperty(), "protect-copy", "protect.copy.prompt"));
        CheckBox always = new CheckBox(Words.of("protect.always"));
        always.setId("protect-always");
        always.selectedProperty().bindBidirectional(model.alwaysProperty());
        form.add(always, 1, 6);
        Label kept = Ui.label("", "dim");
        kept.setId("protect-kept");
        kept.setWrapText(true);
        kept.textProperty()
                .bind(Bindings.createStringBinding(
                        () -> String.join(
                                " ",
                                model.keepingProperty().get().sentence(),
                                model.forecastProperty().get(),
                                Words.of("protect.kept")),
                        model.keepingProperty(),
                        model.forecastProperty()));

        Label outlook = Ui.label("", "outlook");
        outlook.setId("protect-outlook");
        outlook.setWrapText(true);
        outlook.textProperty().bind(model.outlookProperty());
        Label problem = Ui.label("", "error-text");
        problem.setId("protect-problem");
        problem.setWrapText(true);
        model.problemProperty().addListener((o, a, words) -> {
            problem.setText(words);
            Ui.visible(problem, !words.isEmpty());
            Ui.visible(outlook, words.isEmpty());
        });
        problem.setText(model.problemProperty().get());
        Ui.visible(problem, !problem.getText().isEmpty());

        Button go = Ui.button("protect.go", () -> model.protect(done), "accent", "large");
        go.setId("protect-go");
        go.setDefaultButton(true);
        go.disableProperty().bind(model.readyProperty().not());
        HBox buttons = new HBox(8, go);
        buttons.setAlignment(Pos.CENTER_LEFT);
        if (!first) {
            buttons.getChildren().add(Ui.button("protect.back", back, "flat"));
        }
        // What does not fit is scrolled, not cut.
        for (Label words : List.of(text, outlook, problem, kept)) {
            words.setMinHeight(USE_PREF_SIZE);
        }
        VBox content = new VBox(10, title, text, suggestions(), form, outlook, problem, kept);
        content.getStyleClass().add("protect-content");
        ScrollPane scroll = new ScrollPane(content);
        scroll.setFitToWidth(true);
        scroll.setMinHeight(80);
        // As high as its words are when they are wrapped, which a scroll pane does not ask.
        scroll.prefHeightProperty().bind(content.heightProperty().add(2));
        VBox.setVgrow(scroll, Priority.SOMETIMES);
        // What is to be pressed stays in sight, however small the window.
        buttons.setMinHeight(USE_PREF_SIZE);
        sheet.getChildren().addAll(scroll, buttons);
        StackPane middle = new StackPane(sheet);
        middle.getStyleClass().add("protect-middle");
        getChildren().add(middle);
    }

    /** The folders that are there, each a way to choose it. */
    private FlowPane suggestions() {
        FlowPane row = new FlowPane(8, 8);
        row.setId("protect-suggestions");
        model.suggestionsProperty().subscribe(all -> {
            row.getChildren().clear();
            for (FolderSuggestion each : all) {
                Button button = Ui.plainButton(
                        Words.of(
                                "protect.suggestion",
                                String.valueOf(each.folder().getFileName()),
                                Formats.size(each.bytes()),
                                each.files()),
                        () -> model.folderProperty().set(each.folder().toString()),
                        "suggestion");
                button.setMinWidth(USE_PREF_SIZE);
                row.getChildren().add(button);
            }
            Ui.visible(row, !all.isEmpty());
        });
        return row;
    }

    private static Label name(String key) {
        Label label = Ui.label(Words.of(key), "form-name");
        label.setMinWidth(USE_PREF_SIZE);
        return label;
    }

    private HBox field(StringProperty value, String id, String prompt) {
        TextField field = new TextField();
        field.setId(id);
        field.setPromptText(Words.of(prompt));
        field.setAccessibleText(Words.of(prompt));
        field.textProperty().bindBidirectional(value);
        HBox.setHgrow(field, Priority.ALWAYS);
        Button choose = Ui.button(
                "protect.chooseFolder",
                () -> folderAsk.apply(new File(value.get())).ifPresent(f -> value.set(f.getPath())));
        HBox box = new HBox(8, field, choose);
        GridPane.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    private RhythmField rhythm() {
        RhythmField field =
                new RhythmField("protect-rhythm", model.rhythmProperty().get(), Rhythm::longWords);
        field.valueProperty().bindBidirectional(model.rhythmProperty());
        return field;
    }
}
