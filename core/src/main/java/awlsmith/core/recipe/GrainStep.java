package awlsmith.core.recipe;

import awlsmith.core.clean.GrainStage;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Adds grain, so that what was cleaned or enlarged does not look like plastic. */
final class GrainStep implements StepKind {
    private static final Param.Real AMOUNT = new Param.Real(
            "amount",
            "Amount",
            "of 255",
            0,
            40,
            3.0,
            "its standard deviation in the middle of the light; 2 to 4 is just felt");
    private static final Param.Real COARSENESS = new Param.Real(
            "coarseness",
            "Coarseness",
            "",
            1,
            4,
            1.6,
            "1 from pixel to pixel, 2 about two pixels wide; larger pictures bear coarser grain");
    private static final Param.Real COLOUR = new Param.Real(
            "colour", "Colour", "of 255", 0, 40, 0.0, "the same of the colours; black and white film has none");

    @Override
    public String id() {
        return "grain";
    }

    @Override
    public String name() {
        return "Grain";
    }

    @Override
    public String purpose() {
        return "gives a cleaned or enlarged picture a grain, another in every frame";
    }

    @Override
    public List<Param> params() {
        return List.of(AMOUNT, COARSENESS, COLOUR);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return List.of();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return List.of(new GrainStage(
                given.format(),
                settings.real(AMOUNT).orElseThrow() / 255,
                settings.real(COLOUR).orElseThrow() / 255,
                settings.real(COARSENESS).orElseThrow()));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return Words.number(settings.real(AMOUNT).orElseThrow()) + " of 255";
    }
}
