package org.mendedleaf.cli.past;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.CheckOutStore;
import org.mendedleaf.core.catalogue.FindingStore;
import org.mendedleaf.core.catalogue.PlainDigests;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.findings.HealthStore;
import org.mendedleaf.core.intake.PublishedKeep;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.intake.StrayCopies;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Comment;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.FileProperties;
import org.mendedleaf.core.line.Holder;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.StoredFinding;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.Calendar;
import org.mendedleaf.core.retention.LineVerdicts;
import org.mendedleaf.core.rules.PlaceRules;
import org.mendedleaf.core.systems.MergedLine;
import org.mendedleaf.core.systems.MergedPoint;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.vault.Digest;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

/** Shows the line of one file, newest point first. */
@Command(name = "line", description = "${bundle:cli.line}")
public final class LineCommand extends RetentionBase {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    public LineCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        try (Located located = locate(file);
                Reading reading = located.vault().read()) {
            Line line = line(located, reading);
            MergedLine merged = MergedLine.of(located.vault(), line, registry(), true);
            Said said = Said.of(reading, line, now(), calendar());
            if (json) {
                printJson(json(merged, new PlainDigests(located.vault()).of(line), said));
            } else {
                print(merged, said);
                printStrays(located, line);
            }
            return ExitCodes.DONE;
        }
    }

    /**
     * What is said of a line besides its points.
     *
     * @param beyond why versions go beyond what the place is meant to keep, by number
     * @param kept until when and why each is kept, or since when and why it is gone; empty for nothing to say
     * @param troubles what is wrong with versions, by number
     */
    private record Said(
            List<Comment> comments,
            FileProperties card,
            Optional<CheckOut> out,
            List<StoredFinding> findings,
            Map<Integer, String> beyond,
            Map<Integer, String> kept,
            Map<Integer, String> troubles) {

        static Said of(Reading reading, Line line, java.time.Instant now, Calendar calendar)
                throws java.io.IOException {
            Map<Integer, String> kept = new LinkedHashMap<>();
            LineVerdicts verdicts = LineVerdicts.of(reading, line.id(), now, calendar);
            line.versions().forEach(v -> kept.put(v.number(), verdicts.words(v.number(), now, calendar.zone())));
            boolean outside = line.place().isOutside();
            return new Said(
                    RemarkStore.of(reading).comments(line.id()),
                    RemarkStore.of(reading).card(line.id()),
                    CheckOutStore.of(reading).get(line.id()),
                    FindingStore.of(reading).open(line),
                    outside
                            ? Map.of()
                            : PublishedKeep.beyond(
                                    line.versions(),
                                    PlaceRules.of(reading, line.place()).settings()),
                    kept,
                    HealthStore.troubles(reading.vault().folder(), line));
        }
    }

    private void printStrays(Located located, Line line) throws java.io.IOException {
        if (line.place().isOutside()) {
            return;
        }
        List<Stray> strays = new StrayCopies(located.vault(), located.place(), evidence(located), clock())
                .of(line.path(), settings().strayFolders());
        if (!strays.isEmpty()) {
            say(
                    "cli.line.strays",
                    strays.size(),
                    Formats.moment(strays.get(0).modified(), now(), zone()),
                    strays.stream()
                            .map(s -> String.valueOf(s.file().getFileName()))
                            .collect(Collectors.joining(", ")));
        }
    }

    private void print(MergedLine merged, Said said) throws java.io.IOException {
        Line line = merged.own();
        line(line.path() + "  " + Words.of("line.summary", line.versionsHere(), Formats.size(line.bytes())));
        if (line.removed().isPresent()) {
            say("removed.when", Formats.moment(line.removed().get(), now(), zone()));
        }
        if (said.out().isPresent()) {
            CheckOut out = said.out().get();
            say("line.checkedOut", out.who(), Formats.moment(out.since(), now(), zone()));
        }
        if (!said.card().equals(FileProperties.NOTHING)) {
            say(
                    "cli.note.card",
                    said.card().category(),
                    Words.of("visibility." + said.card().visibility()));
        }
        said.findings().forEach(f -> line(f.words(line.path(), line.label(f.number()))));
        List<List<String>> rows = new ArrayList<>();
        List<Version> versions = line.versions();
        boolean alone = merged.others().isEmpty() && !line.place().isOutside();
        for (MergedPoint point : merged.points()) {
            String when = Formats.moment(point.point().at(), now(), zone());
            if (point.point() instanceof Version v) {
                boolean own = v.line() == line.id();
                int older = versions.indexOf(v) + 1;
                long before =
                        own && older < versions.size() ? versions.get(older).size() : -1;
                rows.add(List.of(
                        own ? v.label() : "",
                        when,
                        Formats.size(v.size()),
                        before < 0 ? "" : Formats.sizeChange(v.size() - before),
                        v.who(),
                        alone ? "" : held(point),
                        point.line().originWords(v)
                                + (own
                                        ? ""
                                        : " "
                                                + Words.of(
                                                        "cli.line.there",
                                                        point.line().place().label(),
                                                        v.label()))
                                + (v.note().isEmpty() ? "" : "  “" + v.note() + "”")
                                + said.comments().stream()
                                        .filter(c -> own && c.number() == v.number())
                                        .map(c -> "  " + c.who() + ": “" + c.words() + "”")
                                        .collect(Collectors.joining())
                                + (own && said.troubles().containsKey(v.number())
                                        ? "  ! " + said.troubles().get(v.number())
                                        : "")
                                + (own && said.beyond().containsKey(v.number())
                                        ? "  (" + said.beyond().get(v.number()) + ")"
                                        : "")
                                + (own
                                                && !said.kept()
                                                        .getOrDefault(v.number(), "")
                                                        .isEmpty()
                                        ? "  [" + said.kept().get(v.number()) + "]"
                                        : "")));
            } else if (point.point() instanceof Event e) {
                rows.add(List.of("", when, "", "", e.who(), "", Words.of("event." + e.kind(), e.from(), e.to())));
            }
        }
        table(rows, "rlrrlll");
    }

    private String held(MergedPoint point) throws java.io.IOException {
        if (point.copies().isEmpty()) {
            return Words.of("holders.nobody");
        }
        String held = String.join(", ", point.holders(Words.of("holders.vault")));
        if (point.onlyOne() && !point.inVault()) {
            held = Words.of("holders.only", held);
        }
        return point.forgottenSoon(now())
                ? held + ", "
                        + Words.of(
                                "holders.until",
                                Formats.moment(point.forgottenAt().orElseThrow(), now(), zone()))
                : held;
    }

    private static Map<String, Object> json(MergedLine merged, Map<Integer, Digest> digests, Said said) {
        Line line = merged.own();
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("path", line.path());
        map.put("folder", line.place().where());
        line.removed().ifPresent(r -> map.put("removed", r.toString()));
        map.put("bytesWithVersions", line.bytes());
        said.out()
                .ifPresent(o -> map.put(
                        "checkedOut", Map.of("who", o.who(), "since", o.since().toString())));
        map.put("category", said.card().category());
        map.put("visible", said.card().visibility().name());
        map.put(
                "findings",
                said.findings().stream()
                        .map(f -> f.words(line.path(), line.label(f.number())))
                        .toList());
        List<Object> points = new ArrayList<>();
        for (MergedPoint p : merged.points()) {
            if (p.point() instanceof Event e) {
                points.add(json(p.line(), e));
                continue;
            }
            Version v = p.version().orElseThrow();
            boolean own = v.line() == line.id();
            Map<String, Object> row =
                    json(p.line(), v, own ? digests.get(v.number()) : v.sha256().orElse(null));
            if (own) {
                row.put(
                        "comments",
                        said.comments().stream()
                                .filter(c -> c.number() == v.number())
                                .map(c -> Map.of("who", c.who(), "at", c.at().toString(), "words", c.words()))
                                .toList());
                row.put("kept", said.kept().getOrDefault(v.number(), ""));
                row.put("trouble", said.troubles().getOrDefault(v.number(), ""));
                String beyond = said.beyond().get(v.number());
                if (beyond != null) {
                    row.put("beyond", beyond);
                }
            }
            if (!own) {
                row.put("place", p.line().place().where());
            }
            row.put(
                    "heldBy",
                    p.copies().stream()
                            .map(c -> c.holder().kind() == Holder.Kind.VAULT
                                    ? "vault"
                                    : c.holder().place().where())
                            .distinct()
                            .toList());
            p.forgottenAt().ifPresent(at -> row.put("forgotten", at.toString()));
            points.add(row);
        }
        map.put("points", points);
        return map;
    }

    private static Map<String, Object> json(Line line, Version v, @org.jspecify.annotations.Nullable Digest sha) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("type", "version");
        map.put("version", v.label());
        map.put("sequence", v.number());
        map.put("saved", v.saved().toString());
        map.put("captured", v.captured().toString());
        map.put("who", v.who());
        map.put("origin", v.origin().name());
        if (v.source() > 0) {
            map.put("restoredFrom", line.label(v.source()));
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

    private static Map<String, Object> json(Line line, Event e) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("type", "event");
        map.put("at", e.at().toString());
        map.put("kind", e.kind().name());
        map.put("who", e.who());
        map.put("from", e.from());
        map.put("to", e.to());
        map.put("version", line.label(e.number()));
        return map;
    }
}
