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

/** Texts of Office Open XML (ISO/IEC 29500, WordprocessingML). Deleted text that is only marked as such is left out. */
final class WordReader {

    private final Parts parts;
    private final Limits limits;
    private final Map<String, Integer> headings = new HashMap<>();
    private final Map<String, String> targets;
    private final List<Block> blocks = new ArrayList<>();
    private boolean cut;

    private WordReader(Parts parts, Limits limits) throws IOException {
        this.parts = parts;
        this.limits = limits;
        this.targets = Relations.of(parts, "word/document.xml", limits);
        styles();
    }

    static Document read(Parts parts, Limits limits) throws IOException {
        WordReader reader = new WordReader(parts, limits);
        reader.part("word/document.xml", Style.TEXT);
        reader.part("word/footnotes.xml", Style.NOTE);
        reader.part("word/endnotes.xml", Style.NOTE);
        reader.part("word/comments.xml", Style.NOTE);
        return new Document.Prose(Form.DOCUMENT, List.of(new Section("", reader.blocks)), reader.cut);
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
            blocks.add(place, Block.of(style, level, text.toString().strip()));
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
                    blocks.add(new Block(
                            Style.PICTURE,
                            0,
                            part.substring(part.lastIndexOf('/') + 1),
                            part + "#" + parts.check(part)));
                }
            }
            default -> {
                // What stands around the text says nothing by itself.
            }
        }
    }

    private void table(XmlReader xml) throws IOException {
        List<String> cells = new ArrayList<>();
        StringBuilder cell = new StringBuilder();
        while (xml.next() && !xml.isEnd("tbl")) {
            if (xml.isStart("tbl")) {
                table(xml);
            } else if (xml.isStart("tr")) {
                cells.clear();
            } else if (xml.isStart("tc")) {
                cell.setLength(0);
            } else if (xml.isEnd("tc")) {
                cells.add(cell.toString().strip().replace('\t', ' ').replace('\n', ' '));
            } else if (xml.isEnd("p")) {
                cell.append(' ');
            } else if (xml.isEnd("tr")) {
                String row = String.join("\t", cells);
                if (!row.isBlank()) {
                    blocks.add(Block.of(Style.ROW, 0, row));
                }
            } else if (xml.isStart()) {
                run(xml, cell);
            }
        }
    }
}
