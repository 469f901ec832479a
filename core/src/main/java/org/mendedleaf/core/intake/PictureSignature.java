package org.mendedleaf.core.intake;

import java.io.InterruptedIOException;
import java.util.Optional;
import org.mendedleaf.core.document.ColourFields;
import org.mendedleaf.core.document.DocumentProcess;

/**
 * What a picture looks like from afar: the mean colours of 32 by 32 fields.
 *
 * @param width in pixels
 * @param height in pixels
 * @param fields red, green and blue of each field, 0 to 255, row by row
 */
record PictureSignature(int width, int height, float[] fields) {

    private static final int SIDE = ColourFields.SIDE;

    /** Colours closer than this in all three are taken for the same. */
    private static final float SAME = 14;

    /** So much any two pictures may have in common, as skies are blue and paper is white. */
    private static final double ANY = 0.45;

    /** The look of a picture in one of the formats of the Java platform; empty for anything else. */
    static Optional<PictureSignature> of(byte[] content) {
        try {
            return DocumentProcess.shared()
                    .colours(content)
                    .map(c -> new PictureSignature(c.width(), c.height(), c.colours()));
        } catch (InterruptedIOException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
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
