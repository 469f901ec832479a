package org.mendedleaf.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
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

    /** Files as an office has them: half documents, a third text and tables, the rest pictures. */
    static void office(Path folder, int files, long bytes) throws IOException {
        Random random = new Random(11);
        long each = bytes / files;
        for (int i = 0; i < files; i++) {
            Path in = folder.resolve("d%03d".formatted(i / 100));
            Files.createDirectories(in);
            int size = (int) (each / 2 + random.nextInt((int) each));
            byte[] content = switch (i % 6) {
                case 0, 1, 2 -> document(text(random, size), new byte[][] {noise(random, size * 2 / 3)});
                case 3, 4 -> text(random, size);
                default -> noise(random, size);
            };
            Files.write(in.resolve("file%05d.%s".formatted(i, i % 6 < 3 ? "odt" : i % 6 < 5 ? "csv" : "jpg")), content);
        }
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
