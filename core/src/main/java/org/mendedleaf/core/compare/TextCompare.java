package org.mendedleaf.core.compare;

import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.Piece;
import org.mendedleaf.core.compare.Comparison.TextChanges;
import org.mendedleaf.core.words.Words;

/** Compares texts by line, and lines that stand for each other by word. Pure. */
final class TextCompare {

    /** Lines are taken for the same line with other words from this likeness on. */
    private static final int ALIKE = 40;

    private static final long PAIRS_MOST = 40_000;

    private final List<String> a;
    private final List<String> b;
    private final List<TextChanges.Line> lines = new ArrayList<>();
    private final List<Change> changes = new ArrayList<>();

    private TextCompare(List<String> a, List<String> b) {
        this.a = a;
        this.b = b;
    }

    static Comparison compare(List<String> a, List<String> b) {
        TextCompare compare = new TextCompare(a, b);
        Alignment.walk(
                Alignment.of(a, b),
                b.size(),
                compare::gap,
                (i, j) -> compare.lines.add(
                        new TextChanges.Line(Mark.SAME, i + 1, j + 1, List.of(new Piece(Mark.SAME, a.get(i))), 0)));
        return new TextChanges(compare.lines, compare.changes);
    }

    private void gap(int fromA, int endA, int fromB, int endB) {
        int n = endA - fromA;
        int m = endB - fromB;
        int[] partner = new int[n];
        java.util.Arrays.fill(partner, -1);
        List<List<Piece>> of = new ArrayList<>(java.util.Collections.nCopies(m, null));
        if ((long) n * m <= PAIRS_MOST) {
            List<WordCompare.Bag> x = WordCompare.bags(a.subList(fromA, endA));
            List<WordCompare.Bag> y = WordCompare.bags(b.subList(fromB, endB));
            Alignment.best(
                    n,
                    m,
                    (i, j) -> {
                        int alike = x.get(i).likeness(y.get(j));
                        return alike >= ALIKE ? alike : 0;
                    },
                    (i, j) -> partner[i] = j);
        }
        int number = changes.size() + 1;
        for (int i = 0; i < n; i++) {
            String line = a.get(fromA + i);
            List<Piece> pieces = List.of(new Piece(Mark.REMOVED, line));
            if (partner[i] >= 0) {
                List<Piece> both = WordCompare.pieces(line, b.get(fromB + partner[i]));
                pieces = WordCompare.side(both, Mark.REMOVED);
                of.set(partner[i], WordCompare.side(both, Mark.ADDED));
            }
            lines.add(new TextChanges.Line(Mark.REMOVED, fromA + i + 1, 0, pieces, number));
        }
        for (int j = 0; j < m; j++) {
            List<Piece> pieces = of.get(j);
            lines.add(new TextChanges.Line(
                    Mark.ADDED,
                    0,
                    fromB + j + 1,
                    pieces == null ? List.of(new Piece(Mark.ADDED, b.get(fromB + j))) : pieces,
                    number));
        }
        changes.add(new Change(
                number,
                n == 0 ? Mark.ADDED : m == 0 ? Mark.REMOVED : Mark.CHANGED,
                where(n == 0 ? fromB : fromA, Math.max(1, n == 0 ? m : n)),
                String.join("\n", a.subList(fromA, endA)),
                String.join("\n", b.subList(fromB, endB))));
    }

    private static String where(int from, int count) {
        return count == 1
                ? Words.of("compare.where.line", from + 1)
                : Words.of("compare.where.lines", from + 1, from + count);
    }
}
