package org.mendedleaf.core.retention;

import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.catalogue.RemarkStore;
import org.mendedleaf.core.line.Comment;
import org.mendedleaf.core.line.Event;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.LinePoint;
import org.mendedleaf.core.line.Version;
import org.mendedleaf.core.report.Report;
import org.mendedleaf.core.report.ReportFile;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** The past of one file: every version that ever was, renames and removals, notes, and until when each version is kept. */
public final class LineReport {

    private LineReport() {}

    /** Of a line, the newest point first. */
    public static Report of(Reading reading, Line line, Instant now, Calendar calendar) throws IOException {
        ZoneId zone = calendar.zone();
        LineVerdicts verdicts = LineVerdicts.of(reading, line.id(), now, calendar);
        List<Comment> comments = RemarkStore.of(reading).comments(line.id());
        Report report = new Report("line", Words.of("report.line", line.name()), now);
        report.fact("place", line.place().where(), "");
        report.fact(
                "path",
                line.path(),
                Words.of("report.lineIn", line.path(), line.place().label()));
        report.paragraph(Words.of("line.summary", line.versionsHere(), Formats.size(line.bytes())));
        line.removed().ifPresent(r -> report.paragraph(Words.of("removed.when", Formats.full(r, zone))));
        Report.Table table = report.table(
                "points",
                "",
                Report.brief("version", Words.of("report.version")),
                Report.brief("at", Words.of("report.when")),
                Report.brief("who", Words.of("keeps.by")),
                Report.number("bytes", Words.of("report.bytes")),
                Report.text("what", Words.of("report.what")),
                Report.text("note", Words.of("report.note")),
                Report.text("kept", Words.of("report.kept")),
                Report.hidden("sha256"));
        for (LinePoint point : line.points()) {
            if (point instanceof Version v) {
                table.row(
                        Report.Cell.of(v.label()),
                        ReportFile.moment(v.saved(), zone),
                        Report.Cell.of(v.who()),
                        ReportFile.size(v.size()),
                        Report.Cell.of(line.originWords(v)),
                        Report.Cell.of(notes(v, comments)),
                        Report.Cell.of(verdicts.words(v.number(), now, zone)),
                        new Report.Cell(v.sha256().map(Object::toString).orElse(null), ""));
            } else if (point instanceof Event e) {
                table.row(
                        Report.Cell.of(""),
                        ReportFile.moment(e.at(), zone),
                        Report.Cell.of(e.who()),
                        new Report.Cell(null, ""),
                        Report.Cell.of(Words.of("event." + e.kind(), e.from(), e.to())),
                        Report.Cell.of(""),
                        Report.Cell.of(""),
                        new Report.Cell(null, ""));
            }
        }
        return report;
    }

    private static String notes(Version v, List<Comment> comments) {
        StringBuilder all = new StringBuilder(v.note());
        for (Comment c : comments) {
            if (c.number() == v.number()) {
                all.append(all.isEmpty() ? "" : " · ")
                        .append(c.who())
                        .append(": ")
                        .append(c.words());
            }
        }
        return all.toString();
    }
}
