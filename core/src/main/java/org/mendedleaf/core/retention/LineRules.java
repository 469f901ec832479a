package org.mendedleaf.core.retention;

import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.catalogue.VersionColumns;
import org.mendedleaf.core.line.Place;

/** Which rule each line is under: the most specific one that fits its place, its folder and its name. */
final class LineRules {

    /** Stands for no rule. */
    static final short NONE = -1;

    private final VersionTable table;
    private final RuleSet rules;

    private LineRules(VersionTable table, RuleSet rules) {
        this.table = table;
        this.rules = rules;
    }

    /** Index of the rule of each line; {@link #NONE} for none. */
    static short[] of(VersionTable table, RuleSet rules) {
        return new LineRules(table, rules).all();
    }

    /** What folders say is asked once for each folder. */
    private short[] all() {
        short[] all = new short[table.lines()];
        Arrays.fill(all, NONE);
        if (rules.rules().isEmpty()) {
            return all;
        }
        Map<Long, Place> places = new HashMap<>();
        table.places().forEach(p -> places.put(p.id(), p));
        List<List<PathMatcher>> matchers = new ArrayList<>();
        rules.rules().forEach(r -> matchers.add(r.scope().matchers()));
        Map<Long, List<int[]>> byFolder = new HashMap<>();
        for (int line = 0; line < all.length; line++) {
            VersionColumns.Folder folder = table.folder(line);
            List<int[]> candidates =
                    byFolder.computeIfAbsent(folder.id(), f -> candidates(places.get(folder.place()), folder.path()));
            for (int[] c : candidates) {
                RuleScope scope = rules.rules().get(c[0]).scope();
                if (!scope.asksName() || scope.fitsName(table.name(line), matchers.get(c[0]))) {
                    all[line] = (short) c[0];
                    break;
                }
            }
        }
        return all;
    }

    /** Rules that fit a folder with their weights, the most specific first. */
    private List<int[]> candidates(@Nullable Place place, String folder) {
        List<int[]> found = new ArrayList<>();
        for (int i = 0; place != null && i < rules.rules().size(); i++) {
            int weight = rules.rules().get(i).scope().fitsFolder(place.label(), place.where(), folder);
            if (weight >= 0) {
                found.add(new int[] {i, weight});
            }
        }
        found.sort((a, b) -> Integer.compare(b[1], a[1]));
        return found;
    }
}
