package org.mendedleaf.cli;

import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Holds a snapshot, or ends a hold. */
@Command(name = "hold", description = "${bundle:cli.snapshot.hold}", mixinStandardHelpOptions = true)
final class SnapshotHold extends SnapshotBase {

    @Parameters(index = "1", paramLabel = "SNAPSHOT", descriptionKey = "cli.snapshot.which")
    String which = "";

    @Option(names = "--reason", paramLabel = "TEXT", descriptionKey = "cli.snapshot.reason")
    String reason = "";

    @Option(names = "--end", descriptionKey = "cli.snapshot.endHold")
    boolean end;

    SnapshotHold(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (end == !reason.isBlank()) {
            throw new IllegalArgumentException(Words.of("cli.snapshot.reasonOrEnd"));
        }
        try (Located located = locate(folder)) {
            needsFolder(located);
            Snapshot s = snapshots(located).hold(find(located, which).id(), end ? "" : reason);
            say(end ? "cli.snapshot.notHeld" : "cli.snapshot.isHeld", String.valueOf(s.id()), s.hold());
            return Main.DONE;
        }
    }
}
