package org.mendedleaf.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.zip.CRC32;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mendedleaf.sample.OpenDocument;

/**
 * Files that are made to do harm: small ones that unpack to very much, that refer to themselves, that lie about their size, that
 * go on without end. The same seed makes the same files.
 */
public final class HostileFiles {

    private static final int MEGABYTE = 1 << 20;

    private final Random random;
    private final double scale;

    /** Files by this seed. */
    public HostileFiles(long seed) {
        this(seed, 1);
    }

    /**
     * Files by this seed.
     *
     * @param scale how large they are, 0 for as small as does harm to 1
     */
    public HostileFiles(long seed, double scale) {
        this.random = new Random(seed);
        this.scale = scale;
    }

    /** A file. */
    public record HostileFile(String name, byte[] content) {}

    private interface Maker {
        byte[] make() throws IOException;
    }

    private record Named(String name, Maker maker) {}

    private interface Part {
        void write(ZipOutputStream zip) throws IOException;
    }

    private List<Named> makers() {
        return List.of(
                new Named("one text in very many cells.xlsx", this::sharedText),
                new Named("cells repeated.ods", this::repeatedCells),
                new Named("only beginnings.xml", this::beginnings),
                new Named("tags without end.html", this::tags),
                new Named("padding.zip", this::padding),
                new Named("padded.docx", this::paddedDocument),
                new Named("repeated.pdf", this::repeatedPdf),
                new Named("pages that hold themselves.pdf", this::endlessPdf),
                new Named("archives in each other.zip", this::nested),
                new Named("members.zip", this::members),
                new Named("entities.odt", this::entities),
                new Named("deep.docx", this::deep),
                new Named("drawn wide.png", () -> png(some(20_000, 120_000), 1)),
                new Named("drawn large.png", () -> png(some(9_000, 14_000), 24)),
                new Named("claims to be wide.gif", this::gif),
                new Named("claims to be wide.bmp", this::bmp),
                new Named("in circles.tiff", this::tiff),
                new Named("groups.rtf", this::groups),
                new Named("one sign for many.txt", this::expanding),
                new Named("short words.txt", this::shortWords),
                new Named("one line.csv", this::oneLine),
                new Named("in circles.doc", this::oldOffice),
                new Named("unpacks to much.gz", this::gzip),
                new Named("claims to be long.tar", this::tar),
                new Named("parts of parts.eml", this::mail),
                new Named("uses itself.svg", this::svg),
                new Named("slides.pptx", this::slides),
                new Named("damaged.odt", this::damaged));
    }

    /** How many kinds there are. */
    public static int kinds() {
        return new HostileFiles(0).makers().size();
    }

    /** A file of the kind with this number; numbers go round. */
    public HostileFile file(int number) throws IOException {
        List<Named> all = makers();
        Named named = all.get(number % all.size());
        return new HostileFile(named.name(), named.maker().make());
    }

    private static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    private static byte[] zip(Part part) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            part.write(zip);
        }
        return out.toByteArray();
    }

    private static void entry(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
    }

    private int some(int least, int most) {
        return least + random.nextInt((int) ((most - least) * scale) + 1);
    }

    private static void types(ZipOutputStream zip) throws IOException {
        entry(
                zip,
                "[Content_Types].xml",
                "<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\"/>");
    }

    private byte[] sharedText() throws IOException {
        String text = "x".repeat(some(10_000, 1_000_000));
        int cells = some(100_000, 400_000);
        return zip(zip -> {
            types(zip);
            entry(
                    zip,
                    "xl/workbook.xml",
                    "<workbook><sheets><sheet name=\"a\" sheetId=\"1\" r:id=\"r1\""
                            + " xmlns:r=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships\"/></sheets></workbook>");
            entry(
                    zip,
                    "xl/_rels/workbook.xml.rels",
                    "<Relationships><Relationship Id=\"r1\""
                            + " Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet\""
                            + " Target=\"worksheets/sheet1.xml\"/></Relationships>");
            entry(zip, "xl/sharedStrings.xml", "<sst><si><t>" + text + "</t></si></sst>");
            zip.putNextEntry(new ZipEntry("xl/worksheets/sheet1.xml"));
            zip.write(ascii("<worksheet><sheetData>"));
            byte[] row = ascii("<row>" + "<c t=\"s\"><v>0</v></c>".repeat(100) + "</row>");
            for (int i = 0; i < cells / 100; i++) {
                zip.write(row);
            }
            zip.write(ascii("</sheetData></worksheet>"));
        });
    }

    private static byte[] open(String type, String content) throws IOException {
        return zip(zip -> {
            entry(zip, "mimetype", "application/vnd.oasis.opendocument." + type);
            entry(zip, "content.xml", content);
        });
    }

    private byte[] repeatedCells() throws IOException {
        String text = "words and more words ".repeat(some(1, 20_000));
        return open(
                "spreadsheet",
                "<o:document-content xmlns:o=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
                        + " xmlns:t=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\""
                        + " xmlns:p=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"><o:body><o:spreadsheet>"
                        + "<t:table t:name=\"a\"><t:table-row t:number-rows-repeated=\"" + some(1000, 1_000_000)
                        + "\"><t:table-cell o:value-type=\"string\" t:number-columns-repeated=\"" + some(10, 16_384)
                        + "\"><p:p>" + text + "</p:p></t:table-cell></t:table-row></t:table>"
                        + "</o:spreadsheet></o:body></o:document-content>");
    }

    private byte[] beginnings() {
        byte[] all = new byte[some(2, 30) * MEGABYTE];
        Arrays.fill(all, (byte) '<');
        System.arraycopy(ascii("<?xml version=\"1.0\"?>"), 0, all, 0, 21);
        return all;
    }

    private byte[] tags() {
        String[] of = {"<a", "<a href='", "<!--", "<![CDATA[", "<p>", "&amp;", "<<<>", "</"};
        String part = of[random.nextInt(of.length)];
        return ascii("<html>" + part.repeat(some(2, 30) * MEGABYTE / part.length()));
    }

    /** A member that unpacks to gigabytes of zeros, written without packing them each time. */
    private byte[] padding() throws IOException {
        return padded("padding", some(1, 28));
    }

    private byte[] paddedDocument() throws IOException {
        return padded("word/document.xml", some(1, 28));
    }

    private static byte[] padded(String name, int gigabytes) throws IOException {
        byte[] zeros = new byte[64 * MEGABYTE];
        Deflater deflater = new Deflater(9, true);
        deflater.setInput(zeros);
        byte[] packed = new byte[MEGABYTE];
        int length = deflater.deflate(packed, 0, packed.length, Deflater.FULL_FLUSH);
        deflater.finish();
        byte[] last = new byte[64];
        int end = deflater.deflate(last);
        deflater.end();
        int times = gigabytes * 16;
        int all = length * times + end;
        byte[] path = ascii(name);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(ByteBuffer.allocate(30 + path.length)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(0x04034b50)
                .putShort((short) 20)
                .putShort((short) 0)
                .putShort((short) 8)
                .putInt(0)
                .putInt(0)
                .putInt(all)
                .putInt(-2)
                .putShort((short) path.length)
                .putShort((short) 0)
                .put(path)
                .array());
        for (int i = 0; i < times; i++) {
            out.write(packed, 0, length);
        }
        out.write(last, 0, end);
        int directory = out.size();
        out.write(ByteBuffer.allocate(46 + path.length + 22)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(0x02014b50)
                .putShort((short) 20)
                .putShort((short) 20)
                .putShort((short) 0)
                .putShort((short) 8)
                .putInt(0)
                .putInt(0)
                .putInt(all)
                .putInt(-2)
                .putShort((short) path.length)
                .put(new byte[12])
                .putInt(0)
                .put(path)
                .putInt(0x06054b50)
                .putInt(0)
                .putShort((short) 1)
                .putShort((short) 1)
                .putInt(46 + path.length)
                .putInt(directory)
                .putShort((short) 0)
                .array());
        return out.toByteArray();
    }

    private static byte[] deflated(String part, int times) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (OutputStream packed = new DeflaterOutputStream(out)) {
            byte[] bytes = ascii(part.repeat(1000));
            for (int i = 0; i < times / 1000 + 1; i++) {
                packed.write(bytes);
            }
        }
        return out.toByteArray();
    }

    private byte[] repeatedPdf() throws IOException {
        byte[] content = deflated("BT /F1 12 Tf 10 10 Td (words and more words) Tj ET\n", some(5_000, 3_000_000));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(ascii("%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Kids["
                + "3 0 R ".repeat(some(1, 500)) + "]/Count 500>>endobj\n"
                + "3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 600 800]/Contents 4 0 R/Resources<</Font<</F1"
                + "<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>>>>>>>endobj\n4 0 obj<</Filter/FlateDecode/Length "
                + content.length + ">>stream\n"));
        out.write(content);
        out.write(ascii("\nendstream endobj\ntrailer<</Root 1 0 R>>\n"));
        return out.toByteArray();
    }

    private byte[] endlessPdf() {
        return ascii("%PDF-1.7\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj 2 0 obj<</Type/Pages/Kids["
                + "2 0 R ".repeat(some(1, 1000)) + "]/Count 99999999>>endobj\ntrailer<</Root 1 0 R>>");
    }

    private byte[] nested() throws IOException {
        byte[] inner = ascii("the end");
        for (int i = some(50, 300); i > 0; i--) {
            byte[] content = inner;
            inner = zip(zip -> {
                zip.putNextEntry(new ZipEntry("next.zip"));
                zip.write(content);
            });
        }
        return inner;
    }

    private byte[] members() throws IOException {
        int count = some(20_000, 300_000);
        return zip(zip -> {
            for (int i = 0; i < count; i++) {
                zip.putNextEntry(new ZipEntry("m" + i));
            }
        });
    }

    private byte[] entities() throws IOException {
        StringBuilder all = new StringBuilder("<!DOCTYPE a [<!ENTITY e0 \"aaaaaaaaaa\">");
        int deep = some(4, 12);
        for (int i = 1; i <= deep; i++) {
            all.append("<!ENTITY e")
                    .append(i)
                    .append(" \"")
                    .append(("&e" + (i - 1) + ";").repeat(10))
                    .append("\">");
        }
        return open("text", all + "]><a><body><text><p>&e" + deep + ";</p></text></body></a>");
    }

    private byte[] deep() throws IOException {
        int levels = some(10_000, 2_000_000);
        return zip(zip -> {
            types(zip);
            entry(zip, "word/document.xml", "<document><body>" + "<p>".repeat(levels));
        });
    }

    /** A picture whose pixels are all there, packed. */
    private static byte[] png(int side, int bits) throws IOException {
        ByteArrayOutputStream data = new ByteArrayOutputStream();
        try (DeflaterOutputStream packed = new DeflaterOutputStream(data, new Deflater(1))) {
            byte[] row = new byte[side * bits / 8 + 1];
            for (int i = 0; i < side; i++) {
                packed.write(row);
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(new byte[] {(byte) 0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'});
        chunk(
                out,
                "IHDR",
                ByteBuffer.allocate(13)
                        .putInt(side)
                        .putInt(side)
                        .put(new byte[] {(byte) Math.min(8, bits), (byte) (bits == 1 ? 0 : 2), 0, 0, 0})
                        .array());
        chunk(out, "IDAT", data.toByteArray());
        chunk(out, "IEND", new byte[0]);
        return out.toByteArray();
    }

    private static void chunk(ByteArrayOutputStream out, String name, byte[] data) throws IOException {
        CRC32 crc = new CRC32();
        crc.update(ascii(name));
        crc.update(data);
        out.write(ByteBuffer.allocate(4).putInt(data.length).array());
        out.write(ascii(name));
        out.write(data);
        out.write(ByteBuffer.allocate(4).putInt((int) crc.getValue()).array());
    }

    private byte[] gif() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.write(ascii("GIF89a"));
        out.write(new byte[] {(byte) 255, (byte) 255, (byte) 255, (byte) 255, 0, 0, 0});
        out.write(new byte[] {0x2c, 0, 0, 0, 0, (byte) 255, (byte) 255, (byte) 255, (byte) 255, 0, 8});
        byte[] noise = new byte[255];
        for (int i = some(1, 4000); i > 0; i--) {
            random.nextBytes(noise);
            out.write(255);
            out.write(noise);
        }
        out.write(0);
        return out.toByteArray();
    }

    private byte[] bmp() {
        int side = some(20_000, 60_000);
        return ByteBuffer.allocate(54 + 100)
                .order(ByteOrder.LITTLE_ENDIAN)
                .put(ascii("BM"))
                .putInt(154)
                .putInt(0)
                .putInt(54)
                .putInt(40)
                .putInt(side)
                .putInt(side)
                .putShort((short) 1)
                .putShort((short) 24)
                .array();
    }

    private byte[] tiff() {
        ByteBuffer all = ByteBuffer.allocate(8 + 2 + 12 * 6 + 4).order(ByteOrder.LITTLE_ENDIAN);
        all.put(ascii("II")).putShort((short) 42).putInt(8).putShort((short) 6);
        int[][] fields = {{256, some(1000, 90_000)}, {257, some(1000, 90_000)}, {258, 8}, {262, 1}, {273, 8}, {278, 1}};
        for (int[] field : fields) {
            all.putShort((short) field[0]).putShort((short) 4).putInt(1).putInt(field[1]);
        }
        return all.putInt(8).array();
    }

    private byte[] groups() {
        return ascii("{\\rtf1" + (random.nextBoolean() ? "{" : "{\\b a").repeat(some(100_000, 3_000_000)));
    }

    /** A sign that is eighteen signs when it is written plainly. */
    private byte[] expanding() {
        return "\uFDFA".repeat(some(1, 10) * MEGABYTE).getBytes(StandardCharsets.UTF_8);
    }

    private byte[] shortWords() {
        byte[] all = new byte[some(1, 31) * MEGABYTE];
        for (int i = 0; i < all.length; i++) {
            all[i] = (byte) (i % 2 == 0 ? 'a' + random.nextInt(26) : ' ');
        }
        return all;
    }

    private byte[] oneLine() {
        return ascii((random.nextBoolean() ? "," : "\"").repeat(some(1, 31) * MEGABYTE));
    }

    private byte[] oldOffice() {
        byte[] all = new byte[some(1, 64) * 512];
        random.nextBytes(all);
        ByteBuffer.wrap(all)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putLong(0xe11ab1a1e011cfd0L)
                .put(24, (byte) 0x3e)
                .put(26, (byte) 3)
                .put(28, (byte) 0xfe)
                .put(29, (byte) 0xff)
                .put(30, (byte) 9)
                .put(32, (byte) 6);
        return all;
    }

    private byte[] gzip() throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (GZIPOutputStream packed = new GZIPOutputStream(out)) {
            byte[] zeros = new byte[MEGABYTE];
            for (int i = some(50, 1000); i > 0; i--) {
                packed.write(zeros);
            }
        }
        return out.toByteArray();
    }

    private byte[] tar() {
        byte[] all = new byte[512 * some(3, 40_000)];
        for (int at = 0; at + 512 <= all.length; at += 512) {
            System.arraycopy(ascii("m" + at), 0, all, at, ("m" + at).length());
            System.arraycopy(ascii("77777777777"), 0, all, at + 124, random.nextBoolean() ? 11 : 0);
            System.arraycopy(ascii("ustar"), 0, all, at + 257, 5);
        }
        return all;
    }

    private byte[] mail() {
        StringBuilder all = new StringBuilder("From: a@example.org\nSubject: a\nMIME-Version: 1.0\n");
        int deep = some(100, 20_000);
        for (int i = 0; i < deep; i++) {
            all.append("Content-Type: multipart/mixed; boundary=\"b")
                    .append(i)
                    .append("\"\n\n--b")
                    .append(i)
                    .append('\n');
        }
        return ascii(all.toString());
    }

    private byte[] svg() {
        StringBuilder all =
                new StringBuilder("<svg xmlns=\"http://www.w3.org/2000/svg\"><g id=\"g0\"><path d=\"M0 0\"/></g>");
        for (int i = 1; i < some(10, 40); i++) {
            all.append("<g id=\"g")
                    .append(i)
                    .append("\">")
                    .append(("<use href=\"#g" + (i - 1) + "\"/>").repeat(10))
                    .append("</g>");
        }
        return ascii(all + "</svg>");
    }

    private byte[] slides() throws IOException {
        int count = some(1000, 200_000);
        return zip(zip -> {
            types(zip);
            entry(
                    zip,
                    "ppt/presentation.xml",
                    "<presentation><sldIdLst>" + "<sldId id=\"1\" r:id=\"r1\"/>".repeat(count)
                            + "</sldIdLst></presentation>");
            entry(
                    zip,
                    "ppt/_rels/presentation.xml.rels",
                    "<Relationships><Relationship Id=\"r1\" Type=\"slide\""
                            + " Target=\"slides/slide1.xml\"/></Relationships>");
            entry(zip, "ppt/slides/slide1.xml", "<sld>" + "<p><t>words and more words</t></p>".repeat(1000) + "</sld>");
        });
    }

    /** A good one with some bytes that are others. */
    private byte[] damaged() throws IOException {
        List<String> text = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            text.add("A paragraph with the number " + i + " and " + random.nextInt());
        }
        byte[] all = OpenDocument.text(text);
        for (int i = some(1, 40); i > 0; i--) {
            all[random.nextInt(all.length)] = (byte) random.nextInt(256);
        }
        return all;
    }
}
