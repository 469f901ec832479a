package org.mendedleaf.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** What was measured, as a table in Markdown. */
final class Table {

    private final List<String> rows = new ArrayList<>();

    static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    void ratio(String measure, String baseline, double ours, double theirs, String unit, double target) {
        double ratio = ours / theirs;
        if (target <= 0) {
            add(String.format(
                    Locale.ROOT,
                    "| %s | %s | %.3g %s | %.3g %s | %.2f | - | |",
                    measure,
                    baseline,
                    ours,
                    unit,
                    theirs,
                    unit,
                    ratio));
            return;
        }
        add(String.format(
                Locale.ROOT,
                "| %s | %s | %.3g %s | %.3g %s | %.2f | <= %.2f | %s |",
                measure,
                baseline,
                ours,
                unit,
                theirs,
                unit,
                ratio,
                target,
                ratio <= target ? "met" : "missed"));
    }

    /** Whole processes: wall and processor time and memory of both; the ratio is that of the wall times. */
    void processes(String measure, String baseline, Measured[] ours, Measured[] theirs, double target) {
        Measured mine = Measured.median(ours);
        Measured other = Measured.median(theirs);
        double ratio = mine.wall() / other.wall();
        String wanted = target <= 0 ? "-" : String.format(Locale.ROOT, "<= %.2f", target);
        String verdict = target <= 0 ? "" : ratio <= target ? "met" : "missed";
        add(String.format(
                Locale.ROOT,
                "| %s | %s | %s | %s | %.2f | %s | %s |",
                measure,
                baseline,
                mine.words(),
                other.words(),
                ratio,
                wanted,
                verdict));
    }

    void absolute(String measure, double value, String unit, double target) {
        if (target <= 0) {
            add(String.format(Locale.ROOT, "| %s | - | %.3g %s | - | - | - | |", measure, value, unit));
            return;
        }
        add(String.format(
                Locale.ROOT,
                "| %s | - | %.3g %s | - | - | < %.3g %s | %s |",
                measure,
                value,
                unit,
                target,
                unit,
                value < target ? "met" : "missed"));
    }

    private void add(String row) {
        rows.add(row);
        System.out.println(row);
        System.out.flush();
    }

    static void head() {
        System.out.println("| measure | baseline | ours | baseline's | ratio | target | |");
        System.out.println("|---|---|---|---|---|---|---|");
    }
}
