package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.SnapshotSpace;
import org.mendedleaf.core.catalogue.SnapshotStore;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;

/** Lists snapshots, with what each holds and what it alone holds. */
@Command(name = "list", description = "${bundle:cli.snapshot.list}")
public final class SnapshotList extends SnapshotBase {

    public SnapshotList(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(folder);
                Reading reading = located.vault().read()) {
            if (located.place().isOutside()) {
                cuts(reading, located);
                return ExitCodes.DONE;
            }
            List<Snapshot> all = SnapshotStore.of(reading).standing(located.place());
            Map<Long, SnapshotSpace.Holds> holds = SnapshotSpace.of(reading, located.place(), all);
            if (json) {
                printJson(all.stream().map(s -> map(s, holds)).toList());
                return ExitCodes.DONE;
            }
            if (all.isEmpty()) {
                say("cli.snapshot.none", located.place().name());
            }
            List<List<String>> rows = new ArrayList<>();
            for (Snapshot s : all) {
                SnapshotSpace.Holds h = holds.getOrDefault(s.id(), new SnapshotSpace.Holds(0, 0, 0, 0));
                rows.add(List.of(
                        String.valueOf(s.id()),
                        Formats.moment(s.at(), now(), zone()),
                        Words.of("snapshot.files", h.files(), Formats.size(h.bytes())),
                        Words.of("snapshot.alone", Formats.size(h.aloneBytes())),
                        s.isHeld(now()) ? Words.of("snapshot.heldWord") : "",
                        s.path().isEmpty() ? located.place().name() : s.path(),
                        s.label()));
            }
            table(rows, "rlrrlll");
            return ExitCodes.DONE;
        }
    }

    private static Map<String, Object> map(Snapshot s, Map<Long, SnapshotSpace.Holds> holds) {
        SnapshotSpace.Holds h = holds.getOrDefault(s.id(), new SnapshotSpace.Holds(0, 0, 0, 0));
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("id", s.id());
        map.put("at", s.at().toString());
        map.put("label", s.label());
        map.put("folder", s.path());
        map.put("who", s.who());
        map.put("schedule", s.schedule());
        map.put("hold", s.hold());
        map.put("holdUntil", s.holdEnds().map(Instant::toString).orElse(null));
        map.put("files", h.files());
        map.put("bytes", h.bytes());
        map.put("aloneVersions", h.aloneVersions());
        map.put("aloneBytes", h.aloneBytes());
        return map;
    }

    private void cuts(Reading reading, Located located) throws IOException {
        List<RemoteSnapshot> all = reading.outside().cuts(located.place()).stream()
                .filter(c -> !c.isLive())
                .toList();
        if (json) {
            printJson(all.stream().map(SnapshotList::map).toList());
            return;
        }
        if (all.isEmpty()) {
            say("cli.snapshot.none", located.place().where());
        }
        List<List<String>> rows = new ArrayList<>();
        for (RemoteSnapshot c : all) {
            rows.add(List.of(c.key(), Formats.moment(c.at(), now(), zone()), c.label()));
        }
        table(rows, "lll");
    }

    private static Map<String, Object> map(RemoteSnapshot c) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("id", c.key());
        map.put("at", c.at().toString());
        map.put("label", c.label());
        c.expires().ifPresent(e -> map.put("expires", e.toString()));
        return map;
    }
}
