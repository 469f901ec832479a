package org.mendedleaf.core.recovery;

import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.report.CsvTable;

/** A plan as a file for others: CSV with a row for each file, or JSON. */
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

    /** The files as maps that can be written as JSON. */
    public static List<Map<String, Object>> items(RestorePlan plan) {
        List<Map<String, Object>> all = new ArrayList<>();
        plan.items().forEach(i -> all.add(item(i)));
        return all;
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
