package org.mendedleaf.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.LinePoint;
import org.mendedleaf.core.line.Moment;
import org.mendedleaf.core.line.PlainDigests;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Shows the line of one file, newest point first. */
@Command(name = "line", description = "${bundle:cli.line}", mixinStandardHelpOptions = true)
final class LineCommand extends Base {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    LineCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(file);
                Reading reading = located.vault().read()) {
            Line line = reading.line(located.place(), located.path())
                    .orElseThrow(() -> new IllegalArgumentException(Words.of("cli.noLine", located.file())));
            if (json) {
                printJson(json(line, new PlainDigests(located.vault()).of(line)));
            } else {
                print(line);
            }
            return Main.DONE;
        }
    }

    private void print(Line line) throws java.io.IOException {
        line(line.path() + "  " + Words.of("line.summary", line.versions().size(), Say.size(line.bytes())));
        if (line.removed().isPresent()) {
            say("removed.when", Say.moment(line.removed().get(), now(), zone()));
        }
        List<List<String>> rows = new ArrayList<>();
        List<Version> versions = line.versions();
        for (LinePoint point : line.points()) {
            String when = Say.moment(point.at(), now(), zone());
            if (point instanceof Version v) {
                int older = versions.indexOf(v) + 1;
                long before = older < versions.size() ? versions.get(older).size() : -1;
                rows.add(List.of(
                        Integer.toString(v.number()),
                        when,
                        Say.size(v.size()),
                        before < 0 ? "" : Say.sizeChange(v.size() - before),
                        v.who(),
                        origin(v) + (v.note().isEmpty() ? "" : "  “" + v.note() + "”")));
            } else if (point instanceof Event e) {
                rows.add(List.of("", when, "", "", e.who(), Words.of("event." + e.kind(), e.from(), e.to())));
            }
        }
        table(rows, "rlrrll");
    }

    static String origin(Version v) {
        return Words.of("origin." + v.origin(), v.source());
    }

    private static Map<String, Object> json(Line line, Map<Integer, Digest> digests) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("path", line.path());
        map.put("folder", line.place().root().toString());
        line.removed().ifPresent(r -> map.put("removed", r.toString()));
        map.put("bytesWithVersions", line.bytes());
        List<Object> points = new ArrayList<>();
        for (LinePoint point : line.points()) {
            points.add(point instanceof Version v ? json(v, digests.get(v.number())) : json((Event) point));
        }
        map.put("points", points);
        return map;
    }

    private static Map<String, Object> json(Version v, @org.jspecify.annotations.Nullable Digest sha) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("type", "version");
        map.put("number", v.number());
        map.put("saved", v.saved().toString());
        map.put("captured", v.captured().toString());
        map.put("who", v.who());
        map.put("origin", v.origin().name());
        if (v.source() > 0) {
            map.put("restoredFrom", v.source());
        }
        map.put("kind", v.kind().name());
        map.put("path", v.path());
        map.put("size", v.size());
        map.put("modified", Moment.instant(Math.floorDiv(v.mtimeNanos(), 1000)).toString());
        map.put("mode", Integer.toOctalString(v.mode()));
        map.put("sha256", sha == null ? null : sha.hex());
        map.put("note", v.note());
        return map;
    }

    private static Map<String, Object> json(Event e) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("type", "event");
        map.put("at", e.at().toString());
        map.put("kind", e.kind().name());
        map.put("who", e.who());
        map.put("from", e.from());
        map.put("to", e.to());
        map.put("version", e.number());
        return map;
    }
}
