package org.mendedleaf.core.document;

import com.github.miachm.sods.SpreadSheet;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;
import org.apache.poi.hssf.usermodel.HSSFWorkbook;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellStyle;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.usermodel.Workbook;
import org.apache.poi.ss.util.CellRangeAddress;
import org.apache.poi.xslf.usermodel.XMLSlideShow;
import org.apache.poi.xslf.usermodel.XSLFSlide;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.apache.poi.xwpf.usermodel.XWPFDocument;
import org.apache.poi.xwpf.usermodel.XWPFTable;

/** Documents for tests, by the libraries that programs make them with, or written by hand where there is none. */
public final class Made {

    private Made() {}

    /** A workbook with a sheet of these rows; numbers are numbers, what begins with "=" is a formula. */
    public static byte[] xlsx(List<List<String>> rows) {
        return workbook(new XSSFWorkbook(), rows);
    }

    public static byte[] xls(List<List<String>> rows) {
        return workbook(new HSSFWorkbook(), rows);
    }

    private static byte[] workbook(Workbook made, List<List<String>> rows) {
        try (Workbook book = made;
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            Sheet sheet = book.createSheet("Fees");
            CellStyle money = book.createCellStyle();
            money.setDataFormat(book.createDataFormat().getFormat("0.00"));
            for (int r = 0; r < rows.size(); r++) {
                Row row = sheet.createRow(r);
                for (int c = 0; c < rows.get(r).size(); c++) {
                    String text = rows.get(r).get(c);
                    Cell cell = row.createCell(c);
                    if (text.startsWith("=")) {
                        cell.setCellFormula(text.substring(1));
                    } else if (text.matches("-?\\d+(\\.\\d+)?")) {
                        cell.setCellValue(Double.parseDouble(text));
                        if (text.contains(".")) {
                            cell.setCellStyle(money);
                        }
                    } else if (!text.isEmpty()) {
                        cell.setCellValue(text);
                    }
                }
            }
            if (rows.size() > 1) {
                sheet.addMergedRegion(new CellRangeAddress(rows.size(), rows.size() + 1, 0, 2));
            }
            book.getCreationHelper().createFormulaEvaluator().evaluateAll();
            book.write(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static byte[] ods(List<List<String>> rows) {
        try (ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            SpreadSheet book = new SpreadSheet();
            int columns = rows.stream().mapToInt(List::size).max().orElse(1);
            com.github.miachm.sods.Sheet sheet =
                    new com.github.miachm.sods.Sheet("Fees", Math.max(1, rows.size()), columns);
            for (int r = 0; r < rows.size(); r++) {
                for (int c = 0; c < rows.get(r).size(); c++) {
                    String text = rows.get(r).get(c);
                    if (text.matches("-?\\d+(\\.\\d+)?")) {
                        sheet.getRange(r, c).setValue(Double.parseDouble(text));
                    } else if (!text.isEmpty()) {
                        sheet.getRange(r, c).setValue(text);
                    }
                }
            }
            book.appendSheet(sheet);
            book.save(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A text: "# " begins a heading, "- " an item, "| " a row with cells divided by bars. */
    public static byte[] docx(String... paragraphs) {
        try (XWPFDocument document = new XWPFDocument();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            var styles = document.createStyles();
            var heading = org.openxmlformats.schemas.wordprocessingml.x2006.main.CTStyle.Factory.newInstance();
            heading.setStyleId("H1");
            heading.addNewName().setVal("heading 1");
            styles.addStyle(new org.apache.poi.xwpf.usermodel.XWPFStyle(heading));
            for (String text : paragraphs) {
                if (text.startsWith("| ")) {
                    String[] cells = text.substring(2).split(" \\| ");
                    XWPFTable table = document.createTable(1, cells.length);
                    for (int c = 0; c < cells.length; c++) {
                        table.getRow(0).getCell(c).setText(cells[c]);
                    }
                } else {
                    var p = document.createParagraph();
                    p.createRun().setText(text.startsWith("# ") ? text.substring(2) : text);
                    if (text.startsWith("# ")) {
                        p.setStyle("H1");
                    }
                }
            }
            document.write(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static byte[] pptx(String... slides) {
        try (XMLSlideShow show = new XMLSlideShow();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            for (String text : slides) {
                XSLFSlide slide = show.createSlide();
                slide.createTextBox().setText(text);
            }
            show.write(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** An OpenDocument text, with the same marks as {@link #docx}. */
    public static byte[] odt(String... paragraphs) {
        StringBuilder body = new StringBuilder();
        for (String text : paragraphs) {
            if (text.startsWith("# ")) {
                body.append("<text:h text:outline-level=\"1\">")
                        .append(escaped(text.substring(2)))
                        .append("</text:h>");
            } else if (text.startsWith("- ")) {
                body.append("<text:list><text:list-item><text:p>")
                        .append(escaped(text.substring(2)))
                        .append("</text:p></text:list-item></text:list>");
            } else if (text.startsWith("| ")) {
                body.append("<table:table><table:table-row>");
                for (String cell : text.substring(2).split(" \\| ")) {
                    body.append("<table:table-cell><text:p>")
                            .append(escaped(cell))
                            .append("</text:p></table:table-cell>");
                }
                body.append("</table:table-row></table:table>");
            } else {
                body.append("<text:p>").append(escaped(text)).append("</text:p>");
            }
        }
        return openDocument("text", "<office:text>" + body + "</office:text>");
    }

    public static byte[] odp(String... slides) {
        StringBuilder body = new StringBuilder();
        for (int i = 0; i < slides.length; i++) {
            body.append("<draw:page draw:name=\"page")
                    .append(i + 1)
                    .append("\"><draw:frame><draw:text-box><text:p>")
                    .append(escaped(slides[i]))
                    .append("</text:p></draw:text-box></draw:frame><presentation:notes><draw:frame><draw:text-box>")
                    .append("<text:p>say ")
                    .append(i + 1)
                    .append("</text:p></draw:text-box></draw:frame></presentation:notes></draw:page>");
        }
        return openDocument("presentation", "<office:presentation>" + body + "</office:presentation>");
    }

    public static byte[] openDocument(String kind, String body) {
        Map<String, String> parts = new LinkedHashMap<>();
        parts.put("mimetype", "application/vnd.oasis.opendocument." + kind);
        parts.put(
                "content.xml",
                "<?xml version=\"1.0\" encoding=\"UTF-8\"?><office:document-content"
                        + " xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
                        + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\""
                        + " xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\""
                        + " xmlns:draw=\"urn:oasis:names:tc:opendocument:xmlns:drawing:1.0\""
                        + " xmlns:presentation=\"urn:oasis:names:tc:opendocument:xmlns:presentation:1.0\""
                        + " xmlns:xlink=\"http://www.w3.org/1999/xlink\">"
                        + "<office:body>" + body + "</office:body></office:document-content>");
        return zip(parts);
    }

    public static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }

    public static byte[] zip(Map<String, String> parts) {
        Map<String, byte[]> bytes = new LinkedHashMap<>();
        parts.forEach((k, v) -> bytes.put(k, v.getBytes(StandardCharsets.UTF_8)));
        return zipOf(bytes);
    }

    public static byte[] zipOf(Map<String, byte[]> parts) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (Map.Entry<String, byte[]> part : parts.entrySet()) {
                zip.putNextEntry(new ZipEntry(part.getKey()));
                zip.write(part.getValue());
                zip.closeEntry();
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** A PDF with a page for each text, a line each for its lines. */
    public static byte[] pdf(String... pages) {
        try (PDDocument document = new PDDocument();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            for (String text : pages) {
                PDPage page = new PDPage();
                document.addPage(page);
                try (PDPageContentStream stream = new PDPageContentStream(document, page)) {
                    int y = 700;
                    for (String line : text.split("\n")) {
                        stream.beginText();
                        stream.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA), 12);
                        stream.newLineAtOffset(72, y -= 20);
                        stream.showText(line);
                        stream.endText();
                    }
                }
            }
            document.save(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A picture of one colour with a rectangle of another at its upper left. */
    public static byte[] picture(String format, int width, int height, int spot) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                image.setRGB(x, y, x < spot && y < spot ? 0xAA3311 : 0xEEDDCC);
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            if (!ImageIO.write(image, format, out)) {
                throw new IllegalArgumentException(format);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** Rows of a table, cells divided by commas. */
    public static List<List<String>> rows(String... rows) {
        List<List<String>> all = new ArrayList<>();
        for (String row : rows) {
            all.add(List.of(row.split(",", -1)));
        }
        return all;
    }
}
