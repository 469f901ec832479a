package org.mendedleaf.core.pick;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.RowChange;
import org.mendedleaf.core.compare.Comparison.SheetChange;
import org.mendedleaf.core.compare.Comparison.SheetChanges;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Document.Sheet;
import org.mendedleaf.core.document.Formulas;
import org.mendedleaf.core.words.Words;

/** Which rows a sheet has when some changes are taken back, where each of them comes from, and what formulas then name. */
final class SheetPlan {

    private final Sheet before;
    private final Sheet after;
    private final List<Out> rows = new ArrayList<>();
    private final Map<Integer, Integer> ofBefore = new TreeMap<>();
    private final Map<Integer, Integer> ofAfter = new TreeMap<>();
    private final Map<Integer, Integer> pairs = new HashMap<>();
    private final Set<Integer> astray = new HashSet<>();
    private boolean shifted;

    /**
     * A row that comes of it.
     *
     * @param earlier whether it is one of the earlier sheet
     * @param row its number there, or in the later sheet, from 0
     * @param cells columns whose cell is the earlier one, by column, both from 0
     * @param from number of its counterpart in the earlier sheet, from which those come; -1 when it has none
     * @param moved whether it stands at another place than in the later sheet
     */
    record Out(boolean earlier, int row, Map<Integer, Integer> cells, int from, boolean moved) {}

    private SheetPlan(Sheet before, Sheet after) {
        this.before = before;
        this.after = after;
    }

    /** Why a change cannot be taken back whatever the file is. */
    static Optional<String> refusal(SheetChanges changes, Change change) {
        for (SheetChange sheet : changes.sheets()) {
            if (sheet.mark() == Mark.ADDED || sheet.mark() == Mark.REMOVED) {
                continue;
            }
            for (RowChange row : sheet.rows()) {
                if (row.change() == change.number() || row.cellChanges().contains(change.number())) {
                    boolean columns = sheet.columns().stream().anyMatch(c -> c.mark() != Mark.SAME);
                    return columns ? Optional.of(Words.of("pick.columns")) : Optional.empty();
                }
            }
        }
        return Optional.of(Words.of("pick.wholeSheet"));
    }

    static SheetPlan of(SheetChange changes, Sheet before, Sheet after, Set<Integer> numbers) {
        SheetPlan plan = new SheetPlan(before, after);
        List<RowChange> moved = new ArrayList<>();
        for (RowChange row : changes.rows()) {
            boolean whole = row.change() > 0 && numbers.contains(row.change());
            plan.shifted |= whole;
            if (row.mark() == Mark.REMOVED) {
                if (whole) {
                    plan.rows.add(new Out(true, row.before(), Map.of(), row.before(), false));
                }
            } else if (row.mark() == Mark.MOVED && whole) {
                moved.add(row);
            } else if (!whole) {
                plan.rows.add(plan.kept(row, changes, numbers));
                if (row.mark() == Mark.MOVED) {
                    plan.astray.add(row.after());
                }
            }
            if (row.before() >= 0 && row.after() >= 0) {
                plan.pairs.put(row.after(), row.before());
            }
        }
        moved.forEach(plan::back);
        plan.number();
        return plan;
    }

    private Out kept(RowChange row, SheetChange changes, Set<Integer> numbers) {
        Map<Integer, Integer> cells = new LinkedHashMap<>();
        for (int c = 0; c < changes.columns().size(); c++) {
            if (row.cellChange(c) > 0 && numbers.contains(row.cellChange(c))) {
                cells.put(
                        changes.columns().get(c).after(),
                        changes.columns().get(c).before());
            }
        }
        return new Out(false, row.after(), cells, row.before(), false);
    }

    /** Puts a row that was moved behind the rows that stood before it. */
    private void back(RowChange row) {
        int at = 0;
        for (int i = 0; i < rows.size(); i++) {
            Out there = rows.get(i);
            boolean inPlace = there.from() >= 0 && (there.earlier() || !astray.contains(there.row()));
            at = inPlace && there.from() < row.before() ? i + 1 : at;
        }
        rows.add(at, new Out(false, row.after(), Map.of(), row.before(), true));
    }

    private void number() {
        for (int i = 0; i < rows.size(); i++) {
            Out row = rows.get(i);
            if (!row.earlier()) {
                ofAfter.put(row.row(), i);
            }
            if (row.from() >= 0) {
                ofBefore.put(row.from(), i);
            }
        }
    }

    /** Rows in their order; rows without anything at the end of the sheet are not among them. */
    List<Out> rows() {
        return rows;
    }

    /** Whether rows come, go or are moved. */
    boolean isShifted() {
        return shifted;
    }

    /** Whether anything of this sheet is taken back. */
    boolean isTouched() {
        return shifted || rows.stream().anyMatch(r -> !r.cells().isEmpty());
    }

    Sheet before() {
        return before;
    }

    Sheet after() {
        return after;
    }

    /** What stands in a row that comes of it, in which the cells that are formulas may still say something else. */
    Row said(Out row) {
        if (row.earlier()) {
            return before.rows().get(row.row());
        }
        Row now = after.rows().get(row.row());
        if (row.cells().isEmpty()) {
            return now;
        }
        List<Cell> cells = new ArrayList<>(now.cells());
        row.cells().forEach((to, from) -> {
            while (cells.size() <= to) {
                cells.add(Cell.NONE);
            }
            cells.set(to, before.rows().get(row.from()).cell(from));
        });
        return new Row(cells);
    }

    private Optional<int[]> range(Map<Integer, Integer> where, int size, int first, int last) {
        int least = Integer.MAX_VALUE;
        int most = -1;
        for (int row = first; row <= Math.min(last, size - 1); row++) {
            Integer now = where.get(row);
            if (now != null) {
                least = Math.min(least, now);
                most = Math.max(most, now);
            }
        }
        // Beyond the last row with anything in it, all rows are alike.
        if (last >= size) {
            int beyond = last - size + rows.size();
            most = Math.max(most, beyond);
            least = first >= size ? first - size + rows.size() : Math.min(least, beyond);
        }
        return most < 0 ? Optional.empty() : Optional.of(new int[] {least, most});
    }

    /** Where rows of the earlier sheet are. */
    Optional<int[]> fromBefore(int first, int last) {
        return range(ofBefore, before.rows().size(), first, last);
    }

    /** Where rows of the later sheet are. */
    Optional<int[]> fromAfter(int first, int last) {
        return range(ofAfter, after.rows().size(), first, last);
    }

    /** The row of the earlier sheet that is the counterpart of a row of the later one; -1 when it has none. */
    int counterpart(int afterRow) {
        return pairs.getOrDefault(afterRow, -1);
    }

    /** The plans of all sheets of a workbook, by the name of the sheet. */
    static final class All {
        private final Map<String, SheetPlan> plans = new LinkedHashMap<>();

        void add(String name, SheetPlan plan) {
            plans.put(name, plan);
        }

        Map<String, SheetPlan> plans() {
            return plans;
        }

        boolean isShifted() {
            return plans.values().stream().anyMatch(SheetPlan::isShifted);
        }

        /** A formula of the earlier workbook as it names the same rows in what comes of it. */
        String fromBefore(String sheet, String formula) {
            return Formulas.map(formula, (named, first, last) -> {
                SheetPlan plan = plans.get(named.isEmpty() ? sheet : named);
                return plan == null ? Optional.of(new int[] {first, last}) : plan.fromBefore(first, last);
            });
        }

        /**
         * A formula of the later workbook. Where it named more rows before, as a sum does over a row that is brought back at
         * its end, it names those again.
         */
        String fromAfter(String sheet, int row, int column, String formula) {
            if (!isShifted()) {
                return formula;
            }
            List<Optional<int[]>> earlier = new ArrayList<>();
            SheetPlan own = plans.get(sheet);
            int counterpart = own == null ? -1 : own.counterpart(row);
            String was = own == null || counterpart < 0
                    ? ""
                    : own.before().rows().get(counterpart).cell(column).formula();
            Formulas.map(was, (named, first, last) -> {
                SheetPlan plan = plans.get(named.isEmpty() ? sheet : named);
                earlier.add(first == last || plan == null ? Optional.empty() : plan.fromBefore(first, last));
                return Optional.of(new int[] {first, last});
            });
            int[] at = {0};
            boolean same = shape(was).equals(shape(formula));
            return Formulas.map(formula, (named, first, last) -> {
                SheetPlan plan = plans.get(named.isEmpty() ? sheet : named);
                Optional<int[]> now = plan == null ? Optional.of(new int[] {first, last}) : plan.fromAfter(first, last);
                Optional<int[]> then = same && at[0] < earlier.size() ? earlier.get(at[0]) : Optional.empty();
                at[0]++;
                if (plan == null || now.isEmpty() || then.isEmpty()) {
                    return now;
                }
                int[] both = {Math.min(now.get()[0], then.get()[0]), Math.max(now.get()[1], then.get()[1])};
                return plan.isBack(both[0], now.get()[0]) && plan.isBack(now.get()[1] + 1, both[1] + 1)
                        ? Optional.of(both)
                        : now;
            });
        }

        private static String shape(String formula) {
            String bare = formula.substring(Math.max(0, formula.indexOf('=')));
            return Formulas.map(bare, (sheet, first, last) -> Optional.of(new int[] {0, 0}));
        }
    }

    /** Whether all rows from one to before another are rows that were brought back. */
    private boolean isBack(int from, int end) {
        for (int i = from; i < end; i++) {
            if (i >= rows.size() || !rows.get(i).earlier()) {
                return false;
            }
        }
        return true;
    }

    /** Whether cells that are one reach over several rows. */
    boolean hasTallMerges() {
        Set<Integer> heights = new HashSet<>();
        before.merged().forEach(m -> heights.add(m.rows()));
        after.merged().forEach(m -> heights.add(m.rows()));
        return heights.stream().anyMatch(h -> h > 1);
    }
}
