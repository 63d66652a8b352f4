package awlsmith.core.measure;

import awlsmith.core.picture.Plane;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * How strong the noise of a picture is, without knowing the picture. The difference of two Laplacians (J. Immerkaer, "Fast
 * Noise Variance Estimation", Computer Vision and Image Understanding 64(2), 1996) is blind to flat, sloped and evenly
 * curved light; what it answers there is noise. Texture answers too, so only the blocks whose quarters hardly differ are
 * asked, and of those the quieter ones: the choice looks at coarse light and the answer at fine light, so choosing does not
 * favour small answers.
 */
public final class NoiseLevel {
    private static final int BLOCK = 8;
    /** Luma bands from black to white that are told apart. */
    public static final int BANDS = 4;

    /** Share of blocks with the least structure that are asked. */
    private static final double ASKED = 0.25;
    /** Place among the asked blocks' answers, low because texture only ever adds. */
    private static final double QUIET = 0.2;
    /** Answer at that place for white Gaussian noise of standard deviation 1; found by simulation, see the test. */
    private static final double ANSWER = 0.896;
    /** Blocks of a luma band worth an answer of their own. */
    private static final int ENOUGH = 24;
    /** Light next to black or white is cut off and so is its noise. */
    private static final double DARKEST = 0.03;

    private static final double BRIGHTEST = 0.97;
    /** What counts as nothing: half of 1/255. */
    private static final double NOTHING = 0.5 / 255;

    private NoiseLevel() {}

    /**
     * @param sigma standard deviation at the scale of single samples, 0..1 of the range from black to white
     * @param coarse the same in the picture reduced to a half by means of 2x2
     * @param bands sigma in the four quarters of the luma range, NaN where there is too little to ask
     * @param flat share of the blocks that hold nothing at all, as flat colours of drawings do
     */
    public record Noise(double sigma, double coarse, List<Double> bands, double flat) {
        /**
         * How much coarser than white the noise is: 1 for noise that changes from sample to sample, 2 for grain about two
         * samples wide, as enlarged or compressed noise is; 1 where there is no noise to speak of.
         */
        public double grain() {
            return Math.max(sigma, coarse) < 0.25 / 255 ? 1 : Math.clamp(2 * coarse / Math.max(sigma, 1e-6), 1, 4);
        }

        /** The stronger of the two scales. */
        public double level() {
            return Math.max(sigma, coarse);
        }
    }

    private record Answer(double structure, double mean, double sigma) {}

    /** @param luma at least 32x32; nothing is found in a smaller one */
    public static Noise of(Plane luma) {
        var all = answers(luma);
        var half = luma.width() >= 64 && luma.height() >= 64 ? answers(halved(luma)) : List.<Answer>of();
        var bands = new ArrayList<Double>();
        for (int b = 0; b < BANDS; b++) {
            int band = b;
            var mine =
                    all.stream().filter(a -> (int) (a.mean() * BANDS) == band).toList();
            bands.add(mine.size() < ENOUGH ? Double.NaN : level(mine));
        }
        long flat = all.stream()
                .filter(a -> a.sigma() < NOTHING && a.structure() < BLOCK * BLOCK * NOTHING)
                .count();
        return new Noise(level(all), level(half), List.copyOf(bands), all.isEmpty() ? 0 : (double) flat / all.size());
    }

    private static double level(List<Answer> answers) {
        if (answers.isEmpty()) {
            return 0;
        }
        double[] asked = answers.stream()
                .sorted((a, b) -> Double.compare(a.structure(), b.structure()))
                .limit(Math.max(1, Math.round(answers.size() * ASKED)))
                .mapToDouble(Answer::sigma)
                .toArray();
        Arrays.sort(asked);
        return asked[(int) (asked.length * QUIET)] / ANSWER;
    }

    private static List<Answer> answers(Plane luma) {
        var answers = new ArrayList<Answer>();
        for (int y = 1; y + BLOCK < luma.height(); y += BLOCK) {
            for (int x = 1; x + BLOCK < luma.width(); x += BLOCK) {
                Answer answer = block(luma, x, y);
                if (answer.mean() > DARKEST && answer.mean() < BRIGHTEST) {
                    answers.add(answer);
                }
            }
        }
        return answers;
    }

    private static Answer block(Plane luma, int x0, int y0) {
        float[] d = luma.data();
        int stride = luma.stride();
        double sum = 0;
        float[] quarters = new float[4];
        for (int y = 0; y < BLOCK; y++) {
            int row = luma.row(y0 + y) + x0;
            int half = y < BLOCK / 2 ? 0 : 2;
            for (int x = 0; x < BLOCK; x++) {
                int at = row + x;
                float sides = d[at - 1] + d[at + 1] + d[at - stride] + d[at + stride];
                float corners = d[at - stride - 1] + d[at - stride + 1] + d[at + stride - 1] + d[at + stride + 1];
                sum += Math.abs(4 * d[at] - 2 * sides + corners);
                quarters[half + (x < BLOCK / 2 ? 0 : 1)] += d[at];
            }
        }
        int count = BLOCK * BLOCK;
        double mean = (quarters[0] + quarters[1] + quarters[2] + quarters[3]) / count;
        double structure = Math.abs(quarters[0] - quarters[1])
                + Math.abs(quarters[2] - quarters[3])
                + Math.abs(quarters[0] - quarters[2])
                + Math.abs(quarters[1] - quarters[3]);
        // Immerkaer 1996, equation for the fast variant: the mean of the absolute answers times root(pi/2) / 6
        return new Answer(structure, mean, Math.sqrt(Math.PI / 2) / 6 * sum / count);
    }

    static Plane halved(Plane luma) {
        Plane half = Plane.of(luma.width() / 2, luma.height() / 2);
        for (int y = 0; y < half.height(); y++) {
            int above = luma.row(2 * y);
            int below = luma.row(2 * y + 1);
            for (int x = 0; x < half.width(); x++) {
                float[] d = luma.data();
                half.set(
                        x,
                        y,
                        0.25f * (d[above + 2 * x] + d[above + 2 * x + 1] + d[below + 2 * x] + d[below + 2 * x + 1]));
            }
        }
        return half;
    }
}
