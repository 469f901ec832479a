package org.mendedleaf.cli.keep;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.cli.base.TerminalProgress;
import org.mendedleaf.core.catalogue.Labels;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.retention.HoldEffect;
import org.mendedleaf.core.retention.Holds;
import org.mendedleaf.core.systems.OutsideHolds;
import org.mendedleaf.core.time.MomentText;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Holds a file, a version of it, or a folder, so that nothing takes it away; without a path, lists all holds. */
@Command(name = "hold", description = "${bundle:cli.hold}")
public final class HoldCommand extends RetentionBase {

    @Parameters(arity = "0..*", paramLabel = "FILE|FOLDER", descriptionKey = "cli.hold.path")
    List<Path> paths = List.of();

    @Option(names = "--version", paramLabel = "N", descriptionKey = "cli.hold.version")
    @Nullable
    String version;

    @Option(names = "--reason", paramLabel = "TEXT", descriptionKey = "cli.hold.reason")
    String reason = "";

    @Option(names = "--until", paramLabel = "DATE", descriptionKey = "cli.hold.until")
    @Nullable
    String until;

    public HoldCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        if (paths.isEmpty()) {
            return list();
        }
        if (version != null && paths.size() > 1) {
            throw new IllegalArgumentException(Words.of("cli.oneVersionOfOne"));
        }
        List<Object> rows = new ArrayList<>();
        int code = ExitCodes.DONE;
        for (Path wanted : paths) {
            // Each is looked for before any is held.
            locate(wanted).close();
        }
        for (Path wanted : paths) {
            code = Math.max(code, hold(wanted, rows));
        }
        if (json) {
            printJson(paths.size() == 1 ? rows.get(0) : rows);
        }
        return code;
    }

    private int hold(Path wanted, List<Object> rows) throws IOException {
        try (Located located = locate(wanted)) {
            Holds holds = new Holds(located.vault(), clock(), who());
            Place place = located.place();
            Optional<Line> line;
            boolean folder;
            try (Reading reading = located.vault().read()) {
                line = reading.line(place, located.path());
                folder = reading.folders().isFolder(place, located.path());
            }
            Hold what;
            if (line.isEmpty() && folder && version == null) {
                what = Hold.of(place, Hold.Kind.FOLDER, 0, 0, located.path(), 0);
            } else {
                Line l = line.orElseThrow(() -> new IllegalArgumentException(Words.of("cli.noLine", wanted)));
                String named = version;
                what = named == null
                        ? Hold.of(place, Hold.Kind.LINE, l.id(), 0, l.path(), 0)
                        : Hold.of(
                                place,
                                Hold.Kind.VERSION,
                                l.id(),
                                version(l, named).number(),
                                l.path(),
                                0);
            }
            HoldEffect effect;
            Labels labels;
            try (Reading reading = located.vault().read()) {
                labels = Labels.of(reading, place);
                effect = HoldEffect.of(reading, place, what, now(), calendar());
            }
            Hold hold = holds.put(place, what, reason, until());
            if (json) {
                Map<String, Object> map = map(hold, place, labels);
                map.put("files", effect.files());
                map.put("versions", effect.versions());
                map.put("bytes", effect.bytes());
                map.put("already", effect.already());
                map.put("otherwise", effect.otherwise().versions());
                rows.add(map);
            } else {
                line(Words.of("cli.hold.done", String.valueOf(hold.id()), words(hold, place, labels)) + " "
                        + effect.words());
            }
            return place.isOutside() ? take(located) : ExitCodes.DONE;
        }
    }

    /** No system can be kept from forgetting, so the vault takes what is held. */
    private int take(Located located) throws IOException {
        OutsideHolds.Taken taken;
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            taken = new OutsideHolds(located.vault(), registry()).take(located.place(), now(), progress);
        }
        if (taken.versions() > 0) {
            say("cli.hold.taken", taken.versions(), located.place().where());
        }
        taken.failed().forEach((what, why) -> complain(Words.of("cli.hold.notTaken", what, why)));
        return taken.failed().isEmpty() ? ExitCodes.DONE : ExitCodes.SOME_FAILED;
    }

    private Optional<Instant> until() throws IOException {
        String typed = until;
        return typed == null
                ? Optional.empty()
                : Optional.of(new MomentText(zone(), now(), MomentText.NOWHERE).readEnd(typed));
    }

    private String words(Hold h, Place place, Labels labels) throws IOException {
        String what = Words.of(
                "hold.what." + h.kind(),
                h.path().isEmpty() ? place.label() : h.path(),
                labels.of(h.line(), h.number()));
        return h.until().isPresent()
                ? Words.of("hold.until", what, Formats.end(h.until().get(), now(), zone()))
                : what;
    }

    private int list() throws Exception {
        List<Object> json = new ArrayList<>();
        List<List<String>> rows = new ArrayList<>();
        int code = eachVault((folder, open) -> {
            try (Reading reading = open.read()) {
                for (Hold h : new Holds(open, clock(), who()).standing()) {
                    Place place = reading.places().stream()
                            .filter(p -> p.id() == h.place())
                            .findFirst()
                            .orElseThrow();
                    Labels labels = Labels.of(reading, place);
                    rows.add(List.of(
                            String.valueOf(h.id()),
                            place.label(),
                            words(h, place, labels),
                            h.reason(),
                            h.who(),
                            Formats.moment(h.at(), now(), zone())));
                    json.add(map(h, place, labels));
                }
                return ExitCodes.DONE;
            }
        });
        if (this.json) {
            printJson(json);
        } else if (rows.isEmpty()) {
            say("cli.hold.none");
        } else {
            table(rows, "rlllll");
        }
        return code;
    }

    private static Map<String, Object> map(Hold h, Place place, Labels labels) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("hold", h.id());
        map.put("place", place.where());
        map.put("kind", h.kind().name());
        map.put("path", h.path());
        map.put("version", labels.of(h.line(), h.number()));
        map.put("reason", h.reason());
        map.put("who", h.who());
        map.put("since", h.at().toString());
        map.put("until", h.until().map(Instant::toString).orElse(null));
        return map;
    }
}
