package org.mendedleaf.desktop.files;

import java.io.IOException;
import java.util.Optional;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.rules.Visibility;
import org.mendedleaf.core.systems.MergedLine;
import org.mendedleaf.desktop.context.AppContext;
import org.mendedleaf.desktop.context.OpenPlace;

/**
 * A line that was read.
 *
 * @param line itself; empty where it is gone, or who works here may not see it
 * @param said what is said of it
 */
record LoadedLine(Optional<MergedLine> line, Optional<LineRemarks> said) {

    /** Reads a line as who works here may see it. */
    static LoadedLine of(AppContext context, OpenPlace of, long wanted) throws IOException {
        Optional<Line> found;
        Optional<LineRemarks> says = Optional.empty();
        String who = context.settings().who();
        try (Reading reading = of.vault().read()) {
            found = reading.line(wanted);
            if (found.isPresent()) {
                says = Optional.of(LineRemarks.of(
                        reading, found.get(), who, context.clock().instant(), context.calendar()));
                found = Visibility.see(reading, found.get(), who);
            }
        }
        return found.isEmpty()
                ? new LoadedLine(Optional.empty(), says)
                : new LoadedLine(Optional.of(MergedLine.of(of.vault(), found.get(), context.registry(), false)), says);
    }
}
