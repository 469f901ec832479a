package org.mendedleaf.desktop.files;

import java.util.function.IntFunction;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.SVGPath;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.widgets.Ui;

/** A row of the narrow stem beside a content: the point, when it was, and what changed there. */
final class StemCell extends ListCell<LineRow> {

    static final double HEIGHT = 44;

    private static final double STEM = 19;
    private static final double TIE = 4;
    private static final double MIDDLE = 15;

    /** How the tie between equal contents runs past a row. */
    enum Tie {
        /** It does not. */
        NONE,
        /** It begins here, at the later one. */
        BEGINS,
        /** It runs past. */
        PAST,
        /** It ends here, at the earlier one. */
        ENDS,
        /** One ends here and the next begins. */
        THROUGH
    }

    private final AppContext context;
    private final IntFunction<Tie> ties;
    private final Pane drawing = new Pane();
    private final Label number = Ui.label("", "point-number");
    private final Label when = Ui.label("", "point-when");
    private final Label change = Ui.label("", "point-change");
    private final Label who = Ui.label("", "point-what");
    private final HBox box;

    StemCell(AppContext context, IntFunction<Tie> ties) {
        this.context = context;
        this.ties = ties;
        drawing.setMinSize(STEM + 12, HEIGHT);
        drawing.setMaxSize(STEM + 12, HEIGHT);
        who.setMinWidth(0);
        change.setMinWidth(0);
        when.setMinWidth(Region.USE_PREF_SIZE);
        number.setMinWidth(Region.USE_PREF_SIZE);
        HBox first = new HBox(8, number, when, who);
        first.setAlignment(Pos.CENTER_LEFT);
        VBox words = new VBox(1, first, change);
        words.setAlignment(Pos.CENTER_LEFT);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        box = new HBox(4, drawing, words);
        box.setAlignment(Pos.CENTER_LEFT);
        getStyleClass().add("line-cell");
        setPrefWidth(0);
    }

    @Override
    protected void updateItem(@Nullable LineRow row, boolean empty) {
        super.updateItem(row, empty);
        setText(null);
        Ui.style(this, "fold-cell", row instanceof LineRow.Folded);
        if (empty || row == null) {
            setGraphic(null);
            setAccessibleText("");
            return;
        }
        number.setText("");
        who.setText("");
        if (row instanceof LineRow.OfVersion v) {
            version(v);
        } else if (row instanceof LineRow.OfEvent e) {
            when.setText(Formats.moment(e.event().at(), context.clock().instant(), context.zone()));
            change.setText(Words.of(
                    "event." + e.event().kind(), e.event().from(), e.event().to()));
        } else if (row instanceof LineRow.Folded f) {
            when.setText(Words.of("line.folded", f.count(), f.day()));
            change.setText(Words.of("line.unfold"));
        }
        Ui.tooltip(change, change.getText());
        draw(row);
        setGraphic(box);
        setAccessibleText(String.join(", ", number.getText(), when.getText(), who.getText(), change.getText()));
    }

    private void version(LineRow.OfVersion row) {
        Version v = row.version();
        number.setText(row.heldBy().foreign().isEmpty() ? row.label() : "");
        when.setText(Formats.moment(v.saved(), context.clock().instant(), context.zone()));
        Ui.tooltip(when, Formats.exact(v.saved(), context.zone()));
        who.setText(v.who());
        String heldBy = row.kept().style().equals("badge-gold") ? row.kept().words() : "";
        boolean bad = !row.trouble().isEmpty();
        String words = bad ? row.trouble() : row.change().isEmpty() ? row.words() : row.change();
        change.setText(heldBy.isEmpty() ? words : words + " · " + heldBy);
        Ui.style(change, "clay-text", bad || v.size() == 0 && !row.change().isEmpty());
    }

    private void draw(LineRow row) {
        drawing.getChildren().clear();
        boolean first = getIndex() == 0;
        boolean last =
                getListView() != null && getIndex() == getListView().getItems().size() - 1;
        Region stem = new Region();
        stem.getStyleClass().add("stem");
        stem.resizeRelocate(STEM - 1.5, first ? MIDDLE : 0, 3, last ? MIDDLE : HEIGHT - (first ? MIDDLE : 0));
        stem.setManaged(false);
        drawing.getChildren().add(stem);
        String tie = switch (ties.apply(getIndex())) {
            case NONE -> "";
            case BEGINS -> "M%s %s L%s %s L%s %s".formatted(STEM - 8, MIDDLE, TIE, MIDDLE, TIE, HEIGHT);
            case PAST -> "M%s 0 L%s %s".formatted(TIE, TIE, HEIGHT);
            case ENDS -> "M%s 0 L%s %s L%s %s".formatted(TIE, TIE, MIDDLE, STEM - 8, MIDDLE);
            case THROUGH -> "M%s 0 L%s %s M%s %s L%s %s".formatted(TIE, TIE, HEIGHT, TIE, MIDDLE, STEM - 8, MIDDLE);
        };
        if (!tie.isEmpty()) {
            SVGPath path = new SVGPath();
            path.setContent(tie);
            path.getStyleClass().add("equal-tie");
            drawing.getChildren().add(path);
        }
        Node shape = LineCell.shape(row);
        if (shape != null) {
            boolean event = row instanceof LineRow.OfEvent;
            shape.setLayoutX(STEM - (event ? 8 : 4));
            shape.setLayoutY(MIDDLE - (event ? 8 : 9));
            drawing.getChildren().add(shape);
        }
    }
}
