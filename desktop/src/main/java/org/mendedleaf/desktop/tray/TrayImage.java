package org.mendedleaf.desktop.tray;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;

/**
 * Draws the tray icon: the leaf of the program as it is; with a mark of exclamation when a vault cannot be kept; as an outline with the two
 * bars of a pause when the service does not run. The three differ by shape, not by colour alone. The colours stand here and not in the
 * style sheet, which belongs to a toolkit that this program does without.
 */
final class TrayImage {

    private static final Color MOSS = new Color(0x3C6A4E);
    private static final Color SEAM = new Color(0xE8B84F);
    private static final Color STILL = new Color(0x8A8F87);
    private static final Color WARN = new Color(0xB4501E);
    private static final Color PAPER = new Color(0xFAF7F0);

    /** What the leaf is drawn in. */
    private static final double BASE = 16;

    private TrayImage() {}

    /** Draws it into a square of this side, in pixels. */
    static void draw(Graphics2D g, int size, TrayModel.State state) {
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.scale(size / BASE, size / BASE);
        Path2D leaf = curve(1.5, 14.5, 0, 6.5, 5.5, 1.5, 15, 1);
        leaf.curveTo(15.6, 10, 10.6, 15.6, 3.2, 13.2);
        leaf.closePath();
        if (state == TrayModel.State.STOPPED) {
            g.setColor(STILL);
            g.setStroke(new BasicStroke(1.3f, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
            g.draw(leaf);
            g.fill(new Rectangle2D.Double(5.4, 5.2, 1.9, 6));
            g.fill(new Rectangle2D.Double(8.9, 5.2, 1.9, 6));
            return;
        }
        g.setColor(MOSS);
        g.fill(leaf);
        g.setColor(SEAM);
        g.setStroke(new BasicStroke(1.15f, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        g.draw(curve(1.5, 14.5, 4.5, 10.5, 8, 7.5, 12, 4.5));
        if (state == TrayModel.State.TROUBLE) {
            g.setColor(PAPER);
            g.fill(new Ellipse2D.Double(7.4, 7.4, 8.6, 8.6));
            g.setColor(WARN);
            g.fill(new Ellipse2D.Double(8, 8, 7.4, 7.4));
            g.setColor(PAPER);
            g.fill(new Rectangle2D.Double(11, 9.4, 1.4, 2.9));
            g.fill(new Rectangle2D.Double(11, 13, 1.4, 1.2));
        }
    }

    private static Path2D curve(double x, double y, double ax, double ay, double bx, double by, double tx, double ty) {
        Path2D path = new Path2D.Double();
        path.moveTo(x, y);
        path.curveTo(ax, ay, bx, by, tx, ty);
        return path;
    }
}
