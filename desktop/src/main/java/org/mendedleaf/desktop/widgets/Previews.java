package org.mendedleaf.desktop.widgets;

import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison;
import org.mendedleaf.core.preview.Preview;
import org.mendedleaf.core.words.Words;

/** Previews of contents as nodes. */
public final class Previews {

    private static final int COLUMNS_MOST = 40;

    private Previews() {}

    /** Whether there is more than is shown. */
    public static boolean isCut(Preview preview) {
        return (preview instanceof Preview.Text t && t.cut()) || (preview instanceof Preview.Grid g && g.cut());
    }

    /** A preview as a node. */
    public static Node of(Preview preview) {
        if (preview instanceof Preview.Text text) {
            List<Comparison.TextChanges.Line> lines = new ArrayList<>();
            for (String each : text.lines()) {
                lines.add(new Comparison.TextChanges.Line(Comparison.Mark.SAME, 0, lines.size() + 1, each));
            }
            return lines(lines);
        }
        if (preview instanceof Preview.Grid grid) {
            return grid(grid.rows());
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

    /** Words in the place of a preview. */
    public static Node message(String text) {
        Label label = Ui.label(text, "dim", "centered");
        label.setWrapText(true);
        StackPane pane = new StackPane(label);
        pane.getStyleClass().add("detail-message");
        return pane;
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

    /** Lines of a text, each marked with what happened to it. */
    public static ListView<Comparison.TextChanges.Line> lines(List<Comparison.TextChanges.Line> all) {
        ListView<Comparison.TextChanges.Line> list = new ListView<>();
        list.getItems().setAll(all);
        list.getStyleClass().add("text-list");
        list.setFixedCellSize(20);
        list.setCellFactory(v -> new TextCell());
        for (int i = 0; i < all.size(); i++) {
            if (all.get(i).mark() != Comparison.Mark.SAME) {
                int first = Math.max(0, i - 1);
                javafx.application.Platform.runLater(() -> list.scrollTo(first));
                break;
            }
        }
        return list;
    }

    /** The sign of a mark. */
    public static String sign(Comparison.Mark mark) {
        return switch (mark) {
            case SAME -> "";
            case ADDED -> "+";
            case REMOVED -> "−";
            case CHANGED -> "~";
        };
    }

    /** The style class of a mark. */
    public static String style(Comparison.Mark mark) {
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
}
