package org.mendedleaf.core.compare;

import com.github.difflib.DiffUtils;
import com.github.difflib.patch.AbstractDelta;
import com.github.difflib.patch.DeltaType;
import com.github.difflib.patch.Patch;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.mendedleaf.core.preview.Contents;

/** Compares contents: tables by row, texts by line, everything else by size. Pure. */
public final class Compare {

    /** Contents larger than this are compared by size only. Bytes. */
    public static final int MOST = 4 << 20;

    private static final int LINES_MOST = 40_000;

    private Compare() {}

    /** What changed from {@code before} to {@code after}, both contents of a file of this name. */
    public static Comparison compare(String name, byte[] before, byte[] after) {
        if (Arrays.equals(before, after)) {
            return new Comparison.Equal();
        }
        Optional<String> left = Contents.text(before);
        Optional<String> right = Contents.text(after);
        if (left.isPresent() && right.isPresent()) {
            if (Contents.isTable(name)) {
                Optional<List<List<String>>> a = Contents.rows(left.get());
                Optional<List<List<String>>> b = Contents.rows(right.get());
                if (a.isPresent() && b.isPresent() && fits(a.get(), b.get())) {
                    return tables(a.get(), b.get());
                }
            }
            List<String> a = left.get().lines().toList();
            List<String> b = right.get().lines().toList();
            if (fits(a, b)) {
                return texts(a, b);
            }
        }
        return new Comparison.OtherContent((long) after.length - before.length);
    }

    private static boolean fits(List<?> a, List<?> b) {
        return a.size() <= LINES_MOST && b.size() <= LINES_MOST;
    }

    private static Comparison texts(List<String> a, List<String> b) {
        Patch<String> patch = DiffUtils.diff(a, b, true);
        List<Comparison.TextChanges.Line> lines = new ArrayList<>();
        int added = 0;
        int removed = 0;
        for (AbstractDelta<String> delta : patch.getDeltas()) {
            int before = delta.getSource().getPosition();
            int after = delta.getTarget().getPosition();
            if (delta.getType() == DeltaType.EQUAL) {
                for (String text : delta.getSource().getLines()) {
                    lines.add(new Comparison.TextChanges.Line(Comparison.Mark.SAME, ++before, ++after, text));
                }
                continue;
            }
            for (String text : delta.getSource().getLines()) {
                lines.add(new Comparison.TextChanges.Line(Comparison.Mark.REMOVED, ++before, 0, text));
                removed++;
            }
            for (String text : delta.getTarget().getLines()) {
                lines.add(new Comparison.TextChanges.Line(Comparison.Mark.ADDED, 0, ++after, text));
                added++;
            }
        }
        return new Comparison.TextChanges(lines, added, removed);
    }

    /** Rows that were exchanged for as many others are taken to be the same rows with other cells. */
    private static Comparison tables(List<List<String>> a, List<List<String>> b) {
        Patch<List<String>> patch = DiffUtils.diff(a, b, true);
        List<Comparison.TableChanges.Row> rows = new ArrayList<>();
        int[] counts = new int[3];
        for (AbstractDelta<List<String>> delta : patch.getDeltas()) {
            int before = delta.getSource().getPosition();
            int after = delta.getTarget().getPosition();
            List<List<String>> from = delta.getSource().getLines();
            List<List<String>> to = delta.getTarget().getLines();
            if (delta.getType() == DeltaType.EQUAL) {
                for (List<String> row : from) {
                    rows.add(new Comparison.TableChanges.Row(Comparison.Mark.SAME, ++after, row, row));
                }
                continue;
            }
            int both = Math.min(from.size(), to.size());
            for (int i = 0; i < both; i++) {
                counts[0] += cells(from.get(i), to.get(i));
                rows.add(new Comparison.TableChanges.Row(
                        Comparison.Mark.CHANGED, after + i + 1, from.get(i), to.get(i)));
            }
            for (int i = both; i < to.size(); i++) {
                counts[1]++;
                rows.add(new Comparison.TableChanges.Row(Comparison.Mark.ADDED, after + i + 1, List.of(), to.get(i)));
            }
            for (int i = both; i < from.size(); i++) {
                counts[2]++;
                rows.add(new Comparison.TableChanges.Row(
                        Comparison.Mark.REMOVED, before + i + 1, from.get(i), List.of()));
            }
        }
        return new Comparison.TableChanges(rows, counts[0], counts[1], counts[2]);
    }

    private static int cells(List<String> a, List<String> b) {
        int changed = 0;
        for (int i = 0; i < Math.max(a.size(), b.size()); i++) {
            String left = i < a.size() ? a.get(i) : "";
            String right = i < b.size() ? b.get(i) : "";
            changed += left.equals(right) ? 0 : 1;
        }
        return changed;
    }
}
