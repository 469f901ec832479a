package org.mendedleaf.sample;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Small documents in the OpenDocument format (ISO/IEC 26300): spreadsheets, texts and presentations. */
public final class OpenDocument {

    private static final String NAMESPACES = " xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
            + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\""
            + " xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\""
            + " xmlns:draw=\"urn:oasis:names:tc:opendocument:xmlns:drawing:1.0\""
            + " xmlns:presentation=\"urn:oasis:names:tc:opendocument:xmlns:presentation:1.0\""
            + " xmlns:svg=\"urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0\""
            + " xmlns:xlink=\"http://www.w3.org/1999/xlink\" office:version=\"1.2\"";

    private OpenDocument() {}

    /** A spreadsheet with one sheet; cells that are numbers become numbers, and "=FORMULA|VALUE" is a formula. */
    public static byte[] sheet(String name, List<List<String>> rows) {
        StringBuilder body = new StringBuilder("<office:spreadsheet><table:table table:name=\"")
                .append(escape(name))
                .append("\">");
        for (List<String> row : rows) {
            body.append("<table:table-row>");
            for (String cell : row) {
                if (cell.startsWith("=")) {
                    String value = cell.substring(cell.indexOf('|') + 1);
                    body.append("<table:table-cell table:formula=\"of:")
                            .append(escape(cell.substring(0, cell.indexOf('|'))))
                            .append("\" office:value-type=\"float\" office:value=\"")
                            .append(value)
                            .append("\"><text:p>")
                            .append(value)
                            .append("</text:p></table:table-cell>");
                    continue;
                }
                boolean number = cell.matches("-?\\d+(\\.\\d+)?");
                body.append(
                                number
                                        ? "<table:table-cell office:value-type=\"float\" office:value=\"" + cell + "\">"
                                        : "<table:table-cell office:value-type=\"string\">")
                        .append("<text:p>")
                        .append(escape(cell))
                        .append("</text:p></table:table-cell>");
            }
            body.append("</table:table-row>");
        }
        return pack(
                "spreadsheet",
                body.append("</table:table></office:spreadsheet>").toString(),
                Map.of());
    }

    /** A text; lines that begin with "# " are headings. */
    public static byte[] text(List<String> paragraphs) {
        return text(paragraphs, List.of());
    }

    /** A text with pictures (JPEG): a line "!2" is the third of them. */
    public static byte[] text(List<String> paragraphs, List<byte[]> pictures) {
        StringBuilder body = new StringBuilder("<office:text>");
        Map<String, byte[]> extra = new LinkedHashMap<>();
        for (String p : paragraphs) {
            if (p.matches("!\\d")) {
                int number = p.charAt(1) - '0';
                String path = "Pictures/picture" + (number + 1) + ".jpg";
                extra.put(path, pictures.get(number));
                body.append("<text:p><draw:frame text:anchor-type=\"as-char\" svg:width=\"12cm\" svg:height=\"8cm\">")
                        .append("<draw:image xlink:href=\"")
                        .append(path)
                        .append("\"/></draw:frame></text:p>");
                continue;
            }
            body.append(
                    p.startsWith("# ")
                            ? "<text:h text:outline-level=\"1\">" + escape(p.substring(2)) + "</text:h>"
                            : "<text:p>" + escape(p) + "</text:p>");
        }
        return pack("text", body.append("</office:text>").toString(), extra);
    }

    /** A presentation: a slide for each title, with its picture where there is one of that number. */
    public static byte[] slides(List<String> titles, List<byte[]> pictures) {
        return slides(titles, pictures, List.of());
    }

    /** A presentation: a slide for each title, with its picture and what is said to it where there is one of that number. */
    public static byte[] slides(List<String> titles, List<byte[]> pictures, List<String> notes) {
        StringBuilder body = new StringBuilder("<office:presentation>");
        Map<String, byte[]> extra = new LinkedHashMap<>();
        for (int i = 0; i < titles.size(); i++) {
            body.append("<draw:page draw:name=\"")
                    .append(i + 1)
                    .append("\"><draw:frame svg:width=\"20cm\"")
                    .append(" svg:height=\"3cm\"><draw:text-box><text:p>")
                    .append(escape(titles.get(i)))
                    .append("</text:p></draw:text-box></draw:frame>");
            if (i < pictures.size()) {
                String path = "Pictures/slide" + (i + 1) + ".png";
                extra.put(path, pictures.get(i));
                body.append("<draw:frame svg:width=\"16cm\" svg:height=\"9cm\"><draw:image xlink:href=\"")
                        .append(path)
                        .append("\"/></draw:frame>");
            }
            if (i < notes.size()) {
                body.append("<presentation:notes><draw:frame><draw:text-box><text:p>")
                        .append(escape(notes.get(i)))
                        .append("</text:p></draw:text-box></draw:frame></presentation:notes>");
            }
            body.append("</draw:page>");
        }
        return pack("presentation", body.append("</office:presentation>").toString(), extra);
    }

    private static byte[] pack(String kind, String body, Map<String, byte[]> extra) {
        String type = "application/vnd.oasis.opendocument." + kind;
        Map<String, byte[]> parts = new LinkedHashMap<>();
        parts.put(
                "content.xml",
                ("<?xml version=\"1.0\" encoding=\"UTF-8\"?><office:document-content" + NAMESPACES + "><office:body>"
                                + body + "</office:body></office:document-content>")
                        .getBytes(StandardCharsets.UTF_8));
        parts.putAll(extra);
        StringBuilder manifest = new StringBuilder("<?xml version=\"1.0\" encoding=\"UTF-8\"?><manifest:manifest"
                + " xmlns:manifest=\"urn:oasis:names:tc:opendocument:xmlns:manifest:1.0\" manifest:version=\"1.2\">"
                + "<manifest:file-entry manifest:full-path=\"/\" manifest:media-type=\"" + type + "\"/>");
        parts.keySet()
                .forEach(p -> manifest.append("<manifest:file-entry manifest:full-path=\"")
                        .append(p)
                        .append("\" manifest:media-type=\"")
                        .append(p.endsWith(".png") ? "image/png" : p.endsWith(".jpg") ? "image/jpeg" : "text/xml")
                        .append("\"/>"));
        parts.put(
                "META-INF/manifest.xml",
                manifest.append("</manifest:manifest>").toString().getBytes(StandardCharsets.UTF_8));
        return zip(type.getBytes(StandardCharsets.US_ASCII), parts);
    }

    private static byte[] zip(byte[] mimetype, Map<String, byte[]> parts) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            ZipEntry first = entry("mimetype");
            first.setMethod(ZipEntry.STORED);
            first.setSize(mimetype.length);
            CRC32 crc = new CRC32();
            crc.update(mimetype);
            first.setCrc(crc.getValue());
            zip.putNextEntry(first);
            zip.write(mimetype);
            for (Map.Entry<String, byte[]> part : parts.entrySet()) {
                zip.putNextEntry(entry(part.getKey()));
                zip.write(part.getValue());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** The same bytes on every run: no time of today in the archive. */
    static ZipEntry entry(String name) {
        ZipEntry entry = new ZipEntry(name);
        entry.setTimeLocal(java.time.LocalDateTime.of(2026, 1, 1, 0, 0));
        return entry;
    }

    private static String escape(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }
}
