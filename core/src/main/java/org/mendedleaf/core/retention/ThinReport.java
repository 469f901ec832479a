package org.mendedleaf.core.retention;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.report.HtmlPage;
import org.mendedleaf.core.report.ReportFile;
import org.mendedleaf.core.time.Moment;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** A thinning as a file: CSV (RFC 4180) and JSON with every version, or a page of HTML for printing with every file. */
public final class ThinReport {

    private final ThinPlan plan;
    private final Optional<Thinning.Done> done;
    private final SpaceReport space;
    private final Instant now;
    private final ZoneId zone;
    private final CsvTable.Cells cells;

    /**
     * A report.
     *
     * @param done what was done; empty for a plan
     * @param space afterwards; for a plan, as it is now
     * @param cells how a table writes what a spreadsheet would compute
     */
    public ThinReport(
            ThinPlan plan,
            Optional<Thinning.Done> done,
            SpaceReport space,
            Instant now,
            ZoneId zone,
            CsvTable.Cells cells) {
        this.plan = plan;
        this.done = done;
        this.space = space;
        this.now = now;
        this.zone = zone;
        this.cells = cells;
    }

    /**
     * Checks that a report can be written under this name, before anything is done.
     *
     * @throws IllegalArgumentException with a message for the user, when its ending is none of ours
     */
    public static void requireEnding(Path file) {
        ReportFile.Form.of(file);
    }

    /**
     * Writes a file; its ending says of which kind: {@code .csv}, {@code .json} or {@code .html}. What was there is replaced
     * as a whole.
     *
     * @throws IllegalArgumentException with a message for the user, when the ending is another one
     */
    public void write(Path file) throws IOException {
        ReportFile.write(
                switch (ReportFile.Form.of(file)) {
                    case CSV -> csv();
                    case JSON -> json();
                    case HTML -> html();
                },
                file);
    }

    private String csv() {
        VersionTable t = plan.verdicts().table();
        CsvTable csv = new CsvTable(cells, "place", "path", "version", "saved", "bytes", "reason", "rule");
        for (int row = plan.going().nextSetBit(0); row >= 0; row = plan.going().nextSetBit(row + 1)) {
            int line = t.lineOf(row);
            csv.row(
                    place(line),
                    t.path(line),
                    t.number(row),
                    Moment.instant(t.saved(row)),
                    t.bytes(row),
                    plan.reason(row),
                    rule(row));
        }
        return csv.text();
    }

    private String place(int line) {
        VersionTable t = plan.verdicts().table();
        return t.places().stream()
                .filter(p -> p.id() == t.place(line))
                .findFirst()
                .map(p -> p.where())
                .orElse("");
    }

    private String rule(int row) {
        int rule = plan.verdicts().rule(row);
        return rule < 0 ? "" : plan.verdicts().rules().rules().get(rule).name();
    }

    private String json() throws IOException {
        VersionTable t = plan.verdicts().table();
        ObjectMapper mapper = new ObjectMapper();
        ObjectNode root = mapper.createObjectNode();
        root.put("at", now.toString());
        root.put("done", done.isPresent());
        root.put("versions", plan.versions());
        root.put("bytes", plan.bytes());
        root.put("freedBytes", plan.freedBytes());
        done.ifPresent(d -> root.put("due", d.due().toString()));
        ObjectNode r = root.putObject("space");
        r.put("inUse", space.inUse());
        r.put("waiting", space.waiting());
        r.put("unused", space.unused());
        r.put("bookkeeping", space.bookkeeping());
        r.put("free", space.free());
        ArrayNode warnings = root.putArray("warnings");
        plan.warnings().forEach(warnings::add);
        ArrayNode list = root.putArray("going");
        for (int row = plan.going().nextSetBit(0); row >= 0; row = plan.going().nextSetBit(row + 1)) {
            int line = t.lineOf(row);
            ObjectNode v = list.addObject();
            v.put("place", place(line));
            v.put("path", t.path(line));
            v.put("version", t.number(row));
            v.put("saved", Moment.instant(t.saved(row)).toString());
            v.put("bytes", t.bytes(row));
            v.put("reason", plan.reason(row).name());
            v.put("rule", rule(row));
        }
        return mapper.writerWithDefaultPrettyPrinter().writeValueAsString(root);
    }

    private String html() {
        VersionTable t = plan.verdicts().table();
        HtmlPage page =
                new HtmlPage(Words.of(done.isPresent() ? "report.done" : "report.plan", Formats.full(now, zone)));
        page.paragraph(plan.words());
        done.ifPresent(d -> page.paragraph(Words.of("report.due", Formats.full(d.due(), zone))));
        page.paragraph(space.words());
        plan.warnings().forEach(page::warning);
        List<List<String>> rows = plan.files().stream()
                .map(f -> List.of(
                        t.path(f.line()), Formats.number(f.going()), Formats.number(f.left()), Formats.size(f.bytes())))
                .toList();
        return page.table(
                        List.of(
                                Words.of("report.file"),
                                Words.of("report.going"),
                                Words.of("report.left"),
                                Words.of("report.bytes")),
                        3,
                        rows)
                .text();
    }
}
