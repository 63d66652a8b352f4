package awlsmith.core.upscale;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import java.util.Optional;

/**
 * How soft a picture is, as a small net sees it: of every sample it tells {@link Softness} 0 to 1, and the mean is taken of those where anything
 * is to be seen.
 */
public final class SoftnessGuess {
    /** Samples beyond which only the middle of a picture is looked at. */
    private static final int WIDE = 512;

    private static final int HIGH = 384;
    /** Steps of light from which on a sample counts in full. */
    private static final float STEEP = 0.05f;
    /** Share of a picture that must count, lest one edge speak for all. */
    private static final double ENOUGH = 0.01;

    private SoftnessGuess() {}

    /** Whether the model for it is at hand. */
    public static boolean isThere() {
        return card().isPresent();
    }

    private static Optional<ModelCard> card() {
        return Models.of(ModelCard.Job.SOFTNESS);
    }

    /**
     * @param luma 0..1
     * @return 0..1; NaN where there is no model, or too little to be seen
     */
    public static double of(Plane luma) {
        return card().map(card -> of(luma, Models.open(card, NetForm.FLOAT))).orElse(Double.NaN);
    }

    /** @param net reads one plane and gives one as large */
    public static double of(Plane luma, NetRunner net) {
        int width = Math.min(WIDE, luma.width()) & -2;
        int height = Math.min(HIGH, luma.height()) & -2;
        if (width < 32 || height < 32) {
            return Double.NaN;
        }
        Plane seen = luma.window(new Region((luma.width() - width) / 2, (luma.height() - height) / 2, width, height));
        Plane told = Plane.of(width, height);
        net.run(java.util.List.of(seen), told);
        double sum = 0;
        double weights = 0;
        for (int y = 1; y < height - 1; y++) {
            for (int x = 1; x < width - 1; x++) {
                float steps = Math.abs(seen.at(x + 1, y) - seen.at(x - 1, y))
                        + Math.abs(seen.at(x, y + 1) - seen.at(x, y - 1));
                float weight = Math.min(1, steps / STEEP);
                weight *= weight;
                sum += weight * told.at(x, y);
                weights += weight;
            }
        }
        return weights < ENOUGH * width * height ? Double.NaN : Math.clamp(sum / weights, 0, 1);
    }
}
