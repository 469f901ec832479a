package org.mendedleaf.cli.past;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.Base;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.Labels;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.line.Entry;
import org.mendedleaf.core.line.EntryKind;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Lists a folder as it is or was. */
@Command(name = "list", description = "${bundle:cli.list}")
public final class ListCommand extends Base {

    @Parameters(paramLabel = "FOLDER", descriptionKey = "cli.list.folder")
    @SuppressWarnings("NullAway.Init")
    Path folder;

    @Option(names = "--at", paramLabel = "MOMENT", descriptionKey = "cli.option.at")
    @Nullable
    String at;

    @Option(names = "--removed", descriptionKey = "cli.list.removed")
    boolean removed;

    public ListCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(folder);
                Reading reading = located.vault().read()) {
            Instant moment = moment(at, located);
            if (!reading.folders().isFolder(located.place(), located.path())) {
                throw new IllegalArgumentException(Words.of("cli.list.noFolder", located.file()));
            }
            List<Entry> entries =
                    new ArrayList<>(reading.folders().listing(located.place(), located.path(), moment, removed));
            Labels labels = Labels.of(reading, located.place());
            entries.sort(Comparator.comparing((Entry e) -> e.kind() != EntryKind.FOLDER)
                    .thenComparing(Entry::name));
            if (json) {
                Map<String, Object> map = new LinkedHashMap<>();
                map.put("folder", located.file().toString());
                map.put("at", iso(moment));
                map.put(
                        "entries",
                        entries.stream().map(e -> json(located, e, labels)).toList());
                printJson(map);
            } else {
                print(entries, moment, labels);
            }
            return ExitCodes.DONE;
        }
    }

    private void print(List<Entry> entries, Instant moment, Labels labels) throws java.io.IOException {
        if (at != null) {
            say("cli.list.at", full(moment));
        }
        List<List<String>> rows = new ArrayList<>();
        for (Entry e : entries) {
            boolean isFolder = e.kind() == EntryKind.FOLDER;
            String when =
                    e.removed().map(r -> removedWords(r)).orElse(Formats.moment(e.changed(), safeNow(), safeZone()));
            rows.add(List.of(
                    isFolder ? "" : labels.of(e.line(), e.number()),
                    isFolder ? "" : Formats.size(e.size()),
                    when,
                    e.name() + (isFolder ? "/" : "")));
        }
        if (rows.isEmpty()) {
            say("cli.list.empty");
        }
        table(rows, "rrll");
    }

    private String removedWords(Entry.Removal r) {
        String when = Formats.moment(r.at(), safeNow(), safeZone());
        return r.who().isEmpty() ? Words.of("removed.when", when) : Words.of("removed.whenWho", when, r.who());
    }

    private Instant safeNow() {
        try {
            return now();
        } catch (java.io.IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private java.time.ZoneId safeZone() {
        try {
            return zone();
        } catch (java.io.IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    private static Map<String, Object> json(Located located, Entry e, Labels labels) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("name", e.name());
        map.put("path", RelativePath.child(located.path(), e.name()));
        map.put("kind", e.kind().name());
        map.put("since", e.since().toString());
        if (e.kind() != EntryKind.FOLDER) {
            map.put("version", labels.of(e.line(), e.number()));
            map.put("versions", e.versions());
            map.put("size", e.size());
            map.put("bytesWithVersions", e.versionBytes());
            map.put(
                    "modified",
                    Moment.instant(Math.floorDiv(e.mtimeNanos(), 1000)).toString());
        }
        map.put("mode", Integer.toOctalString(e.mode()));
        e.removed().ifPresent(r -> map.put("removed", Map.of("at", r.at().toString(), "who", r.who())));
        return map;
    }
}
