package awlsmith.core.recipe;

import awlsmith.core.detail.LineStage;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Gives thin dark lines the depth back that resizing and codecs took. */
final class LineStep implements StepKind {
    private static final Param.Whole AMOUNT =
            new Param.Whole("amount", "Amount", "%", 0, 300, 50L, "how much deeper lines get, by their own depth");
    private static final Param.Whole WIDTH =
            new Param.Whole("width", "Width", "px", 1, 8, 3L, "how wide what counts as a line is at most");
    private static final Param.Real LEAST = new Param.Real(
            "least", "Threshold", "of 255", 0, 60, 6.0, "lines less deep than this stay: grain and paper");

    @Override
    public String id() {
        return "lines";
    }

    @Override
    public String name() {
        return "Deepen lines";
    }

    @Override
    public String purpose() {
        return "makes thin dark lines of drawings and lettering as dark as they were";
    }

    @Override
    public StepGroup group() {
        return StepGroup.DETAIL;
    }

    @Override
    public List<Param> params() {
        return List.of(AMOUNT, WIDTH, LEAST, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return WholeFrames.check(given, "its lines are of two times");
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return List.of(new LineStage(
                given.format(),
                Math.toIntExact(settings.whole(WIDTH).orElseThrow()),
                settings.whole(AMOUNT).orElseThrow() / 100.0,
                settings.real(LEAST).orElseThrow() / 255));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return settings.whole(AMOUNT).orElseThrow() + " %, to "
                + settings.whole(WIDTH).orElseThrow() + " px wide";
    }
}
