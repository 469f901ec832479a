import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Path2D;
import java.awt.geom.RoundRectangle2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import javax.imageio.ImageIO;

/**
 * Draws the icon of the program in all sizes, run by the build: {@code java Icons.java FOLDER}. The leaf with its golden seam is that of the
 * window, on a sheet of the colour of paper; below 32 pixels the leaf stands alone and larger. Beside the single pictures and the drawing in SVG, the
 * small ones are put together as Windows (.ico) and macOS (.icns) take them, each of their pictures as PNG.
 */
final class Icons {

    private static final int[] SIZES = {16, 22, 24, 32, 48, 64, 128, 256, 512};
    private static final int[] WINDOWS_SIZES = {16, 24, 32, 48, 64, 128, 256};

    /** What macOS calls a picture of each size; where it stands twice, the second is for screens with two pixels to a point. */
    private static final Map<String, Integer> MAC_TYPES = new LinkedHashMap<>();

    static {
        MAC_TYPES.put("icp4", 16);
        MAC_TYPES.put("icp5", 32);
        MAC_TYPES.put("ic11", 32);
        MAC_TYPES.put("icp6", 64);
        MAC_TYPES.put("ic12", 64);
        MAC_TYPES.put("ic07", 128);
        MAC_TYPES.put("ic08", 256);
        MAC_TYPES.put("ic13", 256);
        MAC_TYPES.put("ic09", 512);
        MAC_TYPES.put("ic14", 512);
    }

    private static final Color PAPER = new Color(0xFAF7F0);
    private static final Color LINE = new Color(0xE3DDD0);
    private static final Color MOSS = new Color(0x3C6A4E);
    private static final Color SEAM = new Color(0xE8B84F);

    /** In a square of 16: from, then curves, each of two handles and an end, then straight back. */
    private static final double[][] LEAF = {{1.5, 14.5}, {0, 6.5, 5.5, 1.5, 15, 1}, {15.6, 10, 10.6, 15.6, 3.2, 13.2}};

    private static final double[][] VEIN = {{1.5, 14.5}, {4.5, 10.5, 8, 7.5, 12, 4.5}};

    private Icons() {}

    public static void main(String[] args) throws IOException {
        System.setProperty("java.awt.headless", "true");
        Path folder = Files.createDirectories(Path.of(args[0]));
        for (int size : SIZES) {
            Files.write(folder.resolve("mended-leaf-" + size + ".png"), png(size));
        }
        Files.write(folder.resolve("mended-leaf.ico"), windows());
        Files.write(folder.resolve("mended-leaf.icns"), mac());
        Files.writeString(folder.resolve("mended-leaf.svg"), svg());
    }

    private static byte[] png(int size) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        if (!ImageIO.write(drawn(size), "png", bytes)) {
            throw new IOException("PNG cannot be written");
        }
        return bytes.toByteArray();
    }

    /** A header, a line of 16 bytes for each picture, and the pictures; 256 pixels are written as 0. */
    private static byte[] windows() throws IOException {
        ByteBuffer lines = ByteBuffer.allocate(6 + 16 * WINDOWS_SIZES.length).order(ByteOrder.LITTLE_ENDIAN);
        ByteArrayOutputStream pictures = new ByteArrayOutputStream();
        lines.putShort((short) 0).putShort((short) 1).putShort((short) WINDOWS_SIZES.length);
        for (int size : WINDOWS_SIZES) {
            byte[] png = png(size);
            lines.put((byte) size).put((byte) size).put((byte) 0).put((byte) 0);
            lines.putShort((short) 1).putShort((short) 32);
            lines.putInt(png.length).putInt(lines.capacity() + pictures.size());
            pictures.writeBytes(png);
        }
        return joined(lines.array(), pictures.toByteArray());
    }

    /** A header with the length of all, then for each picture its type, its length with these eight bytes, and the picture. */
    private static byte[] mac() throws IOException {
        ByteArrayOutputStream pictures = new ByteArrayOutputStream();
        for (Map.Entry<String, Integer> type : MAC_TYPES.entrySet()) {
            byte[] png = png(type.getValue());
            pictures.writeBytes(part(type.getKey(), 8 + png.length));
            pictures.writeBytes(png);
        }
        return joined(part("icns", 8 + pictures.size()), pictures.toByteArray());
    }

    private static byte[] part(String type, int length) {
        return ByteBuffer.allocate(8)
                .put(type.getBytes(StandardCharsets.US_ASCII))
                .putInt(length)
                .array();
    }

    private static byte[] joined(byte[] first, byte[] second) {
        return ByteBuffer.allocate(first.length + second.length)
                .put(first)
                .put(second)
                .array();
    }

    private static BufferedImage drawn(int size) {
        BufferedImage image = new BufferedImage(size, size, BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        double leaf = 1;
        if (size >= 32) {
            double edge = size / 64.0;
            RoundRectangle2D sheet =
                    new RoundRectangle2D.Double(edge, edge, size - 2 * edge, size - 2 * edge, size * 0.36, size * 0.36);
            g.setColor(PAPER);
            g.fill(sheet);
            g.setColor(LINE);
            g.setStroke(new BasicStroke((float) Math.max(1, edge)));
            g.draw(sheet);
            leaf = 0.68;
        }
        double scale = size / 16.0 * leaf;
        double move = size * (1 - leaf) / 2;
        AffineTransform at = new AffineTransform(scale, 0, 0, scale, move, move);
        g.setColor(MOSS);
        g.fill(at.createTransformedShape(path(LEAF, true)));
        g.setColor(SEAM);
        g.setStroke(new BasicStroke((float) (1.15 * scale), BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        g.draw(at.createTransformedShape(path(VEIN, false)));
        g.dispose();
        return image;
    }

    private static Path2D path(double[][] parts, boolean closed) {
        Path2D path = new Path2D.Double();
        path.moveTo(parts[0][0], parts[0][1]);
        for (int i = 1; i < parts.length; i++) {
            double[] c = parts[i];
            path.curveTo(c[0], c[1], c[2], c[3], c[4], c[5]);
        }
        if (closed) {
            path.closePath();
        }
        return path;
    }

    private static String svg() {
        return "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 64 64\" width=\"64\" height=\"64\">\n"
                + "  <rect x=\"1\" y=\"1\" width=\"62\" height=\"62\" rx=\"11.5\" fill=\"" + hex(PAPER) + "\" stroke=\"" + hex(LINE)
                + "\"/>\n  <g transform=\"translate(10.24 10.24) scale(2.72)\">\n    <path d=\"" + words(LEAF) + " Z\" fill=\""
                + hex(MOSS) + "\"/>\n    <path d=\"" + words(VEIN) + "\" fill=\"none\" stroke=\"" + hex(SEAM)
                + "\" stroke-width=\"1.15\" stroke-linecap=\"round\"/>\n  </g>\n</svg>\n";
    }

    private static String words(double[][] parts) {
        StringBuilder path = new StringBuilder("M" + parts[0][0] + " " + parts[0][1]);
        for (int i = 1; i < parts.length; i++) {
            path.append(" C");
            for (double at : parts[i]) {
                path.append(' ').append(at);
            }
        }
        return path.toString();
    }

    private static String hex(Color colour) {
        return String.format(Locale.ROOT, "#%06X", colour.getRGB() & 0xFFFFFF);
    }
}
