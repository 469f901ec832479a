package org.mendedleaf.core.catalogue;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.time.Instant;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.disk.RelativePath;
import org.mendedleaf.core.journal.Action;
import org.mendedleaf.core.report.CsvTable;
import org.mendedleaf.core.report.Report;
import org.mendedleaf.core.report.ReportFile;
import org.mendedleaf.core.words.Words;

/** The journal for others: as CSV (RFC 4180), one row for each file, as JSON Lines, one entry in a line, and as a page. */
public final class JournalReport {

    private static final ObjectMapper JSON = new ObjectMapper();

    private JournalReport() {}

    /** As CSV. */
    public static String csv(List<JournalQuery.Entry> entries, Places places, CsvTable.Cells cells) {
        CsvTable csv = new CsvTable(
                cells,
                "at",
                "who",
                "kind",
                "place",
                "words",
                "undone",
                "file",
                "version before",
                "version after",
                "took seconds",
                "failed");
        for (JournalQuery.Entry e : entries) {
            String place = places.place(e.place());
            boolean undone = e.action().map(Action::undone).orElse(false);
            List<Action.Item> items = e.action().map(Action::items).orElse(List.of());
            if (items.isEmpty()) {
                csv.row(e.at(), e.who(), e.kind(), place, e.words(), undone, "", "", "", took(e), failed(e));
            }
            for (Action.Item i : items) {
                csv.row(
                        e.at(),
                        e.who(),
                        e.kind(),
                        place,
                        e.words(),
                        undone,
                        RelativePath.child(i.folder(), i.name()),
                        i.before(),
                        i.after(),
                        took(e),
                        failed(e));
            }
        }
        return csv.text();
    }

    /** Seconds that it took; nothing where that is not known. */
    private static @Nullable Double took(JournalQuery.Entry e) {
        return e.end().map(end -> end.took().toMillis() / 1000.0).orElse(null);
    }

    private static @Nullable Integer failed(JournalQuery.Entry e) {
        return e.end().map(JournalEnds.End::failed).orElse(null);
    }

    /**
     * As a page for printing.
     *
     * @param places the label of an entry's place
     */
    public static Report report(
            List<JournalQuery.Entry> entries, Function<JournalQuery.Entry, String> places, Instant now, ZoneId zone) {
        Report report = new Report("journal", Words.of("journal.report"), now);
        report.fact("entries", entries.size(), Words.of("journal.reportSum", entries.size()));
        Report.Table table = report.table(
                "journal",
                "",
                Report.brief("at", Words.of("report.when")),
                Report.brief("who", Words.of("keeps.by")),
                Report.text("place", Words.of("keeps.place")),
                Report.text("words", Words.of("report.what")),
                Report.text("outcome", Words.of("report.outcome")));
        for (JournalQuery.Entry e : entries) {
            boolean undone = e.action().map(Action::undone).orElse(false);
            table.row(
                    ReportFile.moment(e.at(), zone),
                    Report.Cell.of(e.who()),
                    Report.Cell.of(places.apply(e)),
                    Report.Cell.of(e.words()),
                    Report.Cell.of(undone ? Words.of("journal.undone") : e.outcome()));
        }
        return report;
    }

    /** As JSON Lines. */
    public static String jsonLines(List<JournalQuery.Entry> entries, Places places) throws JsonProcessingException {
        StringBuilder out = new StringBuilder();
        for (JournalQuery.Entry e : entries) {
            out.append(JSON.writeValueAsString(map(e, places))).append('\n');
        }
        return out.toString();
    }

    /** An entry with names for its parts. */
    public static Map<String, Object> map(JournalQuery.Entry e, Places places) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("at", e.at().toString());
        map.put("who", e.who());
        map.put("kind", e.kind());
        map.put("place", places.place(e.place()));
        map.put("words", e.words());
        map.put("tookSeconds", took(e));
        map.put("failed", failed(e));
        map.put("cutShort", e.cutShort());
        e.action().ifPresent(a -> {
            map.put("action", a.id());
            map.put("undone", a.undone());
            map.put("undoes", a.undoes() == 0 ? null : a.undoes());
            map.put(
                    "files",
                    a.items().stream()
                            .map(i -> {
                                Map<String, Object> file = new LinkedHashMap<>();
                                file.put("path", RelativePath.child(i.folder(), i.name()));
                                file.put("before", i.before() == 0 ? null : i.before());
                                file.put("after", i.after() == 0 ? null : i.after());
                                return file;
                            })
                            .toList());
        });
        return map;
    }

    /** What places are called. */
    public interface Places {
        /** The label of a place; empty for 0. */
        String place(long id);
    }
}
