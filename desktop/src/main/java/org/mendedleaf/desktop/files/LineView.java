package org.mendedleaf.desktop.files;

import java.io.File;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.ObservableValue;
import javafx.geometry.Orientation;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.SplitPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Shapes;
import org.mendedleaf.desktop.widgets.Ui;

/** The line of the selected file, what is known of the chosen version, and what can be done with it. */
final class LineView extends StackPane {

    private final FilesModel model;
    private final LineModel line;
    private final Label title = Ui.label("", "line-title");
    private final Label state = Ui.label("", "line-state");
    private final Label summary = Ui.label("", "line-summary");
    private final ListView<LineRow> points = new ListView<>();
    private final LineFooter footer;
    private final WorkBar work;
    private final PutPane putPane;
    private final BorderPane content = new BorderPane();
    /** A pane that is lower has not been laid out yet. Pixels. */
    private static final double ROOM = 200;

    private final SplitPane split = new SplitPane();
    private final VBox nothing = new VBox(10);
    private boolean filling;

    LineView(FilesModel model) {
        this.model = model;
        this.line = model.line();
        this.footer = new LineFooter(model);
        getStyleClass().add("sheet");
        nothing.getStyleClass().add("nothing");
        nothing.setAlignment(Pos.CENTER);
        nothing.getChildren().addAll(Shapes.mark(), wrapped("line.nothing"));

        title.setId("line-title");
        HBox head = new HBox(8, title, Ui.spacer(), state);
        head.setAlignment(Pos.BASELINE_LEFT);
        work = new WorkBar(line, model.lineActions(), model.routes()::straysOfFile);
        VBox header = new VBox(4, head, summary, work);
        header.getStyleClass().add("sheet-header");
        summary.setWrapText(true);

        points.setId("points");
        points.getStyleClass().add("points");
        points.setFixedCellSize(PointCell.HEIGHT);
        points.setCellFactory(v -> new LineCell(model.context()));
        points.setAccessibleText(Words.of("line.name"));
        points.getSelectionModel().selectedItemProperty().addListener((o, a, row) -> chosen(row));
        points.setOnMouseClicked(e -> {
            unfold();
            if (e.getClickCount() == 2 && e.getButton() == javafx.scene.input.MouseButton.PRIMARY) {
                read();
            }
        });
        points.setOnKeyPressed(e -> {
            if (e.isControlDown() || e.isAltDown()) {
                return;
            }
            if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) {
                unfold();
            }
            if (e.getCode() == KeyCode.ENTER) {
                read();
            }
        });

        DetailPane detail = new DetailPane(line, new NotesPane(model.lineActions()));
        split.getItems().addAll(points, detail);
        split.setOrientation(Orientation.VERTICAL);
        split.setDividerPositions(0.5);
        points.setMinHeight(2.6 * PointCell.HEIGHT);
        split.getStyleClass().add("line-split");

        content.setTop(header);
        content.setCenter(split);
        content.setBottom(footer);
        putPane =
                new PutPane(model.intake().putting(), model.intake().hearer(), words -> model.say(words, false, true));
        putPane.visibleProperty().bind(model.intake().putting().openProperty());
        putPane.managedProperty().bind(putPane.visibleProperty());
        model.intake()
                .putting()
                .openProperty()
                .addListener((o, a, is) -> show(line.lineProperty().get()));
        getChildren().addAll(nothing, content, putPane);
        takeDrops();

        line.lineProperty().addListener((o, a, l) -> {
            show(l);
            // The version of the moment that is looked at is chosen, once the model has chosen its newest.
            if (l != null && model.momentProperty().get() != null && (a == null || a.id() != l.id())) {
                javafx.application.Platform.runLater(this::followMoment);
            }
        });
        line.rowsProperty().addListener((o, a, rows) -> fill(rows));
        line.mergedProperty().addListener((o, a, m) -> {
            show(line.lineProperty().get());
            chosenChanged();
        });
        line.chosenProperty().addListener((o, a, v) -> chosenChanged());
        line.saidProperty().addListener((o, a, v) -> chosenChanged());
        model.momentProperty().addListener((o, a, b) -> followMoment());
        show(null);
    }

    /** A file dropped here is the next version of the file that is shown. */
    private void takeDrops() {
        setOnDragOver(e -> {
            if (e.getDragboard().hasFiles() && line.lineProperty().get() != null) {
                e.acceptTransferModes(TransferMode.COPY);
            }
            e.consume();
        });
        setOnDragEntered(e -> Ui.style(this, "drop-here", e.getDragboard().hasFiles() && line.lineId() != 0));
        setOnDragExited(e -> Ui.style(this, "drop-here", false));
        setOnDragDropped(e -> {
            List<File> files = e.getDragboard().getFiles();
            boolean one = files.size() == 1 && files.get(0).isFile();
            e.setDropCompleted(one);
            e.consume();
            if (one) {
                model.intake().putOnto(files.get(0).toPath(), line.path());
            } else {
                model.say(Words.of("line.dropOne"), false, true);
            }
        });
    }

    private static Label wrapped(String key) {
        Label label = Ui.label(Words.of(key), "dim", "centered");
        label.setWrapText(true);
        label.setMaxWidth(300);
        return label;
    }

    void setFolderAsk(Supplier<Optional<File>> ask) {
        putPane.setFolderAsk(ask);
        footer.setFolderAsk(ask);
    }

    /** Asks for words, with this question; empty when they do not want to after all. */
    void setSaveAsk(Function<String, Optional<File>> ask) {
        footer.setSaveAsk(ask);
    }

    void setNoteAsk(Function<String, Optional<String>> ask) {
        work.setNoteAsk(ask);
        footer.setNoteAsk(ask);
    }

    /** Asks for a file to put in. */
    void setFileAsk(Supplier<Optional<File>> ask) {
        putPane.setFileAsk(ask);
    }

    private void show(@Nullable Line l) {
        Ui.visible(
                content, l != null && !model.intake().putting().openProperty().get());
        Ui.visible(nothing, l == null);
        if (l == null) {
            return;
        }
        title.setText(l.name());
        Ui.tooltip(title, l.path());
        Instant now = model.context().clock().instant();
        boolean gone = l.removed().isPresent();
        state.setText(l.removed()
                .map(r -> Words.of(
                        "removed.when", Formats.moment(r, now, model.context().zone())))
                .orElse(""));
        Ui.style(state, "clay-text", gone);
        List<Version> versions = l.versions();
        String since = versions.isEmpty()
                ? ""
                : Formats.day(
                        versions.get(versions.size() - 1).captured(),
                        now,
                        model.context().zone());
        String facts = Words.of(
                l.place().isOutside() ? "line.factsOutside" : "line.facts",
                l.versionsHere(),
                since,
                Formats.size(l.bytes()),
                keptWords());
        List<String> others = line.mergedProperty().get() == null
                ? List.of()
                : line.mergedProperty().get().others().stream()
                        .map(o -> o.place().label())
                        .distinct()
                        .toList();
        summary.setText(others.isEmpty() ? facts : facts + " · " + Words.of("line.also", String.join(", ", others)));
    }

    /** What the rules say of the line as a whole. */
    private String keptWords() {
        LineRemarks said = line.saidProperty().get();
        return said == null ? "" : said.verdicts().summary();
    }

    private void fill(List<LineRow> rows) {
        filling = true;
        points.getItems().setAll(rows);
        select(line.chosenProperty().get());
        filling = false;
    }

    private void select(@Nullable Version version) {
        for (int i = 0; version != null && i < points.getItems().size(); i++) {
            if (points.getItems().get(i) instanceof LineRow.OfVersion v && same(v.version(), version)) {
                points.getSelectionModel().select(i);
                // In sight, with what came after it above.
                points.scrollTo(Math.max(0, i - 2));
                return;
            }
        }
        points.getSelectionModel().clearSelection();
    }

    private static boolean same(Version a, Version b) {
        return a.line() == b.line() && a.number() == b.number();
    }

    private void chosen(@Nullable LineRow row) {
        if (!filling && row instanceof LineRow.OfVersion v) {
            line.choose(v.version());
        }
    }

    private void read() {
        if (points.getSelectionModel().getSelectedItem() instanceof LineRow.OfVersion) {
            model.reading().open();
        }
    }

    /** Gives the points the keys. */
    void focusPoints() {
        points.requestFocus();
    }

    private void unfold() {
        if (points.getSelectionModel().getSelectedItem() instanceof LineRow.Folded f) {
            line.unfold(f.key());
        }
    }

    /** When the moment goes, the version that was current then is chosen. */
    private void followMoment() {
        Instant at = model.momentProperty().get();
        Line l = line.lineProperty().get();
        if (l == null) {
            return;
        }
        Optional<Version> then = l.versions().stream()
                .filter(v -> at == null || !v.saved().isAfter(at))
                .findFirst();
        then.ifPresent(line::choose);
    }

    private void chosenChanged() {
        Version v = line.chosenProperty().get();
        if (v != null && line.lineProperty().get() != null) {
            boolean shown = points.getSelectionModel().getSelectedItem() instanceof LineRow.OfVersion row
                    && same(row.version(), v);
            if (!shown) {
                filling = true;
                select(v);
                filling = false;
            }
        }
        footer.show();
    }

    /** What can be done with the chosen version. */
    LineFooter footer() {
        return footer;
    }

    /** Where the divider between line and content stands, 0 to 1. */
    double divider() {
        return split.getDividerPositions()[0];
    }

    /** Puts it, once there is space to put it in: before that the layout would move it away again. */
    void divider(double position) {
        split.setDividerPositions(position);
        if (split.getHeight() < ROOM) {
            split.heightProperty().addListener(new ChangeListener<>() {
                @Override
                public void changed(ObservableValue<? extends Number> o, Number before, Number height) {
                    if (height.doubleValue() >= ROOM) {
                        split.heightProperty().removeListener(this);
                        Platform.runLater(() -> split.setDividerPositions(position));
                    }
                }
            });
        }
    }

    /** Whether the keys are among the points of the line. */
    boolean hasKeys() {
        return points.isFocused();
    }
}
