package org.mendedleaf.desktop.files;

import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.preview.Preview;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Previews;
import org.mendedleaf.desktop.widgets.Ui;

/** What is shown of the chosen version: its content, its difference to now, or facts. */
final class DetailPane extends BorderPane {

    /** Equal lines or rows beyond so many around a change are folded. */
    private static final int AROUND = 3;

    private static final int COLUMNS_MOST = 40;

    private final LineModel line;
    private final NotesPane notes;
    private final Label title = Ui.label("", "detail-title");
    private final Label words = Ui.label("", "detail-words");

    DetailPane(LineModel line, NotesPane notes) {
        this.line = line;
        this.notes = notes;
        setId("detail");
        getStyleClass().add("detail");
        ToggleGroup group = new ToggleGroup();
        HBox modes = new HBox(
                toggle(group, "detail.preview", Detail.Mode.PREVIEW, "left-pill"),
                toggle(group, "detail.compare", Detail.Mode.COMPARE, "center-pill"),
                toggle(group, "detail.facts", Detail.Mode.FACTS, "center-pill"),
                toggle(group, "detail.notes", Detail.Mode.NOTES, "right-pill"));
        HBox.setHgrow(words, Priority.ALWAYS);
        title.setMinWidth(0);
        words.setMinWidth(USE_PREF_SIZE);
        HBox head = new HBox(8, modes, Ui.spacer(), title, words);
        head.setAlignment(Pos.CENTER_LEFT);
        head.getStyleClass().add("detail-head");
        setTop(head);
        line.detailProperty().addListener((o, a, detail) -> show(detail));
        show(line.detailProperty().get());
    }

    private ToggleButton toggle(ToggleGroup group, String key, Detail.Mode mode, String style) {
        ToggleButton button = new ToggleButton(Words.of(key));
        button.setToggleGroup(group);
        button.getStyleClass().addAll("small", style);
        button.setId(key.replace('.', '-'));
        button.setSelected(line.modeProperty().get() == mode);
        button.setMinWidth(USE_PREF_SIZE);
        button.setOnAction(e -> {
            button.setSelected(true);
            line.modeProperty().set(mode);
        });
        line.modeProperty().addListener((o, a, m) -> button.setSelected(m == mode));
        return button;
    }

    private void show(Detail detail) {
        title.setText("");
        words.setText("");
        if (detail instanceof Detail.Seen seen) {
            setCenter(preview(seen.preview()));
        } else if (detail instanceof Detail.Compared compared) {
            title.setText(compared.against());
            words.setText(compared.comparison().words());
            setCenter(comparison(compared.comparison()));
        } else if (detail instanceof Detail.Facts facts) {
            setCenter(facts(facts.facts()));
        } else if (detail instanceof Detail.Notes said) {
            setCenter(notes.show(said));
        } else if (detail instanceof Detail.Away away) {
            setCenter(away(away));
        } else if (detail instanceof Detail.Failed failed) {
            setCenter(Previews.message(failed.words()));
        } else {
            setCenter(Previews.message(""));
        }
    }

    private Node away(Detail.Away away) {
        Label label = Ui.label(away.words(), "dim", "centered");
        label.setWrapText(true);
        VBox box = new VBox(12, label);
        box.setAlignment(javafx.geometry.Pos.CENTER);
        box.getStyleClass().add("detail-message");
        if (line.canTake()) {
            javafx.scene.control.Button take = Ui.button("line.take", line::take);
            take.setId("take");
            box.getChildren().add(take);
        }
        return box;
    }

    private Node preview(Preview preview) {
        words.setText(Previews.isCut(preview) ? Words.of("detail.cut") : "");
        return Previews.of(preview);
    }

    private static Node facts(List<Detail.Fact> facts) {
        GridPane grid = new GridPane();
        grid.getStyleClass().add("facts");
        int row = 0;
        for (Detail.Fact fact : facts) {
            Label name = Ui.label(fact.name(), "dim");
            name.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
            TextField value = new TextField(fact.value());
            value.setEditable(false);
            value.getStyleClass().add("fact-value");
            value.setAccessibleText(fact.name());
            GridPane.setHgrow(value, Priority.ALWAYS);
            grid.addRow(row++, name, value);
        }
        ScrollPane scroll = new ScrollPane(grid);
        scroll.setFitToWidth(true);
        return scroll;
    }

    private static Node comparison(Comparison comparison) {
        if (comparison instanceof Comparison.TextChanges text) {
            return Previews.lines(foldLines(text.lines()));
        }
        if (comparison instanceof Comparison.TableChanges table) {
            return tableList(foldRows(table.rows()));
        }
        if (comparison instanceof Comparison.Equal) {
            return Previews.message(Words.of("detail.equal"));
        }
        return Previews.message(Words.of("detail.otherContent", comparison.words()));
    }

    private static List<Comparison.TextChanges.Line> foldLines(List<Comparison.TextChanges.Line> lines) {
        List<Comparison.TextChanges.Line> shown = new ArrayList<>();
        boolean[] keep = keep(lines.size(), i -> lines.get(i).mark() != Comparison.Mark.SAME);
        for (int i = 0; i < lines.size(); i++) {
            if (keep[i]) {
                shown.add(lines.get(i));
            } else {
                int from = i;
                while (i + 1 < lines.size() && !keep[i + 1]) {
                    i++;
                }
                shown.add(new Comparison.TextChanges.Line(
                        Comparison.Mark.SAME, 0, 0, Words.of("detail.sameLines", i - from + 1)));
            }
        }
        return shown;
    }

    private static List<Comparison.TableChanges.Row> foldRows(List<Comparison.TableChanges.Row> rows) {
        List<Comparison.TableChanges.Row> shown = new ArrayList<>();
        boolean[] keep = keep(rows.size(), i -> rows.get(i).mark() != Comparison.Mark.SAME);
        if (keep.length > 0) {
            // The names of the columns.
            keep[0] = true;
        }
        for (int i = 0; i < rows.size(); i++) {
            if (keep[i]) {
                shown.add(rows.get(i));
            } else {
                int from = i;
                while (i + 1 < rows.size() && !keep[i + 1]) {
                    i++;
                }
                List<String> fold = List.of(Words.of("detail.sameRows", i - from + 1));
                shown.add(new Comparison.TableChanges.Row(Comparison.Mark.SAME, 0, fold, fold));
            }
        }
        return shown;
    }

    private static boolean[] keep(int size, java.util.function.IntPredicate changed) {
        boolean[] keep = new boolean[size];
        for (int i = 0; i < size; i++) {
            if (changed.test(i)) {
                for (int k = Math.max(0, i - AROUND); k <= Math.min(size - 1, i + AROUND); k++) {
                    keep[k] = true;
                }
            }
        }
        return keep;
    }

    /** Two tables as one: what changed in a cell stands in it, then and now. */
    private static TableView<Comparison.TableChanges.Row> tableList(List<Comparison.TableChanges.Row> rows) {
        TableView<Comparison.TableChanges.Row> table = new TableView<>();
        table.getStyleClass().addAll("grid-table", "dense", "compare-table");
        TableColumn<Comparison.TableChanges.Row, Comparison.TableChanges.Row> mark = new TableColumn<>("");
        mark.setSortable(false);
        mark.setPrefWidth(30);
        mark.setCellValueFactory(f -> new ReadOnlyObjectWrapper<>(f.getValue()));
        mark.setCellFactory(c -> new RowCell(-1));
        table.getColumns().add(mark);
        int columns = rows.stream()
                .mapToInt(r -> Math.max(r.before().size(), r.after().size()))
                .max()
                .orElse(0);
        List<String> head = rows.isEmpty() || rows.get(0).mark() != Comparison.Mark.SAME
                ? List.of()
                : rows.get(0).after();
        for (int i = 0; i < Math.min(COLUMNS_MOST, columns); i++) {
            TableColumn<Comparison.TableChanges.Row, Comparison.TableChanges.Row> c =
                    new TableColumn<>(i < head.size() ? head.get(i) : "");
            int column = i;
            c.setSortable(false);
            c.setPrefWidth(110);
            c.setCellValueFactory(f -> new ReadOnlyObjectWrapper<>(f.getValue()));
            c.setCellFactory(x -> new RowCell(column));
            table.getColumns().add(c);
        }
        if (columns <= 6) {
            table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
            mark.setMaxWidth(30);
            mark.setMinWidth(30);
        }
        table.getItems().setAll(head.isEmpty() ? rows : rows.subList(1, rows.size()));
        table.setFixedCellSize(24);
        for (int i = 0; i < table.getItems().size(); i++) {
            if (table.getItems().get(i).mark() != Comparison.Mark.SAME) {
                int first = Math.max(0, i - 1);
                // Once it is laid out; before that there is nothing to scroll.
                javafx.application.Platform.runLater(() -> table.scrollTo(first));
                break;
            }
        }
        return table;
    }

    private static final class RowCell extends TableCell<Comparison.TableChanges.Row, Comparison.TableChanges.Row> {
        private final int column;

        RowCell(int column) {
            this.column = column;
        }

        @Override
        protected void updateItem(Comparison.TableChanges.@Nullable Row row, boolean empty) {
            super.updateItem(row, empty);
            for (Comparison.Mark mark : Comparison.Mark.values()) {
                Ui.style(this, Previews.style(mark), false);
            }
            Ui.style(this, "cell-changed", false);
            if (empty || row == null) {
                setText("");
                return;
            }
            if (row.mark() != Comparison.Mark.CHANGED) {
                Ui.style(this, Previews.style(row.mark()), true);
            }
            if (column < 0) {
                setText(Previews.sign(row.mark()));
                return;
            }
            List<String> cells = row.mark() == Comparison.Mark.REMOVED ? row.before() : row.after();
            String now = column < cells.size() ? cells.get(column) : "";
            if (row.isChanged(column)) {
                String then = column < row.before().size() ? row.before().get(column) : "";
                setText(then + " → " + now);
                Ui.style(this, "cell-changed", true);
            } else {
                setText(now);
            }
        }
    }
}
