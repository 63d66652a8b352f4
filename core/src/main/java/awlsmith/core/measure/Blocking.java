package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/**
 * How much block edges of compression stand out: the step between neighbours, held against the steps beside it, is larger
 * on the lattice of blocks than off it. After R. Muijs and I. Kirenko, "A no-reference blocking artifact measure for
 * adaptive video processing", EUSIPCO 2005.
 */
public final class Blocking {
    /** Block sides looked for: 8 of most codecs, 16 of H.264's macroblocks, and those of footage enlarged afterwards. */
    private static final int[] PERIODS = {8, 10, 11, 12, 14, 16, 20, 24};
    /** Steps beside the one looked at, on each side. */
    private static final int BESIDE = 2;
    /** A step below this is as good as none; it keeps flat light from counting as blocks. */
    private static final float FLAT = 0.4f / 255;
    /** A single step never counts for more than this many times its neighbours: real edges would outweigh all lattices. */
    private static final float MOST = 8;

    /** Lines of a lattice without which nothing is said. */
    private static final int LEAST_LINES = 5;

    private Blocking() {}

    /**
     * @param strength how many times larger steps on the lattice are than off it: 1 without blocks
     * @param period side of the blocks in samples, the most likely one
     */
    public record Blocks(double strength, int period) {}

    /** @param luma of a frame or a part of it, 0..1 */
    public static Blocks of(Plane luma) {
        double[] across = profile(luma, 1, luma.width(), luma.height(), luma.stride());
        double[] down = profile(luma, luma.stride(), luma.height(), luma.width(), 1);
        Blocks best = new Blocks(1, PERIODS[0]);
        for (int period : PERIODS) {
            double strength = (onLattice(across, period) + onLattice(down, period)) / 2;
            // a multiple of the true period finds it too; the shortest one that does is the block
            if (strength > best.strength() * 1.02) {
                best = new Blocks(strength, period);
            }
        }
        return best;
    }

    /** Per position the mean of its steps held against those beside it. */
    private static double[] profile(Plane luma, int step, int length, int lines, int lineStep) {
        double[] sums = new double[Math.max(0, length - 1)];
        float[] d = luma.data();
        float[] steps = new float[sums.length];
        int origin = luma.row(0);
        for (int line = 0; line < lines; line += 2) {
            int at = origin + line * lineStep;
            for (int i = 0; i < steps.length; i++, at += step) {
                steps[i] = Math.abs(d[at + step] - d[at]);
            }
            for (int i = BESIDE; i < steps.length - BESIDE; i++) {
                float beside = steps[i - 2] + steps[i - 1] + steps[i + 1] + steps[i + 2];
                sums[i] += Math.min(MOST, (steps[i] + FLAT) / (beside / (2 * BESIDE) + FLAT));
            }
        }
        return sums;
    }

    private static double onLattice(double[] profile, int period) {
        if ((profile.length - 2 * BESIDE) / period < LEAST_LINES) {
            return 1;
        }
        double[] byPhase = new double[period];
        int best = 0;
        for (int phase = 0; phase < period; phase++) {
            byPhase[phase] = typical(profile, period, phase);
            best = byPhase[phase] > byPhase[best] ? phase : best;
        }
        double off = 0;
        for (int phase = 0; phase < period; phase++) {
            off += phase == best ? 0 : byPhase[phase] / (period - 1);
        }
        double spread = 0;
        for (int phase = 0; phase < period; phase++) {
            double d = phase == best ? 0 : byPhase[phase] - off;
            spread += d * d;
        }
        // of many phases one is always the largest; only what goes beyond their usual spread is a lattice
        double chance = 2 * Math.sqrt(spread / (period - 1));
        return Math.max(1, (byPhase[best] - chance) / Math.max(off, 1e-9));
    }

    /** The middle half's mean over the lines of one phase: an edge of the picture itself lies on one or two of them only. */
    private static double typical(double[] profile, int period, int phase) {
        double[] lines = new double[(profile.length - 2 * BESIDE - phase - 1) / period + 1];
        for (int i = 0; i < lines.length; i++) {
            lines[i] = profile[BESIDE + phase + i * period];
        }
        java.util.Arrays.sort(lines);
        int from = lines.length / 4;
        int end = lines.length - from;
        double sum = 0;
        for (int i = from; i < end; i++) {
            sum += lines[i];
        }
        return sum / (end - from);
    }
}
