package org.mendedleaf.core.document;

import java.util.ArrayList;
import java.util.List;
import org.commonmark.ext.gfm.tables.TableBlock;
import org.commonmark.ext.gfm.tables.TableCell;
import org.commonmark.ext.gfm.tables.TableRow;
import org.commonmark.ext.gfm.tables.TablesExtension;
import org.commonmark.node.AbstractVisitor;
import org.commonmark.node.BlockQuote;
import org.commonmark.node.Code;
import org.commonmark.node.CustomBlock;
import org.commonmark.node.CustomNode;
import org.commonmark.node.FencedCodeBlock;
import org.commonmark.node.HardLineBreak;
import org.commonmark.node.Heading;
import org.commonmark.node.HtmlBlock;
import org.commonmark.node.HtmlInline;
import org.commonmark.node.Image;
import org.commonmark.node.IndentedCodeBlock;
import org.commonmark.node.ListItem;
import org.commonmark.node.Node;
import org.commonmark.node.Paragraph;
import org.commonmark.node.SoftLineBreak;
import org.commonmark.node.Text;
import org.commonmark.parser.Parser;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Style;

/** Markdown (CommonMark, with tables) as it is meant to look. */
final class MarkdownReader {

    private MarkdownReader() {}

    static Document read(String text) {
        Node root = Parser.builder()
                .extensions(List.of(TablesExtension.create()))
                .build()
                .parse(text);
        Blocks blocks = new Blocks();
        root.accept(blocks);
        return new Document.Prose(Form.DOCUMENT, List.of(new Section("", blocks.found)), false);
    }

    private static final class Blocks extends AbstractVisitor {
        private final List<Block> found = new ArrayList<>();
        private int items;
        private int quotes;

        private void add(Style style, int level, String text) {
            if (!text.isBlank()) {
                found.add(Block.of(style, level, text.strip()));
            }
        }

        @Override
        public void visit(Heading heading) {
            add(Style.HEADING, heading.getLevel(), inline(heading));
        }

        @Override
        public void visit(Paragraph paragraph) {
            if (items > 0) {
                add(Style.ITEM, items, inline(paragraph));
            } else {
                add(quotes > 0 ? Style.QUOTE : Style.TEXT, quotes, inline(paragraph));
            }
        }

        @Override
        public void visit(ListItem item) {
            items++;
            visitChildren(item);
            items--;
        }

        @Override
        public void visit(BlockQuote quote) {
            quotes++;
            visitChildren(quote);
            quotes--;
        }

        @Override
        public void visit(FencedCodeBlock code) {
            code.getLiteral().lines().forEach(l -> found.add(Block.of(Style.CODE, 0, l)));
        }

        @Override
        public void visit(IndentedCodeBlock code) {
            code.getLiteral().lines().forEach(l -> found.add(Block.of(Style.CODE, 0, l)));
        }

        @Override
        public void visit(HtmlBlock html) {
            add(Style.CODE, 0, html.getLiteral());
        }

        @Override
        public void visit(CustomBlock block) {
            if (block instanceof TableBlock) {
                visitChildren(block);
            }
        }

        @Override
        public void visit(CustomNode node) {
            if (node instanceof TableRow) {
                List<String> cells = new ArrayList<>();
                for (Node cell = node.getFirstChild(); cell != null; cell = cell.getNext()) {
                    cells.add(cell instanceof TableCell ? inline(cell).replace('\t', ' ') : "");
                }
                found.add(Block.of(Style.ROW, 0, String.join("\t", cells)));
            } else {
                visitChildren(node);
            }
        }

        private static String inline(Node node) {
            StringBuilder text = new StringBuilder();
            node.accept(new AbstractVisitor() {
                @Override
                public void visit(Text t) {
                    text.append(t.getLiteral());
                }

                @Override
                public void visit(Code code) {
                    text.append(code.getLiteral());
                }

                @Override
                public void visit(SoftLineBreak b) {
                    text.append(' ');
                }

                @Override
                public void visit(HardLineBreak b) {
                    text.append('\n');
                }

                @Override
                public void visit(HtmlInline html) {
                    text.append(html.getLiteral());
                }

                @Override
                public void visit(Image image) {
                    // What it is called; nothing is fetched.
                    visitChildren(image);
                }
            });
            return text.toString();
        }
    }
}
