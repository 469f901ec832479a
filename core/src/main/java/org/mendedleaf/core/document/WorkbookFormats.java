package org.mendedleaf.core.document;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.apache.poi.ss.usermodel.BuiltinFormats;
import org.apache.poi.ss.usermodel.DataFormatter;

/** How the cells of a workbook show their numbers, by Apache POI. */
final class WorkbookFormats {

    private final Map<Integer, String> formats = new HashMap<>();
    private final List<Integer> cellFormats = new ArrayList<>();
    private final DataFormatter formatter = new DataFormatter(Locale.ROOT);

    /** Reads the styles of a workbook; one without them shows numbers as they are. */
    WorkbookFormats(Parts parts, Limits limits) throws IOException {
        byte[] bytes = parts.bytes("xl/styles.xml").orElse(new byte[0]);
        if (bytes.length == 0) {
            return;
        }
        try (XmlReader xml = new XmlReader(new ByteArrayInputStream(bytes), limits)) {
            boolean inCells = false;
            while (xml.next()) {
                if (xml.isStart("numFmt")) {
                    formats.put(xml.number("numFmtId", 0, 0, Integer.MAX_VALUE), xml.get("formatCode", "General"));
                } else if (xml.isStart("cellXfs")) {
                    inCells = true;
                } else if (xml.isEnd("cellXfs")) {
                    inCells = false;
                } else if (inCells && xml.isStart("xf")) {
                    cellFormats.add(xml.number("numFmtId", 0, 0, Integer.MAX_VALUE));
                }
            }
        }
    }

    /**
     * A number as a cell of this style shows it.
     *
     * @param from1904 whether days are counted from the year 1904
     */
    String format(double number, int style, boolean from1904) {
        int index = style >= 0 && style < cellFormats.size() ? cellFormats.get(style) : 0;
        String format = formats.getOrDefault(index, index < 164 ? BuiltinFormats.getBuiltinFormat(index) : "General");
        return formatter.formatRawCellContents(number, index, format == null ? "General" : format, from1904);
    }
}
