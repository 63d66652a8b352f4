package awlsmith.core.clean;

import java.util.List;

/**
 * What the noise of a clip is like.
 *
 * @param levels deviation of luma's noise (of R'G'B' that of each) at evenly spaced places of the light from black to white, 0..1
 * @param colour deviation of the colour differences' noise, 0..1
 * @param shape square of luma's noise of each frequency of a block of 8x8, row by row, for a deviation of 1
 * @param colourShape the same of the colour differences
 */
public record NoiseModel(List<Double> levels, double colour, List<Double> shape, List<Double> colourShape) {
    /** Places of the light that are told apart. */
    public static final int LEVELS = 8;

    public NoiseModel {
        levels = List.copyOf(levels);
        shape = List.copyOf(shape);
        colourShape = List.copyOf(colourShape);
        if (levels.size() != LEVELS || shape.size() != Blocks.SIZE || colourShape.size() != Blocks.SIZE) {
            throw new IllegalArgumentException(levels.size() + " levels and shapes of " + shape.size() + " and "
                    + colourShape.size() + ", must be " + LEVELS + " and " + Blocks.SIZE);
        }
    }

    /** The same at every light. @param sigma deviation of luma's noise, 0..1; @param grain 1 for white noise, up to 4 for coarser */
    public static NoiseModel even(double sigma, double colour, double grain) {
        List<Double> shape = shape(grain);
        return new NoiseModel(java.util.Collections.nCopies(LEVELS, sigma), colour, shape, shape);
    }

    /** As blurred noise has it: a Gaussian whose width grows with the grain, scaled so that all frequencies but the mean give 1. */
    private static List<Double> shape(double grain) {
        double blur = Math.max(0, grain - 1) * 0.55;
        double[] all = new double[Blocks.SIZE];
        double sum = 0;
        for (int i = 0; i < all.length; i++) {
            all[i] = Math.exp(-square(i) * blur * blur);
            sum += all[i];
        }
        double scale = Blocks.SIZE / sum;
        return java.util.Arrays.stream(all).map(v -> v * scale).boxed().toList();
    }

    /** Frequencies whose noise is weaker than this are left out where its width is found: rounding and codecs add to them. */
    private static final double FAINT = 0.05;

    /**
     * Width of the bell that white noise blurred by it would come nearest to this noise's spectrum with, samples; 0 for white noise or finer.
     * Least squares of the logarithm of each frequency's power, which falls with the square of the frequency.
     */
    public double width() {
        double sumX = 0;
        double sumY = 0;
        double sumXx = 0;
        double sumXy = 0;
        int count = 0;
        for (int i = 1; i < shape.size(); i++) {
            if (shape.get(i) > FAINT) {
                double w2 = square(i);
                double log = Math.log(shape.get(i));
                sumX += w2;
                sumY += log;
                sumXx += w2 * w2;
                sumXy += w2 * log;
                count++;
            }
        }
        double spread = count * sumXx - sumX * sumX;
        return count < 3 || spread <= 0 ? 0 : Math.sqrt(Math.max(0, -(count * sumXy - sumX * sumY) / spread));
    }

    /** Square of a frequency of the block, radians a sample. */
    private static double square(int i) {
        int u = i % Blocks.SIDE;
        int v = i / Blocks.SIDE;
        return (u * u + v * v) * Math.PI * Math.PI / (Blocks.SIDE * Blocks.SIDE);
    }

    /** Whether it is the same at every light. */
    boolean isEven() {
        return levels.stream().distinct().count() == 1;
    }

    /** Deviation of luma's noise where light is so much. @param levels as floats, for whole pictures */
    static float sigma(float[] levels, float light) {
        float at = Math.clamp(light, 0f, 1f) * (LEVELS - 1);
        int i = Math.min((int) at, LEVELS - 2);
        return levels[i] + (at - i) * (levels[i + 1] - levels[i]);
    }

    static float[] floats(List<Double> values) {
        float[] all = new float[values.size()];
        for (int i = 0; i < all.length; i++) {
            all[i] = values.get(i).floatValue();
        }
        return all;
    }

    /** The least of luma's deviations: what lies within it lies within the noise at every light. */
    double least() {
        return levels.stream().mapToDouble(Double::doubleValue).min().orElse(0);
    }
}
