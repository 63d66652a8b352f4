package awlsmith.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class SpaceTest {
    private static final PlanePool POOL = new PlanePool(0);
    private static final Format FILM =
            new Format(64, 48, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);

    private static Frame flat(Format format, float... values) {
        Frame frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, POOL);
        for (int p = 0; p < frame.planes().size(); p++) {
            frame.plane(p).fill(values[p]);
        }
        return frame;
    }

    private static Frame treated(Frame in, String... steps) {
        Frame now = in;
        var recipe = new Recipe(Arrays.stream(steps).map(Step::parse).toList());
        for (Stage stage : recipe.chain(in.format()).stages()) {
            Frame from = now;
            now = stage.treat(distance -> from, stage.output().whole(), POOL, Work.alone());
        }
        return now;
    }

    /** Values worked from the formulas of the standards that TransferCurve names; PQ's of ITU-R BT.2100-2 at 100 cd/m2
     * and HLG's knee; BT.709's with the finer constants of BT.2020-2. */
    @ParameterizedTest
    @CsvSource({
        "BT709, 0.018, 0.081",
        "BT709, 1, 1",
        "BT709, 0.5, 0.705436",
        "SRGB, 0.0031308, 0.0404499",
        "SRGB, 0.2140411, 0.5",
        "SMPTE240M, 0.5, 0.702156",
        "GAMMA22, 0.2176376, 0.5",
        "GAMMA28, 0.1435873, 0.5",
        "LOG100, 0.1, 0.5",
        "LOG316, 0.1, 0.6",
        "PQ, 0.01, 0.508078",
        "HLG, 0.0833333, 0.5",
        "HLG, 1, 1",
        "SMPTE428, 0.9165553, 0.935172",
        "SMPTE428, 1.0910417, 1"
    })
    void transferCurvesGoThroughTheStandardsPoints(TransferCurve curve, double light, double coded) {
        assertThat(curve.toCoded(light)).isCloseTo(coded, within(2e-5));
        assertThat(curve.toLight(coded)).isCloseTo(light, within(2e-5));
    }

    /** The table of a curve is as exact as floats are, also where it is steepest. */
    @ParameterizedTest
    @EnumSource(TransferCurve.class)
    void tabledCurvesAreExactAndGoBack(TransferCurve curve) {
        var to = PointCurve.of(curve.encoding());
        var back = PointCurve.of(curve.decoding());
        // below this the logarithmic ones are black
        float least = curve.name().startsWith("LOG") ? 0.02f : 0.0002f;
        for (float light = least; light < 1; light *= 1.037f) {
            assertThat((double) to.at(light)).isCloseTo(curve.toCoded(light), within(2e-5));
            assertThat((double) back.at(to.at(light))).isCloseTo(light, within(2e-5 + 1e-3 * light * light));
        }
        assertThat(to.at(0f)).isZero();
    }

    /** To light and to R'G'B' and back, twice: what is asked for happens in each space, and a flat picture comes back as it was coded. */
    @Test
    void aRecipeChangesItsWorkingSpaceTwice() {
        var recipe = new Recipe(Arrays.asList(
                Step.parse("exposure stops=1"),
                Step.parse("enlarge factor=2 kernel=bilinear"),
                Step.parse("levels gamma=2"),
                Step.parse("exposure stops=-1")));
        var chain = recipe.chain(FILM);
        assertThat(chain.output()).isEqualTo(FILM.withSize(128, 96, Rational.ONE));
        // there, the step, and back; then enlarging; there, the step, to light at once, the step, and back
        assertThat(chain.stages()).hasSize((3 + 1 + 3) + 1 + (2 + 1 + 1 + 1 + 3));
        Frame out = treated(
                flat(FILM, 0.4f, 0, 0),
                "exposure stops=1",
                "enlarge factor=2 kernel=bilinear",
                "levels gamma=2",
                "exposure stops=-1");
        double lit = TransferCurve.BT709.toCoded(2 * TransferCurve.BT709.toLight(0.4));
        double wanted = TransferCurve.BT709.toCoded(TransferCurve.BT709.toLight(Math.sqrt(lit)) / 2);
        assertThat((double) out.plane(0).at(60, 40)).isCloseTo(wanted, within(1e-4));
        assertThat((double) out.plane(1).at(30, 20)).isCloseTo(0, within(1e-5));
        assertThat(out.format().chroma()).isEqualTo(Chroma.S420);
    }

    /** Excursions beyond black and white pass through curves and come back. */
    @Test
    void nothingClipsOnTheWay() {
        for (float v : new float[] {-0.3f, -0.02f, 1.2f, 1.45f}) {
            Frame out = treated(flat(FILM, v, 0.1f, -0.1f), "exposure stops=2", "exposure stops=-2", "levels gamma=1");
            assertThat(out.plane(0).at(20, 20)).isCloseTo(v, within(2e-4f));
            assertThat(out.plane(1).at(10, 10)).isCloseTo(0.1f, within(2e-4f));
        }
    }

    /** One stop is twice the light, whatever curve the pictures are coded by (the meaning of the word, common practice). */
    @ParameterizedTest
    @CsvSource({"BT709", "IEC61966_2_1", "SMPTE2084", "LINEAR", "UNSPECIFIED"})
    void aStopIsTwiceTheLight(ColourTags.Transfer transfer) {
        Format format = FILM.withColour(new ColourTags(
                ColourTags.Matrix.BT709, ColourTags.Range.LIMITED, transfer, ColourTags.Primaries.BT709));
        var curve = TransferCurve.of(format);
        Frame out = treated(flat(format, 0.3f, 0, 0), "exposure stops=1");
        assertThat(curve.toLight(out.plane(0).at(9, 9))).isCloseTo(2 * curve.toLight(0.3), within(1e-4));
    }

    @Test
    void theColourToldBecomesGrey() {
        Format format = FILM.withChroma(Chroma.RGB);
        Frame out = treated(flat(format, 0x90 / 255f, 0x80 / 255f, 0x60 / 255f), "exposure neutral=#908060");
        float grey = out.plane(1).at(5, 5);
        assertThat(out.plane(0).at(5, 5)).isCloseTo(grey, within(1e-4f));
        assertThat(out.plane(2).at(5, 5)).isCloseTo(grey, within(1e-4f));
        assertThat(grey).isBetween(0x7d / 255f, 0x86 / 255f);
    }

    /** A share of a step is that share of the way, in the space that the step works in. */
    @Test
    void aStepIsDoneInPart() {
        Frame in = flat(FILM, 0.4f, 0.1f, 0);
        float whole = treated(in, "levels gamma=2").plane(0).at(5, 5);
        float none = treated(in, "levels gamma=2 share=0").plane(0).at(5, 5);
        float some = treated(in, "levels gamma=2 share=25").plane(0).at(5, 5);
        assertThat(none).isCloseTo(0.4f, within(1e-5f));
        assertThat(some).isCloseTo(0.4f + 0.25f * (whole - 0.4f), within(1e-5f));
        var light = TransferCurve.BT709;
        double lit =
                light.toLight(treated(in, "exposure stops=1 share=50").plane(0).at(5, 5));
        assertThat(lit).isCloseTo(1.5 * light.toLight(0.4), within(0.02));
    }
}
