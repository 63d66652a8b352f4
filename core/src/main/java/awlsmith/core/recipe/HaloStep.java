package awlsmith.core.recipe;

import awlsmith.core.detail.DeblurStage;
import awlsmith.core.detail.HaloStage;
import awlsmith.core.detail.PointSpread;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Takes the bright and dark seams beside edges away. */
final class HaloStep implements StepKind {
    private static final String SEAMS = "seams";
    private static final String MASK = "mask";
    /** What undoing a mask takes for noise, of 255: no frequency is raised by it, so that it hardly matters. */
    private static final double NOISE = 0.5;

    private static final Param.Choice KIND = new Param.Choice(
            "kind",
            "Kind",
            List.of(
                    new Param.Choice.Option(SEAMS, "Seams", "found and taken away one by one; all else stays as it is"),
                    new Param.Choice.Option(
                            MASK,
                            "Mask",
                            "a sharpening of known radius and amount is undone everywhere, in texture too")),
            SEAMS,
            "how it is done");
    private static final Param.Real RADIUS = new Param.Real(
            "radius",
            "Radius",
            "px",
            0.3,
            4,
            0.8,
            "of the mask that is undone: cameras sharpen by less than one, editors by more");
    private static final Param.Whole AMOUNT = new Param.Whole(
            "amount", "Amount", "%", 10, 300, 80L, "of the mask that is undone; too much leaves the picture soft");
    private static final Param.Whole WIDTH = new Param.Whole(
            "width",
            "Width",
            "px",
            1,
            8,
            3L,
            "how wide the seams are at most; wider ones need more even surface beside them");

    @Override
    public String id() {
        return "haloes";
    }

    @Override
    public String name() {
        return "Take haloes away";
    }

    @Override
    public String purpose() {
        return "takes away the bright and dark seams that a camera's sharpening left beside edges";
    }

    @Override
    public StepGroup group() {
        return StepGroup.CLEAN;
    }

    @Override
    public List<Param> params() {
        return List.of(KIND, WIDTH, RADIUS, AMOUNT, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        List<Problem> woven = WholeFrames.check(given, "its lines are of two times");
        if (!woven.isEmpty()) {
            return woven;
        }
        if (isMask(settings) && settings.has("width")) {
            return List.of(Problem.at("width", "only seams have a width; a mask has a radius"));
        }
        for (String key : List.of("radius", "amount")) {
            if (!isMask(settings) && settings.has(key)) {
                return List.of(Problem.at(key, "only a mask has this; choose it, or leave this out"));
            }
        }
        return List.of();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        if (isMask(settings)) {
            return List.of(new DeblurStage(given.format(), mask(settings), NOISE, 0));
        }
        return List.of(new HaloStage(
                given.format(), Math.toIntExact(settings.whole(WIDTH).orElseThrow())));
    }

    private static boolean isMask(Settings settings) {
        return settings.choice(KIND).orElseThrow().equals(MASK);
    }

    private static PointSpread.Sharpened mask(Settings settings) {
        return new PointSpread.Sharpened(
                settings.real(RADIUS).orElseThrow(), settings.whole(AMOUNT).orElseThrow() / 100.0);
    }

    @Override
    public String summary(Settings settings, Given given) {
        if (isMask(settings)) {
            return "mask of " + Words.number(settings.real(RADIUS).orElseThrow()) + " px, "
                    + settings.whole(AMOUNT).orElseThrow() + " %";
        }
        return "up to " + settings.whole(WIDTH).orElseThrow() + " px wide";
    }
}
