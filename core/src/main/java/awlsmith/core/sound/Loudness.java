package awlsmith.core.sound;

import java.util.ArrayList;
import java.util.List;

/**
 * Integrated loudness by ITU-R BS.1770-4, as EBU R 128 uses it: weighted by how the ear hears, in blocks of 400 ms that
 * overlap by three quarters, the silent ones and those 10 LU below the rest left out. For 48 kHz, one or two channels.
 */
public final class Loudness {
    public static final int RATE = 48_000;

    /** Filters of BS.1770-4, tables 1 and 2, for 48 kHz: b0, b1, b2, a1, a2. */
    private static final double[] HEAD = {
        1.53512485958697, -2.69169618940638, 1.19839281085285, -1.69065929318241, 0.73248077421585
    };

    private static final double[] LOW = {1, -2, 1, -1.99004745483398, 0.99007225036621};
    private static final int STEP = RATE / 10;
    private static final int STEPS = 4;
    private static final double SILENT = -70;
    private static final double BELOW = 10;

    private final int channels;
    private final double[][] state;
    private final List<Double> steps = new ArrayList<>();
    private double sum;
    private int inStep;

    /** @param channels that the samples have in turn */
    public Loudness(int channels) {
        this.channels = channels;
        this.state = new double[channels][4];
    }

    /** @param samples of the channels in turn, -1..1; @param count how many of them, a multiple of the channels */
    public void add(float[] samples, int count) {
        for (int i = 0; i < count; i += channels) {
            for (int c = 0; c < channels; c++) {
                double[] s = state[c];
                double head = filtered(HEAD, samples[i + c], s, 0);
                double heard = filtered(LOW, head, s, 2);
                sum += heard * heard;
            }
            if (++inStep == STEP) {
                steps.add(sum / STEP);
                sum = 0;
                inStep = 0;
            }
        }
    }

    /** Second-order filter in transposed form; two numbers of state from at on. */
    private static double filtered(double[] f, double x, double[] s, int at) {
        double y = f[0] * x + s[at];
        s[at] = f[1] * x - f[3] * y + s[at + 1];
        s[at + 1] = f[2] * x - f[4] * y;
        return y;
    }

    /** LUFS, or -70 for silence and for what is shorter than a block. */
    public double integrated() {
        var blocks = new ArrayList<Double>();
        for (int i = 0; i + STEPS <= steps.size(); i++) {
            double mean = 0;
            for (int k = 0; k < STEPS; k++) {
                mean += steps.get(i + k) / STEPS;
            }
            if (level(mean) > SILENT) {
                blocks.add(mean);
            }
        }
        double gate = level(mean(blocks)) - BELOW;
        double loud =
                level(mean(blocks.stream().filter(block -> level(block) > gate).toList()));
        return Math.max(SILENT, loud);
    }

    private static double mean(List<Double> blocks) {
        return blocks.stream().mapToDouble(Double::doubleValue).average().orElse(0);
    }

    private static double level(double power) {
        return power <= 0 ? Double.NEGATIVE_INFINITY : -0.691 + 10 * Math.log10(power);
    }
}
