package awlsmith.core.recipe;

import awlsmith.core.clean.BandStage;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Makes slopes of bands in skies and shadows. */
final class BandsStep implements StepKind {
    private static final Param.Real STEP = new Param.Real(
            "step",
            "Step",
            "code values",
            0.5,
            8,
            1.5,
            "how high the steps between bands are; more smooths coarser bands, and softens faint shapes");
    private static final Param.Whole ROUNDS = new Param.Whole(
            "rounds",
            "Reach",
            "doublings",
            2,
            BandStage.MOST_ROUNDS,
            6L,
            "bands up to so many doublings of a sample wide become slopes: 6 is 64 samples");

    @Override
    public String id() {
        return "bands";
    }

    @Override
    public String name() {
        return "Smooth bands";
    }

    @Override
    public String purpose() {
        return "makes slopes of bands in skies and shadows, dithered when the file is written; texture stays";
    }

    @Override
    public StepGroup group() {
        return StepGroup.CLEAN;
    }

    @Override
    public List<Param> params() {
        return List.of(STEP, ROUNDS, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return WholeFrames.check(given, "its lines are of two times");
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return List.of(new BandStage(
                given.format(),
                settings.real(STEP).orElseThrow(),
                Math.toIntExact(settings.whole(ROUNDS).orElseThrow())));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return "steps of " + Words.number(settings.real(STEP).orElseThrow());
    }
}
