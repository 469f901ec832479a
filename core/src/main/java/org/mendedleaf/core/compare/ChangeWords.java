package org.mendedleaf.core.compare;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.mendedleaf.core.compare.Comparison.Change;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.ProseChanges;
import org.mendedleaf.core.compare.Comparison.SectionChange;
import org.mendedleaf.core.compare.Comparison.SheetChange;
import org.mendedleaf.core.compare.Comparison.SheetChanges;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.words.Formats;
import org.mendedleaf.core.words.Words;

/** Few words for many changes. */
final class ChangeWords {

    /** More parts than these are not said. */
    private static final int PARTS_MOST = 3;

    private ChangeWords() {}

    static String plus(String key, int n) {
        return n == 0 ? "" : Words.of(key, "+", n);
    }

    static String minus(String key, int n) {
        return n == 0 ? "" : Words.of(key, "−", n);
    }

    static String join(String... parts) {
        return join(Arrays.asList(parts));
    }

    private static String join(List<String> parts) {
        List<String> said = parts.stream().filter(p -> !p.isEmpty()).toList();
        return said.size() <= PARTS_MOST
                ? String.join(", ", said)
                : said.stream().limit(PARTS_MOST).collect(Collectors.joining(", ")) + " …";
    }

    /** "14 cells in Fees, +2 rows, total +86". */
    static String of(SheetChanges all) {
        List<String> parts = new ArrayList<>();
        boolean several = all.sheets().size() > 1;
        for (SheetChange sheet : all.sheets()) {
            if (sheet.mark() == Mark.ADDED || sheet.mark() == Mark.REMOVED) {
                parts.add(Words.of("compare.sheet." + sheet.mark(), sheet.name()));
                continue;
            }
            int cells = sheet.cells();
            String name = several ? sheet.name() : "";
            if (cells > 0) {
                parts.add(name.isEmpty() ? Words.of("compare.cells", cells) : Words.of("compare.cellsIn", cells, name));
            }
            List<String> rows = new ArrayList<>();
            rows.add(plus("compare.row", sheet.count(Mark.ADDED)));
            rows.add(minus("compare.row", sheet.count(Mark.REMOVED)));
            int moved = sheet.count(Mark.MOVED);
            rows.add(moved == 0 ? "" : Words.of("compare.rowsMoved", moved));
            rows.add(plus("compare.column", columns(sheet, Mark.ADDED)));
            rows.add(minus("compare.column", columns(sheet, Mark.REMOVED)));
            int movedColumns = columns(sheet, Mark.MOVED);
            rows.add(movedColumns == 0 ? "" : Words.of("compare.columnsMoved", movedColumns));
            String said = join(rows);
            if (!said.isEmpty()) {
                parts.add(cells == 0 && !name.isEmpty() ? Words.of("compare.inSheet", said, name) : said);
            }
        }
        parts.add(totals(all.computed()));
        boolean renamed = all.sheets().stream().anyMatch(s -> s.mark() == Mark.CHANGED);
        if (renamed && !all.changes().isEmpty()) {
            parts.add(Words.of("compare.sheetRenamed"));
        }
        if (parts.stream().allMatch(String::isEmpty)) {
            return Words.of("compare.sameCells");
        }
        return join(parts);
    }

    private static int columns(SheetChange sheet, Mark mark) {
        return (int) sheet.columns().stream().filter(c -> c.mark() == mark).count();
    }

    private static String totals(List<Change> computed) {
        if (computed.isEmpty()) {
            return "";
        }
        if (computed.size() > 1) {
            return Words.of("compare.totals", computed.size());
        }
        try {
            double by = Double.parseDouble(computed.get(0).after())
                    - Double.parseDouble(computed.get(0).before());
            return Words.of("compare.total", (by < 0 ? "−" : "+") + Formats.decimal(Math.abs(by)));
        } catch (NumberFormatException e) {
            return Words.of("compare.totals", 1);
        }
    }

    /** "3 paragraphs, one moved", "slide 3", "page 4". */
    static String of(ProseChanges all) {
        if (all.changes().isEmpty()) {
            return Words.of("compare.sameWords");
        }
        if (all.form() == Form.SLIDES || all.form() == Form.PAGES) {
            return sections(all, all.form() == Form.SLIDES ? "slide" : "page");
        }
        if (all.form() == Form.MAIL) {
            TreeSet<String> parts = new TreeSet<>();
            all.sections().stream().filter(s -> s.mark() != Mark.SAME).forEach(s -> parts.add(s.name()));
            return String.join(", ", parts);
        }
        return blocks(all);
    }

    private static String sections(ProseChanges all, String what) {
        List<Integer> changed = new ArrayList<>();
        int added = 0;
        int removed = 0;
        for (SectionChange section : all.sections()) {
            switch (section.mark()) {
                case ADDED -> added++;
                case REMOVED -> removed++;
                case CHANGED, MOVED -> changed.add(section.after() + 1);
                default -> {
                    // Nothing to say.
                }
            }
        }
        String some = changed.isEmpty()
                ? ""
                : changed.size() <= 2
                        ? Words.of(
                                "compare." + what,
                                changed.stream().map(String::valueOf).collect(Collectors.joining(", ")),
                                changed.size())
                        : Words.of("compare." + what + "s", changed.size());
        return join(some, plus("compare.more." + what, added), minus("compare.more." + what, removed));
    }

    private static String blocks(ProseChanges all) {
        int[] paragraphs = new int[3];
        int moved = 0;
        int rows = 0;
        int pictures = 0;
        int notes = 0;
        for (SectionChange section : all.sections()) {
            for (Comparison.BlockChange block : section.blocks()) {
                Style style = block.block().style();
                boolean same = block.mark() == Mark.SAME;
                if (block.mark() == Mark.MOVED) {
                    moved++;
                } else if (!same && style == Style.ROW) {
                    rows++;
                } else if (!same && style == Style.PICTURE) {
                    pictures++;
                } else if (!same && style == Style.NOTE) {
                    notes++;
                } else if (!same) {
                    paragraphs[block.mark() == Mark.CHANGED ? 0 : block.mark() == Mark.ADDED ? 1 : 2]++;
                }
            }
        }
        return join(
                paragraphs[0] == 0 ? "" : Words.of("compare.paragraphs", paragraphs[0]),
                plus("compare.paragraph", paragraphs[1]),
                minus("compare.paragraph", paragraphs[2]),
                moved == 0 ? "" : Words.of("compare.paragraphsMoved", moved),
                rows == 0 ? "" : Words.of("compare.tableRows", rows),
                pictures == 0 ? "" : Words.of("compare.pictures", pictures),
                notes == 0 ? "" : Words.of("compare.notes", notes));
    }
}
