package awlsmith.core.recipe;

import awlsmith.core.detail.SmoothStage;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Calms rough surfaces and skin, and leaves edges firm. */
final class SmoothStep implements StepKind {
    private static final Param.Whole AMOUNT =
            new Param.Whole("amount", "Amount", "%", 0, 100, 60L, "how much of the surfaces' texture goes");
    private static final Param.Real SURFACE = new Param.Real(
            "surface",
            "Surfaces",
            "of 255",
            1,
            40,
            8.0,
            "what varies by less than this is surface and is calmed, what varies by more is edge and stays");
    private static final Param.Whole RADIUS =
            new Param.Whole("radius", "Radius", "px", 1, 16, 4L, "how wide the texture is that goes");

    @Override
    public String id() {
        return "smooth";
    }

    @Override
    public String name() {
        return "Smooth surfaces";
    }

    @Override
    public String purpose() {
        return "calms skin and rough surfaces, and leaves edges as firm as they are";
    }

    @Override
    public StepGroup group() {
        return StepGroup.DETAIL;
    }

    @Override
    public List<Param> params() {
        return List.of(AMOUNT, SURFACE, RADIUS, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return WholeFrames.check(given, "its lines are of two times");
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return List.of(new SmoothStage(
                given.format(),
                Math.toIntExact(settings.whole(RADIUS).orElseThrow()),
                settings.real(SURFACE).orElseThrow() / 255,
                settings.whole(AMOUNT).orElseThrow() / 100.0));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return settings.whole(AMOUNT).orElseThrow() + " %, surfaces to "
                + Words.number(settings.real(SURFACE).orElseThrow());
    }
}
