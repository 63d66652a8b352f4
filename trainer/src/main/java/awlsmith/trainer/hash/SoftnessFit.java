package awlsmith.trainer.hash;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.upscale.SoftnessGuess;
import awlsmith.footage.Codec;
import awlsmith.footage.PictureSet;
import awlsmith.trainer.pairs.Softened;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import java.util.stream.Collectors;

/** Finds the numbers by which {@link SoftnessGuess} guesses, by least squares on photographs reduced in known ways. */
public final class SoftnessFit {
    private static final int WIDE = 640;
    private static final int HIGH = 480;
    private static final int DRAWN = 5;
    private static final double RIDGE = 0.3;

    private record Example(double[] features, double softness) {}

    private SoftnessFit() {}

    /** What was found, and how far it is off on pictures that were held out, for reading. */
    public static String found(PictureSet pictures, long seed) {
        List<Example> learn = examples(pictures.learn(), seed);
        double[] numbers = fitted(learn);
        return "numbers: "
                + Arrays.stream(numbers)
                        .mapToObj(v -> String.format(java.util.Locale.ROOT, "%.4f", v))
                        .collect(Collectors.joining(", "))
                + "\n" + learn.size() + " examples, off by " + off(learn, numbers) + "; held out: off by "
                + off(examples(pictures.check(), seed + 1), numbers);
    }

    private static List<Example> examples(List<Plane> pictures, long seed) {
        var random = new SplittableRandom(seed);
        var all = new ArrayList<Example>();
        for (Plane picture : pictures) {
            int width = Math.min(WIDE, picture.width()) / 4 * 4;
            int height = Math.min(HIGH, picture.height()) / 4 * 4;
            if (width < 200 || height < 200) {
                continue;
            }
            for (int i = 0; i < DRAWN; i++) {
                Plane sharp = picture.window(new Region(
                        random.nextInt(picture.width() - width + 1),
                        random.nextInt(picture.height() - height + 1),
                        width,
                        height));
                double softness = i == 0 ? 0 : i == 1 ? 0.5 : random.nextDouble();
                double[] features = SoftnessGuess.features(worn(
                        Softened.reduced(new Plane(sharp.packed(), 0, width, height, width), 2, softness), random));
                if (features.length > 0) {
                    all.add(new Example(features, softness));
                }
            }
        }
        return all;
    }

    private static Plane worn(Plane small, SplittableRandom random) {
        int fault = random.nextInt(3);
        if (fault == 0) {
            double sigma = 0.5 * Math.pow(5, random.nextDouble()) / 255;
            for (int i = 0; i < small.data().length; i++) {
                small.data()[i] += (float) (sigma * random.nextGaussian());
            }
        }
        return fault == 1
                ? Codec.through(List.of(small), "mjpeg -q:v " + (2 + random.nextInt(4)))
                        .getFirst()
                : small;
    }

    private static double[] fitted(List<Example> examples) {
        int n = SoftnessGuess.row(examples.getFirst().features()).length;
        double[] products = new double[n * n];
        double[] answers = new double[n];
        for (Example example : examples) {
            double[] row = SoftnessGuess.row(example.features());
            for (int i = 0; i < n; i++) {
                for (int j = 0; j < n; j++) {
                    products[i * n + j] += row[i] * row[j];
                }
                answers[i] += row[i] * example.softness();
            }
        }
        return LeastSquares.solve(products, answers, n, 1, new double[n], RIDGE);
    }

    private static String off(List<Example> examples, double[] numbers) {
        double[] off = examples.stream()
                .mapToDouble(example -> {
                    double[] row = SoftnessGuess.row(example.features());
                    double sum = 0;
                    for (int i = 0; i < row.length; i++) {
                        sum += numbers[i] * row[i];
                    }
                    return Math.abs(Math.clamp(sum, 0, 1) - example.softness());
                })
                .sorted()
                .toArray();
        return String.format(
                java.util.Locale.ROOT,
                "%.3f in the middle, %.3f for nine of ten",
                off[off.length / 2],
                off[off.length * 9 / 10]);
    }
}
