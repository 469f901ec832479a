package org.mendedleaf.desktop.files;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
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

/** One row of a drawn line: the stem with the shape of the point, and what it was in words. */
final class LineCell extends ListCell<LineRow> {

    /** All rows have this height, so that the stem and the thread of mending join from row to row. */
    static final double HEIGHT = 44;

    private static final double STEM = 38;
    private static final double THREAD = 12;
    private static final double MIDDLE = 15;

    private final AppContext context;
    private final Pane drawing = new Pane();
    private final Label number = Ui.label("", "point-number");
    private final Label when = Ui.label("", "point-when");
    private final Label what = Ui.label("", "point-what");
    private final Label change = Ui.label("", "point-change");
    private final Label size = Ui.label("", "point-size");
    private final Label holders = Ui.label("", "point-what", "holders");
    private final Label kept = Ui.label("", "badge", "holders");
    private final HBox box;

    LineCell(AppContext context) {
        this.context = context;
        drawing.setMinSize(STEM + 18, HEIGHT);
        drawing.setMaxSize(STEM + 18, HEIGHT);
        number.setMinWidth(34);
        // Until when it stays is said beside its time, who holds it beside who made it: neither pushes the other out.
        holders.setMinWidth(0);
        kept.setMinWidth(Region.USE_PREF_SIZE);
        HBox first = new HBox(8, when, kept);
        first.setAlignment(Pos.CENTER_LEFT);
        when.setMinWidth(Region.USE_PREF_SIZE);
        HBox second = new HBox(6, what, holders);
        second.setAlignment(Pos.CENTER_LEFT);
        what.setMinWidth(0);
        VBox words = new VBox(1, first, second);
        words.setAlignment(Pos.CENTER_LEFT);
        words.setMinWidth(0);
        HBox.setHgrow(words, javafx.scene.layout.Priority.ALWAYS);
        change.setMinWidth(Region.USE_PREF_SIZE);
        VBox right = new VBox(1, size, change);
        right.setAlignment(Pos.CENTER_RIGHT);
        right.setMinWidth(Region.USE_PREF_SIZE);
        box = new HBox(8, drawing, number, words, right);
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
        holders.setText("");
        Ui.visible(holders, false);
        Ui.visible(kept, false);
        kept.setText("");
        change.setText("");
        size.setText("");
        change.getStyleClass().removeAll("clay-text");
        if (row instanceof LineRow.OfVersion v) {
            version(v);
        } else if (row instanceof LineRow.OfEvent e) {
            event(e.event());
        } else if (row instanceof LineRow.Folded f) {
            when.setText(Words.of("line.folded", f.count(), f.day()));
            what.setText(Words.of("line.unfold"));
            Ui.tooltip(when, null);
        }
        draw(row);
        setGraphic(box);
        setAccessibleText(String.join(
                ", ",
                number.getText(),
                when.getText(),
                what.getText(),
                kept.getText(),
                holders.getText(),
                change.getText(),
                size.getText()));
    }

    private void version(LineRow.OfVersion row) {
        Version v = row.version();
        number.setText(row.heldBy().foreign().isEmpty() ? row.label() : "");
        when.setText(Formats.moment(v.saved(), context.clock().instant(), context.zone()));
        Ui.tooltip(when, Formats.exact(v.saved(), context.zone()));
        what.setText(row.words());
        Ui.tooltip(what, row.words());
        holders.setText("· " + row.heldBy().words());
        Ui.visible(holders, !row.heldBy().words().isEmpty());
        Ui.tooltip(holders, row.heldBy().words());
        Ui.style(holders, "clay-text", row.heldBy().warn());
        Ui.style(holders, "slate-text", !row.heldBy().warn());
        kept.setText(row.kept().words());
        Ui.visible(kept, !row.kept().words().isEmpty());
        Ui.tooltip(kept, row.kept().why());
        kept.getStyleClass().removeAll("badge-clay", "badge-gold", "badge-slate", "badge-moss");
        Ui.style(kept, row.kept().style(), !row.kept().words().isEmpty());
        boolean bad = !row.trouble().isEmpty();
        change.setText(bad ? Words.of("line.trouble") : row.change());
        Ui.tooltip(change, row.trouble());
        size.setText(Formats.size(v.size()));
        boolean lost = v.size() == 0 && !row.change().isEmpty();
        Ui.style(change, "clay-text", lost || bad);
        if (bad) {
            what.setText(row.trouble() + " · " + row.words());
        }
    }

    private void event(Event e) {
        when.setText(Formats.moment(e.at(), context.clock().instant(), context.zone()));
        Ui.tooltip(when, Formats.exact(e.at(), context.zone()));
        String from = e.kind() == EventKind.RENAMED ? org.mendedleaf.core.disk.RelativePath.name(e.from()) : e.from();
        String words = Words.of("event." + e.kind(), from, e.to());
        what.setText(e.who().isEmpty() ? words : e.who() + " · " + words);
        Ui.tooltip(what, e.from() + (e.to().equals(e.from()) ? "" : " → " + e.to()));
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
        thread(row.lane());
        Node shape = shape(row);
        if (shape != null) {
            shape.setLayoutX(STEM - 4);
            shape.setLayoutY(MIDDLE - 9);
            if (row instanceof LineRow.OfEvent) {
                shape.setLayoutX(STEM - 8);
                shape.setLayoutY(MIDDLE - 8);
            }
            drawing.getChildren().add(shape);
        }
    }

    static @Nullable Node shape(LineRow row) {
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

    private void thread(LineRow.Lane lane) {
        double m = MIDDLE;
        String from = "M%s %s C%s %s %s %s %s %s L%s %s"
                .formatted(STEM - 6, m, THREAD + 6, m, THREAD, m + 4, THREAD, m + 14, THREAD, HEIGHT);
        String to = "M%s 0 C%s %s %s %s %s %s".formatted(THREAD, THREAD, m - 4, THREAD + 6, m, STEM - 6, m);
        String content = switch (lane) {
            case NONE -> "";
            case FROM -> from;
            case PAST -> "M%s 0 L%s %s".formatted(THREAD, THREAD, HEIGHT);
            case TO -> to;
            case THROUGH -> to + " " + from;
        };
        if (!content.isEmpty()) {
            SVGPath path = new SVGPath();
            path.setContent(content);
            path.getStyleClass().add("mend-thread");
            drawing.getChildren().add(path);
        }
    }
}
