package awlsmith.benchmarks;

import awlsmith.core.detail.DeblurStage;
import awlsmith.core.detail.PointSpread;
import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Work;
import awlsmith.footage.PackageCache;
import awlsmith.footage.Pictures;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/**
 * A known blur undone, beside Richardson and Lucy's iterations stopped where they are best (W. H. Richardson, JOSA 62, 1972; L. B. Lucy, The
 * Astronomical Journal 79, 1974), as scikit-image's restoration.richardson_lucy runs them.
 */
final class Deblurring {
    private static final double SIGMA = 1.5;
    private static final int MOST_ITERATIONS = 200;
    private static final int BORDER = 24;
    /** Samples around one whose range in the truth it should not leave. */
    private static final int NEAR = 3;

    private final PackageCache packages;
    private final List<String> report = new ArrayList<>();

    Deblurring(PackageCache packages) {
        this.packages = packages;
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    List<String> report() throws IOException {
        say("## A known blur undone");
        say("");
        say(
                "Pictures of Debian's python3-skimage blurred by a bell of 1.5 samples, with noise, in eight bits. Deblur is told blur and noise;"
                        + " Richardson and Lucy's iterations as scikit-image runs them, stopped where they are best with the truth at hand. Ringing: how"
                        + " far samples leave the range that the truth has within 3 samples, root mean square of 255.");
        say("");
        say(
                "| picture | noise | blurred | deblur | calm=0 | Richardson-Lucy, iterations | deblur - best | ringing: deblur | calm=0 | Richardson-Lucy |");
        say("|---|---|---|---|---|---|---|---|---|---|");
        for (String name : List.of("camera.png", "astronaut.png", "coffee.png", "chelsea.png")) {
            Plane truth = Pictures.luma(packages.file("python3-skimage", "skimage/data/" + name));
            for (double noise : new double[] {0, 1, 3}) {
                row(name, truth, noise);
            }
        }
        say("");
        return report;
    }

    private void row(String name, Plane truth, double noise) {
        var spread = new PointSpread.Bell(SIGMA, SIGMA);
        var random = new Random(1);
        Plane blurred = spread(truth, spread);
        for (int i = 0; i < blurred.data().length; i++) {
            blurred.data()[i] += (float) (noise / 255 * random.nextGaussian());
        }
        blurred = Pictures.eightBits(blurred);
        Plane ours = deblurred(blurred, spread, noise, 1);
        Plane rough = deblurred(blurred, spread, noise, 0);
        Plane best = blurred;
        int at = 0;
        // where scikit-image begins
        Plane now = Plane.of(blurred.width(), blurred.height()).fill(0.5f);
        for (int i = 1; i <= MOST_ITERATIONS; i++) {
            now = lucy(blurred, now, spread);
            if (Psnr.of(now, truth, BORDER) > Psnr.of(best, truth, BORDER)) {
                best = now;
                at = i;
            }
        }
        double mine = Psnr.of(ours, truth, BORDER);
        double theirs = Psnr.of(best, truth, BORDER);
        say(Figures.text(
                "| %s | %.0f | %.2f | %.2f | %.2f | %.2f, %d | %+.2f | %.2f | %.2f | %.2f |",
                name,
                noise,
                Psnr.of(blurred, truth, BORDER),
                mine,
                Psnr.of(rough, truth, BORDER),
                theirs,
                at,
                mine - theirs,
                ringing(ours, truth),
                ringing(rough, truth),
                ringing(best, truth)));
    }

    private static Plane deblurred(Plane in, PointSpread spread, double noise, double calm) {
        var format = new Format(in.width(), in.height(), Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        var frame = new Frame(format, format.whole(), List.of(in), 0, Rational.ZERO);
        return new DeblurStage(format, spread, noise, calm)
                .treat(distance -> frame, format.whole(), new PlanePool(0), Work.alone())
                .plane(0);
    }

    /** What the spread makes of a picture whose edges are mirrored; by rows and columns, which a bell allows. */
    static Plane spread(Plane in, PointSpread spread) {
        int reach = spread.reach();
        int side = 2 * reach + 1;
        double[] taps = new double[side];
        double[] all = spread.taps();
        for (int i = 0; i < all.length; i++) {
            taps[i % side] += all[i];
        }
        return along(along(in, taps, 1, 0), taps, 0, 1);
    }

    private static Plane along(Plane in, double[] taps, int dx, int dy) {
        int reach = taps.length / 2;
        Plane out = Plane.of(in.width(), in.height());
        for (int y = 0; y < in.height(); y++) {
            for (int x = 0; x < in.width(); x++) {
                double sum = 0;
                for (int k = -reach; k <= reach; k++) {
                    sum += taps[k + reach] * in.at(mirrored(x + k * dx, in.width()), mirrored(y + k * dy, in.height()));
                }
                out.set(x, y, (float) sum);
            }
        }
        return out;
    }

    private static int mirrored(int i, int count) {
        return i < 0 ? -1 - i : i >= count ? 2 * count - 1 - i : i;
    }

    /** One iteration: what is there now, times how the blurred picture compares with what a blur makes of it. */
    static Plane lucy(Plane blurred, Plane now, PointSpread spread) {
        Plane again = spread(now, spread);
        Plane ratio = Plane.of(now.width(), now.height());
        for (int i = 0; i < ratio.data().length; i++) {
            ratio.data()[i] = blurred.data()[i] / Math.max(again.data()[i], 1e-6f);
        }
        Plane share = spread(ratio, spread);
        Plane next = Plane.of(now.width(), now.height());
        for (int i = 0; i < next.data().length; i++) {
            next.data()[i] = Math.max(0, now.data()[i]) * share.data()[i];
        }
        return next;
    }

    private static double ringing(Plane made, Plane truth) {
        double squares = 0;
        long count = 0;
        for (int y = BORDER; y < truth.height() - BORDER; y++) {
            for (int x = BORDER; x < truth.width() - BORDER; x++) {
                float least = Float.MAX_VALUE;
                float most = -Float.MAX_VALUE;
                for (int v = y - NEAR; v <= y + NEAR; v++) {
                    for (int u = x - NEAR; u <= x + NEAR; u++) {
                        least = Math.min(least, truth.at(u, v));
                        most = Math.max(most, truth.at(u, v));
                    }
                }
                double beyond = Math.max(0, Math.max(made.at(x, y) - most, least - made.at(x, y)));
                squares += beyond * beyond;
                count++;
            }
        }
        return 255 * Math.sqrt(squares / count);
    }
}
