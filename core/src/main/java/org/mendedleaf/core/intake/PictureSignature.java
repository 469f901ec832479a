package org.mendedleaf.core.intake;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
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
 * @param fields red, green and blue of each field, 0 to 255, row by row
 */
record PictureSignature(int width, int height, float[] fields) {

    private static final int SIDE = 32;

    /** Colours closer than this in all three are taken for the same. */
    private static final float SAME = 14;

    /** So much any two pictures may have in common, as skies are blue and paper is white. */
    private static final double ANY = 0.45;

    /** Pictures with more pixels than this along a side are read with fewer. */
    private static final int ENOUGH = 1024;

    /** The look of a picture in one of the formats of the Java platform; empty for anything else. */
    static Optional<PictureSignature> of(byte[] content) {
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
                ImageReadParam few = reader.getDefaultReadParam();
                int step = Math.max(1, Math.max(width, height) / ENOUGH);
                few.setSourceSubsampling(step, step, 0, 0);
                return Optional.of(new PictureSignature(width, height, fields(reader.read(0, few))));
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException | StackOverflowError | OutOfMemoryError e) {
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

    /**
     * How alike two pictures look, 0 to 1: the share of fields of the same colour, or how well their light goes together
     * where their colours do too, whichever is more, beyond what any two pictures have in common.
     */
    double alike(PictureSignature other) {
        int same = 0;
        double colour = 0;
        for (int i = 0; i < SIDE * SIDE; i++) {
            boolean close = true;
            for (int c = 0; c < 3; c++) {
                close &= Math.abs(fields[i * 3 + c] - other.fields[i * 3 + c]) < SAME;
            }
            same += close ? 1 : 0;
            colour += chroma(i, other);
        }
        double fieldsAlike = (double) same / (SIDE * SIDE);
        double lightAlike = colour / (SIDE * SIDE) < SAME ? Math.max(0, correlation(other)) : 0;
        return Math.max(0, (Math.max(fieldsAlike, lightAlike * lightAlike) - ANY) / (1 - ANY));
    }

    /** The same with whole numbers for colours. */
    PictureSignature rounded() {
        float[] whole = new float[fields.length];
        for (int i = 0; i < whole.length; i++) {
            whole[i] = Math.round(fields[i]);
        }
        return new PictureSignature(width, height, whole);
    }

    private double light(int i) {
        return 0.299 * fields[i * 3] + 0.587 * fields[i * 3 + 1] + 0.114 * fields[i * 3 + 2];
    }

    /** How far the colours of a field are apart, whatever its light. */
    private double chroma(int i, PictureSignature other) {
        double a = (fields[i * 3] - light(i)) - (other.fields[i * 3] - other.light(i));
        double b = (fields[i * 3 + 2] - light(i)) - (other.fields[i * 3 + 2] - other.light(i));
        return Math.sqrt(a * a + b * b);
    }

    private double correlation(PictureSignature other) {
        int n = SIDE * SIDE;
        double meanA = 0;
        double meanB = 0;
        for (int i = 0; i < n; i++) {
            meanA += light(i) / n;
            meanB += other.light(i) / n;
        }
        double both = 0;
        double a = 0;
        double b = 0;
        for (int i = 0; i < n; i++) {
            both += (light(i) - meanA) * (other.light(i) - meanB);
            a += Math.pow(light(i) - meanA, 2);
            b += Math.pow(other.light(i) - meanB, 2);
        }
        return a == 0 || b == 0 ? 0 : both / Math.sqrt(a * b);
    }
}
