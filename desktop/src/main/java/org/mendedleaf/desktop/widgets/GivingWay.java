package org.mendedleaf.desktop.widgets;

import java.util.List;
import java.util.function.Supplier;
import javafx.scene.control.Control;
import javafx.scene.control.TableColumnBase;

/** Columns of a table that is too narrow for all of them give way one after the other, and come back when there is space. */
public final class GivingWay {

    private static final String GAVE_WAY = "gave-way";
    /** What the bar at the side of a table takes. */
    private static final double BAR = 16;

    private GivingWay() {}

    /**
     * Has columns give way.
     *
     * @param all the columns of the table; their least widths are what it takes to read them whole
     * @param first those that may give way, the first of them first
     */
    public static void inOrder(
            Control table,
            Supplier<? extends List<? extends TableColumnBase<?, ?>>> all,
            List<? extends TableColumnBase<?, ?>> first) {
        table.widthProperty().addListener((o, a, width) -> fit(width.doubleValue() - BAR, all.get(), first));
        Tables.headsFollow(table, all.get());
    }

    private static void fit(
            double width, List<? extends TableColumnBase<?, ?>> all, List<? extends TableColumnBase<?, ?>> first) {
        if (width <= 0) {
            return;
        }
        double needed = all.stream()
                .filter(c -> c.isVisible() || gaveWay(c))
                .mapToDouble(TableColumnBase::getMinWidth)
                .sum();
        for (TableColumnBase<?, ?> column : first) {
            if (!column.isVisible() && !gaveWay(column)) {
                continue;
            }
            boolean gives = needed > width;
            if (gives) {
                needed -= column.getMinWidth();
                column.getProperties().put(GAVE_WAY, true);
            } else {
                column.getProperties().remove(GAVE_WAY);
            }
            if (column.isVisible() == gives) {
                column.setVisible(!gives);
            }
        }
    }

    /** Whether a column is not shown only for want of space. */
    public static boolean gaveWay(TableColumnBase<?, ?> column) {
        return column.getProperties().containsKey(GAVE_WAY);
    }
}
