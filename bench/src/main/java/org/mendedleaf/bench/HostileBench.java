package org.mendedleaf.bench;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Random;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mendedleaf.core.document.DocumentProcess;

/** How long documents that are made to do harm take until they are answered, in a process with 512 MB. */
final class HostileBench {

    private static final int MEGABYTES = 512;
    private static final double MOST_MILLIS = 2000;

    private final Table table;

    HostileBench(Table table) {
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
}
