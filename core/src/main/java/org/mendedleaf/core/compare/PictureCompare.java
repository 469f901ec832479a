package org.mendedleaf.core.compare;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.imageio.ImageIO;
import org.mendedleaf.core.document.Document;

/** Compares pictures pixel by pixel, as they are seen. Pure. */
final class PictureCompare {

    /** Channels that differ by less than this are equal to the eye, and to what compresses pictures. Of 255. */
    private static final int TOLERANCE = 12;

    private static final int MARKED = 0xFFA5472F;

    private PictureCompare() {}

    /** Compares; pictures of different sizes are compared where both are. */
    static Comparison compare(Document.Picture before, Document.Picture after) throws IOException {
        BufferedImage a = ImageIO.read(new ByteArrayInputStream(before.png()));
        BufferedImage b = ImageIO.read(new ByteArrayInputStream(after.png()));
        if (a == null || b == null) {
            throw new IOException("no PNG");
        }
        int width = b.getWidth();
        int height = b.getHeight();
        BufferedImage difference = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        long differ = 0;
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                int is = b.getRGB(x, y);
                boolean same = x < a.getWidth() && y < a.getHeight() && isSame(a.getRGB(x, y), is);
                differ += same ? 0 : 1;
                difference.setRGB(x, y, same ? pale(is) : MARKED);
            }
        }
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(difference, "png", png);
        double share = (double) differ / Math.max(1, (long) width * height);
        return new Comparison.PictureChanges(before, after, share, png.toByteArray());
    }

    private static boolean isSame(int a, int b) {
        for (int shift = 0; shift <= 24; shift += 8) {
            if (Math.abs((a >> shift & 0xFF) - (b >> shift & 0xFF)) > TOLERANCE) {
                return false;
            }
        }
        return true;
    }

    /** Grey, and near to white, so that what differs stands out. */
    private static int pale(int rgb) {
        int grey = ((rgb >> 16 & 0xFF) + (rgb >> 8 & 0xFF) + (rgb & 0xFF)) / 3;
        int light = 200 + grey * 55 / 255;
        return rgb & 0xFF000000 | light << 16 | light << 8 | light;
    }
}
