package org.mendedleaf.core.compare;

import static org.mendedleaf.core.report.HtmlPage.escaped;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.compare.Comparison.BlockChange;
import org.mendedleaf.core.compare.Comparison.Column;
import org.mendedleaf.core.compare.Comparison.Mark;
import org.mendedleaf.core.compare.Comparison.Piece;
import org.mendedleaf.core.compare.Comparison.RowChange;
import org.mendedleaf.core.document.Document.Row;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.report.HtmlPage;
import org.mendedleaf.core.words.Words;

/** A comparison as one page of HTML that needs nothing else: for sending, keeping and printing. */
public final class ComparisonHtml {

    /** Equal lines, rows and paragraphs that are shown around a change. */
    private static final int AROUND = 3;

    private static final String STYLE = """
            table { width: auto; } td, th { padding: 2px 8px; } .same { color: #5a665f; }
            td.n { color: #5a665f; } pre { margin: 0; white-space: pre-wrap; font-size: 10pt; }
            del, .removed { background: #F7E5DE; } ins, .added { background: #E4EEE6; text-decoration: none; }
            .changed { background: #F6ECD4; } .moved { background: #E6EBF0; } p { padding: 0 4px; }
            del, ins, .removed, .added, .changed, .moved { print-color-adjust: exact; -webkit-print-color-adjust: exact; }
            img { max-width: 100%; border: 1px solid #E3DDD0; } .three { display: flex; gap: 16px; }
            .three > div { flex: 1; } .bar { display: flex; height: 24px; border: 1px solid #E3DDD0; }
            """;

    private final StringBuilder html = new StringBuilder();

    private ComparisonHtml() {}

    /**
     * The page.
     *
     * @param title of the file
     * @param before which point the earlier one is, as a message
     * @param after which point the later one is, as a message
     */
    public static String page(String title, String before, String after, Comparison comparison) {
        ComparisonHtml page = new ComparisonHtml();
        page.html
                .append("<p class=\"dim\">")
                .append(escaped(Words.of("compare.html.between", before, after)))
                .append("</p><p><b>")
                .append(escaped(comparison.words()))
                .append("</b></p>\n");
        page.body(comparison);
        return new HtmlPage(title, STYLE).markup(page.html).text();
    }

    private void body(Comparison comparison) {
        if (comparison instanceof Comparison.TextChanges text) {
            html.append("<table>\n");
            folded(text.lines(), l -> l.change() != 0, this::line, "3");
            html.append("</table>\n");
        } else if (comparison instanceof Comparison.SheetChanges sheets) {
            sheets.sheets().forEach(this::sheet);
        } else if (comparison instanceof Comparison.ProseChanges prose) {
            prose.sections().forEach(s -> {
                if (!s.name().isEmpty()) {
                    html.append("<h2>").append(escaped(s.name())).append("</h2>\n");
                }
                folded(s.blocks(), b -> b.change() != 0, this::block, "");
            });
        } else if (comparison instanceof Comparison.PictureChanges picture) {
            html.append("<div class=\"three\">");
            DrawnHtml.picture(html, "compare.html.before", picture.before().png());
            DrawnHtml.picture(html, "compare.html.after", picture.after().png());
            DrawnHtml.picture(html, "compare.html.difference", picture.difference());
            html.append("</div>\n");
        } else if (comparison instanceof Comparison.ArchiveChanges archive) {
            html.append("<table>\n");
            archive.members().stream()
                    .filter(m -> m.mark() != Mark.SAME)
                    .forEach(m -> html.append("<tr class=\"")
                            .append(style(m.mark()))
                            .append("\"><td>")
                            .append(escaped(Words.of("compare.kind." + m.mark())))
                            .append("</td><td>")
                            .append(escaped(m.path()))
                            .append("</td></tr>\n"));
            html.append("</table>\n");
        } else if (comparison instanceof Comparison.ByteChanges bytes) {
            DrawnHtml.bar(html, bytes);
        }
    }

    /** Everything around changes, with a line for each run that is left out. */
    private <T> void folded(List<T> all, Predicate<T> changed, Consumer<T> write, String columns) {
        int same = 0;
        for (int i = 0; i < all.size(); i++) {
            boolean near = false;
            for (int k = Math.max(0, i - AROUND); k <= Math.min(all.size() - 1, i + AROUND) && !near; k++) {
                near = changed.test(all.get(k));
            }
            if (near) {
                left(same, columns);
                same = 0;
                write.accept(all.get(i));
            } else {
                same++;
            }
        }
        left(same, columns);
    }

    private void left(int same, String columns) {
        if (same > 0) {
            String words = escaped(Words.of("compare.html.same", same));
            html.append(
                    columns.isEmpty()
                            ? "<p class=\"same\">" + words + "</p>\n"
                            : "<tr><td class=\"same\" colspan=\"" + columns + "\">" + words + "</td></tr>\n");
        }
    }

    private void line(Comparison.TextChanges.Line line) {
        html.append("<tr><td class=\"n\">")
                .append(line.before() == 0 ? "" : line.before())
                .append("</td><td class=\"n\">")
                .append(line.after() == 0 ? "" : line.after())
                .append("</td><td class=\"")
                .append(style(line.mark()))
                .append("\"><pre>");
        pieces(line.pieces());
        html.append("</pre></td></tr>\n");
    }

    private void pieces(List<Piece> pieces) {
        for (Piece piece : pieces) {
            String text = escaped(piece.text());
            html.append(
                    switch (piece.mark()) {
                        case ADDED -> "<ins>" + text + "</ins>";
                        case REMOVED -> "<del>" + text + "</del>";
                        default -> text;
                    });
        }
    }

    private static String style(Mark mark) {
        return mark.name().toLowerCase(java.util.Locale.ROOT);
    }

    private void sheet(Comparison.SheetChange sheet) {
        if (!sheet.name().isEmpty()) {
            html.append("<h2>").append(escaped(sheet.name())).append("</h2>\n");
        }
        int columns = sheet.columns().size() + 2;
        html.append("<table>\n<tr><th></th><th></th>");
        for (Column c : sheet.columns()) {
            html.append("<th class=\"")
                    .append(style(c.mark()))
                    .append("\">")
                    .append(SheetCompare.letters(c.after() < 0 ? c.before() : c.after()))
                    .append("</th>");
        }
        html.append("</tr>\n");
        folded(
                sheet.rows(),
                r -> r.mark() != Mark.SAME || !r.cellChanges().isEmpty(),
                r -> row(sheet, r),
                "" + columns);
        html.append("</table>\n");
    }

    private void row(Comparison.SheetChange sheet, RowChange row) {
        html.append("<tr class=\"")
                .append(row.mark() == Mark.CHANGED ? "" : style(row.mark()))
                .append("\"><td class=\"n\">")
                .append(row.before() < 0 ? "" : row.before() + 1)
                .append("</td><td class=\"n\">")
                .append(row.after() < 0 ? "" : row.after() + 1)
                .append("</td>");
        for (int c = 0; c < sheet.columns().size(); c++) {
            Column column = sheet.columns().get(c);
            String was = shown(row.from(), column.before());
            String is = shown(row.to(), column.after());
            if (row.cellChange(c) != 0) {
                html.append("<td class=\"changed\"><del>")
                        .append(escaped(was))
                        .append("</del> <ins>")
                        .append(escaped(is))
                        .append("</ins></td>");
            } else {
                html.append("<td class=\"")
                        .append(column.mark() == Mark.SAME ? "" : style(column.mark()))
                        .append("\">")
                        .append(escaped(row.to() == null || column.after() < 0 ? was : is))
                        .append("</td>");
            }
        }
        html.append("</tr>\n");
    }

    private static String shown(@Nullable Row row, int column) {
        return row == null || column < 0 ? "" : row.cell(column).shown();
    }

    private void block(BlockChange block) {
        boolean heading = block.block().style() == Style.HEADING;
        html.append("<p class=\"")
                .append(block.mark() == Mark.CHANGED ? "" : style(block.mark()))
                .append("\">");
        html.append(heading ? "<b>" : "");
        if (block.mark() == Mark.MOVED) {
            html.append("<i>").append(escaped(Words.of("compare.kind.MOVED"))).append("</i> ");
        }
        pieces(block.pieces());
        html.append(heading ? "</b></p>\n" : "</p>\n");
    }
}
