package awlsmith.core.recipe;

import awlsmith.core.light.EvenLightStage;
import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Evens out exposure that jumps from frame to frame. */
final class EvenLightStep implements StepKind {
    private static final Param.Whole REACH = new Param.Whole(
            "reach", "Reach", "frames", 1, 12, 5L, "frames before and after whose light a frame is led to");
    private static final Param.Whole STRENGTH = new Param.Whole(
            "strength", "Strength", "%", 0, 100, 100L, "how far its light is led; less keeps some of the flicker");

    @Override
    public String id() {
        return "even-light";
    }

    @Override
    public String name() {
        return "Even light";
    }

    @Override
    public String purpose() {
        return "takes out flicker of exposure and single flashes; fades stay";
    }

    @Override
    public StepGroup group() {
        return StepGroup.CLEAN;
    }

    @Override
    public List<Param> params() {
        return List.of(REACH, STRENGTH);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return List.of();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format input = given.format();
        return List.of(new EvenLightStage(
                input,
                Math.toIntExact(settings.whole(REACH).orElseThrow()),
                settings.whole(STRENGTH).orElseThrow() / 100.0));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return settings.whole(STRENGTH).orElseThrow() + " %, "
                + settings.whole(REACH).orElseThrow() + " frames";
    }
}
