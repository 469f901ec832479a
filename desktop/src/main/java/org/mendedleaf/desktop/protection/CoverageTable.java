package org.mendedleaf.desktop.protection;

import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Versioning;
import org.mendedleaf.core.systems.Coverage;
import org.mendedleaf.core.systems.CoverageState;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.GivingWay;
import org.mendedleaf.desktop.widgets.Ui;

/** Every folder and place in one table: how it is covered, last, next, space, gaps. */
final class CoverageTable extends TableView<Coverage.Row> {

    private static final Map<CoverageState, String> BADGES = Map.of(
            CoverageState.GOOD, "badge-moss",
            CoverageState.PAUSED, "badge-slate",
            CoverageState.OFF, "badge-slate",
            CoverageState.NEVER, "badge-slate");

    private final ProtectionModel model;
    private boolean filling;

    CoverageTable(ProtectionModel model) {
        this.model = model;
        setId("coverage");
        getStyleClass().add("coverage");
        setAccessibleText(Words.of("protection.title"));
        setFixedCellSize(46);
        setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_FLEX_LAST_COLUMN);
        setPlaceholder(Ui.label(Words.of("protection.empty"), "dim"));
        column("protection.place", 190, 120, r -> r, CoverageTable::place);
        column("protection.state", 106, 100, r -> r, CoverageTable::state);
        TableColumn<?, ?> last =
                column("protection.last", Ui.moment(98), Ui.moment(96), this::last, CoverageTable::words);
        TableColumn<?, ?> next =
                column("protection.next", Ui.moment(108), Ui.moment(104), this::next, CoverageTable::words);
        TableColumn<?, ?> space = column("protection.space", 118, 104, r -> r, CoverageTable::space);
        GivingWay.inOrder(this, this::getColumns, List.of(space, last, next));
        model.rowsProperty().addListener((o, a, rows) -> fill(rows));
        model.selectedProperty().addListener((o, a, row) -> pick(row));
        getSelectionModel().selectedItemProperty().addListener((o, a, row) -> {
            if (!filling && row != null) {
                model.select(row);
            }
        });
        fill(model.rowsProperty().get());
    }

    private void fill(List<Coverage.Row> rows) {
        filling = true;
        getItems().setAll(rows);
        filling = false;
        pick(model.selectedProperty().get());
    }

    private void pick(Coverage.@Nullable Row row) {
        filling = true;
        getSelectionModel().select(row);
        filling = false;
    }

    private <T> TableColumn<Coverage.Row, T> column(
            String key,
            double width,
            double least,
            Function<Coverage.Row, T> value,
            Function<T, javafx.scene.Node> draw) {
        TableColumn<Coverage.Row, T> column = new TableColumn<>(Words.of(key));
        column.setPrefWidth(width);
        column.setMinWidth(least);
        column.setSortable(false);
        column.setReorderable(false);
        column.setCellValueFactory(c -> new ReadOnlyObjectWrapper<>(value.apply(c.getValue())));
        column.setCellFactory(c -> new TableCell<>() {
            @Override
            protected void updateItem(T item, boolean empty) {
                super.updateItem(item, empty);
                setText(null);
                setGraphic(empty || item == null ? null : draw.apply(item));
            }
        });
        getColumns().add(column);
        return column;
    }

    private static javafx.scene.Node place(Coverage.Row row) {
        Label name = Ui.label(row.name(), "row-name");
        String kind = row.kind()
                .map(k -> Words.of("protection.in", Words.of("system.kind." + k.text()), row.where()))
                .orElse(row.where());
        Label where = Ui.label(kind, "dim", "small-words");
        Ui.tooltip(where, row.where());
        VBox box = new VBox(name, where);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    private static javafx.scene.Node state(Coverage.Row row) {
        boolean ended = row.state() == CoverageState.OFF && row.kind().isEmpty();
        Label badge = Ui.label(Words.of(ended ? "coverage.OFF.folder" : "coverage." + row.state()), "badge");
        badge.getStyleClass().add(BADGES.getOrDefault(row.state(), "badge-clay"));
        HBox box = new HBox(badge);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    private String last(Coverage.Row row) {
        return row.lastGood()
                .map(l -> Formats.ago(
                        l, model.context().clock().instant(), model.context().zone()))
                .orElse(row.state() == CoverageState.UNCOVERED ? "" : Words.of("status.never"));
    }

    private String next(Coverage.Row row) {
        if (row.missed() > 0 && row.next().isPresent()) {
            return Words.of("protection.missed", row.missed());
        }
        if (row.next().isPresent()) {
            return Formats.moment(
                    row.next().get(),
                    model.context().clock().instant(),
                    model.context().zone());
        }
        return row.place()
                .map(p -> p.versioning() == Versioning.ON ? p.rhythm().words() : "")
                .filter(w -> row.kind().isEmpty())
                .orElse("");
    }

    private static javafx.scene.Node words(String words) {
        Label label = Ui.label(words);
        label.setWrapText(true);
        Ui.tooltip(label, words.length() < 12 ? "" : words);
        return label;
    }

    private static javafx.scene.Node space(Coverage.Row row) {
        if (row.usedBytes() < 0) {
            return Ui.label(row.files() < 0 ? "" : Words.of("protection.files", row.files()), "dim");
        }
        if (row.totalBytes() <= 0) {
            return Ui.label(Formats.size(row.usedBytes()), "dim");
        }
        ProgressBar bar = new ProgressBar((double) row.usedBytes() / row.totalBytes());
        bar.setMaxWidth(Double.MAX_VALUE);
        bar.getStyleClass().add("space-bar");
        Ui.style(bar, "space-tight", row.usedBytes() > row.totalBytes() * 0.9);
        Label words = Ui.label(
                Words.of("protection.used", Formats.size(row.usedBytes()), Formats.size(row.totalBytes())),
                "dim",
                "small-words");
        VBox box = new VBox(3, bar, words);
        box.setAlignment(Pos.CENTER_LEFT);
        box.setAccessibleText(words.getText());
        return box;
    }
}
