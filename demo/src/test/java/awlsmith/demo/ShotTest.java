package awlsmith.demo;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Work;
import awlsmith.demo.scene.CrossingShot;
import awlsmith.demo.scene.DeckWalkShot;
import awlsmith.demo.scene.Shot;
import awlsmith.demo.scene.ShotRenderer;
import awlsmith.demo.scene.WinchShot;
import java.util.Arrays;
import org.junit.jupiter.api.Test;

/** The scene is the same every time, moves, has detail, and fits its range. */
class ShotTest {
    private static final Format FORMAT = new Format(
            320,
            180,
            Chroma.S444,
            Siting.LEFT,
            8,
            new ColourTags(
                    ColourTags.Matrix.BT709,
                    ColourTags.Range.LIMITED,
                    ColourTags.Transfer.BT709,
                    ColourTags.Primaries.BT709),
            Rational.ONE);

    private static float[] luma(Shot shot, String seconds) {
        Frame frame = new ShotRenderer(shot, FORMAT, new PlanePool(0), Work.alone()).frame(0, Rational.parse(seconds));
        return frame.plane(0).packed();
    }

    @Test
    void framesAreTheSameFromRunToRunAndEachMomentDiffers() {
        for (Shot shot : new Shot[] {new WinchShot(), new DeckWalkShot(), new CrossingShot()}) {
            float[] once = luma(shot, "1.5");
            assertThat(luma(shot, "1.5")).isEqualTo(once);
            float[] later = luma(shot, "1.54");
            assertThat(later).isNotEqualTo(once);
            double step = 0;
            for (int y = 0; y < 180; y++) {
                for (int x = 1; x < 320; x++) {
                    step += Math.abs(once[y * 320 + x] - once[y * 320 + x - 1]);
                }
            }
            assertThat(step / once.length).as("mean step between neighbours").isGreaterThan(0.015);
            assertThat(Arrays.stream(toDoubles(once)).min().orElseThrow()).isGreaterThanOrEqualTo(0);
            assertThat(Arrays.stream(toDoubles(once)).max().orElseThrow()).isBetween(0.6, 1.0);
        }
    }

    @Test
    void everyFootageHasItsTruthAndFitsTheNamesOfTheArchive() {
        var all = new FootageMaker(java.nio.file.Path.of("x"), new PlanePool(0), Work.alone()).all();
        assertThat(all)
                .extracting(Footage::title)
                .containsExactly(
                        "Safety film",
                        "Winch inspection",
                        "Faded reel",
                        "Moving postcard",
                        "Deck walk",
                        "Lamp night",
                        "Regatta",
                        "Tape crossing",
                        "Cut short");
        assertThat(all).allSatisfy(f -> assertThat(f.truth().toString()).contains("truth"));
    }

    private static double[] toDoubles(float[] values) {
        double[] out = new double[values.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = values[i];
        }
        return out;
    }
}
