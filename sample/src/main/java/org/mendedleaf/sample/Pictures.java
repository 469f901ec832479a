package org.mendedleaf.sample;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.GradientPaint;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Random;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;

/** Pictures and pages for the sample office, drawn by code. */
public final class Pictures {

    private Pictures() {}

    /** A bottle label: an apple on a ground of its own colour, with as many leaves as its edition. */
    public static byte[] label(String kind, int hue, int edition) {
        BufferedImage image = new BufferedImage(420, 560, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        Color ground = Color.getHSBColor(hue / 360f, 0.18f, 0.97f);
        g.setPaint(new GradientPaint(0, 0, ground, 0, 560, Color.getHSBColor(hue / 360f, 0.35f, 0.86f)));
        g.fillRect(0, 0, 420, 560);
        g.setColor(Color.getHSBColor(hue / 360f, 0.7f, 0.6f));
        g.setStroke(new BasicStroke(6));
        g.drawRect(18, 18, 384, 524);
        g.fillOval(120, 200, 180, 180);
        g.fillOval(150, 190, 180, 190);
        g.setColor(new Color(60, 106, 78));
        for (int i = 0; i < edition; i++) {
            g.fillArc(195 + i * 14, 120 + i * 8, 70, 90, 40 + i * 30, 110);
        }
        g.setColor(new Color(34, 48, 42));
        letters(g, kind, 210, 450, 56);
        letters(g, "from our own orchard", 210, 496, 24);
        g.dispose();
        return png(image);
    }

    /** Writes a line with the letters that a PDF library brings along, since a machine may have no fonts. */
    private static void letters(Graphics2D g, String text, double middle, double base, double size) {
        PDType1Font font = new PDType1Font(Standard14Fonts.FontName.HELVETICA);
        try {
            AffineTransform units = font.getFontMatrix().createAffineTransform();
            double x = middle - font.getStringWidth(text) / 2000 * size;
            for (int i = 0; i < text.length(); i++) {
                char c = text.charAt(i);
                AffineTransform at = new AffineTransform(size, 0, 0, -size, x, base);
                at.concatenate(units);
                String name = c == ' ' ? "space" : String.valueOf(c);
                g.fill(at.createTransformedShape(font.getPath(name)));
                x += font.getStringWidth(String.valueOf(c)) / 1000 * size;
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static byte[] png(BufferedImage image) {
        return write(image, "png");
    }

    public static byte[] jpeg(BufferedImage image) {
        return write(image, "jpg");
    }

    private static byte[] write(BufferedImage image, String format) {
        try (ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            ImageIO.write(image, format, out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** An archive of photographs. */
    public static byte[] album(int pictures, Random random) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int i = 1; i <= pictures; i++) {
                zip.putNextEntry(OpenDocument.entry("press-%02d.jpg".formatted(i)));
                zip.write(jpeg(Scenes.values()[i % Scenes.values().length].photograph(480, 320, random)));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** A page of lines as PDF; what follows a tab stands in columns whose figures end below each other. */
    public static byte[] pdf(List<String> lines) {
        try (PDDocument document = new PDDocument();
                ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            // The same bytes on every run: the identity of the file comes from its text.
            document.setDocumentId((long) lines.hashCode());
            PDPage page = new PDPage(PDRectangle.A4);
            document.addPage(page);
            PDType1Font font = new PDType1Font(Standard14Fonts.FontName.HELVETICA);
            try (PDPageContentStream content = new PDPageContentStream(document, page)) {
                float y = 760;
                for (String line : lines) {
                    String[] columns = line.split("\t", -1);
                    for (int i = 0; i < columns.length; i++) {
                        float width = font.getStringWidth(columns[i]) / 1000 * 12;
                        content.beginText();
                        content.setFont(font, 12);
                        content.newLineAtOffset(i == 0 ? 60 : 260 + i * 80 - width, y);
                        content.showText(columns[i]);
                        content.endText();
                    }
                    y -= 18;
                }
            }
            document.save(out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
