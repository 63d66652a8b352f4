package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.steady.CameraPath;
import awlsmith.core.steady.SteadyStage;
import java.util.List;

/** Holds the picture steady against a shaking hand: shifts alone, no turns. */
final class SteadyStep implements StepKind {
    private static final Analysis<CameraPath> FOLLOW = new FollowCamera();
    private static final int LEAST = 32;

    private static final Param.Real OVER = new Param.Real(
            "over",
            "Calmed over",
            "s",
            0.1,
            5,
            1.0,
            "movements quicker than this are taken out; slower ones, as when panning, stay");
    private static final Param.Whole RIM = new Param.Whole(
            "rim", "Rim", "%", 1, 20, 6L, "of each side that is cut off, and so as far as a frame can be moved");

    @Override
    public String id() {
        return "steady";
    }

    @Override
    public String name() {
        return "Steady";
    }

    @Override
    public String purpose() {
        return "takes the shake of a hand out of the picture, by shifting frames within a rim that is cut off";
    }

    @Override
    public StepGroup group() {
        return StepGroup.MOTION;
    }

    @Override
    public List<Param> params() {
        return List.of(OVER, RIM);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        Format input = given.format();
        List<Problem> woven = WholeFrames.check(given, "moved, its fields would change places");
        if (!woven.isEmpty()) {
            return woven;
        }
        return Math.min(input.width(), input.height()) < LEAST
                ? List.of(Problem.at(
                        "",
                        "the picture here is " + input.width() + "x" + input.height() + "; at least " + LEAST
                                + " pixels on each side are needed"))
                : List.of();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format input = given.format();
        double share = settings.whole(RIM).orElseThrow() / 100.0;
        int rimX = whole(share * input.width(), input.chroma().stepX());
        int rimY = whole(share * input.height(), input.chroma().stepY());
        double[][] moves = given.finding(FOLLOW)
                .map(path -> path.corrections(
                        settings.real(OVER).orElseThrow() * given.times().mean() / 2, share))
                .orElse(new double[2][0]);
        return List.of(new SteadyStage(
                input, rimX, rimY, samples(moves[0], input.width(), rimX), samples(moves[1], input.height(), rimY)));
    }

    private static int whole(double samples, int step) {
        return Math.max(step, (int) Math.round(samples / step) * step);
    }

    private static double[] samples(double[] shares, int side, int rim) {
        double[] samples = new double[shares.length];
        for (int n = 0; n < samples.length; n++) {
            samples[n] = Math.clamp(shares[n] * side, -rim, rim);
        }
        return samples;
    }

    @Override
    public String summary(Settings settings, Given given) {
        return "over " + Words.number(settings.real(OVER).orElseThrow()) + " s, "
                + settings.whole(RIM).orElseThrow() + " % rim";
    }
}
