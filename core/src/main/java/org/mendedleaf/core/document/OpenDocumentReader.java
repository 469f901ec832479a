package org.mendedleaf.core.document;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Sheet;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.words.Words;

/** OpenDocument texts, sheets, presentations and drawings (ISO/IEC 26300). */
final class OpenDocumentReader {

    private static final int REPEATED_MOST = 1 << 20;

    private final Parts parts;
    private final Limits limits;
    private List<Integer> elements = List.of();

    private OpenDocumentReader(Parts parts, Limits limits) {
        this.parts = parts;
        this.limits = limits;
    }

    static Document read(Parts parts, Limits limits) throws IOException {
        return new OpenDocumentReader(parts, limits).document();
    }

    /** A text with the elements of content.xml in which its blocks are written. */
    static Sources sources(Parts parts, Limits limits) throws IOException {
        OpenDocumentReader reader = new OpenDocumentReader(parts, limits);
        if (reader.document() instanceof Document.Prose prose && !prose.cut() && prose.form() == Form.DOCUMENT) {
            return new Sources("content.xml", prose.sections().get(0).blocks(), reader.elements);
        }
        throw new DocumentException(Words.of("pick.format"));
    }

    private Document document() throws IOException {
        try (XmlReader xml = new XmlReader(parts.open("content.xml"), limits)) {
            while (xml.next()) {
                if (xml.isStart("body")) {
                    break;
                }
            }
            while (xml.next()) {
                if (xml.isStart()) {
                    return switch (xml.name()) {
                        case "spreadsheet" -> sheets(xml);
                        case "presentation", "drawing" -> slides(xml);
                        default -> text(xml);
                    };
                }
            }
        }
        throw new DocumentException(Words.of("document.noBody"));
    }

    // Sheets.

    private Document sheets(XmlReader xml) throws IOException {
        SheetBuilder.Budget budget = new SheetBuilder.Budget(limits);
        List<Sheet> sheets = new ArrayList<>();
        while (xml.next()) {
            if (xml.isStart("tracked-changes")) {
                xml.skip();
            } else if (xml.isStart("table")) {
                sheets.add(sheet(xml, budget));
            }
        }
        return new Document.Sheets(sheets, budget.isCut());
    }

    private Sheet sheet(XmlReader xml, SheetBuilder.Budget budget) throws IOException {
        SheetBuilder sheet = new SheetBuilder(xml.get("name", ""), budget);
        int repeated = 1;
        while (xml.next() && !xml.isEnd("table")) {
            if (xml.isStart("table-row")) {
                repeated = xml.number("number-rows-repeated", 1, 1, REPEATED_MOST);
            } else if (xml.isEnd("table-row")) {
                sheet.endRow(repeated);
            } else if (xml.isStart("shapes") || xml.isStart("forms")) {
                xml.skip();
            } else if (xml.isStart("table-cell") || xml.isStart("covered-table-cell")) {
                cell(xml, sheet);
            }
        }
        return sheet.sheet();
    }

    private void cell(XmlReader xml, SheetBuilder sheet) throws IOException {
        String end = xml.name();
        int times = xml.number("number-columns-repeated", 1, 1, REPEATED_MOST);
        sheet.merge(
                xml.number("number-rows-spanned", 1, 1, REPEATED_MOST),
                xml.number("number-columns-spanned", 1, 1, REPEATED_MOST));
        String formula = xml.get("formula", "");
        // Of "of:=SUM(...)" the name space of the notation is no part of the formula.
        formula = formula.substring(formula.indexOf('=') < 0 ? 0 : formula.indexOf('='));
        String value = xml.get("value", "");
        StringBuilder shown = new StringBuilder();
        Paragraph paragraph = null;
        while (xml.next() && !xml.isEnd(end)) {
            if (xml.isStart("annotation") || xml.isStart("table") || xml.isStart("frame")) {
                xml.skip();
            } else if (xml.isStart("p")) {
                shown.append(shown.isEmpty() ? "" : "\n");
                paragraph = new Paragraph();
            } else if (xml.isEnd("p") && paragraph != null) {
                shown.append(paragraph.text());
                paragraph = null;
            } else if (paragraph != null) {
                paragraph.hear(xml);
            }
        }
        String text = shown.isEmpty() ? value : shown.toString();
        sheet.cell(text.isEmpty() && formula.isEmpty() ? Cell.NONE : new Cell(text, value, formula), times);
    }

    /** The text of a paragraph: spaces, tabs and breaks have elements of their own, and others fall together. */
    private static final class Paragraph {
        private final StringBuilder text = new StringBuilder();

        void hear(XmlReader xml) {
            if (xml.isText()) {
                String some = xml.text().replaceAll("[ \\t\\r\\n]+", " ");
                boolean spaced = text.isEmpty() || Character.isWhitespace(text.charAt(text.length() - 1));
                text.append(spaced && some.startsWith(" ") ? some.substring(1) : some);
            } else if (xml.isStart("s")) {
                text.append(" ".repeat(xml.number("c", 1, 1, 1000)));
            } else if (xml.isStart("tab")) {
                text.append('\t');
            } else if (xml.isStart("line-break")) {
                text.append('\n');
            }
        }

        String text() {
            return text.toString().stripTrailing();
        }
    }

    // Texts and slides.

    private Document text(XmlReader xml) throws IOException {
        Blocks blocks = new Blocks(xml);
        boolean whole = blocks.read("body");
        elements = List.copyOf(blocks.elements);
        return new Document.Prose(Form.DOCUMENT, List.of(new Section("", blocks.blocks)), !whole);
    }

    private Document slides(XmlReader xml) throws IOException {
        List<Section> slides = new ArrayList<>();
        boolean whole = true;
        while (whole && xml.next()) {
            if (xml.isStart("page")) {
                String name = xml.get("name", "");
                Blocks blocks = new Blocks(xml);
                whole = blocks.read("page") && slides.size() < limits.pages();
                slides.add(new Section(name, blocks.blocks));
            }
        }
        return new Document.Prose(Form.SLIDES, slides, !whole);
    }

    /** Paragraphs, headings, lists, rows of tables, notes and pictures, in the order of the file. */
    private final class Blocks {
        private final XmlReader xml;
        private final List<Block> blocks = new ArrayList<>();
        private final List<Integer> elements = new ArrayList<>();
        private int lists;
        private boolean notes;

        Blocks(XmlReader xml) {
            this.xml = xml;
        }

        /** Reads up to the end of this element; whether that was all. */
        boolean read(String end) throws IOException {
            while (xml.next() && !xml.isEnd(end)) {
                if (blocks.size() >= limits.rows()) {
                    return false;
                }
                step();
            }
            return true;
        }

        private void step() throws IOException {
            if (xml.isStart()) {
                switch (xml.name()) {
                    case "tracked-changes", "forms", "sequence-decls", "annotation" -> xml.skip();
                    case "h" -> paragraph(Style.HEADING, xml.number("outline-level", 1, 1, 10));
                    case "p" -> paragraph(notes ? Style.NOTE : lists > 0 ? Style.ITEM : Style.TEXT, lists);
                    case "list" -> lists++;
                    case "table" -> table();
                    case "image" -> picture();
                    case "notes" -> notes = true;
                    default -> {
                        // What stands around them says nothing by itself.
                    }
                }
            } else if (xml.isEnd("list")) {
                lists--;
            } else if (xml.isEnd("notes")) {
                notes = false;
            }
        }

        private void picture() {
            String href = xml.get("href", "");
            if (!href.isEmpty() && parts.has(href)) {
                add(
                        blocks.size(),
                        new Block(Style.PICTURE, 0, href.substring(href.lastIndexOf('/') + 1), ref(href)),
                        -1);
            }
        }

        private void add(int place, Block block, int element) {
            blocks.add(place, block);
            elements.add(place, element);
        }

        private String ref(String part) {
            return part + "#" + parts.check(part);
        }

        private void paragraph(Style style, int level) throws IOException {
            String end = xml.name();
            int element = xml.element();
            int place = blocks.size();
            String text = inline(end);
            if (!text.isBlank()) {
                add(place, Block.of(style, level, text), element);
            }
        }

        /** The text up to the end of the element; pictures and notes in it become blocks after it. */
        private String inline(String end) throws IOException {
            Paragraph paragraph = new Paragraph();
            while (xml.next() && !xml.isEnd(end)) {
                if (xml.isStart("note") || xml.isStart("annotation")) {
                    note();
                } else if (xml.isStart("image")) {
                    picture();
                } else if (xml.isStart("p") || xml.isStart("h")) {
                    // Text in a frame within the paragraph.
                    String inner = inline(xml.name());
                    if (!inner.isBlank()) {
                        add(blocks.size(), Block.of(Style.TEXT, 0, inner), -1);
                    }
                } else {
                    paragraph.hear(xml);
                }
            }
            return paragraph.text();
        }

        private void note() throws IOException {
            String end = xml.name();
            StringBuilder text = new StringBuilder();
            while (xml.next() && !xml.isEnd(end)) {
                if (xml.isStart("note-citation") || xml.isStart("creator") || xml.isStart("date")) {
                    xml.skip();
                } else if (xml.isStart("p")) {
                    text.append(text.isEmpty() ? "" : "\n").append(inline("p"));
                }
            }
            if (!text.toString().isBlank()) {
                add(blocks.size(), Block.of(Style.NOTE, 0, text.toString()), -1);
            }
        }

        private void table() throws IOException {
            List<String> cells = new ArrayList<>();
            int repeated = 1;
            int element = -1;
            while (xml.next() && !xml.isEnd("table")) {
                if (xml.isStart("table-row")) {
                    cells.clear();
                    repeated = xml.number("number-rows-repeated", 1, 1, 1000);
                    element = repeated == 1 ? xml.element() : -1;
                } else if (xml.isEnd("table-row")) {
                    String row = String.join("\t", cells);
                    for (int i = 0; i < repeated && blocks.size() < limits.rows() && !row.isBlank(); i++) {
                        add(blocks.size(), Block.of(Style.ROW, 0, row), element);
                    }
                } else if (xml.isStart("table-cell") || xml.isStart("covered-table-cell")) {
                    int times = xml.number("number-columns-repeated", 1, 1, 1000);
                    String text = tableCell(xml.name());
                    for (int i = 0; i < times; i++) {
                        cells.add(text);
                    }
                } else if (xml.isStart("table")) {
                    table();
                }
            }
        }

        private String tableCell(String end) throws IOException {
            StringBuilder text = new StringBuilder();
            while (xml.next() && !xml.isEnd(end)) {
                if (xml.isStart("p") || xml.isStart("h")) {
                    text.append(text.isEmpty() ? "" : " ").append(inline(xml.name()));
                } else if (xml.isStart("table")) {
                    table();
                } else if (xml.isStart("image")) {
                    picture();
                }
            }
            return text.toString().replace('\t', ' ').replace('\n', ' ');
        }
    }
}
