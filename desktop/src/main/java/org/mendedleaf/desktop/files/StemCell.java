package org.mendedleaf.desktop.files;

import java.util.function.IntFunction;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.widgets.Ui;

/** A row of the narrow stem beside a content: the point, when it was, and what changed there. */
final class StemCell extends PointCell {

    private static final double STEM = 19;
    private static final double TIE = 4;

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

    private final IntFunction<Tie> ties;
    private final Label who = Ui.label("", "point-what");

    StemCell(AppContext context, IntFunction<Tie> ties) {
        super(context, 4, STEM, STEM + 12);
        this.ties = ties;
        who.setMinWidth(0);
        change.setMinWidth(0);
        number.setMinWidth(Region.USE_PREF_SIZE);
        HBox first = new HBox(8, number, when, who);
        first.setAlignment(Pos.CENTER_LEFT);
        VBox words = new VBox(1, first, change);
        words.setAlignment(Pos.CENTER_LEFT);
        words.setMinWidth(0);
        HBox.setHgrow(words, Priority.ALWAYS);
        beside(words);
    }

    @Override
    void clear() {
        who.setText("");
        Ui.style(change, "clay-text", false);
    }

    @Override
    Stream<Label> readOut() {
        return Stream.of(number, when, who, change);
    }

    @Override
    void event(Event event) {
        says(Words.of("event." + event.kind(), event.from(), event.to()));
    }

    @Override
    void folded(LineRow.Folded folded) {
        says(Words.of("line.unfold"));
    }

    private void says(String words) {
        change.setText(words);
        Ui.tooltip(change, words);
    }

    @Override
    void version(LineRow.OfVersion row) {
        Version v = row.version();
        who.setText(v.who());
        String heldBy = row.kept().style().equals("badge-gold") ? row.kept().words() : "";
        boolean bad = !row.trouble().isEmpty();
        String words = bad ? row.trouble() : row.change().isEmpty() ? row.words() : row.change();
        says(heldBy.isEmpty() ? words : words + " · " + heldBy);
        Ui.style(change, "clay-text", bad || v.size() == 0 && !row.change().isEmpty());
    }

    /** The tie between equal contents. */
    @Override
    String beside(LineRow row) {
        return switch (ties.apply(getIndex())) {
            case NONE -> "";
            case BEGINS -> "M%s %s L%s %s L%s %s".formatted(STEM - 8, MIDDLE, TIE, MIDDLE, TIE, HEIGHT);
            case PAST -> "M%s 0 L%s %s".formatted(TIE, TIE, HEIGHT);
            case ENDS -> "M%s 0 L%s %s L%s %s".formatted(TIE, TIE, MIDDLE, STEM - 8, MIDDLE);
            case THROUGH -> "M%s 0 L%s %s M%s %s L%s %s".formatted(TIE, TIE, HEIGHT, TIE, MIDDLE, STEM - 8, MIDDLE);
        };
    }

    @Override
    String besideStyle() {
        return "equal-tie";
    }
}
