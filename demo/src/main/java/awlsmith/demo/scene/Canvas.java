package awlsmith.demo.scene;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.awt.image.DataBufferInt;

/** Paints surfaces: shapes first, then what weather did to them, pixel by pixel. */
final class Canvas {
    private final BufferedImage image;
    private final Graphics2D g;
    private final double scale;

    /** @param width and height in units; @param scale pixels a unit */
    Canvas(double width, double height, double scale) {
        this.scale = scale;
        image = new BufferedImage(
                (int) Math.round(width * scale), (int) Math.round(height * scale), BufferedImage.TYPE_INT_ARGB_PRE);
        g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.scale(scale, scale);
    }

    Graphics2D graphics() {
        return g;
    }

    BufferedImage image() {
        return image;
    }

    /** Pixels a unit. */
    double texelScale() {
        return scale;
    }

    Canvas ink(int rgb) {
        g.setColor(new Color(rgb));
        return this;
    }

    Canvas ink(int rgb, double opacity) {
        g.setColor(new Color(rgb >> 16 & 0xff, rgb >> 8 & 0xff, rgb & 0xff, (int) Math.round(255 * opacity)));
        return this;
    }

    Canvas box(double x, double y, double w, double h) {
        g.fill(new Rectangle2D.Double(x, y, w, h));
        return this;
    }

    Canvas disc(double x, double y, double r) {
        g.fill(new Ellipse2D.Double(x - r, y - r, 2 * r, 2 * r));
        return this;
    }

    Canvas ring(double x, double y, double r, double weight) {
        stroke(weight);
        g.draw(new Ellipse2D.Double(x - r, y - r, 2 * r, 2 * r));
        return this;
    }

    Canvas line(double weight, double... points) {
        stroke(weight);
        g.draw(path(points, false));
        return this;
    }

    Canvas area(double... points) {
        g.fill(path(points, true));
        return this;
    }

    Canvas fill(Shape shape) {
        g.fill(shape);
        return this;
    }

    Canvas letters(String text, double x, double y, double height, double weight) {
        Lettering.paint(g, text, x, y, height, weight);
        return this;
    }

    private void stroke(double weight) {
        g.setStroke(new java.awt.BasicStroke(
                (float) weight, java.awt.BasicStroke.CAP_ROUND, java.awt.BasicStroke.JOIN_ROUND));
    }

    private static Path2D path(double[] points, boolean closed) {
        var path = new Path2D.Double();
        path.moveTo(points[0], points[1]);
        for (int i = 2; i < points.length; i += 2) {
            path.lineTo(points[i], points[i + 1]);
        }
        if (closed) {
            path.closePath();
        }
        return path;
    }

    /** Changes one pixel: x, y in units, c holds red, green, blue 0..1 (not multiplied) and opacity, and may be changed. */
    interface Weather {
        void touch(double x, double y, double[] c);
    }

    /** Lets weather work on every pixel that is not empty. */
    Canvas weather(Weather weather) {
        int[] pixels = ((DataBufferInt) image.getRaster().getDataBuffer()).getData();
        int w = image.getWidth();
        java.util.stream.IntStream.range(0, image.getHeight()).parallel().forEach(y -> {
            double[] c = new double[4];
            for (int x = 0; x < w; x++) {
                int at = y * w + x;
                int p = pixels[at];
                int alpha = p >>> 24;
                if (alpha == 0) {
                    continue;
                }
                c[0] = (p >> 16 & 0xff) / (double) alpha;
                c[1] = (p >> 8 & 0xff) / (double) alpha;
                c[2] = (p & 0xff) / (double) alpha;
                c[3] = alpha / 255.0;
                weather.touch((x + 0.5) / scale, (y + 0.5) / scale, c);
                double a = Math.clamp(c[3], 0, 1) * 255;
                pixels[at] = (int) Math.round(a) << 24 | level(c[0], a) << 16 | level(c[1], a) << 8 | level(c[2], a);
            }
        });
        return this;
    }

    private static int level(double c, double alpha) {
        return (int) Math.round(Math.clamp(c, 0, 1) * alpha);
    }

    static void shade(double[] c, double factor) {
        c[0] *= factor;
        c[1] *= factor;
        c[2] *= factor;
    }

    static void towards(double[] c, int rgb, double share) {
        double s = Math.clamp(share, 0, 1);
        c[0] += ((rgb >> 16 & 0xff) / 255.0 - c[0]) * s;
        c[1] += ((rgb >> 8 & 0xff) / 255.0 - c[1]) * s;
        c[2] += ((rgb & 0xff) / 255.0 - c[2]) * s;
    }

    Texture texture() {
        g.dispose();
        return new Texture(image, false);
    }

    Texture tile() {
        g.dispose();
        return new Texture(image, true);
    }
}
