package org.mendedleaf.core.document;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.mendedleaf.core.document.Document.Block;
import org.mendedleaf.core.document.Document.Form;
import org.mendedleaf.core.document.Document.Section;
import org.mendedleaf.core.document.Document.Style;

/** Presentations of Office Open XML (ISO/IEC 29500, PresentationML), in the order in which they are shown. */
final class SlidesReader {

    private final Parts parts;
    private final Limits limits;

    private SlidesReader(Parts parts, Limits limits) {
        this.parts = parts;
        this.limits = limits;
    }

    static Document read(Parts parts, Limits limits) throws IOException {
        return new SlidesReader(parts, limits).document();
    }

    private Document document() throws IOException {
        Map<String, String> targets = Relations.of(parts, "ppt/presentation.xml", limits);
        List<String> order = new ArrayList<>();
        try (XmlReader xml = new XmlReader(parts.open("ppt/presentation.xml"), limits)) {
            while (xml.next()) {
                if (xml.isStart("sldId")) {
                    order.add(targets.getOrDefault(relation(xml), ""));
                }
            }
        }
        List<Section> slides = new ArrayList<>();
        for (String part : order) {
            if (slides.size() >= limits.pages()) {
                return new Document.Prose(Form.SLIDES, slides, true);
            }
            if (parts.has(part)) {
                slides.add(slide(part));
            }
        }
        return new Document.Prose(Form.SLIDES, slides, false);
    }

    /** Both the number of a slide and its relation are called id; the relation is no number. */
    private static String relation(XmlReader xml) {
        String found = "";
        for (String value : xml.all("id")) {
            found = value.matches("\\d+") ? found : value;
        }
        return found;
    }

    private Section slide(String part) throws IOException {
        Map<String, String> targets = Relations.of(parts, part, limits);
        List<Block> blocks = new ArrayList<>();
        read(part, Style.TEXT, targets, blocks);
        for (String target : targets.values()) {
            if (target.contains("notesSlides/") && parts.has(target)) {
                read(target, Style.NOTE, Map.of(), blocks);
            }
        }
        String title = blocks.stream()
                .filter(b -> b.style() == Style.HEADING)
                .map(Block::text)
                .findFirst()
                .orElse("");
        return new Section(title, blocks);
    }

    private void read(String part, Style ordinary, Map<String, String> targets, List<Block> blocks) throws IOException {
        try (XmlReader xml = new XmlReader(parts.open(part), limits)) {
            Style style = ordinary;
            int level = 0;
            StringBuilder text = new StringBuilder();
            List<String> row = new ArrayList<>();
            boolean inTable = false;
            while (xml.next() && blocks.size() < limits.rows()) {
                if (xml.isStart("sp")) {
                    style = ordinary;
                } else if (xml.isStart("ph")) {
                    String type = xml.get("type", "");
                    boolean title = type.equals("title") || type.equals("ctrTitle");
                    style = title && ordinary == Style.TEXT ? Style.HEADING : ordinary;
                    if (type.equals("sldNum") || type.equals("dt") || type.equals("ftr")) {
                        style = Style.FACT;
                    }
                } else if (xml.isStart("pPr")) {
                    level = xml.number("lvl", 0, 0, 20);
                } else if (xml.isStart("t")) {
                    while (xml.next() && !xml.isEnd("t")) {
                        text.append(xml.isText() ? xml.text() : "");
                    }
                } else if (xml.isStart("br")) {
                    text.append('\n');
                } else if (xml.isStart("tr")) {
                    inTable = true;
                    row.clear();
                } else if (xml.isEnd("tc")) {
                    row.add(text.toString().strip().replace('\t', ' '));
                    text.setLength(0);
                } else if (xml.isEnd("tr")) {
                    inTable = false;
                    blocks.add(Block.of(Style.ROW, 0, String.join("\t", row)));
                } else if (xml.isEnd("p") && inTable) {
                    text.append(' ');
                } else if (xml.isEnd("p")) {
                    // Numbers of slides, dates and footers change by themselves.
                    if (!text.toString().isBlank() && style != Style.FACT) {
                        Style as = style == Style.TEXT && level > 0 ? Style.ITEM : style;
                        int depth = style == Style.HEADING ? 1 : level;
                        blocks.add(Block.of(as, depth, text.toString().strip()));
                    }
                    text.setLength(0);
                    level = 0;
                } else if (xml.isStart("blip")) {
                    String picture = targets.getOrDefault(xml.get("embed", ""), "");
                    if (parts.has(picture)) {
                        blocks.add(new Block(
                                Style.PICTURE,
                                0,
                                picture.substring(picture.lastIndexOf('/') + 1),
                                picture + "#" + parts.check(picture)));
                    }
                }
            }
        }
    }
}
