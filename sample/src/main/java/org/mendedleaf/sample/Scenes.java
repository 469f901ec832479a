package org.mendedleaf.sample;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.GradientPaint;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.util.Random;

/** What photographs of the orchard show, drawn by code: enough to tell one from another at a glance. */
enum Scenes {
    /** Trees in rows, with apples. */
    ORCHARD,
    /** A screw press with its beam, a tub and crates. */
    PRESS,
    /** Hives on a meadow. */
    HIVES,
    /** Bottles on shelves. */
    CELLAR,
    /** A pond with reeds. */
    POND;

    private static final Color WOOD = new Color(139, 98, 61);
    private static final Color DARK_WOOD = new Color(96, 66, 42);

    /** A photograph of it, so large, a little different each time. */
    BufferedImage photograph(int width, int height, Random random) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.scale(width / 480.0, height / 320.0);
        switch (this) {
            case ORCHARD -> orchard(g, random);
            case PRESS -> press(g, random);
            case HIVES -> hives(g, random);
            case CELLAR -> cellar(g, random);
            case POND -> pond(g, random);
        }
        g.dispose();
        grain(image, random);
        return image;
    }

    /** As a camera adds it where there is little light. */
    private static void grain(BufferedImage image, Random random) {
        int[] row = new int[image.getWidth()];
        for (int y = 0; y < image.getHeight(); y++) {
            image.getRaster().getDataElements(0, y, row.length, 1, row);
            for (int x = 0; x < row.length; x++) {
                int n = random.nextInt(13) - 6;
                row[x] = shift(row[x] >> 16, n) << 16 | shift(row[x] >> 8, n) << 8 | shift(row[x], n);
            }
            image.getRaster().setDataElements(0, y, row.length, 1, row);
        }
    }

    private static int shift(int channel, int by) {
        return Math.max(0, Math.min(255, (channel & 255) + by));
    }

    private static void outside(Graphics2D g, Random random) {
        g.setPaint(new GradientPaint(0, 0, new Color(140, 184, 219), 0, 180, new Color(228, 234, 226)));
        g.fillRect(0, 0, 480, 320);
        g.setColor(new Color(246, 246, 242, 190));
        for (int i = 0; i < 3; i++) {
            int x = random.nextInt(420);
            g.fillOval(x, 20 + random.nextInt(40), 90, 26);
            g.fillOval(x + 30, 10 + random.nextInt(30), 70, 30);
        }
        g.setColor(new Color(122, 150, 112));
        g.fillOval(-80, 120, 380, 180);
        g.setColor(new Color(104, 136, 92));
        g.fillOval(190, 130, 420, 190);
        g.setPaint(new GradientPaint(0, 190, new Color(112, 150, 84), 0, 320, new Color(78, 116, 60)));
        g.fillRect(0, 195, 480, 125);
    }

    private static void tree(Graphics2D g, int x, int y, int size, Random random) {
        g.setColor(DARK_WOOD);
        g.fillRect(x - size / 12, y - size / 2, size / 6, size / 2);
        Color leaves = new Color(66 + random.nextInt(26), 104 + random.nextInt(30), 54);
        g.setColor(leaves.darker());
        g.fillOval(x - size / 2, y - size - size / 6, size, size * 4 / 5);
        g.setColor(leaves);
        g.fillOval(x - size / 2 + 4, y - size - size / 5, size - 10, size * 3 / 4);
        for (int i = 0; i < 9; i++) {
            g.setColor(random.nextBoolean() ? new Color(184, 46, 40) : new Color(206, 150, 52));
            int a = x - size / 3 + random.nextInt(Math.max(1, size * 2 / 3));
            g.fillOval(
                    a,
                    y - size + random.nextInt(Math.max(1, size / 2)),
                    Math.max(3, size / 12),
                    Math.max(3, size / 12));
        }
    }

    private static void orchard(Graphics2D g, Random random) {
        outside(g, random);
        for (int row = 0; row < 3; row++) {
            for (int i = 0; i < 6 - row; i++) {
                tree(g, 40 + i * (82 + row * 20) + random.nextInt(8), 222 + row * 38, 54 + row * 28, random);
            }
        }
    }

    private static void crate(Graphics2D g, int x, int y, Random random) {
        for (int i = 0; i < 7; i++) {
            g.setColor(random.nextBoolean() ? new Color(186, 52, 44) : new Color(150, 168, 62));
            g.fillOval(x + 3 + i * 8, y - 6 + random.nextInt(4), 12, 12);
        }
        g.setColor(WOOD);
        g.fillRect(x, y, 66, 30);
        g.setColor(DARK_WOOD);
        g.setStroke(new BasicStroke(2));
        g.drawLine(x, y + 10, x + 66, y + 10);
        g.drawLine(x, y + 20, x + 66, y + 20);
        g.drawRect(x, y, 66, 30);
    }

    private static void press(Graphics2D g, Random random) {
        g.setPaint(new GradientPaint(0, 0, new Color(214, 202, 184), 0, 320, new Color(170, 156, 138)));
        g.fillRect(0, 0, 480, 320);
        g.setColor(new Color(128, 118, 106));
        g.fillRect(0, 262, 480, 58);
        g.setColor(DARK_WOOD);
        g.fillRect(150, 50, 18, 220);
        g.fillRect(312, 50, 18, 220);
        g.fillRect(140, 40, 200, 22);
        g.setColor(new Color(110, 112, 116));
        g.fillRect(234, 60, 12, 70 + random.nextInt(20));
        g.fillRect(196, 66, 88, 7);
        g.setColor(WOOD);
        g.fillRect(188, 138, 104, 12);
        for (int i = 0; i < 9; i++) {
            g.setColor(i % 2 == 0 ? WOOD : WOOD.darker());
            g.fillRect(186 + i * 12, 150, 11, 84);
        }
        g.setColor(new Color(70, 72, 74));
        g.fillRect(184, 168, 112, 4);
        g.fillRect(184, 212, 112, 4);
        g.setColor(new Color(196, 148, 72));
        g.fillRect(232, 240, 14, 22);
        g.setColor(new Color(150, 152, 154));
        g.fillRect(206, 258, 68, 26);
        crate(g, 30 + random.nextInt(20), 244, random);
        crate(g, 372 + random.nextInt(20), 240, random);
        crate(g, 382, 206, random);
    }

    private static void hives(Graphics2D g, Random random) {
        outside(g, random);
        Color[] colours = {
            new Color(214, 176, 74), new Color(158, 186, 196), new Color(222, 214, 196), new Color(170, 120, 90)
        };
        for (int i = 0; i < 4; i++) {
            int x = 40 + i * 108 + random.nextInt(12);
            g.setColor(DARK_WOOD);
            g.fillRect(x + 4, 268, 8, 16);
            g.fillRect(x + 58, 268, 8, 16);
            for (int level = 0; level < 3; level++) {
                g.setColor(level == 1 ? colours[i].darker() : colours[i]);
                g.fillRect(x, 190 + level * 26, 70, 25);
            }
            g.setColor(new Color(92, 92, 90));
            g.fillRect(x - 4, 182, 78, 9);
            g.setColor(Color.BLACK);
            g.fillRect(x + 20, 258, 30, 5);
            for (int bee = 0; bee < 8; bee++) {
                g.fillOval(x + random.nextInt(80), 150 + random.nextInt(110), 3, 2);
            }
        }
    }

    private static void cellar(Graphics2D g, Random random) {
        g.setPaint(new GradientPaint(0, 0, new Color(66, 58, 52), 480, 320, new Color(104, 92, 80)));
        g.fillRect(0, 0, 480, 320);
        for (int shelf = 0; shelf < 3; shelf++) {
            int y = 96 + shelf * 92;
            g.setColor(WOOD);
            g.fillRect(16, y, 448, 10);
            for (int i = 0; i < 14; i++) {
                if (random.nextInt(9) == 0) {
                    continue;
                }
                int x = 26 + i * 31;
                g.setColor(random.nextBoolean() ? new Color(62, 88, 60) : new Color(112, 82, 44));
                g.fillRoundRect(x, y - 52, 20, 52, 8, 8);
                g.fillRect(x + 6, y - 74, 8, 26);
                g.setColor(new Color(226, 216, 190));
                g.fillRect(x + 2, y - 38, 16, 20);
            }
        }
    }

    private static void pond(Graphics2D g, Random random) {
        outside(g, random);
        g.setColor(new Color(92, 128, 142));
        g.fillOval(70, 216, 340, 84);
        g.setColor(new Color(132, 168, 178));
        g.fillOval(120, 226, 220, 30);
        g.setStroke(new BasicStroke(3));
        for (int i = 0; i < 26; i++) {
            int x = 70 + random.nextInt(340);
            g.setColor(new Color(92, 116 + random.nextInt(30), 60));
            g.drawLine(x, 262 + random.nextInt(30), x + random.nextInt(9) - 4, 214 + random.nextInt(30));
        }
        tree(g, 60, 226, 90, random);
        tree(g, 430, 220, 70, random);
    }
}
