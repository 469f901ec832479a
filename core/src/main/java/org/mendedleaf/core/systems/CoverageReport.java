package org.mendedleaf.core.systems;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.mendedleaf.core.line.Skipped;
import org.mendedleaf.core.report.Report;
import org.mendedleaf.core.report.ReportFile;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** How everything is covered, for others: each folder and place with its state, and what is not kept and why. */
public final class CoverageReport {

    private CoverageReport() {}

    /** Of these rows. */
    public static Report of(List<Coverage.Row> rows, Instant now, ZoneId zone) {
        Report report = new Report("coverage", Words.of("coverage.report"), now);
        Map<CoverageState, Long> states = new TreeMap<>();
        rows.forEach(r -> states.merge(r.state(), 1L, Long::sum));
        report.fact("places", rows.size(), "");
        report.paragraph(Words.of(
                "coverage.reportSum",
                rows.size(),
                states.entrySet().stream()
                        .map(e -> e.getValue() + " " + Words.of("coverage." + e.getKey()))
                        .collect(Collectors.joining(", "))));
        Report.Table table = report.table(
                "coverage",
                "",
                Report.text("name", Words.of("keeps.place")),
                Report.path("where", Words.of("coverage.where")),
                Report.text("state", Words.of("coverage.state")),
                Report.brief("lastGood", Words.of("coverage.lastGood")),
                Report.hidden("next"),
                Report.number("files", Words.of("coverage.files")),
                Report.number("versions", Words.of("keeps.versions")),
                Report.text("trouble", Words.of("coverage.trouble")));
        Report.Table gaps = report.table(
                "gaps",
                Words.of("coverage.gaps"),
                Report.text("place", Words.of("keeps.place")),
                Report.path("path", Words.of("report.file")),
                Report.text("why", Words.of("report.why")),
                Report.brief("since", Words.of("keeps.since")));
        for (Coverage.Row r : rows) {
            table.row(
                    Report.Cell.of(r.name()),
                    Report.Cell.of(r.where()),
                    new Report.Cell(r.state().name(), Words.of("coverage." + r.state())),
                    moment(r.lastGood(), zone),
                    moment(r.next(), zone),
                    number(r.files()),
                    number(r.versions()),
                    Report.Cell.of(r.trouble()));
            for (Skipped s : r.gaps()) {
                gaps.row(
                        Report.Cell.of(r.name()),
                        Report.Cell.of(s.path()),
                        Report.Cell.of(s.words()),
                        ReportFile.moment(s.since(), zone));
            }
        }
        return report;
    }

    private static Report.Cell moment(Optional<Instant> at, ZoneId zone) {
        return at.map(a -> ReportFile.moment(a, zone)).orElse(new Report.Cell(null, ""));
    }

    private static Report.Cell number(long n) {
        return n < 0 ? new Report.Cell(null, "") : new Report.Cell(n, Formats.number(n));
    }
}
