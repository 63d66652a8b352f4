package awlsmith.core.retime;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Rational;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Finds whether frames are mixes of two, as a change of rate by mixing leaves them: then they hold less than as many frames could, and what no mix can
 * hold is nearly nothing. Looks at the runs of frames in which most moves.
 *
 * <p>Source: our own; what is left over of least squares tells.
 */
public final class BlendFinder {
    /** Frames a second that clips are brought from (common practice, no source). */
    public static final List<Rational> RATES = List.of(
            new Rational(24000, 1001),
            Rational.of(24),
            Rational.of(25),
            new Rational(30000, 1001),
            Rational.of(30),
            Rational.of(50),
            Rational.of(16),
            Rational.of(18),
            Rational.of(15),
            Rational.of(12));

    private static final int RUN = 36;
    private static final int RUNS = 6;
    private static final int ACROSS = 40;
    private static final int DOWN = 24;
    private static final int SIDE = 4;
    /** Places that are tried between two frames. */
    private static final int OFFSETS = 24;
    /** What no mix can hold, as a share of what it is at other places between frames: less tells mixes. */
    private static final double TELLS = 0.25;
    /** Mean square of what mixes at other places could not hold, luma: where less moves nothing can be told. */
    private static final double MOVES = 2e-6;

    private static final double NEARLY_NONE = 1e-6;

    private final double now;
    private final List<Rational> rates;
    private final List<Run> runs = new ArrayList<>();
    private final List<float[]> frames = new ArrayList<>();
    private long first;
    private long seen;

    /** Of so many frames, how each two of them go together. */
    private record Run(long first, double[][] products, double change) {}

    /** @param now frames a second that are seen, evenly; @param rates that they may have been brought from */
    public BlendFinder(double now, List<Rational> rates) {
        this.now = now;
        this.rates = rates.stream()
                .filter(rate -> rate.toDouble() / now <= UnblendStage.MOST)
                .toList();
    }

    /** @param light luma of the next frame, all of one size */
    public void see(Plane light) {
        if (frames.isEmpty()) {
            first = seen;
        }
        frames.add(small(light));
        seen++;
        if (frames.size() == RUN) {
            runs.add(run());
            frames.clear();
            if (runs.size() > RUNS) {
                runs.remove(runs.stream()
                        .min(Comparator.comparingDouble(Run::change))
                        .orElseThrow());
            }
        }
    }

    /** Means of small squares all over the picture. */
    private static float[] small(Plane p) {
        float[] all = new float[ACROSS * DOWN];
        for (int i = 0; i < all.length; i++) {
            int left = (int) ((long) (i % ACROSS) * Math.max(0, p.width() - SIDE) / ACROSS);
            int top = (int) ((long) (i / ACROSS) * Math.max(0, p.height() - SIDE) / DOWN);
            float sum = 0;
            for (int y = 0; y < Math.min(SIDE, p.height()); y++) {
                for (int x = 0; x < Math.min(SIDE, p.width()); x++) {
                    sum += p.at(left + x, top + y);
                }
            }
            all[i] = sum / (SIDE * SIDE);
        }
        return all;
    }

    private Run run() {
        int samples = ACROSS * DOWN;
        float[] mean = new float[samples];
        for (float[] frame : frames) {
            for (int i = 0; i < samples; i++) {
                mean[i] += frame[i] / RUN;
            }
        }
        double[][] products = new double[RUN][RUN];
        double change = 0;
        for (int a = 0; a < RUN; a++) {
            for (int b = 0; b <= a; b++) {
                double sum = 0;
                for (int i = 0; i < samples; i++) {
                    sum += (frames.get(a)[i] - mean[i]) * (frames.get(b)[i] - mean[i]);
                }
                products[a][b] = sum / samples;
                products[b][a] = products[a][b];
            }
            if (a > 0) {
                change += products[a][a] + products[a - 1][a - 1] - 2 * products[a][a - 1];
            }
        }
        return new Run(first, products, change);
    }

    /** What speaks most clearly; empty where nothing does. */
    public Optional<Blending> found() {
        double best = TELLS;
        Blending found = null;
        for (Rational rate : rates) {
            double ratio = rate.toDouble() / now;
            double[] left = new double[OFFSETS];
            for (int k = 0; k < OFFSETS; k++) {
                for (Run run : runs) {
                    left[k] += left(run, ratio, (double) k / OFFSETS) / runs.size();
                }
            }
            double[] sorted = left.clone();
            Arrays.sort(sorted);
            double usual = sorted[OFFSETS / 2];
            if (!runs.isEmpty() && usual > MOVES && sorted[0] / usual < best) {
                best = sorted[0] / usual;
                for (int k = 0; k < OFFSETS; k++) {
                    if (left[k] == sorted[0]) {
                        found = new Blending(rate, new Rational(k, OFFSETS));
                    }
                }
            }
        }
        return Optional.ofNullable(found);
    }

    /** Mean square of what is left of a run's frames when mixes at these places take what they can. */
    private static double left(Run run, double ratio, double offset) {
        double begin = run.first * ratio + offset;
        long low = (long) Math.floor(begin);
        int count = (int) ((long) Math.floor(begin + (RUN - 1) * ratio) + 2 - low);
        double[] at = new double[RUN];
        var sums = new Mixes(count);
        for (int k = 0; k < RUN; k++) {
            at[k] = (run.first + k) * ratio + offset - low;
            sums.add(at[k]);
        }
        sums.addSteps(NEARLY_NONE);
        double left = 0;
        for (int k = 0; k < RUN; k++) {
            double[] right = new double[count];
            for (int m = 0; m < RUN; m++) {
                Mixes.addTo(right, at[m], run.products[m][k]);
            }
            left += run.products[k][k] - Mixes.mixed(sums.solve(right), at[k]);
        }
        return Math.max(0, left) / RUN;
    }
}
