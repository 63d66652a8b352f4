package awlsmith.nets;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.detail.Bells;
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
import awlsmith.core.upscale.SoftnessGuess;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** Enlarged by the shipped model and reduced again: softer pictures are told to be softer. */
class SoftnessGuessTest {
    private static final int WIDTH = 480;
    private static final int HEIGHT = 360;

    /** Discs of many sizes and lights, with edges a sample wide: shapes on shapes, as pictures have them. */
    private static Plane scene() {
        var random = new SplittableRandom(11);
        Plane p = Plane.of(WIDTH, HEIGHT).fill(0.5f);
        for (int i = 0; i < 700; i++) {
            double cx = WIDTH * random.nextDouble();
            double cy = HEIGHT * random.nextDouble();
            double radius = 2 + 40 * Math.pow(random.nextDouble(), 3);
            float light = (float) (0.1 + 0.8 * random.nextDouble());
            for (int y = (int) Math.max(0, cy - radius - 1); y < Math.min(HEIGHT, cy + radius + 2); y++) {
                for (int x = (int) Math.max(0, cx - radius - 1); x < Math.min(WIDTH, cx + radius + 2); x++) {
                    double inside = Math.clamp(radius + 0.5 - Math.hypot(x - cx, y - cy), 0, 1);
                    p.set(x, y, (float) (p.at(x, y) + inside * (light - p.at(x, y))));
                }
            }
        }
        return p;
    }

    private static Plane reduced(Plane large, double blur, Kernel kernel) {
        Plane from = large;
        if (blur > 0) {
            from = Plane.of(WIDTH, HEIGHT);
            new Bells(blur).blur(large, Region.whole(WIDTH, HEIGHT), from, new PlanePool(0), Work.alone());
        }
        Format format = new Format(WIDTH, HEIGHT, Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        var frame = new Frame(format, format.whole(), List.of(from), 0, Rational.ZERO);
        var stage = new EnlargeStage(format, format.withSize(WIDTH / 2, HEIGHT / 2, Rational.ONE), kernel);
        Plane small = stage.treat(d -> frame, stage.output().whole(), new PlanePool(0), Work.alone())
                .plane(0);
        for (int i = 0; i < small.data().length; i++) {
            small.data()[i] = Math.round(255 * small.data()[i]) / 255f;
        }
        return small;
    }

    @Test
    void softerIsToldToBeSofter() {
        Plane scene = scene();
        double sharp = SoftnessGuess.of(reduced(scene, 0, Kernel.AREA));
        double usual = SoftnessGuess.of(reduced(scene, 0, Kernel.CATMULL_ROM));
        double soft = SoftnessGuess.of(reduced(scene, 0.9, Kernel.CATMULL_ROM));
        assertThat(sharp).isLessThan(usual);
        assertThat(usual).isBetween(0.3, 0.7);
        assertThat(soft).isGreaterThan(0.72);
        assertThat(SoftnessGuess.isThere()).isTrue();
    }

    @Test
    void nothingIsSaidOfWhatHasNothingToBeSeen() {
        assertThat(SoftnessGuess.of(Plane.of(200, 200).fill(0.3f))).isNaN();
        assertThat(SoftnessGuess.of(Plane.of(40, 200))).isNaN();
    }
}
