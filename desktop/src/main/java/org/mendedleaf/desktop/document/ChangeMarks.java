package org.mendedleaf.desktop.document;

import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.Piece;
import org.mendedleaf.desktop.widgets.Ui;

/** How what happened to a line, a row or a paragraph is shown: a colour, and a sign with it. */
final class ChangeMarks {

    private ChangeMarks() {}

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

    /** The style class of a text of pieces; what it says, with its tabs, is its user data. */
    static final String FLOW = "look-flow";

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

    /**
     * A text of pieces, those that are not the same marked, and struck through when they are gone.
     *
     * @param found words in small letters that are marked wherever they stand; empty for none
     */
    static TextFlow flow(List<Piece> pieces, String found, String... styles) {
        TextFlow flow = new TextFlow();
        flow.getStyleClass().add(FLOW);
        StringBuilder all = new StringBuilder();
        pieces.forEach(p -> all.append(p.text()));
        flow.setUserData(all.toString());
        for (Piece piece : pieces) {
            String rest = piece.text().replace("\t", "    ");
            String lower = rest.toLowerCase(Locale.ROOT);
            int from = 0;
            int at = found.isEmpty() || lower.length() != rest.length() ? -1 : lower.indexOf(found);
            while (at >= 0) {
                add(flow, piece.mark(), rest.substring(from, at), false, styles);
                add(flow, piece.mark(), rest.substring(at, at + found.length()), true, styles);
                from = at + found.length();
                at = lower.indexOf(found, from);
            }
            add(flow, piece.mark(), rest.substring(from), false, styles);
        }
        return flow;
    }

    private static void add(TextFlow flow, Mark mark, String part, boolean found, String... styles) {
        if (part.isEmpty() && !flow.getChildren().isEmpty()) {
            return;
        }
        Text text = new Text(part);
        text.getStyleClass().add("look-text");
        text.getStyleClass().addAll(styles);
        if (mark == Mark.ADDED || mark == Mark.REMOVED) {
            text.getStyleClass().add("piece-" + mark.name().toLowerCase(Locale.ROOT));
        }
        if (found) {
            text.getStyleClass().add("look-found");
        }
        flow.getChildren().add(text);
    }
}
