package org.mendedleaf.core.catalogue;

import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import org.mendedleaf.core.line.Edition;
import org.mendedleaf.core.line.Place;

/** What the versions of a place are called, where that is not their number. */
public final class Labels {

    private final Map<Long, Map<Integer, String>> all = new HashMap<>();

    private Labels() {}

    /** Those of a place. */
    public static Labels of(Reading reading, Place place) throws IOException {
        Labels labels = new Labels();
        record Row(long line, int number, String label) {}
        String sql = place.isOutside()
                ? "SELECT h.line, h.number, h.label, 0 FROM holding h JOIN line l ON l.id = h.line"
                        + " WHERE l.place = ? AND h.label <> ''"
                : "SELECT e.line, e.number, e.major, e.minor FROM edition e JOIN line l ON l.id = e.line"
                        + " WHERE l.place = ?";
        for (Row r : reading.sql()
                .list(
                        sql,
                        row -> new Row(
                                row.getLong(1),
                                row.getInt(2),
                                place.isOutside()
                                        ? row.getString(3)
                                        : new Edition(row.getInt(3), row.getInt(4)).label()),
                        place.id())) {
            labels.all.computeIfAbsent(r.line(), l -> new HashMap<>()).putIfAbsent(r.number(), r.label());
        }
        return labels;
    }

    /** What a version is called; empty for the number 0, which is none. */
    public String of(long line, int number) {
        String own = all.getOrDefault(line, Map.of()).get(number);
        return own != null ? own : number == 0 ? "" : Integer.toString(number);
    }
}
