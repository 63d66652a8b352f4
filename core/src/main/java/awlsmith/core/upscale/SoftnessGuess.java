package awlsmith.core.upscale;

import awlsmith.core.detail.Bells;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import java.util.List;
import java.util.Optional;

/**
 * Guesses how soft a picture is, as {@link Softness} has it: it is enlarged several times by a model that is told one softness after the other,
 * and each time reduced again as a picture of that softness would have been. Told too much, what comes back is not the picture that went in, and
 * how fast that grows from one to the next tells where the picture belongs.
 *
 * <p>The rule is ours; its numbers were found by the trainer (`fit-softness`) on photographs reduced in known ways, a third with noise, a third
 * through JPEG.
 */
public final class SoftnessGuess {
    /** Softness told, one after the other. */
    static final double[] TOLD = {0, 0.25, 0.5, 2 / 3.0, 0.79, 0.92, 1};

    /** Blur of the enlarged picture that the greatest softness stands for, in its samples. */
    private static final double MOST_BLUR = 1.2;
    /** Samples beyond which only the middle of a picture is looked at. */
    private static final int WIDE = 320;

    private static final int HIGH = 240;
    private static final int LEAST = 48;
    /** Edge samples that are not compared. */
    private static final int BORDER = 8;
    /** Added to what comes back wrong, in code values: less than that is rounding. */
    private static final double LITTLE = 0.03;
    /** Deviation of the picture, 0..1, below which there is nothing to be seen. */
    private static final double EVEN = 4 / 255.0;

    private static final double USUAL_FROM = 0.25;
    private static final double USUAL_TO = 0.56;

    /** Of the features' values and of their squares, and a number by itself. */
    private static final double[] FOUND = {
        -0.0617, 0.7338, -0.1210, 0.1264, 0.1809, -0.9787, 0.1203, 0.0300, 0.1034, 0.5832, 0.5175, -0.0382, -0.3364,
        0.5915, 0.5958
    };

    private SoftnessGuess() {}

    /** Whether telling a guess is better than telling nothing: what is about as usual the model knows by itself. */
    public static boolean isWorthTelling(double guess) {
        return guess <= USUAL_FROM || guess >= USUAL_TO;
    }

    /** Whether the model for it is at hand. */
    public static boolean isThere() {
        return card().isPresent();
    }

    private static Optional<ModelCard> card() {
        return Models.find("photographic", ModelCard.Mode.QUALITY)
                .filter(ModelCard::told)
                .filter(card -> card.factor() == 2);
    }

    /**
     * @param luma 0..1
     * @return 0..1; NaN where there is no model, or too little to be seen
     */
    public static double of(Plane luma) {
        double[] features = features(luma);
        if (features.length == 0) {
            return Double.NaN;
        }
        double[] row = row(features);
        double sum = 0;
        for (int i = 0; i < row.length; i++) {
            sum += FOUND[i] * row[i];
        }
        return Math.clamp(sum, 0, 1);
    }

    /** What the numbers that were found are multiplied with: the features, their squares, and 1. */
    public static double[] row(double[] features) {
        int count = features.length;
        double[] row = new double[2 * count + 1];
        for (int i = 0; i < count; i++) {
            row[i] = features[i];
            row[count + i] = features[i] * features[i];
        }
        row[2 * count] = 1;
        return row;
    }

    /**
     * How wrong what comes back is for each softness told: logarithms less their mean, so that contrast does not count.
     *
     * @return empty where nothing can be told
     */
    public static double[] features(Plane luma) {
        int width = Math.min(WIDE, luma.width()) & -2;
        int height = Math.min(HIGH, luma.height()) & -2;
        Optional<ModelCard> card = card();
        if (card.isEmpty() || width < LEAST || height < LEAST) {
            return new double[0];
        }
        Plane window = luma.window(new Region((luma.width() - width) / 2, (luma.height() - height) / 2, width, height));
        var seen = new Plane(window.packed(), 0, width, height, width);
        if (deviation(seen) < EVEN) {
            return new double[0];
        }
        double[] features = new double[TOLD.length];
        double mean = 0;
        for (int i = 0; i < features.length; i++) {
            features[i] = Math.log(255 * wrong(seen, card.get(), TOLD[i]) + LITTLE);
            mean += features[i] / features.length;
        }
        for (int i = 0; i < features.length; i++) {
            features[i] -= mean;
        }
        return features;
    }

    private static double wrong(Plane seen, ModelCard card, double told) {
        Format format = format(seen.width(), seen.height());
        var stage = new UpscaleStage(format, card, Models.open(card, NetForm.FLOAT), 1, true, Softness.of(told));
        Plane back = reduced(treated(stage, seen), told);
        double squares = 0;
        int count = 0;
        for (int y = BORDER; y < seen.height() - BORDER; y++) {
            for (int x = BORDER; x < seen.width() - BORDER; x++) {
                double d = back.at(x, y) - seen.at(x, y);
                squares += d * d;
                count++;
            }
        }
        return Math.sqrt(squares / count);
    }

    /** Reduced by 2 as a picture of a softness is: see {@link Softness}. */
    private static Plane reduced(Plane large, double softness) {
        Format from = format(large.width(), large.height());
        Format to = format(large.width() / 2, large.height() / 2);
        Plane cubic = treated(
                new EnlargeStage(from, to, Kernel.CATMULL_ROM),
                softness > 0.5 ? blurred(large, MOST_BLUR * (2 * softness - 1)) : large);
        if (softness >= 0.5) {
            return cubic;
        }
        Plane area = treated(new EnlargeStage(from, to, Kernel.AREA), large);
        float share = (float) (2 * softness);
        for (int i = 0; i < area.data().length; i++) {
            area.data()[i] += share * (cubic.data()[i] - area.data()[i]);
        }
        return area;
    }

    private static Plane blurred(Plane in, double sigma) {
        Plane out = Plane.of(in.width(), in.height());
        new Bells(sigma).blur(in, Region.whole(in.width(), in.height()), out, new PlanePool(0), Work.alone());
        return out;
    }

    private static Plane treated(awlsmith.core.pipeline.Stage stage, Plane plane) {
        Format format = format(plane.width(), plane.height());
        var frame = new Frame(format, format.whole(), List.of(plane), 0, Rational.ZERO);
        return stage.treat(distance -> frame, stage.output().whole(), new PlanePool(0), Work.alone())
                .plane(0);
    }

    private static Format format(int width, int height) {
        return new Format(width, height, Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    private static double deviation(Plane p) {
        double sum = 0;
        double squares = 0;
        for (float v : p.data()) {
            sum += v;
            squares += (double) v * v;
        }
        double mean = sum / p.data().length;
        return Math.sqrt(Math.max(0, squares / p.data().length - mean * mean));
    }
}
