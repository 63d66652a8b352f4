package awlsmith.core.recipe;

import awlsmith.core.colour.PointCurve;
import awlsmith.core.colour.Space;
import awlsmith.core.colour.TransferCurve;
import awlsmith.core.light.CurveStage;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** More or less light, and light of another colour, as if it had been so before the lens; in linear light. */
final class ExposureStep implements StepKind {
    private static final Param.Real STOPS = new Param.Real(
            "stops", "Light", "stops", -6, 6, 0.0, "one more doubles the light, one less halves it", true);
    private static final Param.Tint NEUTRAL = new Param.Tint(
            "neutral", "Neutral", null, "a colour of the picture that should be grey; the light is balanced for it");

    /** Source: ITU-R BT.709-6 item 3.2; shares of light, which the primaries of most footage come near. */
    private static final double[] SHARES = {0.2126, 0.7152, 0.0722};
    /** Below this a colour is too dark to tell what light fell on it. */
    private static final int DARK = 16;

    @Override
    public String id() {
        return "exposure";
    }

    @Override
    public String name() {
        return "Exposure";
    }

    @Override
    public String purpose() {
        return "gives more or less light, or takes a cast out of it, as if before the lens";
    }

    @Override
    public StepGroup group() {
        return StepGroup.COLOUR;
    }

    @Override
    public List<Param> params() {
        return List.of(STOPS, NEUTRAL, SHARE);
    }

    @Override
    public Space space(Settings settings) {
        return Space.LIGHT;
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return settings.tint(NEUTRAL)
                .filter(colour -> Math.min(colour.red(), Math.min(colour.green(), colour.blue())) < DARK)
                .map(
                        colour -> List.of(
                                Problem.at(
                                        "neutral",
                                        colour
                                                + " is too dark in one of red, green and blue to balance light by it; pick a brighter grey")))
                .orElse(List.of());
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format format = given.format();
        Points stops = settings.keyed(STOPS).orElseThrow();
        double[] balance = balance(settings, format);
        if (stops.list().size() == 1) {
            return List.of(CurveStage.of(format, curves(stops.straight(0), balance)));
        }
        return List.of(CurveStage.over(format, seconds -> curves(stops.straight(seconds), balance)));
    }

    private static PointCurve[] curves(double stops, double[] balance) {
        var curves = new PointCurve[balance.length];
        for (int p = 0; p < curves.length; p++) {
            double gain = Math.pow(2, stops) * balance[p];
            curves[p] = PointCurve.of(light -> light * gain);
        }
        return curves;
    }

    /** What each plane is multiplied by, so that the colour told becomes grey and is as light as before. */
    private static double[] balance(Settings settings, Format format) {
        if (format.chroma() != Chroma.RGB || settings.tint(NEUTRAL).isEmpty()) {
            return new double[] {1};
        }
        var curve = TransferCurve.of(format);
        double[] rgb = settings.tint(NEUTRAL).get().rgb();
        double grey = 0;
        for (int p = 0; p < 3; p++) {
            rgb[p] = curve.toLight(rgb[p]);
            grey += SHARES[p] * rgb[p];
        }
        return new double[] {grey / rgb[0], grey / rgb[1], grey / rgb[2]};
    }

    @Override
    public String summary(Settings settings, Given given) {
        Points stops = settings.keyed(STOPS).orElseThrow();
        String light = (stops.list().getFirst().y() >= 0 ? "+" : "") + LevelsStep.span(stops) + " stops";
        return settings.tint(NEUTRAL)
                .map(colour -> light + ", neutral " + colour)
                .orElse(light);
    }
}
