package org.mendedleaf.desktop.protection;

import java.io.File;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SplitPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.systems.Connection;
import org.mendedleaf.core.systems.Warning;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.widgets.KeptChildren;
import org.mendedleaf.desktop.widgets.KeptChildren.Child;
import org.mendedleaf.desktop.widgets.Ui;

/** The Protection screen: what calls for attention, the table of everything, and the selected place beside it. */
public final class ProtectionView extends StackPane {

    private static final int WARNINGS_SHOWN = 3;

    /** Of the height that the table and the vaults have together. */
    private static final double VAULTS_MOST = 0.45;

    private final ProtectionModel model;
    private Function<String, Optional<File>> saveAsk = name -> Optional.empty();
    private final BorderPane screen = new BorderPane();
    private final VBox warnings = new VBox(6);
    private final KeptChildren keptWarnings = new KeptChildren(warnings);
    private final Runnable protect;
    private final PlacePane pane;

    /**
     * The screen over this model.
     *
     * @param folderAsk asks for a folder, beginning at one
     * @param openFiles goes to the files of a place
     * @param show goes to a version that is damaged
     * @param protect goes to the sheet on which a folder is protected
     */
    public ProtectionView(
            ProtectionModel model,
            Function<File, Optional<File>> folderAsk,
            Consumer<OpenPlace> openFiles,
            BiConsumer<OpenPlace, VaultModel.Lost> show,
            Runnable protect) {
        this.model = model;
        this.protect = protect;
        getStyleClass().add("protection");
        Label title = Ui.label(Words.of("protection.title"), "big-title");
        Button folder = Ui.button("where.protect", protect);
        folder.setId("protect-folder-button");
        Button connect = Ui.button("protection.connect", () -> sheet(null));
        connect.setId("connect-system");
        Button report = Ui.button(
                "protection.report",
                () -> saveAsk.apply(Words.of("coverage.reportName")).ifPresent(f -> model.report(f.toPath())),
                "flat");
        report.setId("coverage-report");
        Label said = Ui.label("", "dim");
        said.setId("protection-said");
        said.setWrapText(true);
        said.textProperty().bind(model.saidProperty());
        said.visibleProperty().bind(said.textProperty().isNotEmpty());
        said.managedProperty().bind(said.visibleProperty());
        HBox head = new HBox(8, title, Ui.spacer(), report, folder, connect);
        head.setAlignment(Pos.CENTER_LEFT);
        warnings.setId("warnings");
        VBox top = new VBox(10, head, new ServiceRow(model.service(), model.tray()), said, warnings);
        top.getStyleClass().add("protection-top");
        CoverageTable table = new CoverageTable(model);
        BorderPane left = new BorderPane(table);
        ScrollPane vaults = new ScrollPane(new VaultBox(model.vaults(), folderAsk, show));
        vaults.setFitToWidth(true);
        vaults.getStyleClass().add("place-scroll");
        vaults.maxHeightProperty().bind(left.heightProperty().multiply(VAULTS_MOST));
        left.setBottom(vaults);
        left.getStyleClass().add("sheet");
        pane = new PlacePane(
                model, folderAsk, openFiles, protect, () -> model.connection().ifPresent(this::sheet));
        SplitPane split = new SplitPane(left, pane);
        split.setDividerPositions(0.53);
        split.getStyleClass().add("files-split");
        screen.setTop(top);
        screen.setCenter(split);
        getChildren().setAll(screen);
        model.warningsProperty().addListener((o, a, b) -> showWarnings());
        showWarnings();
        sceneProperty().subscribe(scene -> {
            if (scene != null) {
                model.service().load();
                model.tray().load();
            }
        });
    }

    /** Puts a way to ask for a file to write in place; it is given a name to begin with. */
    public void setSaveAsk(Function<String, Optional<File>> ask) {
        saveAsk = ask;
    }

    /** Puts a way to ask for words in place. */
    public void setNoteAsk(Function<String, Optional<String>> ask) {
        pane.setNoteAsk(ask);
    }

    /** The sheet on which a system is connected or a place is made. */
    private void sheet(@Nullable Connection connection) {
        getChildren().setAll(new ConnectView(model.context(), connection, () -> {
            getChildren().setAll(screen);
            model.reload();
        }));
    }

    private void showWarnings() {
        List<Child<?>> children = new ArrayList<>();
        var all = model.warningsProperty().get();
        all.stream().limit(WARNINGS_SHOWN).forEach(w -> children.add(Child.of(w, () -> warning(w))));
        String more = all.size() > WARNINGS_SHOWN
                ? Words.of("warning.more", all.size() - WARNINGS_SHOWN)
                : all.isEmpty() && !model.rowsProperty().get().isEmpty() ? Words.of("warning.none") : "";
        if (!more.isEmpty()) {
            children.add(Child.of(more, () -> Ui.label(more, "dim")));
        }
        keptWarnings.show(children);
    }

    private HBox warning(Warning w) {
        Label words = Ui.label(w.words(), "warning-words");
        words.setWrapText(true);
        HBox.setHgrow(words, Priority.ALWAYS);
        words.setMaxWidth(Double.MAX_VALUE);
        Button step = Ui.button("warning.step." + w.step(), () -> step(w), "small");
        step.setMinWidth(USE_PREF_SIZE);
        HBox line = new HBox(12, words, step);
        line.setAlignment(Pos.CENTER_LEFT);
        line.getStyleClass().add("warning");
        return line;
    }

    private void step(Warning w) {
        switch (w.step()) {
            case PROTECT -> protect.run();
            case RUN -> {
                model.select(w.row());
                model.run(w.row());
            }
            case SHOW, SETTINGS -> model.select(w.row());
        }
    }
}
