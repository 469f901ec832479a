package org.mendedleaf.desktop.retention;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SplitPane;
import javafx.scene.control.TreeItem;
import javafx.scene.control.TreeTableCell;
import javafx.scene.control.TreeTableColumn;
import javafx.scene.control.TreeTableView;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.SpaceAge;
import org.mendedleaf.core.retention.SpaceShare;
import org.mendedleaf.core.retention.SpaceTree;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.GivingWay;
import org.mendedleaf.desktop.widgets.Ui;

/** Where the space goes: a tree of places, folders and files, and beside it by kind, by age, and the largest histories. */
final class SpacePane extends BorderPane {

    private static final double ROW = 34;

    private final TreeTableView<SpaceTree.Node> tree = new TreeTableView<>();
    private final VBox side = new VBox(18);
    private final RetentionModel model;
    private final BiConsumer<Optional<Place>, ThinPlan.Limits> preview;
    private final Label chosen = Ui.label("", "dim");
    private final Button thin;

    SpacePane(RetentionModel model, BiConsumer<Optional<Place>, ThinPlan.Limits> preview) {
        this.model = model;
        this.preview = preview;
        tree.setId("space-tree");
        tree.getStyleClass().add("listing");
        tree.setShowRoot(false);
        tree.setFixedCellSize(ROW);
        tree.setAccessibleText(Words.of("retention.part.space"));
        tree.setPlaceholder(Ui.label(Words.of("space.reading"), "dim"));
        tree.setColumnResizePolicy(TreeTableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        tree.getColumns()
                .setAll(List.of(
                        words(
                                "space.column.name",
                                250,
                                SpaceTree.Node::name,
                                Comparator.comparing(SpaceTree.Node::name)),
                        size("space.column.live", 84, SpaceTree.Node::liveBytes),
                        count("space.column.versions", 76, n -> n.share().versions()),
                        size("space.column.with", 100, n -> n.share().versionBytes()),
                        size("space.column.taken", 100, n -> n.share().takenBytes()),
                        size("space.column.only", 90, n -> n.share().onlyBytes()),
                        share()));
        var columns = tree.getColumns();
        columns.get(0).setMinWidth(150);
        columns.get(0).getStyleClass().add("tree-column");
        GivingWay.inOrder(
                tree,
                () -> tree.getColumns().stream().toList(),
                List.of(columns.get(6), columns.get(3), columns.get(5), columns.get(1)));
        chosen.setId("space-chosen");
        chosen.setWrapText(true);
        chosen.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(chosen, Priority.ALWAYS);
        thin = Ui.button("space.thin", this::thin);
        thin.setId("space-thin");
        thin.setMinWidth(USE_PREF_SIZE);
        HBox foot = new HBox(10, chosen, thin);
        foot.setAlignment(Pos.CENTER_LEFT);
        foot.getStyleClass().add("sheet-footer");
        tree.getSelectionModel().selectedItemProperty().addListener((o, a, item) -> chosen());
        chosen();
        VBox left = new VBox(tree, foot);
        VBox.setVgrow(tree, Priority.ALWAYS);
        left.getStyleClass().add("sheet");
        side.getStyleClass().add("place-body");
        ScrollPane scroll = new ScrollPane(side);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("place-scroll");
        VBox right = new VBox(scroll);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        right.getStyleClass().add("sheet");
        SplitPane split = new SplitPane(left, right);
        split.setDividerPositions(0.69);
        split.getStyleClass().add("files-split");
        setCenter(split);
        model.pictureProperty().addListener((o, a, p) -> show(p));
        show(model.pictureProperty().get());
    }

    private Optional<SpaceTree.Node> selected() {
        return Optional.ofNullable(tree.getSelectionModel().getSelectedItem()).map(TreeItem::getValue);
    }

    /** What the chosen place, folder or file comes to; versions in it can be thinned where its system lets them. */
    private void chosen() {
        Optional<SpaceTree.Node> node = selected();
        chosen.setText(node.map(n -> Words.of(
                        "space.chosen",
                        n.name(),
                        n.share().versions(),
                        n.files(),
                        Formats.size(n.share().onlyBytes())))
                .orElseGet(() -> Words.of("space.hint")));
        Place place = node.map(SpaceTree.Node::place).orElse(null);
        thin.setDisable(
                place == null || (place.isOutside() && !model.thinnable().contains(place)));
    }

    private void thin() {
        selected().ifPresent(n -> {
            Place place = n.place();
            if (place != null) {
                preview.accept(
                        place.isOutside() ? Optional.of(place) : Optional.empty(),
                        ThinPlan.Limits.RULES.in(place.id(), n.path()));
            }
        });
    }

    private static TreeTableColumn<SpaceTree.Node, SpaceTree.Node> column(
            String key, double width, Comparator<SpaceTree.Node> order) {
        TreeTableColumn<SpaceTree.Node, SpaceTree.Node> column = new TreeTableColumn<>(Words.of(key));
        column.setId(key);
        column.setPrefWidth(width);
        column.setMinWidth(Math.min(width, 80));
        column.setComparator(order);
        column.setCellValueFactory(c -> new ReadOnlyObjectWrapper<>(c.getValue().getValue()));
        return column;
    }

    private static TreeTableColumn<SpaceTree.Node, SpaceTree.Node> words(
            String key, double width, Function<SpaceTree.Node, String> words, Comparator<SpaceTree.Node> order) {
        TreeTableColumn<SpaceTree.Node, SpaceTree.Node> column = column(key, width, order);
        column.setCellFactory(c -> new TreeTableCell<>() {
            @Override
            protected void updateItem(SpaceTree.@Nullable Node node, boolean empty) {
                super.updateItem(node, empty);
                setText(empty || node == null ? "" : words.apply(node));
                Ui.style(this, "row-name", key.equals("space.column.name"));
            }
        });
        return column;
    }

    private static TreeTableColumn<SpaceTree.Node, SpaceTree.Node> count(
            String key, double width, java.util.function.ToLongFunction<SpaceTree.Node> of) {
        TreeTableColumn<SpaceTree.Node, SpaceTree.Node> column =
                words(key, width, n -> Formats.number(of.applyAsLong(n)), Comparator.comparingLong(of));
        column.getStyleClass().add("right");
        return column;
    }

    private static TreeTableColumn<SpaceTree.Node, SpaceTree.Node> size(
            String key, double width, java.util.function.ToLongFunction<SpaceTree.Node> of) {
        TreeTableColumn<SpaceTree.Node, SpaceTree.Node> column =
                words(key, width, n -> Formats.size(of.applyAsLong(n)), Comparator.comparingLong(of));
        column.getStyleClass().add("right");
        return column;
    }

    private static TreeTableColumn<SpaceTree.Node, SpaceTree.Node> share() {
        TreeTableColumn<SpaceTree.Node, SpaceTree.Node> column =
                column("space.column.share", 130, Comparator.comparingDouble(SpaceTree.Node::ofParent));
        column.setCellFactory(c -> new TreeTableCell<>() {
            @Override
            protected void updateItem(SpaceTree.@Nullable Node node, boolean empty) {
                super.updateItem(node, empty);
                setGraphic(empty || node == null ? null : bar(node.ofParent()));
            }
        });
        return column;
    }

    private static Node bar(double share) {
        ProgressBar bar = new ProgressBar(Math.min(1, share));
        bar.getStyleClass().add("space-bar");
        bar.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(bar, Priority.ALWAYS);
        Label words = Ui.label(percent(share), "dim", "small-words");
        words.setMinWidth(42);
        words.setAlignment(Pos.CENTER_RIGHT);
        HBox box = new HBox(6, bar, words);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    private static String percent(double share) {
        long percent = Math.round(share * 100);
        return share > 0 && percent == 0 ? Words.of("space.below") : Words.of("space.percent", percent);
    }

    private void show(RetentionModel.@Nullable Picture p) {
        if (p == null) {
            return;
        }
        Set<String> open = new HashSet<>();
        collectOpen(tree.getRoot(), open);
        boolean first = tree.getRoot() == null;
        TreeItem<SpaceTree.Node> root = item(p.tree().root(), open, first);
        tree.setRoot(root);
        if (tree.getSortOrder().isEmpty()) {
            TreeTableColumn<SpaceTree.Node, ?> taken = tree.getColumns().get(4);
            taken.setSortType(TreeTableColumn.SortType.DESCENDING);
            tree.getSortOrder().setAll(List.of(taken));
        }
        tree.sort();
        side(p);
    }

    private static String key(SpaceTree.Node n) {
        return (n.place() == null ? "" : n.place().id()) + ":" + n.path();
    }

    private static void collectOpen(@Nullable TreeItem<SpaceTree.Node> item, Set<String> open) {
        if (item != null && item.isExpanded()) {
            open.add(key(item.getValue()));
            item.getChildren().forEach(c -> collectOpen(c, open));
        }
    }

    /** Rows are made when a folder is opened: a vault may hold many files. */
    private TreeItem<SpaceTree.Node> item(SpaceTree.Node node, Set<String> open, boolean first) {
        TreeItem<SpaceTree.Node> item = new TreeItem<>(node) {
            private boolean filled;

            @Override
            public boolean isLeaf() {
                return getValue().children().isEmpty();
            }

            @Override
            public javafx.collections.ObservableList<TreeItem<SpaceTree.Node>> getChildren() {
                if (!filled) {
                    filled = true;
                    List<TreeItem<SpaceTree.Node>> all = new ArrayList<>();
                    getValue().children().stream()
                            .filter(c -> c.share().versions() > 0)
                            .forEach(c -> all.add(item(c, open, false)));
                    super.getChildren().setAll(all);
                }
                return super.getChildren();
            }
        };
        boolean largest = first && node.place() == null;
        item.setExpanded(node.place() == null || open.contains(key(node)));
        if (largest) {
            item.getChildren().stream()
                    .max(Comparator.comparingLong(i -> i.getValue().share().takenBytes()))
                    .ifPresent(i -> i.setExpanded(true));
        }
        return item;
    }

    private void side(RetentionModel.Picture p) {
        side.getChildren().clear();
        if (!p.caps().isEmpty()) {
            List<String[]> caps = new ArrayList<>();
            p.caps()
                    .forEach(c -> caps.add(
                            new String[] {c.rule(), Formats.size(c.limitBytes()), Formats.size(c.takenBytes())}));
            side.getChildren().add(table("space.caps", "space.capLimit", caps));
        }
        side.getChildren().add(table("space.byKind", kinds(p)));
        side.getChildren().add(table("space.byAge", ages(p)));
        List<String[]> largest = new ArrayList<>();
        for (SpaceTree.Node n : p.largest()) {
            if (n.share().takenBytes() > 0) {
                largest.add(new String[] {
                    n.name(),
                    Formats.number(n.share().versions()),
                    Formats.size(n.share().takenBytes())
                });
            }
        }
        side.getChildren().add(table("space.largest", largest));
    }

    private static List<String[]> kinds(RetentionModel.Picture p) {
        List<String[]> rows = new ArrayList<>();
        p.tree().kinds().entrySet().stream()
                .filter(e -> e.getValue().versions() > 0)
                .sorted(Comparator.comparingLong(
                        (Map.Entry<?, SpaceShare> e) -> -e.getValue().takenBytes()))
                .forEach(e -> rows.add(new String[] {
                    Words.of("kinds." + e.getKey()),
                    Formats.number(e.getValue().versions()),
                    Formats.size(e.getValue().takenBytes())
                }));
        return rows;
    }

    private static List<String[]> ages(RetentionModel.Picture p) {
        List<String[]> rows = new ArrayList<>();
        for (SpaceAge a : SpaceTree.allAges()) {
            SpaceShare s = p.tree().age(a);
            rows.add(new String[] {Words.of("age." + a), Formats.number(s.versions()), Formats.size(s.takenBytes())});
        }
        return rows;
    }

    /** A small table of names, counts and sizes. */
    private static Node table(String title, List<String[]> rows) {
        return table(title, "space.column.versions", rows);
    }

    private static Node table(String title, String second, List<String[]> rows) {
        GridPane grid = new GridPane();
        grid.getStyleClass().add("small-table");
        Label name = Ui.label(Words.of(title), "small-title");
        Label versions = Ui.label(Words.of(second), "dim", "small-words");
        Label taken = Ui.label(Words.of("space.column.taken"), "dim", "small-words");
        versions.setMinWidth(USE_PREF_SIZE);
        taken.setMinWidth(USE_PREF_SIZE);
        grid.addRow(0, name, versions, taken);
        for (int i = 0; i < rows.size(); i++) {
            Label first = Ui.label(rows.get(i)[0]);
            first.setMinWidth(0);
            Ui.tooltip(first, rows.get(i)[0]);
            Label figure = Ui.label(rows.get(i)[1], "dim");
            Label size = Ui.label(rows.get(i)[2], "dim");
            figure.setMinWidth(USE_PREF_SIZE);
            size.setMinWidth(USE_PREF_SIZE);
            grid.addRow(i + 1, first, figure, size);
        }
        javafx.scene.layout.ColumnConstraints wide = new javafx.scene.layout.ColumnConstraints();
        wide.setHgrow(Priority.ALWAYS);
        javafx.scene.layout.ColumnConstraints right = new javafx.scene.layout.ColumnConstraints();
        right.setHalignment(javafx.geometry.HPos.RIGHT);
        grid.getColumnConstraints().setAll(List.of(wide, right, right));
        return grid;
    }
}
