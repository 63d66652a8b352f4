package awlsmith.core.recipe;

import awlsmith.core.detail.OriginalStage;
import awlsmith.core.pipeline.Stage;
import java.util.ArrayList;
import java.util.List;

/** Gives back what the source had, where steps before took too much or made too much of it. */
final class OriginalStep implements StepKind {
    private static final Param.Whole BLEND = new Param.Whole(
            "blend",
            "All of it",
            "%",
            0,
            100,
            0L,
            "how far the picture is led back to the source, its faults too; 60 to 70 looks untouched, 20 treated (common practice)");
    private static final Param.Whole TEXTURE = new Param.Whole(
            "texture",
            "Texture",
            "%",
            0,
            100,
            0L,
            "how much of the fine structure of surfaces is the source's own, its grain too; edges stay as the steps before made them");
    private static final Param.Whole LIGHT = new Param.Whole(
            "light",
            "Light",
            "%",
            0,
            100,
            0L,
            "how much of the light and shade of larger surfaces is the source's own; fine structure stays as it is");

    @Override
    public String id() {
        return "original";
    }

    @Override
    public String name() {
        return "Source given back";
    }

    @Override
    public String purpose() {
        return "leads the treated picture back to the source: all of it, its texture, or its light and shade";
    }

    @Override
    public StepGroup group() {
        return StepGroup.DETAIL;
    }

    @Override
    public List<Param> params() {
        return List.of(BLEND, TEXTURE, LIGHT);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return WholeFrames.check(given, "what would be given back are lines of another time");
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        double blend = part(settings, BLEND);
        double texture = part(settings, TEXTURE);
        double light = part(settings, LIGHT);
        return blend + texture + light == 0
                ? List.of()
                : List.of(new OriginalStage(given.format(), given.source(), blend, texture, light));
    }

    private static double part(Settings settings, Param.Whole share) {
        return settings.whole(share).orElseThrow() / 100.0;
    }

    /** The source that another such step sees is the same one. */
    @Override
    public List<Stage> beside(Settings settings, Given given, List<Stage> made) {
        return List.of();
    }

    @Override
    public String summary(Settings settings, Given given) {
        var parts = new ArrayList<String>();
        for (Param.Whole share : List.of(BLEND, TEXTURE, LIGHT)) {
            long percent = settings.whole(share).orElseThrow();
            if (percent > 0) {
                parts.add(
                        percent + " % of " + (share == BLEND ? "all" : share == TEXTURE ? "its texture" : "its light"));
            }
        }
        return parts.isEmpty() ? "nothing yet" : String.join(", ", parts);
    }
}
