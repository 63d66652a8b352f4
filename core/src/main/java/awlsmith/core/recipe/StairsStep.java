package awlsmith.core.recipe;

import awlsmith.core.detail.StairStage;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Smooths edges that climb in stairs. */
final class StairsStep implements StepKind {
    private static final Param.Whole REACH = new Param.Whole(
            "reach",
            "Reach",
            "px",
            1,
            12,
            4L,
            "how far along an edge samples are taken from: longer for edges that are nearly level or upright, shorter keeps small curves");
    private static final Param.Whole AMOUNT =
            new Param.Whole("amount", "Amount", "%", 0, 100, 90L, "how much of the stairs goes");

    @Override
    public String id() {
        return "stairs";
    }

    @Override
    public String name() {
        return "Smooth stair-steps";
    }

    @Override
    public String purpose() {
        return "makes slanting edges straight that climb in stairs: of graphics, and of cameras that leave lines out";
    }

    @Override
    public StepGroup group() {
        return StepGroup.DETAIL;
    }

    @Override
    public List<Param> params() {
        return List.of(AMOUNT, REACH, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return WholeFrames.check(given, "its stairs are two times woven together");
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return List.of(new StairStage(
                given.format(),
                Math.toIntExact(settings.whole(REACH).orElseThrow()),
                settings.whole(AMOUNT).orElseThrow() / 100.0));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return settings.whole(AMOUNT).orElseThrow() + " %, "
                + settings.whole(REACH).orElseThrow() + " px";
    }
}
