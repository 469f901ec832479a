package org.mendedleaf.core.vault;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.util.Random;
import java.util.zip.CRC32;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.mendedleaf.core.deflate.DeflateEncoder;
import org.mendedleaf.core.deflate.DeflateSettings;

/** Documents as office programs write them, for tests. */
public final class Documents {

    private Documents() {}

    /** Made-up text with mark-up. */
    public static byte[] text(long seed, int words) {
        Random random = new Random(seed);
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < words; i++) {
            boolean ends = random.nextInt(12) == 0;
            text.append(ends ? "</text:p>\n<text:p text:style-name=\"P" + random.nextInt(9) + "\">" : " ");
            text.append(Integer.toString((int) Math.pow(random.nextInt(60), 2), 36))
                    .append("word");
        }
        return text.toString().getBytes(StandardCharsets.UTF_8);
    }

    /** Bytes that cannot be compressed. */
    public static byte[] noise(long seed, int length) {
        byte[] noise = new byte[length];
        new Random(seed).nextBytes(noise);
        return noise;
    }

    private static ZipEntry entry(String name, int second) {
        ZipEntry entry = new ZipEntry(name);
        entry.setTimeLocal(LocalDateTime.of(2026, 1, 1, 0, 0).plusSeconds(second));
        return entry;
    }

    /**
     * A document of one stored part, two small ones, a picture and a text.
     *
     * @param second when it was saved; it stands in the header of each part
     */
    public static byte[] document(int level, byte[] text, byte[] picture, int second) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.setLevel(level);
            byte[] type = "application/vnd.oasis.opendocument.text".getBytes(StandardCharsets.US_ASCII);
            ZipEntry first = entry("mimetype", second);
            first.setMethod(ZipEntry.STORED);
            first.setSize(type.length);
            CRC32 crc = new CRC32();
            crc.update(type);
            first.setCrc(crc.getValue());
            zip.putNextEntry(first);
            zip.write(type);
            zip.putNextEntry(entry("meta.xml", second));
            zip.write(("<meta>saved " + second + " times, " + "once more ".repeat(20) + "</meta>")
                    .getBytes(StandardCharsets.US_ASCII));
            zip.putNextEntry(entry("styles.xml", second));
            zip.write(text(99, 2000));
            zip.putNextEntry(entry("Pictures/1.png", second));
            zip.write(picture);
            zip.putNextEntry(entry("content.xml", second));
            zip.write(text);
            zip.setComment("made by a test");
        }
        return out.toByteArray();
    }

    /** A ZIP file of one deflated member, by hand. */
    public static byte[] oneMember(byte[] deflated, int length) {
        java.nio.ByteBuffer out =
                java.nio.ByteBuffer.allocate(deflated.length + 200).order(java.nio.ByteOrder.LITTLE_ENDIAN);
        out.putInt(0x04034b50).putShort((short) 20).putShort((short) 0).putShort((short) 8);
        out.putInt(0)
                .putInt(0)
                .putInt(deflated.length)
                .putInt(length)
                .putShort((short) 1)
                .putShort((short) 0);
        out.put((byte) 'a').put(deflated);
        int directory = out.position();
        out.putInt(0x02014b50)
                .putShort((short) 20)
                .putShort((short) 20)
                .putShort((short) 0)
                .putShort((short) 8);
        out.putInt(0).putInt(0).putInt(deflated.length).putInt(length).putShort((short) 1);
        out.putShort((short) 0)
                .putShort((short) 0)
                .putShort((short) 0)
                .putShort((short) 0)
                .putInt(0)
                .putInt(0);
        out.put((byte) 'a');
        int end = out.position();
        out.putInt(0x06054b50).putInt(0).putShort((short) 1).putShort((short) 1);
        out.putInt(end - directory).putInt(directory).putShort((short) 0);
        return java.util.Arrays.copyOf(out.array(), out.position());
    }

    /**
     * A ZIP file of one member that is deflated by these settings.
     *
     * @param content with {@link DeflateEncoder#PAD} bytes behind its length
     */
    public static byte[] oneMember(DeflateSettings settings, byte[] content, int length) throws DataFormatException {
        byte[] buffer = new byte[length + 10_000];
        new DeflateEncoder().write(settings, content, length, buffer);
        Inflater inflater = new Inflater(true);
        inflater.setInput(buffer);
        byte[] inflated = new byte[length + 1];
        int n = 0;
        while (!inflater.finished()) {
            n += inflater.inflate(inflated, n, inflated.length - n);
        }
        int deflated = (int) inflater.getBytesRead();
        inflater.end();
        return oneMember(java.util.Arrays.copyOf(buffer, deflated), length);
    }
}
