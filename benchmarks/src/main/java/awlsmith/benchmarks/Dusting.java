package awlsmith.benchmarks;

import awlsmith.core.picture.Plane;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** How well dust of single frames is taken out along the motion: spots put into clean clips, whose place is known. */
final class Dusting {
    private static final int WIDTH = 480;
    private static final int HEIGHT = 360;
    private static final int FRAMES = 16;
    private static final int SPOTS = 8;
    private static final double SMALLEST = 1.5;
    private static final double LARGEST = 5.5;
    /** Changed by more than this where no spot was, luma. */
    private static final float CHANGED = 8 / 255f;

    private final Scratch scratch;

    Dusting(Scratch scratch) {
        this.scratch = scratch;
    }

    /** @param share what is left of the spots' difference, 0..1; @param elsewhere samples a frame that changed where no spot was */
    record Result(double share, long elsewhere, double rate) {}

    static String words() {
        return FRAMES + " frames of " + WIDTH + "x" + HEIGHT + ", " + SPOTS
                + " spots of 3 to 11 samples in each, nearly white or black. What is left of their difference (root mean square), samples a frame that changed by 8 of 255 where no spot was, frames a second.";
    }

    Result of(Path clip) {
        Path truth = scratch.file("truth.mkv");
        Command.ffmpeg("-i " + clip + " -an -vf scale=" + WIDTH + ":" + HEIGHT + ",format=yuv420p -frames:v " + FRAMES
                + " -fps_mode passthrough -c:v ffv1 " + truth);
        List<Plane> wanted = scratch.luma(truth);
        Path dusty = scratch.file("dusty.mkv");
        var random = new Random(5);
        var marks = new ArrayList<boolean[]>();
        scratch.changed(truth, dusty, frame -> marks.add(spotted(frame.plane(0), random)));
        List<Plane> before = scratch.luma(dusty);
        Scratch.Made made = scratch.made(dusty, "dust scratches=keep");
        double was = 0;
        double left = 0;
        long elsewhere = 0;
        // the first and the last frame have one neighbour
        for (int n = 1; n < FRAMES - 1; n++) {
            float[] truly = wanted.get(n).data();
            float[] spots = before.get(n).data();
            float[] now = made.frames().get(n).data();
            for (int i = 0; i < truly.length; i++) {
                if (marks.get(n)[i]) {
                    was += (spots[i] - truly[i]) * (spots[i] - truly[i]);
                    left += (now[i] - truly[i]) * (now[i] - truly[i]);
                } else if (Math.abs(now[i] - spots[i]) > CHANGED) {
                    elsewhere++;
                }
            }
        }
        return new Result(Math.sqrt(left / was), elsewhere / (FRAMES - 2), made.rate());
    }

    private static boolean[] spotted(Plane plane, Random random) {
        boolean[] marks = new boolean[plane.width() * plane.height()];
        for (int k = 0; k < SPOTS; k++) {
            int x = random.nextInt(plane.width());
            int y = random.nextInt(plane.height());
            double radius = SMALLEST + (LARGEST - SMALLEST) * random.nextDouble();
            float light = random.nextBoolean() ? 0.95f : 0.05f;
            int reach = (int) Math.ceil(radius);
            for (int j = Math.max(0, y - reach); j <= Math.min(plane.height() - 1, y + reach); j++) {
                for (int i = Math.max(0, x - reach); i <= Math.min(plane.width() - 1, x + reach); i++) {
                    if (Math.hypot(i - x, j - y) < radius) {
                        plane.set(i, j, light);
                        marks[j * plane.width() + i] = true;
                    }
                }
            }
        }
        return marks;
    }
}
