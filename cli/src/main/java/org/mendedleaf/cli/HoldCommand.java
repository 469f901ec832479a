package org.mendedleaf.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.line.Hold;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.MomentText;
import org.mendedleaf.core.line.OpenVault;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Reading;
import org.mendedleaf.core.retention.Holds;
import org.mendedleaf.core.systems.HeldContents;
import org.mendedleaf.core.words.Say;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Holds a file, a version of it, or a folder, so that nothing takes it away; without a path, lists all holds. */
@Command(name = "hold", description = "${bundle:cli.hold}", mixinStandardHelpOptions = true)
final class HoldCommand extends RetentionBase {

    @Parameters(arity = "0..1", paramLabel = "FILE|FOLDER", descriptionKey = "cli.hold.path")
    @Nullable
    Path path;

    @Option(names = "--version", paramLabel = "N", descriptionKey = "cli.hold.version")
    @Nullable
    String version;

    @Option(names = "--reason", paramLabel = "TEXT", descriptionKey = "cli.hold.reason")
    String reason = "";

    @Option(names = "--until", paramLabel = "DATE", descriptionKey = "cli.hold.until")
    @Nullable
    String until;

    HoldCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        Path wanted = path;
        if (wanted == null) {
            return list();
        }
        try (Located located = locate(wanted)) {
            Holds holds = new Holds(located.vault(), clock(), who());
            Place place = located.place();
            Optional<Line> line;
            boolean folder;
            try (Reading reading = located.vault().read()) {
                line = reading.line(place, located.path());
                folder = reading.isFolder(place, located.path());
            }
            Hold hold;
            if (line.isEmpty() && folder && version == null) {
                hold = holds.folder(place, located.path(), reason, until());
            } else {
                Line l = line.orElseThrow(() -> new IllegalArgumentException(Words.of("cli.noLine", wanted)));
                String named = version;
                hold = named == null
                        ? holds.line(place, l.id(), l.path(), reason, until())
                        : holds.version(place, l.id(), version(l, named).number(), l.path(), reason, until());
            }
            line(Words.of("cli.hold.done", String.valueOf(hold.id()), words(hold, place)));
            return place.isOutside() ? take(located) : Main.DONE;
        }
    }

    /** No system can be kept from forgetting, so the vault takes what is held. */
    private int take(Located located) throws IOException {
        HeldContents.Taken taken;
        try (TerminalProgress progress = new TerminalProgress(surroundings.err())) {
            taken = new HeldContents(located.vault(), book()).take(located.place(), now(), progress);
        }
        if (taken.versions() > 0) {
            say("cli.hold.taken", taken.versions(), located.place().where());
        }
        taken.failed().forEach((what, why) -> complain(Words.of("cli.hold.notTaken", what, why)));
        return taken.failed().isEmpty() ? Main.DONE : Main.SOME_FAILED;
    }

    private Optional<Instant> until() throws IOException {
        String typed = until;
        if (typed == null) {
            return Optional.empty();
        }
        try {
            return Optional.of(java.time.LocalDate.parse(typed.strip())
                    .plusDays(1)
                    .atStartOfDay(zone())
                    .toInstant());
        } catch (java.time.format.DateTimeParseException e) {
            return Optional.of(new MomentText(zone(), now(), NO_AROUND).read(typed));
        }
    }

    private String words(Hold h, Place place) throws IOException {
        String what = Words.of("hold.what." + h.kind(), h.path().isEmpty() ? place.label() : h.path(), h.number());
        return h.until().isPresent()
                ? Words.of("hold.until", what, Say.day(h.until().get().minusMillis(1), now(), zone()))
                : what;
    }

    private int list() throws IOException {
        List<Object> json = new ArrayList<>();
        List<List<String>> rows = new ArrayList<>();
        for (Path folder : vaults()) {
            try (OpenVault open = open(folder);
                    Reading reading = open.read()) {
                for (Hold h : new Holds(open, clock(), who()).standing()) {
                    Place place = reading.places().stream()
                            .filter(p -> p.id() == h.place())
                            .findFirst()
                            .orElseThrow();
                    rows.add(List.of(
                            String.valueOf(h.id()),
                            place.label(),
                            words(h, place),
                            h.reason(),
                            h.who(),
                            Say.moment(h.at(), now(), zone())));
                    json.add(map(h, place));
                }
            }
        }
        if (this.json) {
            printJson(json);
        } else if (rows.isEmpty()) {
            say("cli.hold.none");
        } else {
            table(rows, "rlllll");
        }
        return Main.DONE;
    }

    private static Map<String, Object> map(Hold h, Place place) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("hold", h.id());
        map.put("place", place.where());
        map.put("kind", h.kind().name());
        map.put("path", h.path());
        map.put("version", h.number());
        map.put("reason", h.reason());
        map.put("who", h.who());
        map.put("since", h.at().toString());
        map.put("until", h.until().map(Instant::toString).orElse(null));
        return map;
    }
}
