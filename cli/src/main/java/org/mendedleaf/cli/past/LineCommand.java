package org.mendedleaf.cli.past;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.mendedleaf.cli.base.ExitCodes;
import org.mendedleaf.cli.base.ReportOption;
import org.mendedleaf.cli.base.RetentionBase;
import org.mendedleaf.cli.base.Surroundings;
import org.mendedleaf.core.catalogue.PlainDigests;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.intake.Stray;
import org.mendedleaf.core.intake.StrayCopies;
import org.mendedleaf.core.line.CheckOut;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.retention.LineReport;
import org.mendedleaf.core.systems.MergedLine;
import org.mendedleaf.core.systems.MergedPoint;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

/** Shows the line of one file, newest point first. */
@Command(name = "line", description = "${bundle:cli.line}")
public final class LineCommand extends RetentionBase {

    @Parameters(paramLabel = "FILE", descriptionKey = "cli.option.file")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Mixin
    private final ReportOption reportOption = new ReportOption();

    public LineCommand(Surroundings surroundings) {
        super(surroundings);
    }

    @Override
    public Integer call() throws Exception {
        reportOption.isWanted();
        try (Located located = locate(file);
                Reading reading = located.vault().read()) {
            Line line = line(located, reading);
            MergedLine merged = MergedLine.of(located.vault(), line, registry(), true);
            LineFacts said = LineFacts.of(reading, line, now(), calendar());
            if (json) {
                printJson(LineJson.of(merged, new PlainDigests(located.vault()).of(line), said));
            } else {
                print(merged, said);
                printStrays(located, line);
            }
            reportOption.write(this, () -> LineReport.of(reading, line, now(), calendar()));
            return ExitCodes.DONE;
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

    private void print(MergedLine merged, LineFacts said) throws java.io.IOException {
        Line line = merged.own();
        line(line.path() + "  " + Words.of("line.summary", line.versionsHere(), Formats.size(line.bytes())));
        if (line.removed().isPresent()) {
            say("removed.when", Formats.moment(line.removed().get(), now(), zone()));
        }
        if (said.out().isPresent()) {
            CheckOut out = said.out().get();
            say("line.checkedOut", out.who(), Formats.moment(out.since(), now(), zone()));
        }
        if (!said.card().isNothing()) {
            say(
                    "cli.note.card",
                    said.card().category(),
                    Words.of("visibility." + said.card().visibility()));
        }
        said.findings().forEach(f -> line(f.words(line.path(), line.label(f.number()))));
        List<List<String>> rows = new ArrayList<>();
        Map<Integer, Long> sizesBefore = new HashMap<>();
        List<Version> versions = line.versions();
        for (int i = 0; i < versions.size() - 1; i++) {
            sizesBefore.put(versions.get(i).number(), versions.get(i + 1).size());
        }
        boolean alone = merged.others().isEmpty() && !line.place().isOutside();
        for (MergedPoint point : merged.points()) {
            String when = Formats.moment(point.point().at(), now(), zone());
            if (point.point() instanceof Version v) {
                boolean own = v.line() == line.id();
                long before = own ? sizesBefore.getOrDefault(v.number(), -1L) : -1;
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
}
