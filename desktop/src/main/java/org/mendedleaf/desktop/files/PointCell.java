package org.mendedleaf.desktop.files;

import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.SVGPath;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.Origin;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.widgets.Shapes;
import org.mendedleaf.desktop.widgets.Ui;

/** A row of a drawn line: the stem that joins from row to row, the shape of the point on it, and what is said beside it. */
abstract class PointCell extends ListCell<LineRow> {

    /** All rows have this height, so that the stem joins from row to row. */
    static final double HEIGHT = 44;

    /** Where the points are, from the upper edge of their row. */
    static final double MIDDLE = 15;

    final AppContext context;
    final Label number = Ui.label("", "point-number");
    final Label when = Ui.label("", "point-when");
    final Label change = Ui.label("", "point-change");

    private final double stem;
    private final Pane drawing = new Pane();
    private final HBox box;

    /**
     * An empty row.
     *
     * @param gap between the parts, pixels
     * @param stem how far from the left the stem is, pixels
     * @param width of all that is drawn, pixels
     */
    PointCell(AppContext context, double gap, double stem, double width) {
        this.context = context;
        this.stem = stem;
        drawing.setMinSize(width, HEIGHT);
        drawing.setMaxSize(width, HEIGHT);
        when.setMinWidth(Region.USE_PREF_SIZE);
        box = new HBox(gap, drawing);
        box.setAlignment(Pos.CENTER_LEFT);
        getStyleClass().add("line-cell");
        setPrefWidth(0);
    }

    /** Puts these beside what is drawn. */
    final void beside(Node... parts) {
        box.getChildren().addAll(parts);
    }

    /** Takes away what the row before said. */
    abstract void clear();

    abstract void version(LineRow.OfVersion row);

    abstract void event(Event event);

    abstract void folded(LineRow.Folded folded);

    /** What runs beside the stem in this row, as an SVG path; empty when nothing does. */
    abstract String beside(LineRow row);

    /** The style class of that. */
    abstract String besideStyle();

    /** The labels in the order in which they are read out. */
    abstract Stream<Label> readOut();

    @Override
    protected final void updateItem(@Nullable LineRow row, boolean empty) {
        super.updateItem(row, empty);
        setText(null);
        Ui.style(this, "fold-cell", row instanceof LineRow.Folded);
        if (empty || row == null) {
            setGraphic(null);
            setAccessibleText("");
            return;
        }
        number.setText("");
        clear();
        if (row instanceof LineRow.OfVersion v) {
            Version version = v.version();
            number.setText(v.heldBy().foreign().isEmpty() ? v.label() : "");
            when.setText(Formats.moment(version.saved(), context.clock().instant(), context.zone()));
            Ui.tooltip(when, Formats.exact(version.saved(), context.zone()));
            version(v);
        } else if (row instanceof LineRow.OfEvent e) {
            when.setText(Formats.moment(e.event().at(), context.clock().instant(), context.zone()));
            Ui.tooltip(when, Formats.exact(e.event().at(), context.zone()));
            event(e.event());
        } else if (row instanceof LineRow.Folded f) {
            when.setText(Words.of("line.folded", f.count(), f.day()));
            Ui.tooltip(when, null);
            folded(f);
        }
        draw(row);
        setGraphic(box);
        setAccessibleText(readOut().map(Label::getText).collect(Collectors.joining(", ")));
    }

    private void draw(LineRow row) {
        drawing.getChildren().clear();
        boolean first = getIndex() == 0;
        boolean last =
                getListView() != null && getIndex() == getListView().getItems().size() - 1;
        Region line = new Region();
        line.getStyleClass().add("stem");
        line.resizeRelocate(stem - 1.5, first ? MIDDLE : 0, 3, last ? MIDDLE : HEIGHT - (first ? MIDDLE : 0));
        line.setManaged(false);
        drawing.getChildren().add(line);
        String path = beside(row);
        if (!path.isEmpty()) {
            SVGPath drawn = new SVGPath();
            drawn.setContent(path);
            drawn.getStyleClass().add(besideStyle());
            drawing.getChildren().add(drawn);
        }
        Node shape = shape(row);
        if (shape != null) {
            boolean event = row instanceof LineRow.OfEvent;
            shape.setLayoutX(stem - (event ? 8 : 4));
            shape.setLayoutY(MIDDLE - (event ? 8 : 9));
            drawing.getChildren().add(shape);
        }
    }

    private static @Nullable Node shape(LineRow row) {
        if (row instanceof LineRow.OfVersion v) {
            if (!v.heldBy().foreign().isEmpty()) {
                return Shapes.awayLeaf();
            }
            if (v.version().edition().isDraft() || v.heldBy().label().contains(".")) {
                return Shapes.draftLeaf();
            }
            return v.version().origin() == Origin.RESTORED ? Shapes.mendedLeaf() : Shapes.leaf();
        }
        if (row instanceof LineRow.OfEvent e) {
            return e.event().kind() == EventKind.REMOVED ? Shapes.cut() : Shapes.notch();
        }
        return null;
    }
}
