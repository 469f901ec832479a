package org.mendedleaf.core.document;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Style;
import org.mendedleaf.core.words.Words;

/** Texts of Office Open XML (ISO/IEC 29500, WordprocessingML). Deleted text that is only marked as such is left out. */
final class WordReader {

    private final Parts parts;
    private final Limits limits;
    private final Map<String, Integer> headings = new HashMap<>();
    private final Map<String, String> targets;
    private final List<Block> blocks = new ArrayList<>();
    private final List<Integer> elements = new ArrayList<>();
    private boolean cut;

    private WordReader(Parts parts, Limits limits) throws IOException {
        this.parts = parts;
        this.limits = limits;
        this.targets = Relations.of(parts, "word/document.xml", limits);
        styles();
    }

    /** A text with the elements of word/document.xml in which its blocks are written. */
    static Sources sources(Parts parts, Limits limits) throws IOException {
        WordReader reader = new WordReader(parts, limits);
        Document.Prose prose = reader.document();
        if (prose.cut()) {
            throw new DocumentException(Words.of("pick.format"));
        }
        return new Sources("word/document.xml", reader.blocks, reader.elements);
    }

    static Document read(Parts parts, Limits limits) throws IOException {
        return new WordReader(parts, limits).document();
    }

    private Document.Prose document() throws IOException {
        part("word/document.xml", Style.TEXT);
        part("word/footnotes.xml", Style.NOTE);
        part("word/endnotes.xml", Style.NOTE);
        part("word/comments.xml", Style.NOTE);
        return new Document.Prose(Form.DOCUMENT, List.of(new Section("", blocks)), cut);
    }

    /** Styles that are headings say so by their outline level, or by what they are called in every language. */
    private void styles() throws IOException {
        byte[] bytes = parts.bytes("word/styles.xml").orElse(new byte[0]);
        if (bytes.length == 0) {
            return;
        }
        try (XmlReader xml = new XmlReader(new ByteArrayInputStream(bytes), limits)) {
            String style = "";
            while (xml.next()) {
                if (xml.isStart("style")) {
                    style = xml.get("styleId", "");
                } else if (xml.isStart("name")) {
                    String name = xml.get("val", "").toLowerCase(Locale.ROOT);
                    if (name.matches("heading \\d")) {
                        headings.put(style, name.charAt(8) - '0');
                    } else if (name.equals("title")) {
                        headings.put(style, 1);
                    }
                } else if (xml.isStart("outlineLvl")) {
                    headings.putIfAbsent(style, xml.number("val", 0, 0, 8) + 1);
                }
            }
        }
    }

    private void part(String name, Style style) throws IOException {
        if (!parts.has(name)) {
            return;
        }
        try (XmlReader xml = new XmlReader(parts.open(name), limits)) {
            while (xml.next()) {
                if (blocks.size() >= limits.rows()) {
                    cut = true;
                    return;
                }
                if (xml.isStart("p")) {
                    paragraph(xml, style);
                } else if (xml.isStart("tbl")) {
                    table(xml);
                }
            }
        }
    }

    private void paragraph(XmlReader xml, Style ordinary) throws IOException {
        int place = blocks.size();
        int element = ordinary == Style.NOTE ? -1 : xml.element();
        Style style = ordinary;
        int level = 0;
        StringBuilder text = new StringBuilder();
        int depth = 1;
        while (xml.next()) {
            if (xml.isEnd("p") && --depth == 0) {
                break;
            }
            if (!xml.isStart()) {
                continue;
            }
            switch (xml.name()) {
                case "p" -> depth++;
                case "pStyle" -> {
                    Integer heading = headings.get(xml.get("val", ""));
                    if (heading != null) {
                        style = Style.HEADING;
                        level = heading;
                    }
                }
                case "ilvl" -> {
                    if (style != Style.HEADING) {
                        style = Style.ITEM;
                        level = xml.number("val", 0, 0, 20) + 1;
                    }
                }
                default -> run(xml, text);
            }
        }
        if (!text.toString().isBlank()) {
            add(place, Block.of(style, level, text.toString().strip()), element);
        }
    }

    private void run(XmlReader xml, StringBuilder text) throws IOException {
        switch (xml.name()) {
            case "t" -> {
                while (xml.next() && !xml.isEnd("t")) {
                    if (xml.isText()) {
                        text.append(xml.text());
                    }
                }
            }
            case "tab" -> text.append('\t');
            case "br", "cr" -> text.append('\n');
            case "noBreakHyphen" -> text.append('-');
            case "del", "moveFrom", "instrText", "Fallback" -> xml.skip();
            case "blip" -> {
                String part = targets.getOrDefault(xml.get("embed", ""), "");
                if (parts.has(part)) {
                    String name = part.substring(part.lastIndexOf('/') + 1);
                    add(blocks.size(), new Block(Style.PICTURE, 0, name, part + "#" + parts.check(part)), -1);
                }
            }
            default -> {
                // What stands around the text says nothing by itself.
            }
        }
    }

    private void add(int place, Block block, int element) {
        blocks.add(place, block);
        elements.add(place, element);
    }

    private void table(XmlReader xml) throws IOException {
        List<String> cells = new ArrayList<>();
        int element = -1;
        StringBuilder cell = new StringBuilder();
        while (xml.next() && !xml.isEnd("tbl")) {
            if (xml.isStart("tbl")) {
                table(xml);
            } else if (xml.isStart("tr")) {
                cells.clear();
                element = xml.element();
            } else if (xml.isStart("tc")) {
                cell.setLength(0);
            } else if (xml.isEnd("tc")) {
                cells.add(cell.toString().strip().replace('\t', ' ').replace('\n', ' '));
            } else if (xml.isEnd("p")) {
                cell.append(' ');
            } else if (xml.isEnd("tr")) {
                String row = String.join("\t", cells);
                if (!row.isBlank()) {
                    add(blocks.size(), Block.of(Style.ROW, 0, row), element);
                }
            } else if (xml.isStart()) {
                run(xml, cell);
            }
        }
    }
}
