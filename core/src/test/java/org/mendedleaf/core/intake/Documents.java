package org.mendedleaf.core.intake;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;

/** Small documents with words of their own, for tests. */
final class Documents {

    private static final String SYLLABLES = "ba de fi go lu mar net os pri qua ren sol tri ul ver win yes zo cha ble";

    private Documents() {}

    /** Paragraphs of made-up words, the same for a seed. */
    static List<String> paragraphs(long seed, int count) {
        Random random = new Random(seed);
        String[] syllables = SYLLABLES.split(" ");
        List<String> all = new ArrayList<>();
        for (int p = 0; p < count; p++) {
            StringBuilder text = new StringBuilder();
            for (int w = 0; w < 30; w++) {
                for (int s = 0; s < 2 + random.nextInt(2); s++) {
                    text.append(syllables[random.nextInt(syllables.length)]);
                }
                text.append(' ');
            }
            all.add(text.toString().strip());
        }
        return all;
    }

    static byte[] text(List<String> paragraphs) {
        return (String.join("\n\n", paragraphs) + "\n").getBytes(StandardCharsets.UTF_8);
    }

    /** An OpenDocument file (ISO/IEC 26300) of a kind such as {@code text} or {@code spreadsheet}. */
    static byte[] openDocument(String kind, List<String> paragraphs) {
        StringBuilder body = new StringBuilder();
        paragraphs.forEach(p -> body.append("<text:p>").append(p).append("</text:p>"));
        String xml = "<?xml version=\"1.0\"?><office:document-content"
                + " xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
                + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"><office:body>" + body
                + "</office:body></office:document-content>";
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            byte[] type = ("application/vnd.oasis.opendocument." + kind).getBytes(StandardCharsets.US_ASCII);
            ZipEntry first = new ZipEntry("mimetype");
            // The same document is the same bytes, whenever it is made.
            first.setTimeLocal(java.time.LocalDateTime.of(2026, 1, 1, 0, 0));
            first.setMethod(ZipEntry.STORED);
            first.setSize(type.length);
            java.util.zip.CRC32 crc = new java.util.zip.CRC32();
            crc.update(type);
            first.setCrc(crc.getValue());
            zip.putNextEntry(first);
            zip.write(type);
            ZipEntry content = new ZipEntry("content.xml");
            content.setTimeLocal(java.time.LocalDateTime.of(2026, 1, 1, 0, 0));
            zip.putNextEntry(content);
            zip.write(xml.getBytes(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    static byte[] odt(long seed, int paragraphs) {
        return openDocument("text", paragraphs(seed, paragraphs));
    }

    /** A picture with a pattern of its own, and a spot in it. */
    static byte[] picture(long seed, Color spot) {
        Random random = new Random(seed);
        BufferedImage image = new BufferedImage(160, 120, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        for (int i = 0; i < 40; i++) {
            g.setColor(new Color(random.nextInt(0xffffff)));
            g.fillRect(random.nextInt(160), random.nextInt(120), 40, 30);
        }
        g.setColor(spot);
        g.fillRect(10, 10, 20, 15);
        g.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }
}
