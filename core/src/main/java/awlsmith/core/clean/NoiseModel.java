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
        for (int v = 0; v < Blocks.SIDE; v++) {
            for (int u = 0; u < Blocks.SIDE; u++) {
                double w2 = (u * u + v * v) * Math.PI * Math.PI / (Blocks.SIDE * Blocks.SIDE);
                all[v * Blocks.SIDE + u] = Math.exp(-w2 * blur * blur);
                sum += all[v * Blocks.SIDE + u];
            }
        }
        double scale = Blocks.SIZE / sum;
        return java.util.Arrays.stream(all).map(v -> v * scale).boxed().toList();
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
