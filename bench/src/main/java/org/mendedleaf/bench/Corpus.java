package org.mendedleaf.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Contents to measure with, the same on every run. */
public final class Corpus {

    private static final String[] WORDS = {
        "apple", "press", "ledger", "harvest", "crate", "orchard", "barrel", "the", "of", "and", "to", "in", "a", "is",
        "weight", "member", "season", "letter", "invoice", "rota", "cider", "pear", "seed", "library", "meadow"
    };

    private Corpus() {}

    /** Words and numbers in lines; so many bytes. */
    public static byte[] text(Random random, int length) {
        StringBuilder out = new StringBuilder(length + 20);
        while (out.length() < length) {
            out.append(WORDS[random.nextInt(WORDS.length)]);
            out.append(random.nextInt(9) == 0 ? " " + random.nextInt(100_000) + "\n" : " ");
        }
        return out.substring(0, length).getBytes(StandardCharsets.US_ASCII);
    }

    static byte[] noise(Random random, int length) {
        byte[] bytes = new byte[length];
        random.nextBytes(bytes);
        return bytes;
    }

    /** An office document: a ZIP of text, with pictures that cannot be compressed. */
    public static byte[] document(byte[] text, byte[][] pictures) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(entry("content.xml"));
            zip.write(text);
            for (int i = 0; i < pictures.length; i++) {
                zip.putNextEntry(entry("Pictures/" + i + ".jpg"));
                zip.write(pictures[i]);
            }
        }
        return out.toByteArray();
    }

    private static ZipEntry entry(String name) {
        ZipEntry entry = new ZipEntry(name);
        entry.setTimeLocal(java.time.LocalDateTime.of(2026, 1, 1, 0, 0));
        return entry;
    }

    /**
     * Files as an office has them, in tens: three text documents, two sheets, slides with pictures, a PDF, a photograph, a table
     * and a text; a few are much larger than most.
     *
     * @param bytes of all of them, about
     */
    static void office(Path folder, int files, long bytes) throws IOException {
        Random random = new Random(11);
        long each = bytes / files;
        for (int i = 0; i < files; i++) {
            Path in = folder.resolve("d%03d".formatted(i / 100));
            Files.createDirectories(in);
            int size = (int) Math.max(2000, each * Math.min(8, -Math.log(1 - random.nextDouble())));
            String ending = List.of("odt", "odt", "odt", "xlsx", "xlsx", "pptx", "pdf", "jpg", "csv", "txt")
                    .get(i % 10);
            byte[] content = switch (ending) {
                case "odt" -> document(paragraphs(random, size * 2), pictures(random, i % 3 == 0 ? 1 : 0, size / 2));
                case "xlsx" -> document(rows(random, size * 3), new byte[0][]);
                case "pptx" -> document(paragraphs(random, size / 4), pictures(random, 4, size / 5));
                case "pdf" -> pdf(random, size);
                case "jpg" -> photograph(random, size * 2);
                default -> text(random, size / 2);
            };
            Files.write(in.resolve("file%05d.%s".formatted(i, ending)), content);
        }
    }

    private static byte[][] pictures(Random random, int count, int size) {
        byte[][] all = new byte[count][];
        for (int i = 0; i < count; i++) {
            all[i] = photograph(random, size);
        }
        return all;
    }

    /** Text as it stands in the XML of a document. */
    private static byte[] paragraphs(Random random, int length) {
        String all = new String(text(random, length), StandardCharsets.US_ASCII);
        return ("<office:text>" + all.replace("\n", "</text:p><text:p text:style-name=\"P1\">") + "</office:text>")
                .getBytes(StandardCharsets.US_ASCII);
    }

    /** Rows of a sheet. */
    private static byte[] rows(Random random, int length) {
        StringBuilder out = new StringBuilder(length + 100).append("<sheetData>");
        for (int row = 1; out.length() < length; row++) {
            out.append("<row r=\"").append(row).append("\">");
            for (char column = 'A'; column < 'G'; column++) {
                out.append("<c r=\"").append(column).append(row).append("\"><v>");
                out.append(random.nextInt(column == 'A' ? 40 : 100_000)).append("</v></c>");
            }
            out.append("</row>");
        }
        return out.append("</sheetData>").toString().getBytes(StandardCharsets.US_ASCII);
    }

    /** What a camera writes cannot be compressed. */
    private static byte[] photograph(Random random, int length) {
        byte[] bytes = noise(random, Math.max(20, length));
        bytes[0] = (byte) 0xff;
        bytes[1] = (byte) 0xd8;
        bytes[2] = (byte) 0xff;
        return bytes;
    }

    /** Deflated pages, and a font that is compressed already. */
    private static byte[] pdf(Random random, int length) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes("%PDF-1.7\n".getBytes(StandardCharsets.US_ASCII));
        int number = 1;
        while (out.size() < length) {
            ByteArrayOutputStream deflated = new ByteArrayOutputStream();
            try (DeflaterOutputStream by = new DeflaterOutputStream(deflated)) {
                by.write(text(random, 4000));
            }
            out.writeBytes((number++ + " 0 obj <</Filter/FlateDecode/Length " + deflated.size() + ">> stream\n")
                    .getBytes(StandardCharsets.US_ASCII));
            out.writeBytes(deflated.toByteArray());
            out.writeBytes("\nendstream endobj\n".getBytes(StandardCharsets.US_ASCII));
        }
        out.writeBytes(noise(random, length / 5));
        out.writeBytes("\n%%EOF\n".getBytes(StandardCharsets.US_ASCII));
        return out.toByteArray();
    }

    /** Few large files, half text and half noise in turns. */
    static void large(Path folder, int files, long bytes) throws IOException {
        Random random = new Random(12);
        Files.createDirectories(folder);
        for (int i = 0; i < files; i++) {
            try (OutputStream out = Files.newOutputStream(folder.resolve("large" + i + ".bin"))) {
                long left = bytes / files;
                while (left > 0) {
                    int part = (int) Math.min(left, 1 << 20);
                    out.write(random.nextBoolean() ? text(random, part) : noise(random, part));
                    left -= part;
                }
            }
        }
    }

    /** Many small files that are only looked at. */
    static void many(Path folder, int files) throws IOException {
        for (int i = 0; i < files; i++) {
            if (i % 100 == 0) {
                Files.createDirectories(folder.resolve("d%04d".formatted(i / 100)));
            }
            Files.writeString(folder.resolve("d%04d/file%06d.txt".formatted(i / 100, i)), "content " + i);
        }
    }
}
