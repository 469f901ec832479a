package org.mendedleaf.cli.keep;

import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.line.Snapshot;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Gives a snapshot another label. */
@Command(name = "rename", description = "${bundle:cli.snapshot.rename}")
public final class SnapshotRename extends SnapshotBase {

    @Parameters(index = "1", paramLabel = "SNAPSHOT", descriptionKey = "cli.snapshot.which")
    String which = "";

    @Parameters(index = "2", paramLabel = "LABEL", descriptionKey = "cli.snapshot.label")
    String label = "";

    public SnapshotRename(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(folder)) {
            needsFolder(located);
            Snapshot s = snapshots(located).rename(find(located, which).id(), label);
            answer(s);
            say("cli.snapshot.renamed", String.valueOf(s.id()), s.label());
            return ExitCodes.DONE;
        }
    }
}
