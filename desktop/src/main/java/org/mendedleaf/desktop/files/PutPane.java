package org.mendedleaf.desktop.files;

import java.io.File;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.mendedleaf.core.disk.Failures;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.intake.Arrivals;
import org.mendedleaf.core.line.DraftChoice;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.PutService;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Ui;

/** Putting in a revision of the selected file: what just arrived, a note, and how. */
public final class PutPane extends BorderPane {

    private static final double ROW = 46;
    private static final Duration AGAIN = Duration.ofMillis(1500);

    private final PutModel model;
    private final PutService.Hearer hearer;
    private final Label title = Ui.label("", "line-title");
    private final ListView<Arrivals.Arrival> list = new ListView<>();
    private final TextField note = new TextField();
    private final FlowPane people = new FlowPane(10, 4);
    private final HBox tellRow;
    private final Button put;
    private Runnable lookingEnds = () -> {};
    private Supplier<Optional<File>> fileAsk = Optional::empty;
    private Supplier<Optional<File>> folderAsk = Optional::empty;

    /**
     * The pane.
     *
     * @param hearer of how it went
     * @param failed hears what could not be remembered
     */
    public PutPane(PutModel model, PutService.Hearer hearer, Consumer<String> failed) {
        this.model = model;
        this.hearer = hearer;
        setId("put-pane");
        title.setId("put-title");
        HBox head = new HBox(8, title, Ui.spacer(), Ui.iconButton(Feather.X, "put.close", model::close));
        head.setAlignment(Pos.CENTER_LEFT);
        Label hint = Ui.label(Words.of("put.hint"), "dim");
        hint.setWrapText(true);
        VBox header = new VBox(4, head, hint);
        header.getStyleClass().add("sheet-header");
        setTop(header);

        note.setId("put-note");
        note.setPromptText(Words.of("put.notePrompt"));
        note.setAccessibleText(Words.of("put.notePrompt"));
        note.textProperty().bindBidirectional(model.noteProperty());
        HBox.setHgrow(note, Priority.ALWAYS);
        ComboBox<DraftChoice> stage =
                Choices.of(List.of(DraftChoice.BY_RULE, DraftChoice.PUBLISHED), s -> Words.of("put.stage." + s));
        stage.setId("put-stage");
        stage.valueProperty().bindBidirectional(model.stageProperty());
        CheckBox take = new CheckBox(Words.of("put.take"));
        take.setId("put-take");
        take.selectedProperty().bindBidirectional(model.takeProperty());
        HBox how = new HBox(12, stage, take);
        how.setAlignment(Pos.CENTER_LEFT);
        stage.visibleProperty().bind(model.draftsProperty());
        stage.managedProperty().bind(stage.visibleProperty());
        tellRow = new HBox(10, Ui.label(Words.of("put.tell"), "form-name"), people);
        HBox.setHgrow(people, Priority.ALWAYS);
        tellRow.setAlignment(Pos.CENTER_LEFT);

        list.setId("arrivals");
        list.getStyleClass().add("points");
        list.setFixedCellSize(ROW);
        list.setCellFactory(v -> new ArrivalCell(model));
        list.setPlaceholder(Ui.label(Words.of("put.noArrivals"), "dim"));
        list.setAccessibleText(Words.of("put.arrivals"));
        list.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                putChosen();
            }
        });
        list.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER) {
                putChosen();
                e.consume();
            }
        });
        Button add = Ui.button(
                "put.addFolder",
                () -> folderAsk.get().ifPresent(f -> {
                    try {
                        model.addFolder(f.toPath());
                    } catch (IOException e) {
                        failed.accept(Failures.named(e));
                    }
                }),
                "flat",
                "small");
        add.setId("put-add-folder");
        HBox arrived = new HBox(8, Ui.label(Words.of("put.arrivals"), "small-title"), Ui.spacer(), add);
        arrived.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(list, Priority.ALWAYS);
        VBox body = new VBox(10, note, how, tellRow, arrived, list);
        body.getStyleClass().add("put-body");
        setCenter(body);

        put = Ui.button("put.go", this::putChosen, "accent");
        put.setId("put-go");
        put.disableProperty()
                .bind(list.getSelectionModel().selectedItemProperty().isNull());
        Button choose = Ui.button("put.choose", () -> fileAsk.get().ifPresent(f -> model.put(f.toPath(), hearer)));
        choose.setId("put-choose");
        Button back = Ui.button("protect.back", model::close, "flat");
        HBox buttons = new HBox(8, put, choose, Ui.spacer(), back);
        buttons.setAlignment(Pos.CENTER_LEFT);
        buttons.getStyleClass().add("sheet-footer");
        setBottom(buttons);

        list.getSelectionModel().selectedItemProperty().addListener((o, a, chosen) -> {
            Optional<Arrivals.Mail> mail = Optional.ofNullable(chosen).flatMap(Arrivals.Arrival::mail);
            // What came by mail stays in its message, and has its subject for a note.
            take.setDisable(mail.isPresent());
            note.setPromptText(
                    mail.map(Arrivals.Mail::subject).filter(w -> !w.isEmpty()).orElse(Words.of("put.notePrompt")));
        });
        model.arrivalsProperty().addListener((o, a, all) -> fill(all));
        model.peopleProperty().addListener((o, a, all) -> people(all));
        model.openProperty().addListener((o, a, is) -> {
            if (is) {
                title.setText(Words.of("put.title", RelativePath.name(model.path())));
                lookingEnds = model.every(AGAIN, model::look);
                javafx.application.Platform.runLater(note::requestFocus);
            } else {
                lookingEnds.run();
            }
        });
        people(List.of());
    }

    /** How a file is asked for. */
    public void setFileAsk(Supplier<Optional<File>> ask) {
        fileAsk = ask;
    }

    /** How a folder is asked for. */
    public void setFolderAsk(Supplier<Optional<File>> ask) {
        folderAsk = ask;
    }

    private void fill(List<Arrivals.Arrival> all) {
        Arrivals.Arrival before = list.getSelectionModel().getSelectedItem();
        list.getItems().setAll(all);
        if (before != null && all.contains(before)) {
            list.getSelectionModel().select(before);
        } else if (!all.isEmpty() && all.get(0).likely()) {
            list.getSelectionModel().select(0);
        }
    }

    private void people(List<String> all) {
        people.getChildren().clear();
        for (String name : all) {
            CheckBox box = new CheckBox(name);
            box.selectedProperty().addListener((o, a, on) -> model.tell(name, on));
            people.getChildren().add(box);
        }
        Ui.visible(tellRow, !all.isEmpty());
    }

    private void putChosen() {
        Arrivals.Arrival chosen = list.getSelectionModel().getSelectedItem();
        if (chosen != null) {
            model.put(chosen, hearer);
        }
    }
}
