package org.mendedleaf.core.recovery;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.report.MappedList;
import org.mendedleaf.core.report.Report;
import org.mendedleaf.core.report.ReportFile;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** A plan as a file for others: CSV with a row for each file, JSON, or a page. */
public final class PlanReport {

    private PlanReport() {}

    /** A row for each file: path, version, bytes, target, step, why, other path. */
    public static String csv(RestorePlan plan, CsvTable.Cells cells) {
        CsvTable csv = new CsvTable(cells, "path", "version", "bytes", "target", "step", "why", "other");
        for (RestorePlan.Item i : plan.items()) {
            csv.row(
                    i.version().path(),
                    i.version().label(),
                    i.version().size(),
                    i.target(),
                    i.step(),
                    i.reason(),
                    i.other());
        }
        return csv.text();
    }

    /**
     * All of it, for printing too.
     *
     * @param title what the plan is for
     */
    public static Report report(RestorePlan plan, String title, Instant now, ZoneId zone) {
        Report report = new Report("plan", title, now);
        report.fact("files", plan.items().size(), "");
        report.fact("neededBytes", plan.preflight().neededBytes(), "");
        report.paragraph(Words.of("report.planSum", plan.items().size(), plan.acting(), Formats.size(plan.bytes())));
        plan.preflight().problems().forEach(p -> report.warning(p.words()));
        Report.Table table = report.table(
                "items",
                "",
                Report.path("path", Words.of("report.file")),
                Report.brief("version", Words.of("report.version")),
                Report.brief("saved", Words.of("report.when")),
                Report.number("bytes", Words.of("report.bytes")),
                Report.path("target", Words.of("report.target")),
                Report.text("step", Words.of("report.what")),
                Report.text("why", Words.of("report.why")));
        for (RestorePlan.Item i : plan.items()) {
            table.row(
                    Report.Cell.of(i.version().path()),
                    Report.Cell.of(i.version().label()),
                    ReportFile.moment(i.version().saved(), zone),
                    ReportFile.size(i.version().size()),
                    new Report.Cell(i.target(), i.target().equals(i.version().path()) ? "" : i.target()),
                    new Report.Cell(i.step().name(), Words.of("plan.step." + i.step())),
                    Report.Cell.of(i.reason()));
        }
        return report;
    }

    /** The files as maps that can be written as JSON, each made when it is asked for. */
    public static List<Map<String, Object>> items(RestorePlan plan) {
        return new MappedList<>(plan.items(), PlanReport::item);
    }

    /** One file as a map. */
    public static Map<String, Object> item(RestorePlan.Item i) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("path", i.version().path());
        map.put("version", i.version().label());
        map.put("target", i.target());
        map.put("step", i.step().name());
        map.put("bytes", i.version().size());
        map.put("why", i.reason());
        if (!i.other().isEmpty()) {
            map.put("other", i.other());
        }
        return map;
    }

    /** The whole plan with its preflight. */
    public static String json(RestorePlan plan) throws IOException {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("neededBytes", plan.preflight().neededBytes());
        boolean known = plan.preflight().freeBytes() != Long.MAX_VALUE;
        map.put("freeBytes", known ? plan.preflight().freeBytes() : null);
        map.put(
                "problems",
                plan.preflight().problems().stream()
                        .map(p -> Map.of("words", p.words(), "stops", p.stops()))
                        .toList());
        map.put("files", items(plan));
        return new ObjectMapper().writerWithDefaultPrettyPrinter().writeValueAsString(map);
    }
}
