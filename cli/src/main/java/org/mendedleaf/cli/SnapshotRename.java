package org.mendedleaf.cli;

import org.mendedleaf.core.line.Snapshot;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Gives a snapshot another label. */
@Command(name = "rename", description = "${bundle:cli.snapshot.rename}")
final class SnapshotRename extends SnapshotBase {

    @Parameters(index = "1", paramLabel = "SNAPSHOT", descriptionKey = "cli.snapshot.which")
    String which = "";

    @Parameters(index = "2", paramLabel = "LABEL", descriptionKey = "cli.snapshot.label")
    String label = "";

    SnapshotRename(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(folder)) {
            needsFolder(located);
            Snapshot s = snapshots(located).rename(find(located, which).id(), label);
            answer(s);
            say("cli.snapshot.renamed", String.valueOf(s.id()), s.label());
            return Main.DONE;
        }
    }
}
