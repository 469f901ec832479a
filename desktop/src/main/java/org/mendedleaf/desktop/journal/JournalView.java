package org.mendedleaf.desktop.journal;

import java.io.File;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.OpenPlace;
import org.mendedleaf.desktop.widgets.ActionRow;
import org.mendedleaf.desktop.widgets.Choices;
import org.mendedleaf.desktop.widgets.Tables;
import org.mendedleaf.desktop.widgets.Ui;

/** What happened, by whom, to which files; from there to the files, and back by undoing. */
public final class JournalView extends BorderPane {

    private final JournalModel model;
    private final TableView<JournalModel.Row> table = Tables.table("journal-table", "journal.none");
    private final TableView<Action.Item> files = Tables.table("journal-files", "journal.noFiles");
    private final Label count = Ui.label("", "dim");
    private final Label title = Ui.label("", "small-title");
    private final Button undo;
    private final Button show;
    private final BiConsumer<OpenPlace, Action> undoing;
    private final BiConsumer<OpenPlace, Action.Item> leading;

    /**
     * The screen.
     *
     * @param undoing undoes an action
     * @param leading leads to a file
     * @param saveAsk asks for a file to write
     */
    public JournalView(
            JournalModel model,
            BiConsumer<OpenPlace, Action> undoing,
            BiConsumer<OpenPlace, Action.Item> leading,
            Function<String, Optional<File>> saveAsk,
            Consumer<String> said) {
        this.model = model;
        this.undoing = undoing;
        this.leading = leading;
        setId("journal");
        getStyleClass().add("files");
        Button save = Ui.button(
                "journal.save",
                () -> saveAsk.apply(Words.of("journal.fileName"))
                        .ifPresent(f -> model.export(f.toPath(), () -> said.accept(Words.of("plan.saved", f)))));
        save.setId("journal-save");
        ActionRow narrow = new ActionRow(
                field("file", 14, model.fileProperty()),
                field("who", 12, model.whoProperty()),
                kinds(),
                field("since", 12, model.sinceProperty()));
        HBox head = new HBox(12, Ui.label(Words.of("journal.title"), "big-title"), Ui.spacer(), count, save);
        head.setAlignment(Pos.CENTER_LEFT);
        save.setMinWidth(USE_PREF_SIZE);

        Label problem = Ui.label("", "error-text");
        problem.setId("journal-problem");
        problem.textProperty().bind(model.problemProperty());
        problem.visibleProperty().bind(problem.textProperty().isNotEmpty());
        problem.managedProperty().bind(problem.visibleProperty());
        count.setId("journal-count");
        VBox top = new VBox(10, head, narrow, problem);
        top.getStyleClass().add("plan-top");
        setTop(top);
        columns();
        undo = Ui.button("journal.undo", this::undo, "accent");
        undo.setId("journal-undo");
        show = Ui.button("journal.show", this::lead);
        show.setId("journal-show");
        HBox actions = new HBox(12, undo, show);
        actions.setAlignment(Pos.CENTER_LEFT);
        title.setWrapText(true);
        title.setId("journal-entry");
        VBox detail = new VBox(10, title, files, actions);
        detail.getStyleClass().addAll("sheet", "mend-detail");
        detail.setPrefWidth(400);
        detail.setMinWidth(300);
        VBox.setVgrow(files, Priority.ALWAYS);
        VBox left = new VBox(table);
        left.getStyleClass().add("sheet");
        left.setMinWidth(0);
        VBox.setVgrow(table, Priority.ALWAYS);
        HBox.setHgrow(left, Priority.ALWAYS);
        HBox both = new HBox(16, left, detail);
        BorderPane.setMargin(both, new Insets(0, 24, 14, 24));
        setCenter(both);
        model.rowsProperty().addListener((o, a, rows) -> show(rows));
        table.getSelectionModel().selectedItemProperty().addListener((o, a, row) -> choose(row));
        files.getSelectionModel().selectedItemProperty().addListener((o, a, item) -> show.setDisable(item == null));
        files.setOnMouseClicked(e -> {
            if (e.getClickCount() == 2) {
                lead();
            }
        });
        table.setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ENTER) {
                lead();
                e.consume();
            }
        });
        choose(null);
    }

    /** Looks again, and gives the keys to the table. */
    public void begin() {
        model.reload();
        table.requestFocus();
    }

    private static TextField field(String name, int columns, javafx.beans.property.StringProperty to) {
        TextField field = new TextField();
        field.setId("journal-" + name);
        field.setPromptText(Words.of("journal." + name));
        field.setAccessibleText(Words.of("journal." + name));
        field.setPrefColumnCount(columns);
        field.textProperty().bindBidirectional(to);
        return field;
    }

    private ChoiceBox<String> kinds() {
        ChoiceBox<String> kinds = new ChoiceBox<>();
        kinds.setId("journal-kind");
        kinds.setAccessibleText(Words.of("journal.kind"));
        kinds.getItems().setAll(JournalModel.KINDS);
        kinds.setConverter(
                Choices.said(k -> Words.of("journal.kind." + (k.isEmpty() ? "all" : k)), Words.of("journal.kind.all")));
        kinds.valueProperty().bindBidirectional(model.kindProperty());
        return kinds;
    }

    private void columns() {
        table.getColumns()
                .add(Tables.words(
                        "journal.column.when",
                        Ui.moment(130),
                        r -> JournalWords.when(r, model.context()),
                        Comparator.comparing(r -> r.entry().at())));
        table.getColumns()
                .add(Tables.words(
                        "journal.column.who",
                        100,
                        r -> r.entry().who(),
                        Comparator.comparing(r -> r.entry().who())));
        table.getColumns()
                .add(Tables.words(
                        "journal.column.what", 330, JournalWords::what, Comparator.comparing(JournalWords::what)));
        table.getColumns()
                .add(Tables.words(
                        "journal.column.place",
                        120,
                        JournalModel.Row::place,
                        Comparator.comparing(JournalModel.Row::place)));
        files.getColumns()
                .add(Tables.words(
                        "journal.column.file", 220, JournalWords::shortly, Comparator.comparing(JournalWords::path)));
        files.getColumns()
                .add(Tables.words(
                        "journal.column.versions",
                        120,
                        JournalWords::versions,
                        Comparator.comparing(JournalWords::versions)));
    }

    private void show(List<JournalModel.Row> rows) {
        JournalModel.Row before = table.getSelectionModel().getSelectedItem();
        table.getItems().setAll(rows);
        count.setText(Words.of("journal.count", rows.size()));
        int at = 0;
        for (int i = 0; i < rows.size() && before != null; i++) {
            at = rows.get(i).entry().equals(before.entry()) ? i : at;
        }
        if (!rows.isEmpty()) {
            table.getSelectionModel().select(at);
        } else {
            choose(null);
        }
    }

    private void choose(JournalModel.@Nullable Row row) {
        title.setText(row == null ? "" : JournalWords.what(row));
        files.getItems().setAll(row == null ? List.of() : row.files());
        if (!files.getItems().isEmpty()) {
            files.getSelectionModel().selectFirst();
        }
        undo.setDisable(row == null || !row.undoable());
        show.setDisable(files.getItems().isEmpty());
    }

    private void undo() {
        JournalModel.Row row = table.getSelectionModel().getSelectedItem();
        if (row != null && row.undoable() && row.openPlace() != null) {
            undoing.accept(row.openPlace(), row.entry().action().orElseThrow());
        }
    }

    private void lead() {
        JournalModel.Row row = table.getSelectionModel().getSelectedItem();
        Action.Item item = files.getSelectionModel().getSelectedItem();
        if (row != null && row.openPlace() != null && item != null && item.line() != 0) {
            leading.accept(row.openPlace(), item);
        }
    }
}
