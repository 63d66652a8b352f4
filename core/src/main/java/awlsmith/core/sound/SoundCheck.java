package awlsmith.core.sound;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** Listens to a sound track once: how loud it is, what is left in its pauses, whether mains hum in it, whether it clips. */
public final class SoundCheck {
    /** Pieces whose levels are compared: 50 ms. */
    private static final int PIECE = Loudness.RATE / 20;
    /** The quietest pieces that tell the noise floor, as a share of all. */
    private static final double QUIET = 0.1;
    /** Pieces heard together for hum: one second tells frequencies apart by one hertz. */
    private static final int WINDOW = Loudness.RATE;
    /** So near full scale, and so often in a row, a sample was cut off. */
    private static final float FULL = 0.9995f;

    private static final int IN_A_ROW = 3;
    private static final double SILENCE = -100;
    private static final int HARMONICS = 4;

    private final int channels;
    private final Loudness loudness;
    private final List<Double> pieces = new ArrayList<>();
    private final double[] window = new double[WINDOW];
    private final List<Double> hum50 = new ArrayList<>();
    private final List<Double> hum60 = new ArrayList<>();
    private final int[] run;
    private int inWindow;
    private double power;
    private int inPiece;
    private long clipped;
    private long samples;

    /** @param channels 1 or 2, at 48 kHz */
    public SoundCheck(int channels) {
        this.channels = channels;
        this.loudness = new Loudness(channels);
        this.run = new int[channels];
    }

    /**
     * @param loudness LUFS
     * @param floor level of the pauses, dB below full scale
     * @param hum how far mains frequency and its multiples stand out of what lies beside them, dB
     * @param mains 50 or 60, whichever stands out more
     * @param clipped share of samples cut off at full scale
     */
    public record Result(double loudness, double floor, double hum, int mains, double clipped) {}

    /** @param values of the channels in turn, -1..1; @param count how many of them, a multiple of the channels */
    public void add(float[] values, int count) {
        loudness.add(values, count);
        for (int i = 0; i < count; i += channels) {
            double mean = 0;
            for (int c = 0; c < channels; c++) {
                float v = values[i + c];
                mean += v / channels;
                power += (double) v * v / channels;
                run[c] = Math.abs(v) >= FULL ? run[c] + 1 : 0;
                clipped += run[c] == IN_A_ROW ? IN_A_ROW : run[c] > IN_A_ROW ? 1 : 0;
                samples++;
            }
            if (++inPiece == PIECE) {
                pieces.add(decibels(power / PIECE));
                power = 0;
                inPiece = 0;
            }
            window[inWindow++] = mean;
            if (inWindow == WINDOW) {
                hum50.add(standsOut(50));
                hum60.add(standsOut(60));
                inWindow = 0;
            }
        }
    }

    /** The fundamental and its multiples against what lies 5 to 7 hertz beside each, in the mean of decibels. */
    private double standsOut(int mains) {
        double sum = 0;
        for (int h = 1; h <= HARMONICS; h++) {
            double on = strength(mains * h);
            double beside = (strength(mains * h - 7)
                            + strength(mains * h - 5)
                            + strength(mains * h + 5)
                            + strength(mains * h + 7))
                    / 4;
            sum += 10 * Math.log10((on + 1e-14) / (beside + 1e-14)) / HARMONICS;
        }
        return sum;
    }

    /** Power at one frequency of the window, faded in and out by a raised cosine (G. Goertzel 1958). */
    private double strength(double frequency) {
        double w = 2 * Math.PI * frequency / Loudness.RATE;
        double twice = 2 * Math.cos(w);
        double last = 0;
        double before = 0;
        for (int i = 0; i < WINDOW; i++) {
            double faded = window[i] * (0.5 - 0.5 * FADE[i]);
            double now = faded + twice * last - before;
            before = last;
            last = now;
        }
        return (last * last + before * before - twice * last * before) / ((double) WINDOW * WINDOW);
    }

    private static final double[] FADE = new double[WINDOW];

    static {
        for (int i = 0; i < WINDOW; i++) {
            FADE[i] = Math.cos(2 * Math.PI * i / WINDOW);
        }
    }

    /** What was found in all samples taken so far. */
    public Result result() {
        double at50 = median(hum50);
        double at60 = median(hum60);
        var sorted = new ArrayList<>(pieces);
        Collections.sort(sorted);
        double floor = sorted.isEmpty() ? SILENCE : sorted.get((int) (sorted.size() * QUIET));
        return new Result(
                loudness.integrated(),
                floor,
                Math.max(0, Math.max(at50, at60)),
                at60 > at50 ? 60 : 50,
                samples == 0 ? 0 : (double) clipped / samples);
    }

    private static double median(List<Double> values) {
        if (values.isEmpty()) {
            return 0;
        }
        var sorted = new ArrayList<>(values);
        Collections.sort(sorted);
        return sorted.get(sorted.size() / 2);
    }

    private static double decibels(double power) {
        return power <= 0 ? SILENCE : Math.max(SILENCE, 10 * Math.log10(power));
    }
}
