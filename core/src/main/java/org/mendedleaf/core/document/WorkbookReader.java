package org.mendedleaf.core.document;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.apache.poi.ss.util.CellRangeAddress;
import org.jspecify.annotations.Nullable;
import org.mendedleaf.core.document.Document.Cell;
import org.mendedleaf.core.document.Document.Merged;
import org.mendedleaf.core.document.Document.Sheet;

/**
 * Sheets of Office Open XML (ISO/IEC 29500, SpreadsheetML), read element by element; numbers and dates are formatted as
 * the document says, by Apache POI.
 */
final class WorkbookReader {

    private final Parts parts;
    private final Limits limits;
    private final List<String> shared = new ArrayList<>();
    private final Map<String, Shared> sharedFormulas = new HashMap<>();
    private boolean from1904;
    private @Nullable WorkbookFormats formats;

    /** A formula that other cells share, with the cell for which it is written. */
    private record Shared(String text, int row, int column) {}

    private WorkbookReader(Parts parts, Limits limits) {
        this.parts = parts;
        this.limits = limits;
    }

    static Document read(Parts parts, Limits limits) throws IOException {
        return new WorkbookReader(parts, limits).document();
    }

    private record Listed(String name, String part) {}

    /** The parts that hold the sheets, by the names of the sheets. */
    static Map<String, String> sheetParts(Parts parts, Limits limits) throws IOException {
        Map<String, String> found = new LinkedHashMap<>();
        new WorkbookReader(parts, limits).listed().forEach(l -> found.putIfAbsent(l.name(), l.part()));
        return found;
    }

    private List<Listed> listed() throws IOException {
        Map<String, String> targets = Relations.of(parts, "xl/workbook.xml", limits);
        List<Listed> listed = new ArrayList<>();
        try (XmlReader xml = new XmlReader(parts.open("xl/workbook.xml"), limits)) {
            while (xml.next()) {
                if (xml.isStart("sheet")) {
                    listed.add(new Listed(xml.get("name", ""), targets.getOrDefault(xml.get("id", ""), "")));
                } else if (xml.isStart("workbookPr")) {
                    from1904 = xml.get("date1904", "").matches("1|true");
                }
            }
        }
        return listed;
    }

    private Document document() throws IOException {
        List<Listed> listed = listed();
        strings();
        formats = new WorkbookFormats(parts, limits);
        SheetBuilder.Budget budget = new SheetBuilder.Budget(limits);
        List<Sheet> sheets = new ArrayList<>();
        for (Listed sheet : listed) {
            if (parts.has(sheet.part())) {
                sheets.add(sheet(sheet, budget));
            }
        }
        return new Document.Sheets(sheets, budget.isCut());
    }

    private void strings() throws IOException {
        if (!parts.has("xl/sharedStrings.xml")) {
            return;
        }
        try (XmlReader xml = new XmlReader(parts.open("xl/sharedStrings.xml"), limits)) {
            while (xml.next() && shared.size() < limits.cells()) {
                if (xml.isStart("si")) {
                    shared.add(richText(xml, "si"));
                }
            }
        }
    }

    /** The text up to the end of the element, without what says how it is to be spoken. */
    private static String richText(XmlReader xml, String end) throws IOException {
        StringBuilder text = new StringBuilder();
        while (xml.next() && !xml.isEnd(end)) {
            if (xml.isStart("rPh")) {
                xml.skip();
            } else if (xml.isText()) {
                text.append(xml.text());
            }
        }
        return text.toString();
    }

    private Sheet sheet(Listed listed, SheetBuilder.Budget budget) throws IOException {
        SheetBuilder sheet = new SheetBuilder(listed.name(), budget);
        sharedFormulas.clear();
        try (XmlReader xml = new XmlReader(parts.open(listed.part()), limits)) {
            while (xml.next()) {
                if (xml.isStart("row")) {
                    sheet.goToRow(xml.number("r", sheet.row() + 1, 1, 1 << 20) - 1);
                } else if (xml.isEnd("row")) {
                    sheet.endRow(1);
                } else if (xml.isStart("c")) {
                    cell(xml, sheet);
                } else if (xml.isStart("mergeCell")) {
                    merged(xml.get("ref", ""), sheet);
                }
            }
        }
        return sheet.sheet();
    }

    private static void merged(String ref, SheetBuilder sheet) {
        try {
            CellRangeAddress range = CellRangeAddress.valueOf(ref);
            sheet.merge(new Merged(
                    range.getFirstRow(),
                    range.getFirstColumn(),
                    range.getLastRow() - range.getFirstRow() + 1,
                    range.getLastColumn() - range.getFirstColumn() + 1));
        } catch (IllegalArgumentException e) {
            // A range that is none merges nothing.
            org.slf4j.LoggerFactory.getLogger(WorkbookReader.class).debug("{}", ref, e);
        }
    }

    private void cell(XmlReader xml, SheetBuilder sheet) throws IOException {
        int column = column(xml.get("r", ""));
        String type = xml.get("t", "n");
        int style = xml.number("s", -1, -1, Integer.MAX_VALUE);
        String value = "";
        String formula = "";
        while (xml.next() && !xml.isEnd("c")) {
            if (xml.isStart("v")) {
                value = richText(xml, "v");
            } else if (xml.isStart("is")) {
                value = richText(xml, "is");
            } else if (xml.isStart("f")) {
                formula = formula(xml, sheet.row(), column < 0 ? sheet.column() : column);
            }
        }
        sheet.goTo(column);
        sheet.cell(cell(type, style, value, formula), 1);
    }

    /** A formula that several cells share is written once, and stands for the cell in which it is written. */
    private String formula(XmlReader xml, int row, int column) throws IOException {
        String group = xml.get("t", "").equals("shared") ? xml.get("si", "") : "";
        String text = richText(xml, "f");
        if (!group.isEmpty() && !text.isEmpty()) {
            sharedFormulas.put(group, new Shared(text, row, column));
        } else if (!group.isEmpty()) {
            Shared shared = sharedFormulas.get(group);
            text = shared == null ? "" : Formulas.moved(shared.text(), row - shared.row(), column - shared.column());
        }
        return text.isEmpty() ? "" : "=" + text;
    }

    private Cell cell(String type, int style, String value, String formula) {
        if (value.isEmpty() && formula.isEmpty()) {
            return Cell.NONE;
        }
        switch (type) {
            case "s" -> {
                boolean known = value.matches("\\d{1,9}") && Integer.parseInt(value) < shared.size();
                return new Cell(known ? shared.get(Integer.parseInt(value)) : value, "", formula);
            }
            case "b" -> {
                return new Cell(value.equals("1") ? "TRUE" : "FALSE", "", formula);
            }
            case "n" -> {
                try {
                    double number = Double.parseDouble(value);
                    return new Cell(Objects.requireNonNull(formats).format(number, style, from1904), value, formula);
                } catch (IllegalArgumentException e) {
                    return new Cell(value, "", formula);
                }
            }
            default -> {
                return new Cell(value, "", formula);
            }
        }
    }

    /** The column that a cell's name says, from 0; the next one when it says none. */
    private static int column(String name) {
        int column = 0;
        for (int i = 0; i < name.length() && i < 4; i++) {
            char c = name.charAt(i);
            if (c < 'A' || c > 'Z') {
                break;
            }
            column = column * 26 + (c - 'A' + 1);
        }
        return column - 1;
    }
}
