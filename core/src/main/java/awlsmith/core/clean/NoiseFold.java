package awlsmith.core.clean;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * Finds what the noise of a clip is like, by the cosines of blocks of 8x8 that hold little else: of those of like light the quarter with the
 * least coarse structure, and of these the half with the least of the rest. What choosing the quiet ones takes off is known and put back.
 *
 * <p>Source: that noise is what is left in the quietest blocks, by frequency, is common to N. Ponomarenko et al., "An automatic approach to
 * lossy compression of AVIRIS images", IGARSS 2007, and what came after it; level by light: A. Foi et al., "Practical
 * Poissonian-Gaussian noise modeling and fitting for single-image raw-data", IEEE Transactions on Image Processing 17(10), 2008.
 */
public final class NoiseFold {
    private static final double ASKED = 0.25;
    private static final double QUIET = 0.5;
    /** Mean square of white noise in the quieter half of blocks, by what it is in all: worked out from the spread of a sum of sixty squares. */
    private static final double CHOSEN = 0.865;
    /** Light next to black or white is cut off, and so is its noise. */
    private static final double DARKEST = 0.02;

    private static final double BRIGHTEST = 0.98;
    /** Blocks that a light must have to be believed. */
    private static final int ENOUGH = 200;
    /** Times the usual noise that the noise of any light may be; what seems more is structure. */
    private static final double MOST = 2;

    /** Deviation that is as good as none, a fifth of a step of 8 bits. */
    private static final double LEAST = 0.2 / 255;

    private final double[][] light = new double[NoiseModel.LEVELS][Blocks.SIZE];
    private final long[] counts = new long[NoiseModel.LEVELS];
    private final double[] colour = new double[Blocks.SIZE];
    private long colourCount;

    private record Block(double mean, double structure, double rest, float[] squares) {}

    /** Takes what was seen by another into account. */
    public void add(NoiseFold other) {
        for (int level = 0; level < light.length; level++) {
            counts[level] += other.counts[level];
            addAll(other.light[level], light[level]);
        }
        colourCount += other.colourCount;
        addAll(other.colour, colour);
    }

    private static void addAll(double[] from, double[] to) {
        for (int i = 0; i < to.length; i++) {
            to[i] += from[i];
        }
    }

    /** Takes a whole frame into account. */
    public void see(Frame frame) {
        Chroma chroma = frame.format().chroma();
        List<Block> all = blocks(frame.light());
        for (int level = 0; level < NoiseModel.LEVELS; level++) {
            int own = level;
            List<Block> mine = all.stream()
                    .filter(block -> block.mean() > DARKEST && block.mean() < BRIGHTEST)
                    .filter(block -> Math.round(block.mean() * (NoiseModel.LEVELS - 1)) == own)
                    .toList();
            counts[level] += add(mine, light[level]);
        }
        if (chroma.planes() == 3 && chroma != Chroma.RGB) {
            for (int p = 1; p < 3; p++) {
                colourCount += add(blocks(frame.plane(p)), colour);
            }
        }
    }

    /** @return how many blocks were chosen */
    private static int add(List<Block> blocks, double[] sums) {
        if (blocks.size() < 4) {
            return 0;
        }
        List<Block> asked = blocks.stream()
                .sorted(Comparator.comparingDouble(Block::structure))
                .limit(Math.max(2, Math.round(blocks.size() * ASKED)))
                .sorted(Comparator.comparingDouble(Block::rest))
                .toList();
        int chosen = Math.max(1, (int) (asked.size() * QUIET));
        for (Block block : asked.subList(0, chosen)) {
            for (int i = 0; i < sums.length; i++) {
                sums[i] += block.squares()[i];
            }
        }
        return chosen;
    }

    private static List<Block> blocks(Plane plane) {
        var all = new ArrayList<Block>();
        int side = Blocks.SIDE;
        float[] x = new float[Blocks.SIZE * Blocks.LANES];
        for (int y = 0; y + side <= plane.height(); y += side) {
            for (int left = 0; left + side <= plane.width(); left += side * Blocks.LANES) {
                int lanes = Math.min(Blocks.LANES, (plane.width() - left) / side);
                for (int b = 0; b < lanes; b++) {
                    for (int r = 0; r < side; r++) {
                        int row = plane.row(y + r) + left + b * side;
                        for (int k = 0; k < side; k++) {
                            x[(r * side + k) * Blocks.LANES + b] = plane.data()[row + k];
                        }
                    }
                }
                Blocks.CHOSEN.forward(x);
                for (int b = 0; b < lanes; b++) {
                    all.add(block(x, b));
                }
            }
        }
        return all;
    }

    private static Block block(float[] x, int b) {
        float[] squares = new float[Blocks.SIZE];
        double rest = 0;
        for (int i = 0; i < squares.length; i++) {
            float value = x[i * Blocks.LANES + b];
            squares[i] = value * value;
            rest += isFine(i) ? squares[i] : 0;
        }
        double structure = squares[1] + squares[Blocks.SIDE] + squares[Blocks.SIDE + 1];
        return new Block(x[b] / Blocks.SIDE, structure, rest, squares);
    }

    /** Whether a frequency is none of those that structure is judged by. */
    private static boolean isFine(int i) {
        return i % Blocks.SIDE > 1 || i / Blocks.SIDE > 1;
    }

    /** What was found in all frames seen. */
    public NoiseModel found() {
        double[] levels = new double[NoiseModel.LEVELS];
        double[] all = new double[Blocks.SIZE];
        long count = 0;
        for (int level = 0; level < levels.length; level++) {
            levels[level] = counts[level] < ENOUGH ? Double.NaN : deviation(light[level], counts[level]);
            for (int i = 0; i < all.length; i++) {
                all[i] += light[level][i];
            }
            count += counts[level];
        }
        double usual = count == 0 ? 0 : deviation(all, count);
        for (int level = 0; level < levels.length; level++) {
            levels[level] = Math.min(levels[level], MOST * usual);
        }
        return new NoiseModel(
                filled(levels, usual),
                colourCount == 0 ? 0 : deviation(colour, colourCount),
                shape(all, count),
                shape(colour, colourCount));
    }

    private static double deviation(double[] sums, long count) {
        double sum = 0;
        int frequencies = 0;
        for (int i = 0; i < sums.length; i++) {
            if (isFine(i)) {
                sum += sums[i] / count;
                frequencies++;
            }
        }
        double sigma = Math.sqrt(sum / frequencies / CHOSEN);
        return sigma < LEAST ? 0 : sigma;
    }

    /** Where too little was seen of a light, what is nearest to it. */
    private static List<Double> filled(double[] levels, double usual) {
        var filled = new ArrayList<Double>();
        for (int i = 0; i < levels.length; i++) {
            double value = Double.NaN;
            for (int d = 0; d < levels.length && Double.isNaN(value); d++) {
                value = i - d >= 0 ? levels[i - d] : Double.NaN;
                value = Double.isNaN(value) && i + d < levels.length ? levels[i + d] : value;
            }
            filled.add(Double.isNaN(value) ? usual : value);
        }
        return filled;
    }

    /** Scaled so that the fine frequencies give 1 on average; the coarsest ones hold structure, and get what is next to them. */
    private static List<Double> shape(double[] sums, long count) {
        double mean = 0;
        int fine = 0;
        for (int i = 0; i < sums.length; i++) {
            mean += isFine(i) ? sums[i] : 0;
            fine += isFine(i) ? 1 : 0;
        }
        if (count == 0 || mean <= 0) {
            return java.util.Collections.nCopies(Blocks.SIZE, 1.0);
        }
        mean /= fine;
        double coarse = (sums[2] + sums[2 * Blocks.SIDE] + sums[Blocks.SIDE + 2] + sums[2 * Blocks.SIDE + 1]) / 4;
        double[] shape = new double[sums.length];
        for (int i = 0; i < sums.length; i++) {
            shape[i] = Math.clamp((isFine(i) ? sums[i] : coarse) / mean, 0.02, 50);
        }
        return Arrays.stream(shape).boxed().toList();
    }
}
