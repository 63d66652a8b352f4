package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.plan.TargetSize;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import java.util.List;

/** Brings footage that was enlarged before back to the size it was made at, so that what enlarges it sees true pixels. */
final class TrueSizeStep implements StepKind {
    /** Smaller than this no picture can be looked at. */
    private static final int LEAST_SIDE = 8;

    private static final Param.Real FACTOR = new Param.Real(
            "factor",
            "Enlarged",
            "x",
            1.05,
            8,
            2.0,
            "times it was made larger before; the picture becomes so many times smaller");

    @Override
    public String id() {
        return "true-size";
    }

    @Override
    public String name() {
        return "True size";
    }

    @Override
    public String purpose() {
        return "brings footage that was enlarged before back to the size it was made at";
    }

    @Override
    public StepGroup group() {
        return StepGroup.PREPARE;
    }

    @Override
    public List<Param> params() {
        return List.of(FACTOR);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        List<Problem> woven = WholeFrames.check(given, "its fields would be mixed");
        if (!woven.isEmpty()) {
            return woven;
        }
        Format input = given.format();
        Format out = small(settings, input);
        if (Math.min(out.width(), out.height()) < LEAST_SIDE) {
            return List.of(Problem.at(
                    "factor",
                    input.width() + "x" + input.height() + " would become " + out.width() + "x" + out.height()
                            + ", too small to treat; the most for this clip is factor "
                            + Words.number(
                                    Math.floor(100.0 * Math.min(input.width(), input.height()) / LEAST_SIDE) / 100)));
        }
        return List.of();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        // the mean is exact where pixels were repeated, and measured best where a kernel made them too
        return List.of(new EnlargeStage(given.format(), small(settings, given.format()), Kernel.AREA));
    }

    private static Format small(Settings settings, Format input) {
        return TargetSize.byFactor(input, 1 / settings.real(FACTOR).orElseThrow());
    }

    @Override
    public String summary(Settings settings, Given given) {
        Format out = small(settings, given.format());
        return out.width() + "x" + out.height();
    }
}
