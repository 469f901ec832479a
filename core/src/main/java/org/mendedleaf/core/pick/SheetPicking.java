package org.mendedleaf.core.pick;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.SheetChange;
import org.mendedleaf.core.compare.Comparison.SheetChanges;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Document.Sheet;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.Documents;
import org.mendedleaf.core.words.Words;

/**
 * Takes changes of workbooks back: cells and whole rows come back as they are written in the earlier one; formulas go on
 * naming the rows that they named, and what they give is computed anew.
 */
final class SheetPicking {

    private final SheetPlan.All plans = new SheetPlan.All();
    private final Document.Sheets after;

    private SheetPicking(Document.Sheets before, Document.Sheets after, SheetChanges changes, Set<Integer> numbers) {
        this.after = after;
        Map<String, Sheet> was = new LinkedHashMap<>();
        before.sheets().forEach(s -> was.putIfAbsent(s.name(), s));
        for (SheetChange change : changes.sheets()) {
            Sheet now = after.sheets().stream()
                    .filter(s -> s.name().equals(change.name()))
                    .findFirst()
                    .orElse(null);
            if (change.mark() == Mark.ADDED || change.mark() == Mark.REMOVED || now == null) {
                continue;
            }
            // A sheet that was renamed is not told by its name: it is the one that is no other's.
            Sheet then = was.get(change.name());
            if (then == null) {
                List<Sheet> left = before.sheets().stream()
                        .filter(s -> changes.sheets().stream()
                                .noneMatch(c -> c.name().equals(s.name())))
                        .toList();
                if (left.size() != 1) {
                    continue;
                }
                then = left.get(0);
            }
            plans.add(change.name(), SheetPlan.of(change, then, now, numbers));
        }
    }

    static Office.Made back(String name, byte[] before, byte[] after, SheetChanges changes, Set<Integer> numbers)
            throws IOException {
        DocumentProcess documents = DocumentProcess.shared();
        if (!(documents.read(name, before, false) instanceof Document.Sheets was)
                || !(documents.read(name, after, false) instanceof Document.Sheets is)
                || was.cut()
                || is.cut()) {
            throw new Picking.Refused(Words.of("pick.large"));
        }
        SheetPicking picking = new SheetPicking(was, is, changes, numbers);
        try (PartsEdit from = new PartsEdit(before);
                PartsEdit to = new PartsEdit(after)) {
            return picking.made(name, from, to, before, after);
        }
    }

    private Office.Made made(String name, PartsEdit from, PartsEdit to, byte[] before, byte[] content)
            throws IOException {
        if (plans.isShifted() && plans.plans().values().stream().anyMatch(p -> p.isShifted() && p.hasTallMerges())) {
            throw new Picking.Refused(Words.of("pick.merged"));
        }
        if (Office.isOpenDocument(from) != Office.isOpenDocument(to)) {
            throw new Picking.Refused(Words.of("pick.format"));
        }
        SheetFormat format = Office.isOpenDocument(to)
                ? new OdsSheets(from, to)
                : new XlsxSheets(from, to, Documents.sheetParts(before), Documents.sheetParts(content));
        format.write(plans);
        List<String> also = Office.also(to);
        byte[] made = to.made();
        Document read = DocumentProcess.shared().read(name, made, false);
        if (read instanceof Document.Sheets now && hasFormulas(now)) {
            made = computed(format, to, now, made, also);
        }
        return new Office.Made(made, also, this::isMeant);
    }

    private static boolean hasFormulas(Document.Sheets sheets) {
        return sheets.sheets().stream()
                .flatMap(s -> s.rows().stream())
                .flatMap(r -> r.cells().stream())
                .anyMatch(c -> !c.formula().isEmpty());
    }

    /** Writes what formulas give now, where their results were known before and are others. */
    private byte[] computed(SheetFormat format, PartsEdit to, Document.Sheets now, byte[] made, List<String> also)
            throws IOException {
        Results was = Results.of(after);
        Results is = Results.of(now);
        Map<SheetFormat.Place, Cell> anew = new HashMap<>();
        int[] unknown = {0};
        for (Sheet sheet : now.sheets()) {
            SheetPlan plan = plans.plans().get(sheet.name());
            for (int r = 0; r < sheet.rows().size(); r++) {
                List<Cell> cells = sheet.rows().get(r).cells();
                for (int c = 0; c < cells.size(); c++) {
                    if (!cells.get(c).formula().isEmpty()) {
                        result(sheet.name(), r, c, cells.get(c), plan, was, is, anew, unknown);
                    }
                }
            }
        }
        if (unknown[0] > 0) {
            also.add(Words.of("pick.also.unknown", unknown[0]));
        }
        if (anew.isEmpty()) {
            return made;
        }
        also.add(Words.of("pick.also.totals", anew.size()));
        format.results(anew);
        return to.made();
    }

    private void result(
            String sheet,
            int row,
            int column,
            Cell cell,
            @org.jspecify.annotations.Nullable SheetPlan plan,
            Results was,
            Results is,
            Map<SheetFormat.Place, Cell> anew,
            int[] unknown) {
        SheetFormat.Place place = new SheetFormat.Place(sheet, row, column);
        Results.Result now = is.at(place);
        SheetPlan.Out out =
                plan == null || row >= plan.rows().size() ? null : plan.rows().get(row);
        boolean own = out != null && (out.earlier() || out.cells().containsKey(column));
        if (now.equals(Results.UNKNOWN)) {
            unknown[0] += plans.isShifted() || own ? 1 : 0;
            return;
        }
        if (now.isShownIn(cell)) {
            return;
        }
        // What somebody else computes in another way is left alone unless it says something else than before.
        SheetFormat.Place then = out == null ? place : new SheetFormat.Place(sheet, out.row(), column);
        boolean changed = own || !now.equals(was.at(then));
        if (changed && (own || was.at(then).isShownIn(cell))) {
            anew.put(place, now.in(cell));
        } else if (changed) {
            unknown[0]++;
        }
    }

    /** Whether a document says in each cell that is typed what the later one or, where it was taken back, the earlier said. */
    private boolean isMeant(Document document) {
        if (!(document instanceof Document.Sheets made)
                || made.sheets().size() != after.sheets().size()) {
            return false;
        }
        for (int i = 0; i < made.sheets().size(); i++) {
            Sheet sheet = made.sheets().get(i);
            SheetPlan plan = plans.plans().get(after.sheets().get(i).name());
            List<Row> meant = new ArrayList<>();
            if (plan == null) {
                meant.addAll(after.sheets().get(i).rows());
            } else {
                plan.rows().forEach(r -> meant.add(plan.said(r)));
            }
            int most = Math.max(meant.size(), sheet.rows().size());
            for (int r = 0; r < most; r++) {
                Row x = r < meant.size() ? meant.get(r) : new Row(List.of());
                Row y = r < sheet.rows().size() ? sheet.rows().get(r) : new Row(List.of());
                if (!isSame(x, y)) {
                    return false;
                }
            }
        }
        return true;
    }

    private static boolean isSame(Row x, Row y) {
        int most = Math.max(x.cells().size(), y.cells().size());
        for (int c = 0; c < most; c++) {
            Cell a = x.cell(c);
            Cell b = y.cell(c);
            boolean formulas = !a.formula().isEmpty() && !b.formula().isEmpty();
            boolean values = !a.value().isEmpty() && a.value().equals(b.value());
            boolean texts =
                    a.value().isEmpty() && b.value().isEmpty() && a.shown().equals(b.shown());
            if (!formulas && (a.formula().isEmpty() != b.formula().isEmpty() || !values && !texts)) {
                return false;
            }
        }
        return true;
    }
}
