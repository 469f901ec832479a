package org.mendedleaf.cli.keep;

import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Holds a snapshot, or ends a hold. */
@Command(name = "hold", description = "${bundle:cli.snapshot.hold}")
public final class SnapshotHold extends SnapshotBase {

    @Parameters(index = "1", paramLabel = "SNAPSHOT", descriptionKey = "cli.snapshot.which")
    String which = "";

    @Option(names = "--reason", paramLabel = "TEXT", descriptionKey = "cli.snapshot.reason")
    String reason = "";

    @Option(names = "--until", paramLabel = "DATE", descriptionKey = "cli.hold.until")
    @Nullable
    String until;

    @Option(names = "--end", descriptionKey = "cli.snapshot.endHold")
    boolean end;

    public SnapshotHold(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (end == !reason.isBlank() || (end && until != null)) {
            throw new IllegalArgumentException(Words.of("cli.snapshot.reasonOrEnd"));
        }
        try (Located located = locate(folder)) {
            needsFolder(located);
            String typed = until;
            Instant now = now();
            Optional<Instant> ends = typed == null
                    ? Optional.empty()
                    : Optional.of(new MomentText(zone(), now, MomentText.NOWHERE).readEnd(typed));
            Snapshot s = snapshots(located).hold(find(located, which).id(), end ? "" : reason, ends);
            answer(s);
            say(
                    end ? "cli.snapshot.notHeld" : ends.isEmpty() ? "cli.snapshot.isHeld" : "cli.snapshot.isHeldUntil",
                    String.valueOf(s.id()),
                    s.hold(),
                    ends.isEmpty() ? "" : Formats.end(ends.get(), now, zone()));
            return ExitCodes.DONE;
        }
    }
}
