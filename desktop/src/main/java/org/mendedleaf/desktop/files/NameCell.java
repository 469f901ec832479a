package org.mendedleaf.desktop.files;

import javafx.geometry.Pos;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TreeTableCell;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Shapes;
import org.mendedleaf.desktop.widgets.Ui;

/** The name of a row in the listing: its tick, its shape, and what is to be said of it at once. */
final class NameCell extends TreeTableCell<FileRow, FileRow> {
    private final FilesModel model;
    private final CheckBox tick = new CheckBox();
    private final Label name = Ui.label("", "row-name");
    private final Label badge = Ui.label("", "badge");
    private final HBox box = new HBox(8);

    NameCell(FilesModel model) {
        this.model = model;
        box.setAlignment(Pos.CENTER_LEFT);
        badge.setMinWidth(Region.USE_PREF_SIZE);
        tick.getStyleClass().add("tick");
        tick.setFocusTraversable(false);
        tick.setOnAction(e -> {
            FileRow row = getItem();
            if (row != null) {
                model.tick(row, tick.isSelected());
            }
        });
    }

    private void showTick(FileRow row) {
        tick.setVisible(!row.isAdded());
        tick.setSelected(model.ticks().isTicked(row.path()));
        tick.setIndeterminate(row.isFolder() && model.ticks().isPartly(row.path()));
        tick.setDisable(model.ticks().isWithin(row.path()));
        tick.setAccessibleText(Words.of("listing.tick", row.entry().name()));
    }

    @Override
    protected void updateItem(@Nullable FileRow row, boolean empty) {
        super.updateItem(row, empty);
        setText(null);
        if (empty || row == null) {
            setGraphic(null);
            return;
        }
        javafx.scene.Node shape =
                row.isFolder() ? Shapes.folder() : row.isRemoved() ? Shapes.hollowLeaf() : Shapes.leaf();
        name.setText(row.entry().name());
        Ui.tooltip(name, row.path());
        showTick(row);
        box.getChildren().setAll(tick, shape, name);
        badge(row);
        setGraphic(box);
        setAccessibleText(row.entry().name() + (badge.getText().isEmpty() ? "" : ", " + badge.getText()));
    }

    private void badge(FileRow row) {
        badge.getStyleClass().removeAll("badge-clay", "badge-slate");
        String words = "";
        String style = "badge-slate";
        if (row.against() != FileRow.Change.SAME) {
            words = Words.of("against." + row.against());
        } else if (!row.since().isNothing()) {
            words = row.since().words();
        } else if (!row.isFolder() && !row.isRemoved() && row.size() == 0 && row.versions() > 1) {
            words = Words.of("badge.emptied");
            style = "badge-clay";
        }
        badge.setText(words);
        if (!words.isEmpty()) {
            badge.getStyleClass().add(style);
            box.getChildren().add(badge);
        }
    }
}
