package org.mendedleaf.cli.base;

import java.io.IOException;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.report.Report;
import org.mendedleaf.core.report.ReportFile;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** Writes what is shown into a file too: a page for printing, a table, or JSON, by the ending of its name. */
public final class ReportOption {

    @Option(names = "--report", paramLabel = "FILE", descriptionKey = "cli.option.report")
    @Nullable
    Path file;

    @Mixin
    private final CellsOption cells = new CellsOption();

    /** Makes a report when one is wanted. */
    public interface Made {
        /** The report. */
        Report report() throws IOException;
    }

    /**
     * Whether one is wanted.
     *
     * @throws IllegalArgumentException with a message for the user, when the ending of its name is none of ours
     */
    public boolean isWanted() {
        Path to = file;
        if (to != null) {
            ReportFile.Form.of(to);
        }
        return to != null;
    }

    /** Writes a report, if one is wanted, and says so where people read. */
    public void write(Base command, Made made) throws IOException {
        Path to = file;
        if (to != null) {
            CsvTable.Cells how = cells.cells(command.settings());
            ReportFile.write(made.report(), to, how, command.zone());
            command.say("report.written", to);
        }
    }
}
