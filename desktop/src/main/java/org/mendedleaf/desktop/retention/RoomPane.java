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
import org.mendedleaf.core.retention.RoomTree;
import org.mendedleaf.core.retention.ThinPlan;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** Where the room goes: a tree of places, folders and files, and beside it by kind, by age, and the largest histories. */
final class RoomPane extends BorderPane {

    private static final double ROW = 34;

    private final TreeTableView<RoomTree.Node> tree = new TreeTableView<>();
    private final VBox side = new VBox(18);
    private final RetentionModel model;
    private final BiConsumer<Optional<Place>, ThinPlan.Limits> preview;
    private final Label chosen = Ui.label("", "dim");
    private final Button thin;

    RoomPane(RetentionModel model, BiConsumer<Optional<Place>, ThinPlan.Limits> preview) {
        this.model = model;
        this.preview = preview;
        tree.setId("room-tree");
        tree.getStyleClass().add("listing");
        tree.setShowRoot(false);
        tree.setFixedCellSize(ROW);
        tree.setAccessibleText(Words.of("retention.part.room"));
        tree.setPlaceholder(Ui.label(Words.of("room.reading"), "dim"));
        tree.setColumnResizePolicy(TreeTableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        tree.getColumns()
                .setAll(List.of(
                        words("room.column.name", 250, RoomTree.Node::name, Comparator.comparing(RoomTree.Node::name)),
                        size("room.column.live", 84, RoomTree.Node::liveBytes),
                        count("room.column.versions", 76, n -> n.share().versions()),
                        size("room.column.with", 100, n -> n.share().versionBytes()),
                        size("room.column.taken", 100, n -> n.share().takenBytes()),
                        size("room.column.only", 90, n -> n.share().onlyBytes()),
                        share()));
        chosen.setId("room-chosen");
        chosen.setWrapText(true);
        chosen.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(chosen, Priority.ALWAYS);
        thin = Ui.button("room.thin", this::thin);
        thin.setId("room-thin");
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

    private Optional<RoomTree.Node> selected() {
        return Optional.ofNullable(tree.getSelectionModel().getSelectedItem()).map(TreeItem::getValue);
    }

    /** What the chosen place, folder or file comes to; versions in it can be thinned where its system lets them. */
    private void chosen() {
        Optional<RoomTree.Node> node = selected();
        chosen.setText(node.map(n -> Words.of(
                        "room.chosen",
                        n.name(),
                        n.share().versions(),
                        n.files(),
                        Say.size(n.share().onlyBytes())))
                .orElseGet(() -> Words.of("room.hint")));
        Place place = node.map(RoomTree.Node::place).orElse(null);
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

    private static TreeTableColumn<RoomTree.Node, RoomTree.Node> column(
            String key, double width, Comparator<RoomTree.Node> order) {
        TreeTableColumn<RoomTree.Node, RoomTree.Node> column = new TreeTableColumn<>(Words.of(key));
        column.setId(key);
        column.setPrefWidth(width);
        column.setMinWidth(Math.min(width, 60));
        column.setComparator(order);
        column.setCellValueFactory(c -> new ReadOnlyObjectWrapper<>(c.getValue().getValue()));
        return column;
    }

    private static TreeTableColumn<RoomTree.Node, RoomTree.Node> words(
            String key, double width, Function<RoomTree.Node, String> words, Comparator<RoomTree.Node> order) {
        TreeTableColumn<RoomTree.Node, RoomTree.Node> column = column(key, width, order);
        column.setCellFactory(c -> new TreeTableCell<>() {
            @Override
            protected void updateItem(RoomTree.@Nullable Node node, boolean empty) {
                super.updateItem(node, empty);
                setText(empty || node == null ? "" : words.apply(node));
                Ui.style(this, "row-name", key.equals("room.column.name"));
            }
        });
        return column;
    }

    private static TreeTableColumn<RoomTree.Node, RoomTree.Node> count(
            String key, double width, java.util.function.ToLongFunction<RoomTree.Node> of) {
        TreeTableColumn<RoomTree.Node, RoomTree.Node> column =
                words(key, width, n -> Say.number(of.applyAsLong(n)), Comparator.comparingLong(of));
        column.getStyleClass().add("right");
        return column;
    }

    private static TreeTableColumn<RoomTree.Node, RoomTree.Node> size(
            String key, double width, java.util.function.ToLongFunction<RoomTree.Node> of) {
        TreeTableColumn<RoomTree.Node, RoomTree.Node> column =
                words(key, width, n -> Say.size(of.applyAsLong(n)), Comparator.comparingLong(of));
        column.getStyleClass().add("right");
        return column;
    }

    private static TreeTableColumn<RoomTree.Node, RoomTree.Node> share() {
        TreeTableColumn<RoomTree.Node, RoomTree.Node> column =
                column("room.column.share", 130, Comparator.comparingDouble(RoomTree.Node::ofParent));
        column.setCellFactory(c -> new TreeTableCell<>() {
            @Override
            protected void updateItem(RoomTree.@Nullable Node node, boolean empty) {
                super.updateItem(node, empty);
                setGraphic(empty || node == null ? null : bar(node.ofParent()));
            }
        });
        return column;
    }

    private static Node bar(double share) {
        ProgressBar bar = new ProgressBar(Math.min(1, share));
        bar.getStyleClass().add("room-bar");
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
        return share > 0 && percent == 0 ? Words.of("room.below") : Words.of("room.percent", percent);
    }

    private void show(RetentionModel.@Nullable Picture p) {
        if (p == null) {
            return;
        }
        Set<String> open = new HashSet<>();
        collectOpen(tree.getRoot(), open);
        boolean first = tree.getRoot() == null;
        TreeItem<RoomTree.Node> root = item(p.tree().root(), open, first);
        tree.setRoot(root);
        if (tree.getSortOrder().isEmpty()) {
            TreeTableColumn<RoomTree.Node, ?> taken = tree.getColumns().get(4);
            taken.setSortType(TreeTableColumn.SortType.DESCENDING);
            tree.getSortOrder().setAll(List.of(taken));
        }
        tree.sort();
        side(p);
    }

    private static String key(RoomTree.Node n) {
        return (n.place() == null ? "" : n.place().id()) + ":" + n.path();
    }

    private static void collectOpen(@Nullable TreeItem<RoomTree.Node> item, Set<String> open) {
        if (item != null && item.isExpanded()) {
            open.add(key(item.getValue()));
            item.getChildren().forEach(c -> collectOpen(c, open));
        }
    }

    /** Rows are made when a folder is opened: a vault may hold many files. */
    private TreeItem<RoomTree.Node> item(RoomTree.Node node, Set<String> open, boolean first) {
        TreeItem<RoomTree.Node> item = new TreeItem<>(node) {
            private boolean filled;

            @Override
            public boolean isLeaf() {
                return getValue().children().isEmpty();
            }

            @Override
            public javafx.collections.ObservableList<TreeItem<RoomTree.Node>> getChildren() {
                if (!filled) {
                    filled = true;
                    List<TreeItem<RoomTree.Node>> all = new ArrayList<>();
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
                    .forEach(
                            c -> caps.add(new String[] {c.rule(), Say.size(c.limitBytes()), Say.size(c.takenBytes())}));
            side.getChildren().add(table("room.caps", "room.capLimit", caps));
        }
        side.getChildren().add(table("room.byKind", kinds(p)));
        side.getChildren().add(table("room.byAge", ages(p)));
        List<String[]> largest = new ArrayList<>();
        for (RoomTree.Node n : p.largest()) {
            if (n.share().takenBytes() > 0) {
                largest.add(new String[] {
                    n.name(),
                    Say.number(n.share().versions()),
                    Say.size(n.share().takenBytes())
                });
            }
        }
        side.getChildren().add(table("room.largest", largest));
    }

    private static List<String[]> kinds(RetentionModel.Picture p) {
        List<String[]> rows = new ArrayList<>();
        p.tree().kinds().entrySet().stream()
                .filter(e -> e.getValue().versions() > 0)
                .sorted(Comparator.comparingLong(
                        (Map.Entry<?, RoomTree.Share> e) -> -e.getValue().takenBytes()))
                .forEach(e -> rows.add(new String[] {
                    Words.of("kinds." + e.getKey()),
                    Say.number(e.getValue().versions()),
                    Say.size(e.getValue().takenBytes())
                }));
        return rows;
    }

    private static List<String[]> ages(RetentionModel.Picture p) {
        List<String[]> rows = new ArrayList<>();
        for (RoomTree.Age a : RoomTree.allAges()) {
            RoomTree.Share s = p.tree().age(a);
            rows.add(new String[] {Words.of("age." + a), Say.number(s.versions()), Say.size(s.takenBytes())});
        }
        return rows;
    }

    /** A small table of names, counts and sizes. */
    private static Node table(String title, List<String[]> rows) {
        return table(title, "room.column.versions", rows);
    }

    private static Node table(String title, String second, List<String[]> rows) {
        GridPane grid = new GridPane();
        grid.getStyleClass().add("small-table");
        Label name = Ui.label(Words.of(title), "small-title");
        Label versions = Ui.label(Words.of(second), "dim", "small-words");
        Label taken = Ui.label(Words.of("room.column.taken"), "dim", "small-words");
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
