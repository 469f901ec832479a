package org.mendedleaf.desktop.files;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.preview.Preview;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** What is shown of the chosen version: its content, its difference to now, or facts. */
final class DetailPane extends BorderPane {

    /** Equal lines or rows beyond so many around a change are folded. */
    private static final int AROUND = 3;

    private static final int COLUMNS_MOST = 40;

    private final LineModel line;
    private final Label title = Ui.label("", "detail-title");
    private final Label words = Ui.label("", "detail-words");

    DetailPane(LineModel line) {
        this.line = line;
        setId("detail");
        getStyleClass().add("detail");
        ToggleGroup group = new ToggleGroup();
        HBox modes = new HBox(
                toggle(group, "detail.preview", Detail.Mode.PREVIEW, "left-pill"),
                toggle(group, "detail.compare", Detail.Mode.COMPARE, "center-pill"),
                toggle(group, "detail.facts", Detail.Mode.FACTS, "right-pill"));
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
        } else if (detail instanceof Detail.Away away) {
            setCenter(away(away));
        } else if (detail instanceof Detail.Failed failed) {
            setCenter(message(failed.words()));
        } else {
            setCenter(message(""));
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

    private static Node message(String text) {
        Label label = Ui.label(text, "dim", "centered");
        label.setWrapText(true);
        StackPane pane = new StackPane(label);
        pane.getStyleClass().add("detail-message");
        return pane;
    }

    private Node preview(Preview preview) {
        if (preview instanceof Preview.Text text) {
            List<Comparison.TextChanges.Line> lines = new ArrayList<>();
            for (String each : text.lines()) {
                lines.add(new Comparison.TextChanges.Line(Comparison.Mark.SAME, 0, lines.size() + 1, each));
            }
            return withCut(textList(lines), text.cut());
        }
        if (preview instanceof Preview.Grid grid) {
            return withCut(grid(grid.rows()), grid.cut());
        }
        if (preview instanceof Preview.Picture picture) {
            return picture(picture.bytes());
        }
        if (preview instanceof Preview.Facts facts) {
            Label type = Ui.label(Words.of("detail.noPreview", facts.mediaType()), "dim");
            type.setWrapText(true);
            VBox box = new VBox(8, type);
            facts.hex().forEach(h -> box.getChildren().add(Ui.label(h, "mono", "hex")));
            ScrollPane scroll = new ScrollPane(box);
            box.getStyleClass().add("detail-body");
            scroll.setFitToWidth(true);
            return scroll;
        }
        return message(Words.of("detail.empty"));
    }

    private Node withCut(Node node, boolean cut) {
        if (cut) {
            words.setText(Words.of("detail.cut"));
        }
        return node;
    }

    private static Node picture(byte[] bytes) {
        Image image = new Image(new ByteArrayInputStream(bytes));
        if (image.isError()) {
            return message(Words.of("detail.badPicture"));
        }
        ImageView view = new ImageView(image);
        view.setPreserveRatio(true);
        view.setSmooth(true);
        StackPane pane = new StackPane(view);
        pane.getStyleClass().add("detail-picture");
        pane.setMinSize(0, 0);
        view.fitWidthProperty()
                .bind(javafx.beans.binding.Bindings.min(
                        image.getWidth(), pane.widthProperty().subtract(32)));
        view.fitHeightProperty()
                .bind(javafx.beans.binding.Bindings.min(
                        image.getHeight(), pane.heightProperty().subtract(24)));
        return pane;
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
            return textList(foldLines(text.lines()));
        }
        if (comparison instanceof Comparison.TableChanges table) {
            return tableList(foldRows(table.rows()));
        }
        if (comparison instanceof Comparison.Equal) {
            return message(Words.of("detail.equal"));
        }
        return message(Words.of("detail.otherContent", comparison.words()));
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

    private static ListView<Comparison.TextChanges.Line> textList(List<Comparison.TextChanges.Line> lines) {
        ListView<Comparison.TextChanges.Line> list = new ListView<>();
        list.getItems().setAll(lines);
        list.getStyleClass().add("text-list");
        list.setFixedCellSize(20);
        list.setCellFactory(v -> new TextCell());
        for (int i = 0; i < lines.size(); i++) {
            if (lines.get(i).mark() != Comparison.Mark.SAME) {
                int first = Math.max(0, i - 1);
                javafx.application.Platform.runLater(() -> list.scrollTo(first));
                break;
            }
        }
        return list;
    }

    private static String sign(Comparison.Mark mark) {
        return switch (mark) {
            case SAME -> "";
            case ADDED -> "+";
            case REMOVED -> "−";
            case CHANGED -> "~";
        };
    }

    private static String style(Comparison.Mark mark) {
        return "mark-" + mark.name().toLowerCase(java.util.Locale.ROOT);
    }

    private static final class TextCell extends ListCell<Comparison.TextChanges.Line> {
        private final Label sign = Ui.label("", "mono", "gutter-sign");
        private final Label number = Ui.label("", "mono", "gutter");
        private final Label text = Ui.label("", "mono");
        private final HBox box = new HBox(8, sign, number, text);

        @Override
        protected void updateItem(Comparison.TextChanges.@Nullable Line line, boolean empty) {
            super.updateItem(line, empty);
            for (Comparison.Mark mark : Comparison.Mark.values()) {
                Ui.style(this, style(mark), line != null && !empty && line.mark() == mark);
            }
            if (empty || line == null) {
                setGraphic(null);
                return;
            }
            boolean fold = line.before() == 0 && line.after() == 0;
            int shown = line.after() > 0 ? line.after() : line.before();
            number.setText(fold ? "" : Integer.toString(shown));
            sign.setText(sign(line.mark()));
            text.setText(line.text().replace("\t", "    "));
            Ui.style(text, "dim", fold);
            setGraphic(box);
        }
    }

    /** A table as it is: the first row names the columns. */
    private static TableView<List<String>> grid(List<List<String>> rows) {
        TableView<List<String>> table = new TableView<>();
        table.getStyleClass().addAll("grid-table", "dense");
        List<String> head = rows.isEmpty() ? List.of() : rows.get(0);
        for (int i = 0; i < Math.min(COLUMNS_MOST, head.size()); i++) {
            int column = i;
            TableColumn<List<String>, String> c = new TableColumn<>(head.get(i));
            c.setSortable(false);
            c.setCellValueFactory(f -> new ReadOnlyObjectWrapper<>(
                    column < f.getValue().size() ? f.getValue().get(column) : ""));
            boolean numbers = rows.stream()
                    .skip(1)
                    .limit(50)
                    .allMatch(r -> column < r.size() && r.get(column).matches("-?[\\d.,]*"));
            if (numbers) {
                c.getStyleClass().add("right");
            }
            table.getColumns().add(c);
        }
        if (head.size() <= 6) {
            table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        }
        table.getItems().setAll(rows.stream().skip(1).toList());
        table.setFixedCellSize(24);
        return table;
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
                Ui.style(this, style(mark), false);
            }
            Ui.style(this, "cell-changed", false);
            if (empty || row == null) {
                setText("");
                return;
            }
            if (row.mark() != Comparison.Mark.CHANGED) {
                Ui.style(this, style(row.mark()), true);
            }
            if (column < 0) {
                setText(sign(row.mark()));
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
