package org.mendedleaf.desktop.files;

import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.EventKind;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.widgets.Ui;

/** One row of a drawn line: the stem with the shape of the point, and what it was in words. */
final class LineCell extends PointCell {

    private static final double STEM = 38;
    private static final double THREAD = 12;

    private final Label what = Ui.label("", "point-what");
    private final Label size = Ui.label("", "point-size");
    private final Label holders = Ui.label("", "point-what", "holders");
    private final Label kept = Ui.label("", "badge", "holders");

    LineCell(AppContext context) {
        super(context, 8, STEM, STEM + 18);
        number.setMinWidth(34);
        // Until when it stays is said beside its time, who holds it beside who made it: neither pushes the other out.
        holders.setMinWidth(0);
        kept.setMinWidth(Region.USE_PREF_SIZE);
        HBox first = new HBox(8, when, kept);
        first.setAlignment(Pos.CENTER_LEFT);
        HBox second = new HBox(6, what, holders);
        second.setAlignment(Pos.CENTER_LEFT);
        what.setMinWidth(0);
        VBox words = new VBox(1, first, second);
        words.setAlignment(Pos.CENTER_LEFT);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        change.setMinWidth(Region.USE_PREF_SIZE);
        VBox right = new VBox(1, size, change);
        right.setAlignment(Pos.CENTER_RIGHT);
        right.setMinWidth(Region.USE_PREF_SIZE);
        beside(number, words, right);
    }

    @Override
    void clear() {
        holders.setText("");
        Ui.visible(holders, false);
        Ui.visible(kept, false);
        kept.setText("");
        change.setText("");
        size.setText("");
        change.getStyleClass().removeAll("clay-text");
    }

    @Override
    Stream<Label> readOut() {
        return Stream.of(number, when, what, kept, holders, change, size);
    }

    @Override
    void folded(LineRow.Folded folded) {
        what.setText(Words.of("line.unfold"));
    }

    @Override
    void version(LineRow.OfVersion row) {
        Version v = row.version();
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

    @Override
    void event(Event e) {
        String from = e.kind() == EventKind.RENAMED ? org.mendedleaf.core.disk.RelativePath.name(e.from()) : e.from();
        String words = Words.of("event." + e.kind(), from, e.to());
        what.setText(e.who().isEmpty() ? words : e.who() + " · " + words);
        Ui.tooltip(what, e.from() + (e.to().equals(e.from()) ? "" : " → " + e.to()));
    }

    /** The thread of mending, from a restored version to the one that it was restored from. */
    @Override
    String beside(LineRow row) {
        double m = MIDDLE;
        String from = "M%s %s C%s %s %s %s %s %s L%s %s"
                .formatted(STEM - 6, m, THREAD + 6, m, THREAD, m + 4, THREAD, m + 14, THREAD, HEIGHT);
        String to = "M%s 0 C%s %s %s %s %s %s".formatted(THREAD, THREAD, m - 4, THREAD + 6, m, STEM - 6, m);
        return switch (row.lane()) {
            case NONE -> "";
            case FROM -> from;
            case PAST -> "M%s 0 L%s %s".formatted(THREAD, THREAD, HEIGHT);
            case TO -> to;
            case THROUGH -> to + " " + from;
        };
    }

    @Override
    String besideStyle() {
        return "mend-thread";
    }
}
