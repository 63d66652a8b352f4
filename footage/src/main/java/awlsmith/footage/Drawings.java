package awlsmith.footage;

import com.github.weisj.jsvg.SVGDocument;
import com.github.weisj.jsvg.parser.SVGLoader;
import com.github.weisj.jsvg.view.ViewBox;
import java.awt.Color;
import java.awt.Font;
import java.awt.GradientPaint;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.AffineTransform;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.Stream;

/**
 * Sheets of public-domain drawings from Debian's openclipart-svg, several laid over each other at any size and angle on a
 * flat or shaded ground, with a line of lettering: outlines of many weights, flat colours, gradients.
 */
public final class Drawings {
    private static final int HELD_OUT = 8;
    private static final int WIDTH = 960;
    private static final int HEIGHT = 720;
    private static final int ON_A_SHEET = 7;
    private static final long LARGEST_FILE = 300_000;
    private static final String[] FONTS = {Font.SANS_SERIF, Font.SERIF, Font.MONOSPACED};
    private static final String LETTERS = "ABCDEFGHKLMNOPRSTUVWZabcdefghiklmnoprstuvwz0123456789 ";

    private final List<Path> files;
    private final SVGLoader loader = new SVGLoader();

    private Drawings(List<Path> files) {
        this.files = files;
    }

    /** @param sheets to learn from; the held-out ones are as many always */
    public static PictureSet load(PackageCache packages, int sheets, long seed) throws IOException {
        var files = new ArrayList<Path>();
        try (Stream<Path> all = Files.walk(packages.unpacked("openclipart-svg"))) {
            all.filter(f -> f.toString().endsWith(".svg") && Files.isRegularFile(f))
                    .sorted()
                    .forEach(files::add);
        }
        // held-out sheets use drawings of their own: every tenth
        var learn = new ArrayList<Path>();
        var check = new ArrayList<Path>();
        for (int i = 0; i < files.size(); i++) {
            if (Files.size(files.get(i)) <= LARGEST_FILE) {
                (i % 10 == 0 ? check : learn).add(files.get(i));
            }
        }
        var gathering = new PictureSet.Gathering();
        var random = new SplittableRandom(seed);
        var forLearning = new Drawings(learn);
        for (int i = 0; i < sheets; i++) {
            gathering.add(Pictures.luma(forLearning.sheet(random.split())), false);
        }
        var forChecking = new Drawings(check);
        for (int i = 0; i < HELD_OUT; i++) {
            gathering.add(Pictures.luma(forChecking.sheet(random.split())), true);
        }
        return gathering.done(sheets + " sheets of drawings from Debian's openclipart-svg (public domain)");
    }

    private BufferedImage sheet(SplittableRandom random) {
        var image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
        g.setPaint(new GradientPaint(
                0, 0, colour(random), WIDTH, HEIGHT, random.nextBoolean() ? colour(random) : Color.WHITE));
        g.fillRect(0, 0, WIDTH, HEIGHT);
        int drawn = 0;
        for (int tries = 0; drawn < ON_A_SHEET && tries < 4 * ON_A_SHEET; tries++) {
            if (draw(g, files.get(random.nextInt(files.size())), random)) {
                drawn++;
            }
        }
        lettering(g, random);
        g.dispose();
        return image;
    }

    private boolean draw(Graphics2D g, Path file, SplittableRandom random) {
        double side = 120 + 380 * random.nextDouble();
        AffineTransform before = g.getTransform();
        try {
            SVGDocument drawing = loader.load(file.toUri().toURL());
            if (drawing == null) {
                return false;
            }
            g.translate(random.nextDouble() * (WIDTH - side / 2), random.nextDouble() * (HEIGHT - side / 2));
            g.rotate((random.nextDouble() - 0.5) * 0.6);
            drawing.render((java.awt.Component) null, g, new ViewBox(0, 0, (float) side, (float) side));
            return true;
        } catch (IOException | RuntimeException e) {
            // one of thousands that the renderer does not understand: another is as good
            return false;
        } finally {
            g.setTransform(before);
        }
    }

    private static void lettering(Graphics2D g, SplittableRandom random) {
        for (int i = 0; i < 3; i++) {
            var text = new StringBuilder();
            for (int k = 0; k < 12; k++) {
                text.append(LETTERS.charAt(random.nextInt(LETTERS.length())));
            }
            g.setFont(new Font(
                    FONTS[random.nextInt(FONTS.length)],
                    random.nextBoolean() ? Font.BOLD : Font.PLAIN,
                    12 + random.nextInt(40)));
            g.setColor(random.nextBoolean() ? Color.BLACK : colour(random));
            g.drawString(text.toString(), random.nextInt(WIDTH / 2), 40 + random.nextInt(HEIGHT - 60));
        }
    }

    private static Color colour(SplittableRandom random) {
        return Color.getHSBColor((float) random.nextDouble(), (float) random.nextDouble() * 0.7f, (float)
                (0.3 + 0.7 * random.nextDouble()));
    }
}
