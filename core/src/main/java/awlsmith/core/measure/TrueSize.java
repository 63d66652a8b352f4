package awlsmith.core.measure;

import awlsmith.core.picture.Plane;
import java.util.Arrays;

/**
 * Whether a picture was enlarged before, and how many times. Samples that stand several times beside each other leave steps of nothing between
 * them; samples in between that a kernel made change less than others, so that steps and bends come and go at the rate of the size it was made
 * at. Both are asked of columns and of rows, and only what both say counts.
 *
 * <p>Source: A. C. Gallagher, "Detection of linear and cubic interpolation in JPEG compressed images", Canadian Conference on Computer and Robot
 * Vision 2005, for the bends; steps, repeated samples and all thresholds are our own.
 *
 * @param factor times wider and higher than it was made, 1 where nothing speaks for it
 * @param orElse what else the same rhythm fits: of a rate of a third 1.5 and 3 times; the same as factor where it fits nothing else
 * @param repeated whether samples were repeated, else a kernel made new ones
 */
public record TrueSize(double factor, double orElse, boolean repeated) {
    private static final TrueSize NONE = new TrueSize(1, 1, false);
    private static final int MOST_REPEATED = 4;
    /** Steps within repeated samples are at most this share of the others; codecs leave some. */
    private static final double STILL = 0.45;
    /** Steps beyond this count as so much: strong edges would drown the rest. */
    private static final float CAP = 20f / 255;
    /** Columns that the rhythm is asked of, and half as many as a local mean is taken over. */
    private static final int LONGEST = 1024;

    private static final int AROUND = 15;
    private static final double FAINT = 0.05 / 255;
    /** Cycles a sample below which pictures have rhythms of their own. */
    private static final double SLOWEST = 0.1;
    /** What was made a little smaller has rhythms below this; enlarging by less than 1.3 has too, and loses little. */
    private static final double SLOWEST_ENLARGED = 0.23;
    /** What both ways must agree to, cycles a sample. */
    private static final double ALIKE = 0.006;

    /** Least strength of a rhythm, as a share of the steps and times the usual one. */
    private record Bounds(double strength, double times) {}

    /** Every second step is easily smaller for other reasons, and codecs' blocks have rhythms of eighths. */
    private static final Bounds HALF = new Bounds(0.06, 20);

    private static final Bounds EIGHTHS = new Bounds(0.07, 15);
    private static final Bounds OTHERS = new Bounds(0.05, 10);

    /** @param rate cycles a sample; @param strength share of the mean; @param times the median of all rates */
    private record Rhythm(double rate, double strength, double times) {}

    public static TrueSize of(Plane luma) {
        if (Math.min(luma.width(), luma.height()) < 4 * AROUND) {
            return NONE;
        }
        double[][] steps = {profile(luma, true, 1), profile(luma, false, 1)};
        for (int times = MOST_REPEATED; times >= 2; times--) {
            if (isRepeated(steps[0], times) && isRepeated(steps[1], times)) {
                return new TrueSize(times, times, true);
            }
        }
        Rhythm across = strongest(steps[0]);
        Rhythm down = strongest(steps[1]);
        if (agree(across, down) && across.rate() > 0.5 - ALIKE && passes(across, down, HALF)) {
            return new TrueSize(2, 2, false);
        }
        across = strongest(profile(luma, true, 2));
        down = strongest(profile(luma, false, 2));
        if (!agree(across, down) || across.rate() > 0.5 - ALIKE) {
            return NONE;
        }
        double rate = (across.rate() + down.rate()) / 2;
        if (rate < SLOWEST_ENLARGED) {
            return NONE;
        }
        double eighth = Math.abs(8 * rate - Math.rint(8 * rate)) / 8;
        if (eighth < ALIKE && Math.abs(rate - 0.25) > ALIKE
                || !passes(across, down, eighth < ALIKE ? EIGHTHS : OTHERS)) {
            return NONE;
        }
        return new TrueSize(1 / (1 - rate), 1 / rate, false);
    }

    private static boolean agree(Rhythm across, Rhythm down) {
        return Math.abs(across.rate() - down.rate()) < ALIKE;
    }

    private static boolean passes(Rhythm across, Rhythm down, Bounds bounds) {
        return Math.min(across.strength(), down.strength()) >= bounds.strength()
                && Math.min(across.times(), down.times()) >= bounds.times();
    }

    /** Mean size of the first or second differences along an axis, at each of its places. */
    private static double[] profile(Plane luma, boolean across, int order) {
        float[] d = luma.data();
        int step = across ? 1 : luma.stride();
        int length = (across ? luma.width() : luma.height()) - order;
        double[] sums = new double[length];
        int lines = across ? luma.height() : luma.width();
        // rows as they lie, whichever way is asked
        for (int y = 0; y < (across ? lines : length); y++) {
            int at = luma.row(y);
            for (int x = 0; x < (across ? length : lines); x++, at++) {
                float one = d[at + step] - d[at];
                float by = order == 1 ? one : d[at + 2 * step] - d[at + step] - one;
                sums[across ? x : y] += Math.min(CAP, Math.abs(by));
            }
        }
        for (int i = 0; i < length; i++) {
            sums[i] /= lines;
        }
        return sums;
    }

    /** Whether all steps but one of so many are about nothing. */
    private static boolean isRepeated(double[] steps, int times) {
        double[] phases = new double[times];
        int whole = steps.length / times * times;
        for (int i = 0; i < whole; i++) {
            phases[i % times] += steps[i];
        }
        Arrays.sort(phases);
        return phases[times - 1] / whole > FAINT && phases[times - 2] < STILL * phases[times - 1];
    }

    private static Rhythm strongest(double[] profile) {
        int count = Math.min(LONGEST, profile.length);
        int first = (profile.length - count) / 2;
        double[] wave = new double[count];
        for (int i = 0; i < count; i++) {
            double mean = 0;
            int used = 0;
            for (int k = Math.max(0, i - AROUND); k <= Math.min(count - 1, i + AROUND); k++, used++) {
                mean += profile[first + k];
            }
            double by = Math.clamp(profile[first + i] / (mean / used + FAINT) - 1, -1, 1);
            wave[i] = by * (0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / count));
        }
        int from = (int) Math.ceil(SLOWEST * count);
        double[] sizes = new double[count / 2 + 1 - from];
        for (int k = 0; k < sizes.length; k++) {
            sizes[k] = size(wave, from + k);
        }
        int best = 0;
        for (int k = 1; k < sizes.length; k++) {
            best = sizes[k] > sizes[best] ? k : best;
        }
        double strength = sizes[best];
        double[] sorted = sizes.clone();
        Arrays.sort(sorted);
        return new Rhythm(
                (from + best) / (double) count,
                2 * strength / count,
                strength / Math.max(1e-12, sorted[sorted.length / 2]));
    }

    /** Size of a wave's part of so many cycles; the angle is turned on step by step. */
    private static double size(double[] wave, int cycles) {
        double turn = 2 * Math.PI * cycles / wave.length;
        double cos = Math.cos(turn);
        double sin = Math.sin(turn);
        double re = 1;
        double im = 0;
        double sumRe = 0;
        double sumIm = 0;
        for (double v : wave) {
            sumRe += v * re;
            sumIm += v * im;
            double next = re * cos - im * sin;
            im = re * sin + im * cos;
            re = next;
        }
        return Math.hypot(sumRe, sumIm);
    }
}
