package org.mendedleaf.bench;

import java.awt.Color;
import java.awt.GradientPaint;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.util.Random;

/** Pictures with as much noise as a camera makes; the same for the same random numbers in every build. */
final class Photographs {

    private Photographs() {}

    /** A photograph, as far as a program can take one: a sky, a meadow, trees and noise. */
    static BufferedImage photograph(int width, int height, Random random) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setPaint(new GradientPaint(0, 0, new Color(150, 190, 220), 0, height / 2f, new Color(225, 232, 225)));
        g.fillRect(0, 0, width, height);
        g.setColor(new Color(98, 130, 84));
        g.fillRect(0, height * 6 / 10, width, height);
        for (int i = 0; i < 14; i++) {
            int x = random.nextInt(width);
            int r = height / 12 + random.nextInt(height / 8);
            g.setColor(new Color(60 + random.nextInt(40), 90 + random.nextInt(40), 60));
            g.fillOval(x - r, height * 6 / 10 - 2 * r, 2 * r, 2 * r);
        }
        g.dispose();
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                int n = random.nextInt(17) - 8;
                int rgb = image.getRGB(x, y);
                image.setRGB(x, y, shift(rgb >> 16, n) << 16 | shift(rgb >> 8, n) << 8 | shift(rgb, n));
            }
        }
        return image;
    }

    private static int shift(int channel, int by) {
        return Math.max(0, Math.min(255, (channel & 255) + by));
    }
}
