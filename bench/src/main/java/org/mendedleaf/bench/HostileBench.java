package org.mendedleaf.bench;

import java.io.BufferedWriter;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mendedleaf.core.capture.Capture;
import org.mendedleaf.core.capture.CaptureScope;
import org.mendedleaf.core.capture.Protect;
import org.mendedleaf.core.catalogue.OpenVault;
import org.mendedleaf.core.catalogue.Reading;
import org.mendedleaf.core.compare.DocumentCache;
import org.mendedleaf.core.document.DocumentProcess;
import org.mendedleaf.core.document.TextPart;
import org.mendedleaf.core.jobs.Progress;
import org.mendedleaf.core.line.Line;
import org.mendedleaf.core.line.Place;
import org.mendedleaf.core.line.Rhythm;
import org.mendedleaf.core.line.Version;

/** How long documents that are made to do harm take until they are answered, in a process with 512 MB. */
final class HostileBench {

    private static final long LARGE = 2L << 30;

    private static final int MEGABYTES = 512;
    private static final double MOST_MILLIS = 2000;

    private final Path folder;
    private final Table table;

    HostileBench(Path folder, Table table) {
        this.folder = folder;
        this.table = table;
    }

    private interface Part {
        void write(ZipOutputStream zip) throws IOException;
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

    private static byte[] openText(String content) throws IOException {
        return zip(zip -> {
            entry(zip, "mimetype", "application/vnd.oasis.opendocument.text");
            entry(zip, "content.xml", content);
        });
    }

    /** A part of spaces, so many MB unpacked. */
    private static byte[] bomb(int megabytes) throws IOException {
        return zip(zip -> {
            entry(zip, "mimetype", "application/vnd.oasis.opendocument.text");
            zip.putNextEntry(new ZipEntry("content.xml"));
            zip.write("<a><body><text>".getBytes(StandardCharsets.US_ASCII));
            byte[] much = new byte[1 << 20];
            Arrays.fill(much, (byte) ' ');
            for (int i = 0; i < megabytes; i++) {
                zip.write(much);
            }
        });
    }

    private static byte[] nested(int deep) throws IOException {
        byte[] inner = "the end".getBytes(StandardCharsets.US_ASCII);
        for (int i = 0; i < deep; i++) {
            byte[] content = inner;
            inner = zip(zip -> {
                zip.putNextEntry(new ZipEntry("next.zip"));
                zip.write(content);
            });
        }
        return inner;
    }

    private static byte[] members(int count) throws IOException {
        return zip(zip -> {
            for (int i = 0; i < count; i++) {
                zip.putNextEntry(new ZipEntry("m" + i));
            }
        });
    }

    /** A PNG that says that it is so wide and high. */
    private static byte[] picture(int side) {
        byte[] header = ByteBuffer.allocate(17)
                .put("IHDR".getBytes(StandardCharsets.US_ASCII))
                .putInt(side)
                .putInt(side)
                .put(new byte[] {8, 6, 0, 0, 0})
                .array();
        CRC32 crc = new CRC32();
        crc.update(header);
        return ByteBuffer.allocate(8 + 4 + header.length + 4)
                .put(new byte[] {(byte) 0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n'})
                .putInt(13)
                .put(header)
                .putInt((int) crc.getValue())
                .array();
    }

    private static Map<String, byte[]> all() throws IOException {
        Map<String, byte[]> all = new LinkedHashMap<>();
        all.put("a part of 1 GB of spaces.odt", bomb(1024));
        all.put("300 archives in each other.zip", nested(300));
        all.put("a million members.zip", members(1_000_000));
        String entities = "<!DOCTYPE a [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;\">"
                + "<!ENTITY c \"&b;&b;&b;&b;&b;&b;&b;&b;&b;&b;\"><!ENTITY d \"&c;&c;&c;&c;&c;&c;&c;&c;&c;&c;\">"
                + "<!ENTITY x SYSTEM \"file:///etc/passwd\">]>";
        all.put("entities.odt", openText(entities + "<a><body><text><p>&d;&x;</p></text></body></a>"));
        all.put("a hundred thousand elements deep.odt", openText("<a><body><text>" + "<p>".repeat(100_000)));
        all.put("groups in each other.rtf", ("{\\rtf1" + "{".repeat(2_000_000)).getBytes(StandardCharsets.US_ASCII));
        all.put("100,000 by 100,000 pixels.png", picture(100_000));
        byte[] noise = new byte[4 << 20];
        new Random(3).nextBytes(noise);
        noise[0] = 'P';
        noise[1] = 'K';
        noise[2] = 3;
        noise[3] = 4;
        all.put("noise that begins as an archive.docx", noise);
        byte[] pdf =
                ("%PDF-1.7\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj 2 0 obj<</Type/Pages/Kids[2 0 R]/Count 99999999>>endobj\n"
                                + "trailer<</Root 1 0 R>>")
                        .getBytes(StandardCharsets.US_ASCII);
        all.put("pages that hold themselves.pdf", pdf);
        byte[] text = new byte[60 << 20];
        Arrays.fill(text, (byte) 'a');
        all.put("one line of 60 MB.txt", text);
        return all;
    }

    void run() throws IOException {
        for (Map.Entry<String, byte[]> e : all().entrySet()) {
            try (DocumentProcess process = new DocumentProcess(Duration.ofSeconds(20), MEGABYTES)) {
                // It is warm when somebody looks at something.
                process.warm();
                process.read("warm.odt", openText("<a><body><text><p>well</p></text></body></a>"), false);
                long began = System.nanoTime();
                process.read(e.getKey(), e.getValue(), false);
                table.absolute("answering: " + e.getKey(), (System.nanoTime() - began) / 1e6, "ms", MOST_MILLIS);
            }
        }
    }

    /** Five hundred files of all kinds before the guard, in a process with as much memory. */
    void guard() throws IOException, InterruptedException {
        Process process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx" + MEGABYTES + "m",
                        "-cp",
                        System.getProperty("java.class.path"),
                        HostileGuard.class.getName(),
                        "500",
                        "7")
                .inheritIO()
                .start();
        if (process.waitFor() != 0) {
            throw new IOException("expected an answer for each file, got " + process.exitValue());
        }
    }

    /** A text of 2 GB, of which the first and the last part are read, and the memory that takes. */
    void large() throws IOException {
        Path desk = Files.createDirectories(folder.resolve("large"));
        Random random = new Random(5);
        try (BufferedWriter out = Files.newBufferedWriter(desk.resolve("log.txt"))) {
            for (long at = 0; at < LARGE; at += 64) {
                out.write("%016x %016x %s%n".formatted(at, random.nextLong(), "and what was said of it by all"));
            }
        }
        Clock clock = Clock.system(ZoneOffset.UTC);
        try (OpenVault vault = OpenVault.openOrCreate(folder.resolve("vault"), "bench", Duration.ofSeconds(5))) {
            Place place = Protect.place(vault, desk.toRealPath(), Rhythm.BY_HAND, List.of(), clock, "Ines");
            new Capture(vault, place, clock, (p, o) -> o).run(CaptureScope.WHOLE, Progress.NONE);
            try (Reading reading = vault.read()) {
                Version version =
                        reading.line(place, "log.txt").flatMap(Line::newest).orElseThrow();
                int last = TextPart.count(version.size()) - 1;
                table.absolute(
                        "the first part of a text of 2 GB",
                        millis(() -> DocumentCache.shared().document(reading, version)),
                        "ms",
                        MOST_MILLIS);
                table.absolute(
                        "its last part", millis(() -> DocumentCache.part(reading, version, last)), "ms", MOST_MILLIS);
                Runtime runtime = Runtime.getRuntime();
                System.gc();
                table.absolute(
                        "memory that is held after that",
                        (runtime.totalMemory() - runtime.freeMemory()) / 1e6,
                        "MB",
                        MEGABYTES);
            }
        }
    }

    private static double millis(Work work) throws IOException {
        long began = System.nanoTime();
        work.run();
        return (System.nanoTime() - began) / 1e6;
    }

    private interface Work {
        void run() throws IOException;
    }
}
