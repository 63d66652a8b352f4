package awlsmith.core.recipe;

import awlsmith.core.clean.DitherStage;
import awlsmith.core.colour.Space;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Takes the dots of pictures with few colours, and the grain of drawing paper, out of drawn footage. */
final class DitherStep implements StepKind {
    private static final Param.Real COLOURS = new Param.Real(
            "colours",
            "Colour step",
            "of 255",
            4,
            120,
            64.0,
            "how far apart the colours are that dots are made of: 36 and 85 where there are 256 fixed ones, 10 to 20 for paper. What"
                    + " differs by more stays an edge");
    private static final Param.Whole RADIUS = new Param.Whole(
            "radius",
            "Radius",
            "px",
            1,
            DitherStage.MOST_RADIUS,
            4L,
            "samples each way that are averaged within a surface; sparse dots want more");

    @Override
    public String id() {
        return "undither";
    }

    @Override
    public String name() {
        return "Smooth dither";
    }

    @Override
    public String purpose() {
        return "takes the dots of old palettes and the grain of paper out of drawn surfaces, and leaves their outlines";
    }

    @Override
    public StepGroup group() {
        return StepGroup.CLEAN;
    }

    @Override
    public List<Param> params() {
        return List.of(COLOURS, RADIUS, SHARE);
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
        return List.of(new DitherStage(
                given.format(),
                settings.real(COLOURS).orElseThrow() / 255,
                Math.toIntExact(settings.whole(RADIUS).orElseThrow())));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return "steps of " + Words.number(settings.real(COLOURS).orElseThrow());
    }
}
