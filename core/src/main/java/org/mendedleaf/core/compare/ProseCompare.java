package org.mendedleaf.core.compare;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison.BlockChange;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.Piece;
import org.mendedleaf.core.compare.Comparison.SectionChange;
import org.mendedleaf.core.document.Document;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.words.Words;

/**
 * Compares texts with a form: slides, pages and parts of messages first, then paragraphs, rows and pictures within them;
 * exactly where they are equal, by their words between, and those that stand at another place are moved. Pure.
 */
final class ProseCompare {

    /** Paragraphs are taken for the same one with other words from this likeness on. */
    private static final int ALIKE = 40;

    /** An equal paragraph counts for two that are only alike. */
    private static final int EQUAL = 200;

    private static final long PAIRS_MOST = 60_000;

    /** Shorter texts are too often the same by chance to be moved ones. */
    private static final int MOVED_LEAST = 12;

    private final Form form;
    private final List<Change> changes = new ArrayList<>();

    private ProseCompare(Form form) {
        this.form = form;
    }

    static Comparison compare(Document.Prose a, Document.Prose b) {
        ProseCompare compare = new ProseCompare(b.form());
        List<SectionChange> sections = new ArrayList<>();
        List<Section> x = a.sections();
        List<Section> y = b.sections();
        int[] to = compare.align(x, y);
        Alignment.walk(
                to,
                y.size(),
                (fromA, endA, fromB, endB) -> {
                    for (int i = fromA; i < endA; i++) {
                        sections.add(compare.section(x.get(i), null, i, -1));
                    }
                    for (int j = fromB; j < endB; j++) {
                        sections.add(compare.section(null, y.get(j), -1, j));
                    }
                },
                (i, j) -> sections.add(compare.section(x.get(i), y.get(j), i, j)));
        return new Comparison.ProseChanges(b.form(), sections, compare.changes);
    }

    private int[] align(List<Section> a, List<Section> b) {
        if (form == Form.DOCUMENT || form == Form.MAIL) {
            int[] to = new int[a.size()];
            for (int i = 0; i < to.length; i++) {
                to[i] = i < b.size() ? i : -1;
            }
            return to;
        }
        List<String> x = a.stream().map(ProseCompare::text).toList();
        List<String> y = b.stream().map(ProseCompare::text).toList();
        int[] to = Alignment.of(x, y);
        Alignment.walk(
                to.clone(),
                y.size(),
                (fromA, endA, fromB, endB) -> {
                    boolean few = (long) (endA - fromA) * (endB - fromB) <= PAIRS_MOST;
                    if (endA - fromA == endB - fromB) {
                        for (int i = 0; i < endA - fromA; i++) {
                            to[fromA + i] = fromB + i;
                        }
                    } else if (few) {
                        List<WordCompare.Bag> bagsA = WordCompare.bags(x.subList(fromA, endA));
                        List<WordCompare.Bag> bagsB = WordCompare.bags(y.subList(fromB, endB));
                        Alignment.best(
                                endA - fromA,
                                endB - fromB,
                                (i, j) -> {
                                    int alike = bagsA.get(i).likeness(bagsB.get(j));
                                    return alike >= ALIKE ? alike : 0;
                                },
                                (i, j) -> to[fromA + i] = fromB + j);
                    }
                },
                (i, j) -> {
                    // Equal already.
                });
        return to;
    }

    private static String text(Section section) {
        return String.join(
                "\n", section.blocks().stream().map(b -> b.text() + b.ref()).toList());
    }

    private SectionChange section(@Nullable Section from, @Nullable Section to, int i, int j) {
        int before = changes.size();
        List<Block> x = from == null ? List.of() : from.blocks();
        List<Block> y = to == null ? List.of() : to.blocks();
        Section shown = to != null ? to : java.util.Objects.requireNonNull(from);
        String where = where(shown, to != null ? j : i);
        List<BlockChange> blocks = new Blocks(x, y, where).compare();
        Mark mark = from == null
                ? Mark.ADDED
                : to == null ? Mark.REMOVED : changes.size() == before ? Mark.SAME : Mark.CHANGED;
        return new SectionChange(mark, i, j, shown.name(), blocks);
    }

    private String where(Section section, int number) {
        return switch (form) {
            case SLIDES -> Words.of("compare.where.slide", number + 1);
            case PAGES -> Words.of("compare.where.page", number + 1);
            case MAIL -> section.name();
            case DOCUMENT -> section.name();
        };
    }

    private final class Blocks {
        private final List<Block> a;
        private final List<Block> b;
        private final String where;
        private final List<BlockChange> found = new ArrayList<>();
        private String heading = "";

        Blocks(List<Block> a, List<Block> b, String where) {
            this.a = a;
            this.b = b;
            this.where = where;
        }

        private static String key(Block block) {
            // A picture is what it shows, whatever it is called.
            int check = block.ref().lastIndexOf('#');
            boolean picture = block.style() == Style.PICTURE && check >= 0;
            return picture ? block.ref().substring(check) : block.text() + "\u0000" + block.ref();
        }

        List<BlockChange> compare() {
            List<String> x = a.stream().map(Blocks::key).toList();
            List<String> y = b.stream().map(Blocks::key).toList();
            int[] to = align(x, y);
            Map<Integer, Integer> moved = moved(to, x, y);
            Alignment.walk(
                    to,
                    y.size(),
                    (fromA, endA, fromB, endB) -> {
                        for (int i = fromA; i < endA; i++) {
                            if (!moved.containsValue(i)) {
                                add(Mark.REMOVED, i, -1);
                            }
                        }
                        for (int j = fromB; j < endB; j++) {
                            Integer from = moved.get(j);
                            add(from == null ? Mark.ADDED : Mark.MOVED, from == null ? -1 : from, j);
                        }
                    },
                    (i, j) -> add(x.get(i).equals(y.get(j)) ? Mark.SAME : Mark.CHANGED, i, j));
            return found;
        }

        /** Few blocks are aligned by what makes the most sense of all of them, many by what is equal first. */
        private int[] align(List<String> x, List<String> y) {
            int[] to = new int[x.size()];
            java.util.Arrays.fill(to, -1);
            int begin = 0;
            int endX = x.size();
            int endY = y.size();
            while (begin < Math.min(endX, endY) && x.get(begin).equals(y.get(begin))) {
                to[begin] = begin;
                begin++;
            }
            while (endX > begin && endY > begin && x.get(endX - 1).equals(y.get(endY - 1))) {
                to[--endX] = --endY;
            }
            if ((long) (endX - begin) * (endY - begin) <= PAIRS_MOST) {
                similar(begin, endX, begin, endY, to, x, y);
                return to;
            }
            int[] equal = Alignment.of(x, y);
            Alignment.walk(
                    equal.clone(),
                    y.size(),
                    (fromA, endA, fromB, endB) -> similar(fromA, endA, fromB, endB, equal, x, y),
                    (i, j) -> {
                        // Equal already.
                    });
            return equal;
        }

        private void similar(int fromA, int endA, int fromB, int endB, int[] to, List<String> x, List<String> y) {
            if ((long) (endA - fromA) * (endB - fromB) > PAIRS_MOST) {
                return;
            }
            List<WordCompare.Bag> bagsA = WordCompare.bags(texts(a.subList(fromA, endA)));
            List<WordCompare.Bag> bagsB = WordCompare.bags(texts(b.subList(fromB, endB)));
            Alignment.best(
                    endA - fromA,
                    endB - fromB,
                    (i, j) -> x.get(fromA + i).equals(y.get(fromB + j))
                            ? EQUAL
                            : like(a.get(fromA + i), b.get(fromB + j), bagsA.get(i), bagsB.get(j)),
                    (i, j) -> to[fromA + i] = fromB + j);
        }

        private static List<String> texts(List<Block> blocks) {
            return blocks.stream().map(Block::text).toList();
        }

        private static int like(Block x, Block y, WordCompare.Bag bagX, WordCompare.Bag bagY) {
            if ((x.style() == Style.ROW) != (y.style() == Style.ROW)
                    || (x.style() == Style.PICTURE) != (y.style() == Style.PICTURE)) {
                return 0;
            }
            if (x.style() == Style.PICTURE) {
                return x.text().equals(y.text()) ? 60 : 0;
            }
            int alike = bagX.likeness(bagY);
            boolean facts = x.style() == Style.FACT && y.style() == Style.FACT;
            boolean sameFact = facts && x.cells().get(0).equals(y.cells().get(0));
            return sameFact ? Math.max(alike, ALIKE) : facts ? 0 : alike >= ALIKE ? alike : 0;
        }

        private Map<Integer, Integer> moved(int[] to, List<String> x, List<String> y) {
            boolean[] taken = new boolean[y.size()];
            Map<String, List<Integer>> left = new HashMap<>();
            for (int i = to.length - 1; i >= 0; i--) {
                if (to[i] >= 0) {
                    taken[to[i]] = true;
                } else if (a.get(i).text().length() >= MOVED_LEAST) {
                    left.computeIfAbsent(x.get(i), k -> new ArrayList<>()).add(i);
                }
            }
            Map<Integer, Integer> moved = new HashMap<>();
            for (int j = 0; j < taken.length; j++) {
                List<Integer> from = taken[j] ? List.of() : left.getOrDefault(y.get(j), List.of());
                if (!from.isEmpty()) {
                    moved.put(j, from.remove(from.size() - 1));
                }
            }
            return moved;
        }

        private void add(Mark mark, int i, int j) {
            Block from = i < 0 ? null : a.get(i);
            Block to = j < 0 ? null : b.get(j);
            Block shown = to != null ? to : java.util.Objects.requireNonNull(from);
            if (shown.style() == Style.HEADING) {
                heading = shown.text();
            }
            if (mark == Mark.SAME) {
                found.add(new BlockChange(mark, from, to, i, j, List.of(new Piece(Mark.SAME, shown.text())), 0));
                return;
            }
            int number = changes.size() + 1;
            String at = !where.isEmpty() ? where : heading.isEmpty() ? "" : Words.of("compare.where.under", heading);
            String before = from == null ? "" : from.text();
            String after = to == null ? "" : to.text();
            changes.add(new Change(number, mark, at, before, after));
            List<Piece> pieces = mark == Mark.CHANGED
                    ? WordCompare.pieces(before, after)
                    : List.of(new Piece(mark == Mark.MOVED ? Mark.SAME : mark, shown.text()));
            found.add(new BlockChange(mark, from, to, i, j, pieces, number));
        }
    }
}
