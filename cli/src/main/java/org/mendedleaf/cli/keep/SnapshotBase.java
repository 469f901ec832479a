package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.RemoteSnapshot;
import org.mendedleaf.core.line.Snapshot;
import org.mendedleaf.core.systems.OutsideErasing;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Parameters;

/** What the commands about snapshots have: the folder or place, and the way to one of its snapshots. */
abstract class SnapshotBase extends Base {

    @Parameters(index = "0", paramLabel = "FOLDER|SYSTEM:PLACE", descriptionKey = "cli.snapshot.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    public SnapshotBase(Surroundings surroundings) {
        super(surroundings);
    }

    OutsideErasing outside(Located located) throws IOException {
        return new OutsideErasing(located.vault(), located.place(), registry(), clock(), who());
    }

    /** A snapshot by its number or its label. */
    Snapshot find(Located located, String wanted) throws IOException {
        List<Snapshot> all = snapshots(located).standing();
        List<Snapshot> found = all.stream()
                .filter(s -> String.valueOf(s.id()).equals(wanted) || s.label().equalsIgnoreCase(wanted))
                .toList();
        if (found.size() != 1) {
            throw new IllegalArgumentException(
                    Words.of(found.isEmpty() ? "cli.snapshot.noSuch" : "cli.snapshot.several", wanted));
        }
        return found.get(0);
    }

    /** A snapshot of a place in another system, by what the system calls it or by its label. */
    RemoteSnapshot cut(Located located, String wanted) throws IOException {
        try (Reading reading = located.vault().read()) {
            List<RemoteSnapshot> found = reading.outside().cuts(located.place()).stream()
                    .filter(c -> !c.isLive())
                    .filter(c -> c.key().equals(wanted) || c.label().equalsIgnoreCase(wanted))
                    .toList();
            if (found.size() != 1) {
                throw new IllegalArgumentException(
                        Words.of(found.isEmpty() ? "cli.snapshot.noSuch" : "cli.snapshot.several", wanted));
            }
            return found.get(0);
        }
    }

    /** How a snapshot of ours stands now, as data where that was asked for. */
    void answer(Snapshot s) {
        if (json) {
            Map<String, Object> map = new LinkedHashMap<>();
            map.put("id", String.valueOf(s.id()));
            map.put("at", s.at().toString());
            map.put("label", s.label());
            map.put("hold", s.hold());
            printJson(map);
        }
    }

    /** Refuses what snapshots of other systems cannot do. */
    void needsFolder(Located located) {
        if (located.place().isOutside()) {
            throw new IllegalArgumentException(
                    Words.of("cli.snapshot.folderOnly", located.place().where()));
        }
    }
}
