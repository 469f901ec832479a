package org.mendedleaf.desktop.look;

import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.Piece;
import org.mendedleaf.desktop.widgets.Ui;

/** How what happened to a line, a row or a paragraph is shown: a colour, and a sign with it. */
final class Marks {

    private Marks() {}

    /** The sign of a mark. */
    static String sign(Mark mark) {
        return switch (mark) {
            case SAME -> "";
            case ADDED -> "+";
            case REMOVED -> "−";
            case CHANGED -> "~";
            case MOVED -> "↕";
        };
    }

    /** The style class of a mark. */
    static String style(Mark mark) {
        return "mark-" + mark.name().toLowerCase(Locale.ROOT);
    }

    /** Puts the style of this mark on, and those of the others off. */
    static void mark(Node node, Mark mark) {
        for (Mark each : Mark.values()) {
            Ui.style(node, style(each), each == mark);
        }
    }

    /** A text of pieces, those that are not the same marked, and struck through when they are gone. */
    static TextFlow flow(List<Piece> pieces, String... styles) {
        TextFlow flow = new TextFlow();
        flow.getStyleClass().add("look-flow");
        for (Piece piece : pieces) {
            Text text = new Text(piece.text().replace("\t", "    "));
            text.getStyleClass().add("look-text");
            text.getStyleClass().addAll(styles);
            if (piece.mark() == Mark.ADDED || piece.mark() == Mark.REMOVED) {
                text.getStyleClass().add("piece-" + piece.mark().name().toLowerCase(Locale.ROOT));
            }
            flow.getChildren().add(text);
        }
        return flow;
    }
}
