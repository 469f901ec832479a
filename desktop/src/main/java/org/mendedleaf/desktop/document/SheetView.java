package org.mendedleaf.desktop.document;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.scene.Node;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.Tab;
import javafx.scene.control.TabPane;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison.Column;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.RowChange;
import org.mendedleaf.core.compare.Comparison.SheetChange;
import org.mendedleaf.core.compare.Comparison.SheetChanges;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Merged;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Document.Sheet;
import org.mendedleaf.core.words.Words;
import org.mendedleaf.desktop.widgets.Ui;

/** Sheets as grids: one of them, or two in one grid or side by side. */
final class SheetView implements DocumentView {

    private static final int COLUMNS_MOST = 60;

    /** Wide enough for the words of rows that are left out. Pixels. */
    private static final double FOLD_LEAST = 150;

    /** From so many columns on, two sheets stand in one grid, whatever the space. */
    private static final int WIDE_MOST = 8;

    private final List<TableView<RowChange>> tables = new ArrayList<>();
    private final List<String> names = new ArrayList<>();
    private final TabPane tabs = new TabPane();
    private final Node node;
    private final int changes;
    private final boolean formulas;
    private final boolean hasFormulas;
    private final String[] found = {""};

    private SheetView(
            int changes,
            List<SheetChange> sheets,
            DocumentViews.Choices choices,
            DocumentViews.@Nullable Titles titles,
            Function<String, List<Merged>> mergedOf) {
        this.changes = changes;
        this.formulas = choices.formulas();
        boolean two = titles != null;
        boolean only = two && choices.onlyChanges();
        this.hasFormulas = sheets.stream()
                .flatMap(s -> s.rows().stream())
                .anyMatch(r -> r.to() != null
                        && r.to().cells().stream().anyMatch(c -> !c.formula().isEmpty()));
        for (SheetChange sheet : sheets) {
            List<RowChange> rows =
                    only ? ChangeContext.fold(sheet.rows(), SheetView::isChanged, SheetView::leftOut) : sheet.rows();
            boolean beside = two && choices.wide() && sheet.columns().size() <= WIDE_MOST;
            TableView<RowChange> table = table(sheet, rows, two, beside ? titles : null, mergedOf.apply(sheet.name()));
            tables.add(table);
            names.add(sheet.name());
            Tab tab = new Tab(sheet.name(), table);
            tab.setClosable(false);
            if (sheet.mark() != Mark.SAME || sheet.rows().stream().anyMatch(SheetView::isChanged)) {
                tab.getStyleClass().add("tab-changed");
            }
            tabs.getTabs().add(tab);
        }
        tabs.getStyleClass().add("sheet-tabs");
        tabs.setSide(javafx.geometry.Side.BOTTOM);
        node = tables.size() == 1 ? tables.get(0) : tabs;
        int first = firstChanged(sheets);
        if (two && first >= 0 && tables.size() > 1) {
            tabs.getSelectionModel().select(first);
        }
    }

    private static int firstChanged(List<SheetChange> sheets) {
        for (int i = 0; i < sheets.size(); i++) {
            if (sheets.get(i).rows().stream().anyMatch(SheetView::isChanged)) {
                return i;
            }
        }
        return -1;
    }

    private static boolean isChanged(RowChange row) {
        return row.mark() != Mark.SAME || !row.cellChanges().isEmpty();
    }

    /** A row that stands for so many equal ones. */
    private static RowChange leftOut(int count) {
        Row row = new Row(List.of(new Cell(Words.of("detail.sameRows", count), "", "")));
        return new RowChange(Mark.SAME, SheetCell.LEFT_OUT, SheetCell.LEFT_OUT, row, row, 0, List.of());
    }

    /** Sheets as they are. */
    static SheetView of(Document.Sheets sheets, boolean formulas) {
        List<SheetChange> all = new ArrayList<>();
        for (Sheet sheet : sheets.sheets()) {
            List<Column> columns = new ArrayList<>();
            for (int c = 0; c < sheet.width(); c++) {
                columns.add(new Column(Mark.SAME, c, c));
            }
            List<RowChange> rows = new ArrayList<>();
            for (int r = 0; r < sheet.rows().size(); r++) {
                Row row = sheet.rows().get(r);
                rows.add(new RowChange(Mark.SAME, r, r, row, row, 0, List.of()));
            }
            all.add(new SheetChange(sheet.name(), Mark.SAME, columns, rows));
        }
        Map<String, List<Merged>> merged = new HashMap<>();
        sheets.sheets().forEach(s -> merged.putIfAbsent(s.name(), s.merged()));
        return new SheetView(
                0,
                all,
                new DocumentViews.Choices(false, false, formulas, false),
                null,
                name -> merged.getOrDefault(name, List.of()));
    }

    /** Two sets of sheets. */
    static SheetView of(SheetChanges sheets, DocumentViews.Choices choices, DocumentViews.Titles titles) {
        return new SheetView(sheets.changes().size(), sheets.sheets(), choices, titles, name -> List.of());
    }

    private TableView<RowChange> table(
            SheetChange sheet,
            List<RowChange> rows,
            boolean two,
            DocumentViews.@Nullable Titles beside,
            List<Merged> merged) {
        TableView<RowChange> table = new TableView<>();
        table.setAccessibleText(Words.of("look.grid"));
        table.getStyleClass().addAll("grid-table", "dense", "look-grid");
        table.setPlaceholder(Ui.label(Words.of("look.noRows"), "dim"));
        table.getSelectionModel().setSelectionMode(SelectionMode.MULTIPLE);
        if (beside != null) {
            table.getColumns().add(side(sheet, Side.BEFORE, beside.before()));
            table.getColumns().add(side(sheet, Side.AFTER, beside.after()));
        } else {
            table.getColumns().addAll(columns(sheet, two ? Side.BOTH : Side.AFTER, two));
            table.getProperties().put(SheetCell.MERGED, merged);
        }
        table.getItems().setAll(rows);
        table.setFixedCellSize(24);
        return table;
    }

    enum Side {
        BEFORE,
        AFTER,
        BOTH
    }

    private TableColumn<RowChange, RowChange> side(SheetChange sheet, Side side, String title) {
        TableColumn<RowChange, RowChange> all = new TableColumn<>(title);
        all.setSortable(false);
        all.getColumns().addAll(columns(sheet, side, true));
        return all;
    }

    private List<TableColumn<RowChange, RowChange>> columns(SheetChange sheet, Side side, boolean two) {
        List<TableColumn<RowChange, RowChange>> columns = new ArrayList<>();
        if (two && side != Side.AFTER) {
            columns.add(column("", 26, new Shown(sheet, Side.BOTH, -2, null, false)));
        }
        columns.add(column("", 40, new Shown(sheet, side, -1, null, false)));
        int widest = widest(sheet);
        for (int i = 0; i < Math.min(COLUMNS_MOST, sheet.columns().size()); i++) {
            Column column = sheet.columns().get(i);
            int number = side == Side.BEFORE || column.after() < 0 ? column.before() : column.after();
            boolean there = side == Side.BOTH || (side == Side.BEFORE ? column.before() : column.after()) >= 0;
            if (there) {
                double least = two && i == widest ? FOLD_LEAST : 0;
                columns.add(column(
                        letters(number),
                        Math.max(least, width(sheet, column, side == Side.BOTH)),
                        new Shown(sheet, side, i, column, i == widest)));
            }
        }
        return columns;
    }

    /** Wide enough for what stands in most rows, within reason. */
    private static double width(SheetChange sheet, Column column, boolean both) {
        int most = 4;
        int index = sheet.columns().indexOf(column);
        for (int r = 0; both && r < sheet.rows().size(); r++) {
            RowChange row = sheet.rows().get(r);
            if (row.cellChange(index) != 0) {
                int change = shown(row.from(), column.before()).length()
                        + shown(row.to(), column.after()).length();
                most = Math.max(most, change + 4);
            }
        }
        int step = Math.max(1, sheet.rows().size() / 200);
        for (int r = 0; r < sheet.rows().size(); r += step) {
            RowChange row = sheet.rows().get(r);
            most = Math.max(most, shown(row.to(), column.after()).length());
            most = Math.max(most, shown(row.from(), column.before()).length());
        }
        return Math.min(220, 24 + 7.0 * most);
    }

    /** The column with the most space, where words stand that are for the whole row. */
    private static int widest(SheetChange sheet) {
        int widest = 0;
        for (int i = 1; i < sheet.columns().size(); i++) {
            if (width(sheet, sheet.columns().get(i), false)
                    > width(sheet, sheet.columns().get(widest), false)) {
                widest = i;
            }
        }
        return widest;
    }

    private static String shown(@Nullable Row row, int column) {
        return row == null || column < 0 ? "" : row.cell(column).shown();
    }

    private static String letters(int column) {
        StringBuilder name = new StringBuilder();
        for (int c = column; c >= 0; c = c / 26 - 1) {
            name.insert(0, (char) ('A' + c % 26));
        }
        return name.toString();
    }

    record Shown(
            SheetChange sheet,
            Side side,
            int index,
            @Nullable Column column,
            boolean widest) {}

    private TableColumn<RowChange, RowChange> column(String title, double width, Shown shown) {
        TableColumn<RowChange, RowChange> column = new TableColumn<>(title);
        column.setSortable(false);
        column.setReorderable(false);
        column.setPrefWidth(width);
        column.setCellValueFactory(f -> new ReadOnlyObjectWrapper<>(f.getValue()));
        column.setCellFactory(c -> new SheetCell(shown, formulas, () -> found[0]));
        return column;
    }

    @Override
    public void zoom(int step) {
        tables.forEach(t -> t.setFixedCellSize(24 + 4.0 * step));
    }

    @Override
    public boolean hasFormulas() {
        return hasFormulas;
    }

    @Override
    public Node node() {
        return node;
    }

    @Override
    public int changes() {
        return changes;
    }

    @Override
    public void goTo(int change) {
        for (int t = 0; t < tables.size(); t++) {
            List<RowChange> rows = tables.get(t).getItems();
            for (int i = 0; i < rows.size(); i++) {
                if (rows.get(i).change() == change || rows.get(i).cellChanges().contains(change)) {
                    tabs.getSelectionModel().select(t);
                    tables.get(t).getSelectionModel().clearAndSelect(i);
                    ScrollPosition.show(tables.get(t), i, 3);
                    return;
                }
            }
        }
    }

    private int current() {
        return tables.size() == 1 ? 0 : Math.max(0, tabs.getSelectionModel().getSelectedIndex());
    }

    @Override
    public Position position() {
        if (tables.isEmpty()) {
            return Position.START;
        }
        TableView<RowChange> table = tables.get(current());
        int first = ScrollPosition.first(table);
        return new Position(
                names.get(current()), first, ScrollPosition.words(table.getItems(), first, SheetView::text));
    }

    @Override
    public void position(Position position) {
        int at = names.indexOf(position.section());
        if (at >= 0) {
            tabs.getSelectionModel().select(at);
            List<RowChange> rows = tables.get(at).getItems();
            ScrollPosition.scroll(
                    tables.get(at), ScrollPosition.nearest(rows, 0, rows.size(), position, SheetView::text));
        }
    }

    private static String text(RowChange row) {
        Row shown = row.to() != null ? row.to() : Objects.requireNonNull(row.from());
        return String.join("\t", shown.cells().stream().map(Cell::shown).toList());
    }

    @Override
    public boolean find(String words) {
        boolean is = !tables.isEmpty() && ScrollPosition.find(tables.get(current()), words, SheetView::text);
        mark(words);
        return is;
    }

    @Override
    public void mark(String words) {
        found[0] = words.toLowerCase(java.util.Locale.ROOT);
        tables.forEach(TableView::refresh);
    }

    @Override
    public String whole() {
        StringBuilder all = new StringBuilder();
        for (int i = 0; i < tables.size(); i++) {
            all.append(names.get(i).isEmpty() ? "" : names.get(i) + "\n");
            all.append(ScrollPosition.text(tables.get(i).getItems(), List.of(), SheetView::text))
                    .append('\n');
        }
        return all.toString().stripTrailing();
    }

    @Override
    public String text() {
        if (tables.isEmpty()) {
            return "";
        }
        TableView<RowChange> table = tables.get(current());
        return ScrollPosition.text(table.getItems(), table.getSelectionModel().getSelectedIndices(), SheetView::text);
    }
}
