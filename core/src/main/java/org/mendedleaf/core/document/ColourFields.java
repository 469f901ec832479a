package org.mendedleaf.core.document;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.Iterator;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;

/**
 * What a picture looks like from afar: the mean colours of 32 by 32 fields.
 *
 * @param width in pixels
 * @param height in pixels
 * @param colours red, green and blue of each field, 0 to 255, row by row
 */
public record ColourFields(int width, int height, float[] colours) {

    /** Fields along a side. */
    public static final int SIDE = 32;

    /** Pictures with more pixels than this along a side are read with fewer. */
    private static final int ENOUGH = 1024;

    /** The fields of a picture in one of the formats of the Java platform; empty for anything else, and for very large ones. */
    static Optional<ColourFields> of(byte[] content, Limits limits) {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(content))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                return Optional.empty();
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                int width = reader.getWidth(0);
                int height = reader.getHeight(0);
                if ((long) width * height > limits.pixels() * 1_000_000L) {
                    return Optional.empty();
                }
                ImageReadParam few = reader.getDefaultReadParam();
                int step = Math.max(1, Math.max(width, height) / ENOUGH);
                few.setSourceSubsampling(step, step, 0, 0);
                return Optional.of(new ColourFields(width, height, fields(reader.read(0, few))));
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException | StackOverflowError e) {
            // What cannot be read as a picture has no look, however it was made so.
            return Optional.empty();
        }
    }

    private static float[] fields(BufferedImage image) {
        float[] sums = new float[SIDE * SIDE * 3];
        int[] counts = new int[SIDE * SIDE];
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < image.getWidth(); x++) {
                int rgb = image.getRGB(x, y);
                int alpha = rgb >>> 24;
                int field = y * SIDE / image.getHeight() * SIDE + x * SIDE / image.getWidth();
                // What is transparent looks white.
                sums[field * 3] += 255 + ((rgb >> 16 & 0xff) - 255) * alpha / 255f;
                sums[field * 3 + 1] += 255 + ((rgb >> 8 & 0xff) - 255) * alpha / 255f;
                sums[field * 3 + 2] += 255 + ((rgb & 0xff) - 255) * alpha / 255f;
                counts[field]++;
            }
        }
        for (int i = 0; i < counts.length; i++) {
            for (int c = 0; c < 3; c++) {
                sums[i * 3 + c] /= Math.max(1, counts[i]);
            }
        }
        return sums;
    }

    byte[] encode() {
        ByteBuffer all = ByteBuffer.allocate(2 * Integer.BYTES + colours.length * Float.BYTES);
        all.putInt(width).putInt(height).asFloatBuffer().put(colours);
        return all.array();
    }

    static ColourFields decode(byte[] encoded) {
        ByteBuffer all = ByteBuffer.wrap(encoded);
        int width = all.getInt();
        int height = all.getInt();
        float[] colours = new float[SIDE * SIDE * 3];
        all.asFloatBuffer().get(colours);
        return new ColourFields(width, height, colours);
    }
}
