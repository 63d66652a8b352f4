package awlsmith.core.recipe;

import awlsmith.core.detail.HaloStage;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Takes the bright and dark seams beside edges away. */
final class HaloStep implements StepKind {
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
    public List<Param> params() {
        return List.of(WIDTH, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return WholeFrames.check(given, "its lines are of two times");
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return List.of(new HaloStage(
                given.format(), Math.toIntExact(settings.whole(WIDTH).orElseThrow())));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return "up to " + settings.whole(WIDTH).orElseThrow() + " px wide";
    }
}
