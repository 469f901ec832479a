package org.mendedleaf.desktop.widgets;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Insets;
import javafx.geometry.Orientation;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;

/** Buttons beside one another, each read whole: where they do not fit in one row they go on in the next. */
public final class ActionRow extends Pane {

    private static final double GAP = 7;

    private final List<Node> right = new ArrayList<>();

    /** A row that begins with these. */
    public ActionRow(Node... nodes) {
        getStyleClass().add("action-row");
        getChildren().addAll(nodes);
        for (Node node : nodes) {
            whole(node);
        }
    }

    /** Adds what stands at the right end while all of it fits in one row. */
    public ActionRow right(Node... nodes) {
        right.addAll(List.of(nodes));
        getChildren().addAll(nodes);
        for (Node node : nodes) {
            whole(node);
        }
        return this;
    }

    private static void whole(Node node) {
        if (node instanceof Region region) {
            region.setMinWidth(USE_PREF_SIZE);
        }
    }

    @Override
    public Orientation getContentBias() {
        return Orientation.HORIZONTAL;
    }

    private double side() {
        Insets in = getInsets();
        return in.getLeft() + in.getRight();
    }

    private static double width(Node node) {
        return Math.ceil(node.prefWidth(-1));
    }

    /** What stands in each row when there is so much width. */
    private List<List<Node>> rows(double width) {
        List<List<Node>> rows = new ArrayList<>();
        double used = 0;
        for (Node node : getManagedChildren()) {
            double wide = width(node);
            if (rows.isEmpty() || used + GAP + wide > width) {
                rows.add(new ArrayList<>());
                used = wide;
            } else {
                used += GAP + wide;
            }
            rows.get(rows.size() - 1).add(node);
        }
        return rows;
    }

    private static double height(List<Node> row) {
        return row.stream().mapToDouble(n -> Math.ceil(n.prefHeight(-1))).max().orElse(0);
    }

    @Override
    protected double computeMinWidth(double height) {
        return side()
                + getManagedChildren().stream()
                        .mapToDouble(ActionRow::width)
                        .max()
                        .orElse(0);
    }

    @Override
    protected double computePrefWidth(double height) {
        double all =
                getManagedChildren().stream().mapToDouble(n -> width(n) + GAP).sum();
        return side() + Math.max(0, all - GAP);
    }

    @Override
    protected double computeMinHeight(double width) {
        return computePrefHeight(width);
    }

    @Override
    protected double computePrefHeight(double width) {
        List<List<Node>> rows = rows(width < 0 ? Double.MAX_VALUE : width - side());
        double all = rows.stream().mapToDouble(r -> height(r) + GAP).sum();
        return getInsets().getTop() + getInsets().getBottom() + Math.max(0, all - GAP);
    }

    @Override
    protected void layoutChildren() {
        Insets in = getInsets();
        double inner = getWidth() - side();
        List<List<Node>> rows = rows(inner);
        double y = in.getTop();
        for (List<Node> row : rows) {
            double height = height(row);
            double x = in.getLeft();
            double atRight = row.stream()
                    .filter(right::contains)
                    .mapToDouble(n -> width(n) + GAP)
                    .sum();
            boolean pushed = false;
            for (Node node : row) {
                if (!pushed && rows.size() == 1 && right.contains(node)) {
                    x = Math.max(x, in.getLeft() + inner - atRight + GAP);
                    pushed = true;
                }
                double wide = Math.min(width(node), inner);
                layoutInArea(node, x, y, wide, height, 0, javafx.geometry.HPos.LEFT, VPos.CENTER);
                x += wide + GAP;
            }
            y += height + GAP;
        }
    }
}
