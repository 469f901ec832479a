package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.NeedsYesException;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotSpace;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Erases snapshots: those of a folder can be undone, those in another system cannot. */
@Command(name = "erase", description = "${bundle:cli.snapshot.erase}")
public final class SnapshotErase extends SnapshotBase {

    @Parameters(index = "1..*", arity = "1..*", paramLabel = "SNAPSHOT", descriptionKey = "cli.snapshot.which")
    List<String> which = List.of();

    @Option(names = "--yes", descriptionKey = "cli.snapshot.yes")
    boolean yes;

    @Option(names = "--plan", descriptionKey = "cli.erase.plan")
    boolean plan;

    public SnapshotErase(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(folder)) {
            if (located.place().isOutside()) {
                return outsideErase(located);
            }
            List<Long> ids = new ArrayList<>();
            for (String each : which) {
                ids.add(find(located, each).id());
            }
            snapshots(located).requireErasable(ids);
            long versions = 0;
            long bytes = 0;
            try (Reading reading = located.vault().read()) {
                Map<Long, SnapshotSpace.Holds> holds = SnapshotSpace.of(
                        reading, located.place(), SnapshotStore.of(reading).standing(located.place()));
                for (long id : ids) {
                    SnapshotSpace.Holds h = holds.getOrDefault(id, new SnapshotSpace.Holds(0, 0, 0, 0));
                    versions += h.aloneVersions();
                    bytes += h.aloneBytes();
                }
            }
            if (json && plan) {
                answer(ids.size(), versions, bytes, false);
            }
            if (!yes || plan) {
                say("cli.snapshot.eraseHere", ids.size(), versions, Formats.size(bytes));
                if (plan) {
                    return ExitCodes.DONE;
                }
                if (!surroundings.confirms(Words.of("cli.erase.sure"))) {
                    throw new NeedsYesException(Words.of("cli.needsYes"));
                }
            }
            snapshots(located).erase(ids);
            if (json) {
                answer(ids.size(), versions, bytes, true);
            }
            say("snapshot.erased", ids.size(), versions, Formats.size(bytes));
            return ExitCodes.DONE;
        }
    }

    /** Versions are those that only these snapshots held; of another system, those that came into the vault for it. */
    private void answer(int snapshots, long versions, long bytes, boolean erased) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("snapshots", snapshots);
        map.put("aloneVersions", versions);
        map.put("aloneBytes", bytes);
        map.put("erased", erased);
        printJson(map);
    }

    private int outsideErase(Located located) throws IOException {
        int code = ExitCodes.DONE;
        for (String each : which) {
            var cut = cut(located, each);
            String what = Words.of(
                    "cli.snapshot.eraseWhat",
                    Formats.full(cut.at(), zone()),
                    located.place().where());
            if (plan) {
                if (json) {
                    answer(1, 0, 0, false);
                }
                line(what);
                continue;
            }
            if (!yes && !surroundings.confirms(what)) {
                throw new NeedsYesException(what + " " + Words.of("cli.needsYes"));
            }
            try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
                int taken = outside(located).eraseSnapshot(cut, progress);
                if (json) {
                    answer(1, taken, 0, true);
                }
                say("cli.snapshot.erasedThere", Formats.full(cut.at(), zone()), taken);
            }
        }
        return code;
    }
}
