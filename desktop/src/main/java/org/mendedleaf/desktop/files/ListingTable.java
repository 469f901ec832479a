package org.mendedleaf.desktop.files;

import java.io.File;
import java.nio.file.Path;
import java.text.Collator;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.geometry.Pos;
import javafx.scene.control.TreeItem;
import javafx.scene.control.TreeTableCell;
import javafx.scene.control.TreeTableColumn;
import javafx.scene.control.TreeTableRow;
import javafx.scene.control.TreeTableView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.GivingWay;
import org.mendedleaf.desktop.widgets.Ui;

/** The files of a folder at a moment. Folders unfold in place; Enter or a double click looks into one. */
final class ListingTable extends TreeTableView<FileRow> {

    private final FilesModel model;
    private boolean filling;

    ListingTable(FilesModel model) {
        this.model = model;
        setId("listing");
        getStyleClass().add("listing");
        setShowRoot(false);
        setRoot(new TreeItem<>());
        setAccessibleText(Words.of("listing.name"));
        setColumnResizePolicy(CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        setTableMenuButtonVisible(true);
        setPlaceholder(Ui.label(Words.of("listing.empty"), "dim"));
        setFixedCellSize(34);

        Collator order = Collator.getInstance();
        TreeTableColumn<FileRow, FileRow> name = column(
                "listing.column.name", Comparator.comparing(r -> r.entry().name(), order::compare), 284);
        name.setCellFactory(c -> new NameCell(model));
        TreeTableColumn<FileRow, FileRow> versions = words(
                "listing.column.versions",
                Comparator.comparingLong(FileRow::versions),
                62,
                r -> r.versions() == 0 ? "" : Formats.number(r.versions()),
                true);
        TreeTableColumn<FileRow, FileRow> changed = words(
                "listing.column.changed",
                Comparator.comparing(FileRow::changed),
                Ui.moment(140),
                this::changedWords,
                false);
        TreeTableColumn<FileRow, FileRow> size = words(
                "listing.column.size", Comparator.comparingLong(FileRow::size), 76, r -> Formats.size(r.size()), true);
        TreeTableColumn<FileRow, FileRow> all = words(
                "listing.column.all",
                Comparator.comparingLong(FileRow::versionBytes),
                106,
                r -> Formats.size(r.versionBytes()),
                true);
        // In a narrow window the names give way first, then whole columns; what is a number or a time is read whole.
        name.setMinWidth(190);
        name.getStyleClass().add("name-column");
        versions.setMinWidth(80);
        changed.setMinWidth(Ui.moment(140));
        size.setMinWidth(76);
        all.setMinWidth(86);
        getColumns().setAll(List.of(name, versions, changed, size, all));
        GivingWay.inOrder(this, this::ordered, List.of(all, size, versions, changed));
        setRowFactory(t -> new Row());

        getSelectionModel().selectedItemProperty().addListener((o, a, item) -> {
            if (!filling) {
                model.select(item == null ? null : item.getValue());
            }
        });
        setOnKeyPressed(e -> {
            TreeItem<FileRow> item = getSelectionModel().getSelectedItem();
            if (e.getCode() == KeyCode.ENTER
                    && !e.isControlDown()
                    && item != null
                    && item.getValue().isFolder()) {
                model.enter(item.getValue().path());
                e.consume();
            } else if (e.getCode() == KeyCode.ENTER && !e.isControlDown() && item != null) {
                model.reading().open();
                e.consume();
            } else if (e.getCode() == KeyCode.SPACE && item != null) {
                model.tick(
                        item.getValue(), !model.ticks().isTicked(item.getValue().path()));
                e.consume();
            } else if (e.isControlDown() && e.getCode() == KeyCode.A) {
                model.tickAll();
                e.consume();
            } else if (e.getCode() == KeyCode.BACK_SPACE) {
                model.up();
                e.consume();
            }
        });
        takeDrops(this, () -> null);
        model.listingProperty().addListener((o, a, listing) -> fill(listing));
        model.ticks().sumProperty().addListener((o, a, b) -> refresh());
    }

    /** Files from the desktop can be dropped here: they go to what {@code onto} gives, null for the folder. */
    private void takeDrops(Region node, Supplier<@Nullable FileRow> onto) {
        node.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
                e.consume();
            }
        });
        node.setOnDragEntered(e -> Ui.style(node, "drop-here", e.getDragboard().hasFiles()));
        node.setOnDragExited(e -> Ui.style(node, "drop-here", false));
        node.setOnDragDropped(e -> {
            List<Path> files =
                    e.getDragboard().getFiles().stream().map(File::toPath).toList();
            e.setDropCompleted(!files.isEmpty());
            e.consume();
            model.intake().comeIn(files, onto.get());
        });
    }

    private TreeTableColumn<FileRow, FileRow> column(String key, Comparator<FileRow> order, double width) {
        TreeTableColumn<FileRow, FileRow> column = new TreeTableColumn<>(Words.of(key));
        column.setId(key);
        column.setPrefWidth(width);
        column.setCellValueFactory(f -> new ReadOnlyObjectWrapper<>(f.getValue().getValue()));
        column.setComparator(order);
        return column;
    }

    private TreeTableColumn<FileRow, FileRow> words(
            String key, Comparator<FileRow> order, double width, Function<FileRow, String> words, boolean right) {
        TreeTableColumn<FileRow, FileRow> column = column(key, order, width);
        column.setCellFactory(c -> new TreeTableCell<>() {
            {
                setAlignment(right ? Pos.CENTER_RIGHT : Pos.CENTER_LEFT);
                getStyleClass().add("figure");
            }

            @Override
            protected void updateItem(@Nullable FileRow row, boolean empty) {
                super.updateItem(row, empty);
                setText(empty || row == null ? "" : words.apply(row));
            }
        });
        if (right) {
            column.getStyleClass().add("right");
        }
        return column;
    }

    private String changedWords(FileRow row) {
        Instant now = model.context().clock().instant();
        String when = Formats.moment(row.changed(), now, model.context().zone());
        return row.isRemoved() ? Words.of("removed.when", when) : when;
    }

    /** Widths of the columns, in their order of the program; a hidden one has a minus before its width. */
    String layoutOfColumns() {
        StringBuilder out = new StringBuilder();
        for (TreeTableColumn<FileRow, ?> column : ordered()) {
            out.append(out.isEmpty() ? "" : ",")
                    .append(column.isVisible() || GivingWay.gaveWay(column) ? "" : "-")
                    .append(Math.round(column.getWidth()));
        }
        return out.toString();
    }

    /** Puts columns as they were; text that is no such layout changes nothing. */
    void layoutColumns(String layout) {
        String[] widths = layout.split(",", -1);
        List<TreeTableColumn<FileRow, ?>> columns = ordered();
        if (widths.length != columns.size() || !layout.matches("(-?\\d{1,4},?)+")) {
            return;
        }
        for (int i = 0; i < widths.length; i++) {
            if (!GivingWay.gaveWay(columns.get(i))) {
                columns.get(i).setVisible(i == 0 || !widths[i].startsWith("-"));
            }
            columns.get(i).setPrefWidth(Math.max(40, Math.abs(Integer.parseInt(widths[i]))));
        }
    }

    /** The columns in the order of the program, wherever somebody dragged them. */
    private List<TreeTableColumn<FileRow, ?>> ordered() {
        List<String> ids = List.of(
                "listing.column.name",
                "listing.column.versions",
                "listing.column.changed",
                "listing.column.size",
                "listing.column.all");
        return getColumns().stream()
                .sorted(Comparator.comparingInt(c -> ids.indexOf(c.getId())))
                .toList();
    }

    /** Shows another listing, and keeps the selected row and the place in the list where they are still there. */
    private void fill(Listing listing) {
        filling = true;
        FileRow before = model.selectedProperty().get();
        TreeItem<FileRow> root = new TreeItem<>();
        add(root, listing.folder(), listing);
        root.setExpanded(true);
        setRoot(root);
        TreeItem<FileRow> again = before == null ? null : find(root, before);
        if (again != null) {
            getSelectionModel().select(again);
        } else {
            getSelectionModel().clearSelection();
        }
        filling = false;
        if (before != null) {
            // What is shown beside stays while its file is only out of sight at this moment.
            model.select(again == null ? before : again.getValue());
        }
    }

    private static @Nullable TreeItem<FileRow> find(TreeItem<FileRow> in, FileRow row) {
        for (TreeItem<FileRow> item : in.getChildren()) {
            FileRow value = item.getValue();
            boolean same = value.isFolder()
                    ? value.path().equals(row.path()) && row.isFolder()
                    : value.entry().line() == row.entry().line() && !row.isFolder();
            if (same) {
                return item;
            }
            TreeItem<FileRow> below = find(item, row);
            if (below != null) {
                return below;
            }
        }
        return null;
    }

    private void add(TreeItem<FileRow> into, String folder, Listing listing) {
        for (FileRow row : listing.rows().getOrDefault(folder, List.of())) {
            into.getChildren().add(row.isFolder() ? folder(row, listing) : new TreeItem<>(row));
        }
    }

    private TreeItem<FileRow> folder(FileRow row, Listing listing) {
        TreeItem<FileRow> item = new TreeItem<>(row) {
            @Override
            public boolean isLeaf() {
                return false;
            }
        };
        add(item, row.path(), listing);
        item.setExpanded(model.isUnfolded(row.path()));
        item.expandedProperty().addListener((o, a, open) -> model.unfold(row.path(), open));
        return item;
    }

    private final class Row extends TreeTableRow<FileRow> {
        Row() {
            takeDrops(this, this::getItem);
            setOnMouseClicked(e -> {
                FileRow row = getItem();
                if (e.getClickCount() == 2 && row != null && row.isFolder()) {
                    model.enter(row.path());
                } else if (e.getClickCount() == 2 && row != null) {
                    model.reading().open();
                }
            });
        }

        @Override
        protected void updateItem(@Nullable FileRow row, boolean empty) {
            super.updateItem(row, empty);
            Ui.style(this, "removed-row", row != null && !empty && row.isRemoved());
            Ui.style(this, "added-row", row != null && !empty && row.isAdded());
        }
    }
}
