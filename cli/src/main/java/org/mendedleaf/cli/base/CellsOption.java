package org.mendedleaf.cli.base;

import java.io.IOException;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.settings.UserSettings;
import picocli.CommandLine.Option;

/** Whether cells of a table that begin like formulas stay text, where a table is written. */
public final class CellsOption {

    @Option(names = "--cells-as-is", descriptionKey = "cli.option.cellsAsIs")
    boolean asIs;

    /** What was asked for, or else what this person chose for all tables. */
    public CsvTable.Cells cells(UserSettings settings) throws IOException {
        return asIs ? CsvTable.Cells.AS_IS : settings.cells();
    }
}
