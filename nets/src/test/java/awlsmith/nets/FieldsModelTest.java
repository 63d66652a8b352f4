package awlsmith.nets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.fields.DeinterlaceStage;
import awlsmith.core.measure.Psnr;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;

/** The shipped net for fields at work. */
class FieldsModelTest {
    private static final Format FORMAT =
            new Format(160, 144, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    private static final ModelCard CARD = Models.all().stream()
            .filter(card -> card.job() == ModelCard.Job.FIELDS)
            .findFirst()
            .orElseThrow();

    private final PlanePool pool = new PlanePool(0);

    /** Detail of many directions; t in fields. */
    private static double scene(double speed, double t, int x, int y) {
        double u = x + speed * t;
        double v = y + 0.4 * speed * t;
        return 0.5
                + 0.22 * Math.tanh(4 * Math.sin(u * 0.23 + v * 0.31))
                + 0.15 * Math.tanh(3 * Math.sin(u * 0.11 - v * 0.27))
                + 0.06 * Math.sin(v * 0.9 + 2 * Math.sin(u * 0.05));
    }

    private static Frame woven(double speed, int frame) {
        Frame out = Frame.blank(FORMAT, FORMAT.whole(), frame, new Rational(frame, 25), new PlanePool(0));
        for (int p = 0; p < 3; p++) {
            Plane plane = out.plane(p);
            for (int y = 0; y < plane.height(); y++) {
                for (int x = 0; x < plane.width(); x++) {
                    double light = scene(speed, 2 * frame + y % 2, x, y);
                    plane.set(x, y, (float) (p == 0 ? light : light - 0.5));
                }
            }
        }
        return out;
    }

    private Frame treated(Stage stage, double speed, int field, Region wanted, Work work) {
        int frame = field / 2;
        return stage.treat(
                new Stage.Neighbours() {
                    @Override
                    public Frame at(int distance) {
                        return woven(speed, frame + distance);
                    }

                    @Override
                    public long number() {
                        return field;
                    }
                },
                wanted,
                pool,
                work);
    }

    private static Stage net() {
        return new DeinterlaceStage(FORMAT, Scan.TOP_FIRST, true, CARD, Models.open(CARD));
    }

    private double psnr(Stage stage, double speed, int field) {
        Plane truth = Plane.of(FORMAT.width(), FORMAT.height());
        for (int y = 0; y < truth.height(); y++) {
            for (int x = 0; x < truth.width(); x++) {
                truth.set(x, y, (float) scene(speed, field, x, y));
            }
        }
        return Psnr.of(
                treated(stage, speed, field, FORMAT.whole(), Work.alone()).plane(0), truth, 8);
    }

    /** Against the rule it corrects, on motion of whole and broken numbers of samples; upper and lower fields alike. */
    @Test
    void whatMovesComesOutNearerToTheTruth() {
        var rule = new DeinterlaceStage(FORMAT, Scan.TOP_FIRST, true);
        for (double speed : new double[] {1.5, 3.2, 5}) {
            for (int field : new int[] {8, 9}) {
                assertThat(psnr(net(), speed, field))
                        .as("%.1f samples a field, field %d", speed, field)
                        .isGreaterThan(psnr(rule, speed, field) + 0.5);
            }
        }
    }

    @Test
    void whatStandsStillIsHardlyTouched() {
        assertThat(psnr(net(), 0, 8)).isGreaterThan(48);
    }

    /** What a still shows must be what the render makes, to the bit. */
    @Test
    void aRegionIsCutFromTheWhole() {
        Frame whole = treated(net(), 1.5, 9, FORMAT.whole(), Work.alone());
        Region part = new Region(30, 40, 70, 60);
        Region needs = net().needs(part);
        assertThat(needs.contains(part)).isTrue();
        try (var threads = new ForkJoinPool(3)) {
            Frame some = treated(net(), 1.5, 9, part, new Work(threads, 3, new Cancel()));
            Frame cut = whole.cut(part);
            for (int p = 0; p < 3; p++) {
                assertThat(some.plane(p).packed()).containsExactly(cut.plane(p).packed(), within(0f));
            }
        }
    }
}
