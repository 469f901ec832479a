package org.mendedleaf.bench;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.geom.AffineTransform;
import java.awt.image.BufferedImage;
import java.awt.image.RescaleOp;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;
import org.apache.poi.xssf.usermodel.XSSFRow;
import org.apache.poi.xssf.usermodel.XSSFSheet;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.apache.poi.xwpf.usermodel.XWPFDocument;
import org.mendedleaf.sample.OpenDocument;
import org.mendedleaf.sample.Pictures;

/** Kinds of documents with what happens to them: a new one, one more of a series, an edit. Documents are of one type T. */
abstract class Kind<T> {

    final String name;
    final String ending;
    final Prose prose;
    final Random random;

    Kind(String name, String ending, Prose prose) {
        this.name = name;
        this.ending = ending;
        this.prose = prose;
        this.random = prose.random();
    }

    /** A document that has nothing to do with others. */
    abstract T fresh();

    /** One more document of the series that this one is of: the same form, filled in otherwise. */
    abstract T sibling(T of);

    /** The same document after somebody worked on it. */
    abstract T edit(T before);

    abstract byte[] bytes(T document);

    static List<Kind<?>> all(Prose prose) {
        return List.of(
                new Texts("text (Markdown)", ".md", prose, Texts::markdown),
                new Texts("word processor (ODF)", ".odt", prose, OpenDocument::text),
                new Texts("word processor (OOXML)", ".docx", prose, Texts::docx),
                new Texts("PDF", ".pdf", prose, Texts::pdf),
                new Tables("table (CSV)", ".csv", prose, Tables::csv),
                new Tables("spreadsheet (ODF)", ".ods", prose, r -> OpenDocument.sheet("Sheet", r)),
                new Tables("spreadsheet (OOXML)", ".xlsx", prose, Tables::xlsx),
                new Slides(prose),
                new Drawings(prose),
                new Photos(prose),
                new Labels(prose),
                new Archives(prose),
                new Binaries(prose));
    }

    interface Format<T> {
        byte[] of(T content);
    }

    /** Texts; one in three is a form of which there are more. */
    static final class Texts extends Kind<List<String>> {
        private final Format<List<String>> format;

        Texts(String name, String ending, Prose prose, Format<List<String>> format) {
            super(name, ending, prose);
            this.format = format;
        }

        @Override
        List<String> fresh() {
            return prose.paragraphs(3, 40);
        }

        @Override
        List<String> sibling(List<String> of) {
            // The form stays; who it is for, each third paragraph, the amounts and the last words are others.
            List<String> other = new ArrayList<>(of);
            for (int i = 1; i < other.size(); i += 3) {
                other.set(i, prose.paragraph());
            }
            other.set(0, prose.name() + " " + prose.name() + ", " + random.nextInt(100_000) + " " + prose.name());
            other.add(prose.sentence(8, 8) + " " + random.nextInt(10_000));
            return other;
        }

        @Override
        List<String> edit(List<String> before) {
            return prose.edit(before);
        }

        @Override
        byte[] bytes(List<String> document) {
            return format.of(document);
        }

        static byte[] markdown(List<String> paragraphs) {
            return (String.join("\n\n", paragraphs) + "\n").getBytes(StandardCharsets.UTF_8);
        }

        static byte[] docx(List<String> paragraphs) {
            try (XWPFDocument document = new XWPFDocument();
                    ByteArrayOutputStream out = new ByteArrayOutputStream()) {
                for (String p : paragraphs) {
                    document.createParagraph().createRun().setText(p);
                }
                document.write(out);
                return out.toByteArray();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }

        static byte[] pdf(List<String> paragraphs) {
            try (PDDocument document = new PDDocument();
                    ByteArrayOutputStream out = new ByteArrayOutputStream()) {
                PDPageContentStream page = null;
                int line = 99;
                for (String p : paragraphs) {
                    for (String part : p.split("(?<=\\G.{70,90} )")) {
                        if (line > 50) {
                            if (page != null) {
                                page.endText();
                                page.close();
                            }
                            PDPage next = new PDPage();
                            document.addPage(next);
                            page = new PDPageContentStream(document, next);
                            page.beginText();
                            page.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA), 10);
                            page.newLineAtOffset(40, 740);
                            line = 0;
                        }
                        java.util.Objects.requireNonNull(page).showText(part);
                        page.newLineAtOffset(0, -13);
                        line++;
                    }
                }
                if (page != null) {
                    page.endText();
                    page.close();
                }
                document.save(out);
                return out.toByteArray();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    static final class Tables extends Kind<List<List<String>>> {
        private final Format<List<List<String>>> format;

        Tables(String name, String ending, Prose prose, Format<List<List<String>>> format) {
            super(name, ending, prose);
            this.format = format;
        }

        @Override
        List<List<String>> fresh() {
            return prose.rows(6 + random.nextInt(150));
        }

        @Override
        List<List<String>> sibling(List<List<String>> of) {
            // The same columns and the same days, other figures.
            List<List<String>> other = new ArrayList<>();
            for (int i = 0; i < of.size(); i++) {
                List<String> row = i == 0 ? new ArrayList<>(of.get(0)) : prose.row();
                if (i > 0) {
                    row.set(0, of.get(i).get(0));
                    row.set(1, of.get(i).get(1));
                    while (row.size() < of.get(0).size()) {
                        row.add(prose.word());
                    }
                }
                other.add(row);
            }
            return other;
        }

        @Override
        List<List<String>> edit(List<List<String>> before) {
            return prose.editRows(before);
        }

        @Override
        byte[] bytes(List<List<String>> document) {
            return format.of(document);
        }

        static byte[] csv(List<List<String>> rows) {
            StringBuilder text = new StringBuilder();
            rows.forEach(r -> text.append(String.join(",", r)).append('\n'));
            return text.toString().getBytes(StandardCharsets.UTF_8);
        }

        static byte[] xlsx(List<List<String>> rows) {
            try (XSSFWorkbook book = new XSSFWorkbook();
                    ByteArrayOutputStream out = new ByteArrayOutputStream()) {
                XSSFSheet sheet = book.createSheet("Sheet");
                for (int i = 0; i < rows.size(); i++) {
                    XSSFRow row = sheet.createRow(i);
                    for (int k = 0; k < rows.get(i).size(); k++) {
                        String cell = rows.get(i).get(k);
                        if (cell.matches("\\d+")) {
                            row.createCell(k).setCellValue(Double.parseDouble(cell));
                        } else {
                            row.createCell(k).setCellValue(cell);
                        }
                    }
                }
                book.write(out);
                return out.toByteArray();
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    /** Slides: titles, and pictures that take most of the space. */
    private static final class Slides extends Kind<Slides.Talk> {
        record Talk(List<String> titles, List<byte[]> pictures) {}

        Slides(Prose prose) {
            super("presentation (ODF)", ".odp", prose);
        }

        @Override
        Talk fresh() {
            List<String> titles = new ArrayList<>();
            List<byte[]> pictures = new ArrayList<>();
            for (int i = 0; i < 4 + random.nextInt(5); i++) {
                titles.add(prose.sentence(3, 5));
                pictures.add(Pictures.png(Photographs.photograph(200, 120, random)));
            }
            return new Talk(titles, pictures);
        }

        @Override
        Talk sibling(Talk of) {
            // The first and the last slide are those of the house.
            Talk other = fresh();
            other.titles().set(0, of.titles().get(0));
            other.pictures().set(0, of.pictures().get(0));
            return other;
        }

        @Override
        Talk edit(Talk before) {
            List<String> titles = new ArrayList<>(before.titles());
            List<byte[]> pictures = new ArrayList<>(before.pictures());
            int at = random.nextInt(titles.size());
            switch (random.nextInt(3)) {
                case 0 -> titles.set(at, prose.sentence(3, 5));
                case 1 -> pictures.set(at, Pictures.png(Photographs.photograph(200, 120, random)));
                default -> {
                    titles.add(prose.sentence(3, 5));
                    pictures.add(Pictures.png(Photographs.photograph(200, 120, random)));
                }
            }
            return new Talk(titles, pictures);
        }

        @Override
        byte[] bytes(Talk t) {
            return OpenDocument.slides(t.titles(), t.pictures());
        }
    }

    /** Drawings of shapes in SVG. */
    private static final class Drawings extends Kind<List<String>> {
        Drawings(Prose prose) {
            super("drawing (SVG)", ".svg", prose);
        }

        private String shape() {
            return "<rect id=\"" + prose.word() + random.nextInt(1000) + "\" x=\"" + random.nextInt(900) + "\" y=\""
                    + random.nextInt(900) + "\" width=\"" + random.nextInt(90) + "\" height=\"" + random.nextInt(90)
                    + "\" fill=\"#" + Integer.toHexString(0x100000 + random.nextInt(0xe00000)) + "\"/>"
                    + "<text x=\"" + random.nextInt(900) + "\" y=\"" + random.nextInt(900) + "\">"
                    + prose.sentence(2, 4)
                    + "</text>";
        }

        @Override
        List<String> fresh() {
            List<String> shapes = new ArrayList<>();
            for (int i = 0; i < 10 + random.nextInt(60); i++) {
                shapes.add(shape());
            }
            return shapes;
        }

        @Override
        List<String> sibling(List<String> of) {
            List<String> other = fresh();
            other.set(0, of.get(0));
            return other;
        }

        @Override
        List<String> edit(List<String> before) {
            List<String> after = new ArrayList<>(before);
            for (int i = 0; i < 1 + random.nextInt(Math.max(1, after.size() / 5)); i++) {
                after.set(random.nextInt(after.size()), shape());
            }
            after.add(shape());
            return after;
        }

        @Override
        byte[] bytes(List<String> shapes) {
            String svg =
                    "<?xml version=\"1.0\"?>\n<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 1000 1000\">\n"
                            + String.join("\n", shapes) + "\n</svg>\n";
            return svg.getBytes(StandardCharsets.UTF_8);
        }
    }

    private static Graphics2D paint(BufferedImage onto) {
        return onto.createGraphics();
    }

    private static BufferedImage copy(BufferedImage of, int width, int height) {
        BufferedImage copy = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = paint(copy);
        g.drawImage(
                of,
                AffineTransform.getScaleInstance((double) width / of.getWidth(), (double) height / of.getHeight()),
                null);
        g.dispose();
        return copy;
    }

    /** Photographs: made brighter, cut a little, made smaller, written on. */
    private static final class Photos extends Kind<BufferedImage> {
        Photos(Prose prose) {
            super("photograph (PNG)", ".png", prose);
        }

        @Override
        BufferedImage fresh() {
            BufferedImage image = Photographs.photograph(240, 160, random);
            Graphics2D g = paint(image);
            // What the photograph is of.
            for (int i = 0; i < 3 + random.nextInt(5); i++) {
                g.setColor(new Color(random.nextInt(0xffffff)));
                int size = 30 + random.nextInt(90);
                g.fillOval(
                        random.nextInt(220) - 20,
                        random.nextInt(140) - 20,
                        size,
                        size * (60 + random.nextInt(80)) / 100);
            }
            g.dispose();
            return image;
        }

        @Override
        BufferedImage sibling(BufferedImage of) {
            return fresh();
        }

        @Override
        BufferedImage edit(BufferedImage before) {
            return switch (random.nextInt(4)) {
                case 0 -> new RescaleOp(1 + random.nextFloat() * 0.2f, 4, null).filter(before, null);
                case 1 -> copy(before.getSubimage(6, 4, before.getWidth() - 12, before.getHeight() - 8), 228, 152);
                case 2 -> copy(before, before.getWidth() * 3 / 4, before.getHeight() * 3 / 4);
                default -> {
                    BufferedImage after = copy(before, before.getWidth(), before.getHeight());
                    Graphics2D g = paint(after);
                    g.setColor(Color.WHITE);
                    g.fillRect(random.nextInt(120), random.nextInt(100), 90, 24);
                    g.dispose();
                    yield after;
                }
            };
        }

        @Override
        byte[] bytes(BufferedImage image) {
            return Pictures.png(image);
        }
    }

    /** Labels of one design: of another sort the ground, the name and the leaves are others. */
    private static final class Labels extends Kind<Labels.Label> {
        record Label(String sort, int hue, int edition, int mark) {}

        Labels(Prose prose) {
            super("label artwork (PNG)", ".png", prose);
        }

        @Override
        Label fresh() {
            return new Label(prose.name() + prose.name(), random.nextInt(360), 2, -1);
        }

        @Override
        Label sibling(Label of) {
            return new Label(prose.name(), (of.hue() + 40 + random.nextInt(280)) % 360, of.edition(), of.mark());
        }

        @Override
        Label edit(Label before) {
            return random.nextBoolean()
                    ? new Label(before.sort(), before.hue(), before.edition() + 1, before.mark())
                    : new Label(before.sort(), before.hue(), before.edition(), random.nextInt(300));
        }

        @Override
        byte[] bytes(Label l) {
            byte[] label = Pictures.label(l.sort(), l.hue(), l.edition());
            if (l.mark() < 0) {
                return label;
            }
            try {
                BufferedImage image = javax.imageio.ImageIO.read(new java.io.ByteArrayInputStream(label));
                Graphics2D g = paint(image);
                g.setColor(Color.BLACK);
                g.fillRect(l.mark(), 480, 60, 30);
                g.dispose();
                return Pictures.png(image);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    /** Archives of files of which some change. */
    private static final class Archives extends Kind<Map<String, byte[]>> {
        Archives(Prose prose) {
            super("archive (ZIP)", ".zip", prose);
        }

        private byte[] noise() {
            byte[] bytes = new byte[6000 + random.nextInt(30_000)];
            random.nextBytes(bytes);
            return bytes;
        }

        @Override
        Map<String, byte[]> fresh() {
            Map<String, byte[]> files = new LinkedHashMap<>();
            for (int i = 0; i < 5 + random.nextInt(12); i++) {
                files.put("f" + i + ".jpg", noise());
            }
            return files;
        }

        @Override
        Map<String, byte[]> sibling(Map<String, byte[]> of) {
            return fresh();
        }

        @Override
        Map<String, byte[]> edit(Map<String, byte[]> before) {
            Map<String, byte[]> after = new LinkedHashMap<>(before);
            if (random.nextBoolean()) {
                after.put("more" + random.nextInt(100) + ".jpg", noise());
            } else {
                after.put("f1.jpg", noise());
            }
            return after;
        }

        @Override
        byte[] bytes(Map<String, byte[]> files) {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            try (ZipOutputStream zip = new ZipOutputStream(out)) {
                for (Map.Entry<String, byte[]> f : files.entrySet()) {
                    ZipEntry entry = new ZipEntry(f.getKey());
                    // Each file keeps its own time, as packing programs do.
                    entry.setTimeLocal(java.time.LocalDateTime.of(2026, 1, 1, 0, 0));
                    zip.putNextEntry(entry);
                    zip.write(f.getValue());
                }
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            return out.toByteArray();
        }
    }

    /** Files of a program of its own, of which a save changes some places. */
    private static final class Binaries extends Kind<byte[]> {
        Binaries(Prose prose) {
            super("other (binary, 200-900 kB)", ".dat", prose);
        }

        @Override
        byte[] fresh() {
            byte[] bytes = new byte[200_000 + random.nextInt(700_000)];
            random.nextBytes(bytes);
            System.arraycopy("DATAFILE".getBytes(StandardCharsets.US_ASCII), 0, bytes, 0, 8);
            return bytes;
        }

        @Override
        byte[] sibling(byte[] of) {
            byte[] other = fresh();
            System.arraycopy(of, 0, other, 0, 4096);
            return other;
        }

        @Override
        byte[] edit(byte[] before) {
            byte[] after = java.util.Arrays.copyOf(before, before.length + random.nextInt(5000));
            for (int i = 0; i < 3; i++) {
                after[100 + random.nextInt(before.length - 200)] ^= 0x55;
            }
            return after;
        }

        @Override
        byte[] bytes(byte[] document) {
            return document;
        }
    }
}
