package org.mendedleaf.desktop.widgets;

import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.shape.SVGPath;

/** The shapes of the program: leaf, mended leaf, notch, cut. Their colours are in the stylesheet. */
public final class Shapes {

    private static final String LEAF = "M1.5 14.5 C0 6.5 5.5 1.5 15 1 C15.6 10 10.6 15.6 3.2 13.2 Z";
    private static final String SEAM = "M1.5 14.5 C4.5 10.5 8 7.5 12 4.5";
    private static final String NOTCH = "M8 2 L14 8 L8 14 L2 8 Z";
    private static final String CUT = "M1 11 L15 5";
    private static final String FOLDER =
            "M1 4 Q1 3 2 3 L6 3 L7.5 5 L14 5 Q15 5 15 6 L15 12 Q15 13 14 13 L2 13 Q1 13 1 12 Z";

    private Shapes() {}

    private static SVGPath path(String content, String style) {
        SVGPath path = new SVGPath();
        path.setContent(content);
        path.getStyleClass().add(style);
        return path;
    }

    /** A content. */
    public static Node leaf() {
        return path(LEAF, "shape-leaf");
    }

    /** A content that was brought back: a leaf with a gold seam. */
    public static Node mendedLeaf() {
        return new Group(path(LEAF, "shape-leaf"), path(SEAM, "shape-seam"));
    }

    /** A draft: a leaf that is not full yet. */
    public static Node draftLeaf() {
        return path(LEAF, "shape-draft");
    }

    /** A file that is removed: the outline of a leaf. */
    public static Node hollowLeaf() {
        return path(LEAF, "shape-hollow");
    }

    /** A content that only another system has: a leaf of slate. */
    public static Node awayLeaf() {
        return path(LEAF, "shape-away");
    }

    /** A new name or folder. */
    public static Node notch() {
        return path(NOTCH, "shape-notch");
    }

    /** A removal: a cut across the stem. */
    public static Node cut() {
        return path(CUT, "shape-cut");
    }

    /** The sign of a folder, in the colours of the style sheet. */
    public static Node folder() {
        return path(FOLDER, "shape-folder");
    }

    /** The mark of the program. */
    public static Node mark() {
        Group mark = new Group(path(LEAF, "mark-leaf"), path(SEAM, "shape-seam"));
        mark.setScaleX(1.25);
        mark.setScaleY(1.25);
        return mark;
    }
}
