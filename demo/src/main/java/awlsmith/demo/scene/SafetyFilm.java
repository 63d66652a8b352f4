package awlsmith.demo.scene;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;

/**
 * A drawn film for passengers: a figure walks aboard, a hand points at the ring, a caption says what to do. Flat colours of
 * a small palette, drawn in units of 320 x 240.
 */
public final class SafetyFilm {
    public static final double SECONDS = 4;
    // steps of 36 in red and green and of 85 in blue: the colours of a palette of 3, 3 and 2 bits
    private static final Color SKY = new Color(146, 182, 170);
    private static final Color RIVER = new Color(73, 109, 170);
    private static final Color HULL = new Color(36, 73, 85);
    private static final Color DECK = new Color(182, 146, 85);
    private static final Color WALL = new Color(255, 255, 170);
    private static final Color RED = new Color(182, 36, 0);
    private static final Color INK = new Color(36, 36, 0);
    private static final Color COAT = new Color(219, 146, 0);
    private static final Color SKIN = new Color(219, 182, 85);
    private static final Color PAPER = new Color(255, 255, 255);

    private SafetyFilm() {}

    /** @param scale pixels to a unit */
    public static BufferedImage frame(double t, double scale) {
        var image = new BufferedImage(
                (int) Math.round(320 * scale), (int) Math.round(240 * scale), BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.scale(scale, scale);
        ground(g, t);
        ring(g, t);
        walker(g, 40 + 34 * t, 176, t);
        caption(g, t);
        g.dispose();
        return image;
    }

    private static void box(Graphics2D g, Color ink, double x, double y, double w, double h) {
        g.setColor(ink);
        g.fill(new Rectangle2D.Double(x, y, w, h));
    }

    private static void line(Graphics2D g, Color ink, double weight, double... points) {
        g.setColor(ink);
        g.setStroke(new java.awt.BasicStroke(
                (float) weight, java.awt.BasicStroke.CAP_ROUND, java.awt.BasicStroke.JOIN_ROUND));
        var path = new Path2D.Double();
        path.moveTo(points[0], points[1]);
        for (int i = 2; i < points.length; i += 2) {
            path.lineTo(points[i], points[i + 1]);
        }
        g.draw(path);
    }

    private static void disc(Graphics2D g, Color ink, double x, double y, double r) {
        g.setColor(ink);
        g.fill(new Ellipse2D.Double(x - r, y - r, 2 * r, 2 * r));
    }

    private static void ground(Graphics2D g, double t) {
        box(g, SKY, 0, 0, 320, 240);
        box(g, RIVER, 0, 118, 320, 122);
        for (int i = 0; i < 9; i++) {
            double x = (i * 47 + 9 * t * (i % 3 + 1)) % 360 - 30;
            line(g, PAPER, 1.2, x, 128 + i % 4 * 9, x + 18, 128 + i % 4 * 9);
        }
        box(g, HULL, 0, 182, 320, 40);
        box(g, DECK, 0, 174, 320, 10);
        line(g, INK, 1.6, 0, 174, 320, 174);
        box(g, WALL, 196, 62, 124, 112);
        line(g, INK, 2, 196, 174, 196, 62, 320, 62);
        box(g, RED, 186, 50, 134, 13);
        line(g, INK, 2, 186, 63, 186, 50, 320, 50);
        for (int i = 0; i < 2; i++) {
            box(g, RIVER, 212 + i * 50, 82, 34, 28);
            line(
                    g,
                    INK,
                    1.8,
                    212 + i * 50,
                    82,
                    246 + i * 50,
                    82,
                    246 + i * 50,
                    110,
                    212 + i * 50,
                    110,
                    212 + i * 50,
                    82);
        }
        for (int i = 0; i < 13; i++) {
            line(g, INK, 1.3, 6 + i * 15, 174, 6 + i * 15, 146);
        }
        line(g, INK, 2, 0, 146, 192, 146);
        line(g, INK, 1, 0, 160, 192, 160);
    }

    private static void ring(Graphics2D g, double t) {
        AffineTransform before = g.getTransform();
        g.translate(262, 142);
        g.rotate(0.16 * Math.sin(t * 3.4));
        disc(g, INK, 0, 0, 19.5);
        disc(g, RED, 0, 0, 18);
        g.setColor(PAPER);
        for (int i = 0; i < 4; i++) {
            g.fill(new java.awt.geom.Arc2D.Double(-18, -18, 36, 36, 22 + i * 90, 42, java.awt.geom.Arc2D.PIE));
        }
        disc(g, INK, 0, 0, 10.5);
        disc(g, WALL, 0, 0, 9);
        g.setTransform(before);
    }

    private static void walker(Graphics2D g, double x, double feet, double t) {
        double swing = Math.sin(t * 6.5);
        line(g, INK, 5.5, x, feet - 34, x + 9 * swing, feet - 16, x + 11 * swing - 3, feet);
        line(g, INK, 5.5, x, feet - 34, x - 9 * swing, feet - 16, x - 11 * swing - 3, feet);
        var coat = new Path2D.Double();
        coat.moveTo(x - 10, feet - 30);
        coat.lineTo(x - 8, feet - 66);
        coat.lineTo(x + 8, feet - 66);
        coat.lineTo(x + 11, feet - 30);
        coat.closePath();
        g.setColor(COAT);
        g.fill(coat);
        g.setStroke(new java.awt.BasicStroke(1.8f));
        g.setColor(INK);
        g.draw(coat);
        double point = Math.clamp((t - 1.8) * 2, 0, 1);
        line(
                g,
                INK,
                5.5,
                x + 5,
                feet - 60,
                x + 8 + 12 * point,
                feet - 46 - 16 * point,
                x + 8 - 6 * swing * (1 - point) + 26 * point,
                feet - 34 - 32 * point);
        disc(g, INK, x, feet - 76, 10);
        disc(g, SKIN, x, feet - 76, 8.4);
        box(g, RED, x - 9, feet - 90, 18, 6);
        box(g, RED, x + 4, feet - 85, 10, 2.6);
    }

    private static void caption(Graphics2D g, double t) {
        box(g, PAPER, 12, 12, 196, 26);
        line(g, INK, 1.6, 12, 12, 208, 12, 208, 38, 12, 38, 12, 12);
        g.setColor(INK);
        Lettering.paint(g, t < 1.8 ? "MIND THE STEP" : "THE RING IS HERE", 20, 31, 11, 1.8);
    }
}
