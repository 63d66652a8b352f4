package awlsmith.core.recipe;

import awlsmith.core.colour.Space;
import awlsmith.core.detail.ContrastStage;
import awlsmith.core.pipeline.Stage;
import java.util.ArrayList;
import java.util.List;

/** Changes contrast by surfaces, not by single samples. */
final class ContrastStep implements StepKind {
    private static final Param.Whole SHADOWS = new Param.Whole(
            "shadows", "Lift shadows", "%", 0, 100, 0L, "how much lighter dark surfaces get; black stays black");
    private static final Param.Whole OVERALL = new Param.Whole(
            "overall",
            "Overall",
            "%",
            -100,
            100,
            0L,
            "how far surfaces are led away from the middle of the light, or towards it below 0");
    private static final Param.Whole LOCAL = new Param.Whole(
            "local",
            "Local",
            "%",
            -100,
            200,
            30L,
            "how much stronger the structure on surfaces gets, without haloes along their edges; below 0 it gets weaker");

    @Override
    public String id() {
        return "contrast";
    }

    @Override
    public String name() {
        return "Contrast";
    }

    @Override
    public String purpose() {
        return "lifts shadows, and makes surfaces or the structure on them stronger";
    }

    @Override
    public StepGroup group() {
        return StepGroup.COLOUR;
    }

    @Override
    public List<Param> params() {
        return List.of(LOCAL, SHADOWS, OVERALL, SHARE);
    }

    @Override
    public Space space(Settings settings) {
        return Space.RGB;
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return WholeFrames.check(given, "its lines are of two times");
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return List.of(new ContrastStage(
                given.format(),
                settings.whole(SHADOWS).orElseThrow() / 100.0,
                settings.whole(OVERALL).orElseThrow() / 100.0,
                settings.whole(LOCAL).orElseThrow() / 100.0));
    }

    @Override
    public String summary(Settings settings, Given given) {
        var parts = new ArrayList<String>();
        for (Param.Whole one : List.of(LOCAL, SHADOWS, OVERALL)) {
            long percent = settings.whole(one).orElseThrow();
            if (percent != 0) {
                parts.add((one == LOCAL ? "local " : one == SHADOWS ? "shadows " : "overall ") + percent + " %");
            }
        }
        return parts.isEmpty() ? "nothing yet" : String.join(", ", parts);
    }
}
