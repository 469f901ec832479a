package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.systems.Outlook;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

/** Takes a snapshot now. */
@Command(name = "take", description = "${bundle:cli.snapshot.take}")
public final class SnapshotTake extends SnapshotBase {

    @Option(names = "--label", paramLabel = "TEXT", descriptionKey = "cli.snapshot.label")
    String label = "";

    public SnapshotTake(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(folder)) {
            if (located.place().isOutside()) {
                return outsideTake(located);
            }
            Snapshot taken;
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                taken = snapshots(located).take(located.path(), label, progress);
            }
            print(String.valueOf(taken.id()), taken.at(), located.file().toString());
            return ExitCodes.DONE;
        }
    }

    private int outsideTake(Located located) throws IOException {
        Optional<RemoteSnapshot> goes;
        try (Reading reading = located.vault().read()) {
            goes = Outlook.goesForOneMore(reading, located.place());
        }
        if (goes.isPresent()) {
            complain(Words.of("line.snapshotDrops", Formats.moment(goes.get().at(), now(), zone())));
        }
        RemoteSnapshot cut = outside(located).snapshot(label);
        print(cut.key(), cut.at(), located.place().where());
        return ExitCodes.DONE;
    }

    private void print(String id, java.time.Instant at, String where) throws IOException {
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("id", id);
            map.put("at", at.toString());
            map.put("label", label);
            printJson(map);
        } else {
            say("cli.snapshot.done", where, Formats.moment(at, now(), zone()), id);
        }
    }
}
