package org.mendedleaf.core.compare;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.report.CsvTable;

/** A comparison for other programs: as a table, and as a map that can be written as JSON. */
public final class ComparisonReport {

    private ComparisonReport() {}

    /** A row for each change: its number, what it is, where, what stood there and what stands there (RFC 4180). */
    public static String csv(Comparison comparison, CsvTable.Cells cells) {
        CsvTable csv = new CsvTable(cells, "number", "change", "where", "before", "after");
        for (Change c : comparison.changes()) {
            csv.row(c.number(), c.mark(), c.where(), c.before(), c.after());
        }
        if (comparison instanceof Comparison.SheetChanges sheets) {
            for (Change c : sheets.computed()) {
                csv.row("", "COMPUTED", c.where(), c.before(), c.after());
            }
        }
        return csv.text();
    }

    /** What changed in words, and each change. */
    public static Map<String, Object> json(Comparison comparison) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("equal", comparison instanceof Comparison.Equal);
        map.put("words", comparison.words());
        map.put("kind", kind(comparison));
        map.put(
                "changes",
                comparison.changes().stream().map(ComparisonReport::json).toList());
        if (comparison instanceof Comparison.SheetChanges sheets) {
            map.put(
                    "computed",
                    sheets.computed().stream().map(ComparisonReport::json).toList());
        } else if (comparison instanceof Comparison.PictureChanges picture) {
            map.put("share", picture.share());
        } else if (comparison instanceof Comparison.ByteChanges bytes) {
            map.put("equalShare", bytes.share());
            map.put(
                    "ranges",
                    bytes.ranges().stream()
                            .limit(1000)
                            .map(r -> List.of(r.before(), r.after(), r.length()))
                            .toList());
        }
        return map;
    }

    private static String kind(Comparison comparison) {
        return comparison.getClass().getSimpleName().replace("Changes", "").toLowerCase(java.util.Locale.ROOT);
    }

    private static Map<String, Object> json(Change change) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("number", change.number());
        map.put("change", change.mark().name());
        map.put("where", change.where());
        map.put("before", change.before());
        map.put("after", change.after());
        return map;
    }
}
