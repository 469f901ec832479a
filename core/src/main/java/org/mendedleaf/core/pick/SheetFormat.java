package org.mendedleaf.core.pick;

import java.io.IOException;
import java.util.Map;
import org.mendedleaf.core.document.Document.Cell;

/** How a kind of workbook writes its rows, cells and results. */
interface SheetFormat {

    /** A cell: the name of its sheet, its row and its column, both from 0. */
    record Place(String sheet, int row, int column) {}

    /** Writes the rows and cells that the plans say. */
    void write(SheetPlan.All plans) throws IOException;

    /** Writes what formulas give now: a number in {@code value}, or a text that is only {@code shown}. */
    void results(Map<Place, Cell> results) throws IOException;
}
