package awlsmith.benchmarks;

import awlsmith.core.detail.UnsmearStage;
import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.Executors;

/** What taking out the blur of motion gives where motion and shutter are known. */
final class Unsmearing {
    private static final int THREADS = 2;
    private static final int MOMENTS = 16;
    private static final int EDGE = 24;

    private Unsmearing() {}

    static List<String> report(List<Plane> pictures) {
        var lines = new ArrayList<String>();
        lines.add("");
        lines.add("## Its blur taken out");
        lines.add("");
        lines.add("The same motions, each frame the mean of " + MOMENTS
                + " moments while a shutter of 180 degrees was open, then rounded and with the noise. PSNR-Y in dB of what moves by"
                + " two samples and more a frame, without an edge of " + EDGE
                + "; `unsmear` told the shutter, and told one a third too long. Still: largest change of what stands, of 255. Milliseconds a frame on "
                + THREADS + " threads.");
        lines.add("");
        lines.add("| motion | left | undone | gain | told too long | still | milliseconds |");
        lines.add("|---|---|---|---|---|---|---|");
        for (Flowing.Scene scene : Flowing.scenes()) {
            lines.add(row(scene, pictures));
        }
        return lines;
    }

    private static String row(Flowing.Scene scene, List<Plane> pictures) {
        double left = 0;
        double undone = 0;
        double tooLong = 0;
        double still = 0;
        double spent = 0;
        int count = 0;
        for (int n = 0; n < pictures.size(); n++) {
            Plane far = pictures.get(n);
            Plane near = pictures.get((n + 1) % pictures.size());
            var random = new SplittableRandom(7L + n);
            var frames = new ArrayList<Frame>();
            for (int t = -1; t <= 1; t++) {
                frames.add(frame(Flowing.smeared(scene, far, near, n, t, MOMENTS, random), t + 1));
            }
            Plane truth = Flowing.seen(scene, far, near, n, 0);
            boolean[] moves = Flowing.moving(scene, n, EDGE);
            Plane was = frames.get(1).plane(0);
            long begun = System.nanoTime();
            Plane sharp = undone(frames, 180);
            spent += (System.nanoTime() - begun) / 1e6;
            left += psnr(was, truth, moves);
            undone += psnr(sharp, truth, moves);
            tooLong += psnr(undone(frames, 240), truth, moves);
            still = Math.max(still, still(was, sharp, scene, n));
            count++;
        }
        return Figures.text(
                "| %s | %.2f | %.2f | %+.2f | %+.2f | %.1f | %.0f |",
                scene.name(),
                left / count,
                undone / count,
                (undone - left) / count,
                (tooLong - left) / count,
                still,
                spent / count);
    }

    private static Frame frame(Plane light, long number) {
        var format = new Format(
                light.width(), light.height(), Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        return new Frame(format, format.whole(), List.of(light), number, Rational.of(number));
    }

    private static Plane undone(List<Frame> frames, double degrees) {
        var stage = new UnsmearStage(frames.getFirst().format(), degrees);
        Stage.Neighbours in = distance -> frames.get(1 + distance);
        try (var threads = Executors.newFixedThreadPool(THREADS)) {
            var work = new Work(threads, THREADS, new Cancel());
            return stage.treat(in, stage.output().whole(), new PlanePool(0), work)
                    .plane(0);
        }
    }

    private static double psnr(Plane got, Plane truth, boolean[] where) {
        double sum = 0;
        int count = 0;
        for (int i = 0; i < where.length; i++) {
            if (where[i]) {
                double off = got.at(i % got.width(), i / got.width()) - truth.at(i % got.width(), i / got.width());
                sum += off * off;
                count++;
            }
        }
        return Psnr.decibels(sum / Math.max(1, count));
    }

    private static double still(Plane was, Plane now, Flowing.Scene scene, int number) {
        boolean[] stands = Flowing.standing(scene, number);
        double most = 0;
        for (int i = 0; i < stands.length; i++) {
            if (stands[i]) {
                int x = i % was.width();
                int y = i / was.width();
                most = Math.max(most, 255 * Math.abs(was.at(x, y) - now.at(x, y)));
            }
        }
        return most;
    }
}
