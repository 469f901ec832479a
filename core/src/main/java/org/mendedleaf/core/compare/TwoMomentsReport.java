package org.mendedleaf.core.compare;

import java.util.LinkedHashMap;
import java.util.Map;
import org.mendedleaf.core.catalogue.Labels;
import org.mendedleaf.core.report.CsvTable;

/** What became of files from one moment to another, as a file for others. */
public final class TwoMomentsReport {

    private TwoMomentsReport() {}

    /**
     * A row for each file: what became of it, paths, versions and bytes at both moments.
     *
     * @param labels what the versions of its place are called
     */
    public static String csv(Iterable<TwoMoments.Change> changes, Labels labels, CsvTable.Cells cells) {
        CsvTable csv = new CsvTable(
                cells, "change", "path", "path before", "version before", "version", "bytes before", "bytes");
        for (TwoMoments.Change c : changes) {
            csv.row(
                    c.kind(),
                    c.after().map(a -> a.path()).orElse(""),
                    c.before().map(b -> b.path()).orElse(""),
                    c.before().map(b -> labels.of(c.line(), b.number())).orElse(""),
                    c.after().map(a -> labels.of(c.line(), a.number())).orElse(""),
                    c.before().map(b -> String.valueOf(b.size())).orElse(""),
                    c.after().map(a -> String.valueOf(a.size())).orElse(""));
        }
        return csv.text();
    }

    /** One file as a map that can be written as JSON. */
    public static Map<String, Object> item(TwoMoments.Change c, Labels labels) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("change", c.kind().name());
        map.put("path", c.path());
        c.before().ifPresent(b -> map.put("before", at(b.path(), labels.of(c.line(), b.number()), b.size())));
        c.after().ifPresent(a -> map.put("after", at(a.path(), labels.of(c.line(), a.number()), a.size())));
        return map;
    }

    private static Map<String, Object> at(String path, String version, long bytes) {
        Map<String, Object> map = new LinkedHashMap<>();
        map.put("path", path);
        map.put("version", version);
        map.put("bytes", bytes);
        return map;
    }
}
