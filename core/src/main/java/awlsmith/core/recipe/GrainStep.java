package awlsmith.core.recipe;

import awlsmith.core.clean.GrainStage;
import awlsmith.core.clean.NoiseModel;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Adds grain, so that what was cleaned or enlarged does not look like plastic. */
final class GrainStep implements StepKind {
    private static final Analysis<NoiseModel> MEASURED = new MeasureNoise();

    private static final Param.Choice KIND = new Param.Choice(
            "kind",
            "Kind",
            List.of(
                    new Param.Choice.Option("film", "By hand", "as strong and as coarse as it is set"),
                    new Param.Choice.Option(
                            "source",
                            "The source's",
                            "like the source's own, at every light, as coarse as it would be in this picture, before noise was taken out")),
            "film",
            "where the grain's look comes from");
    private static final Param.Whole GIVEN_BACK = new Param.Whole(
            "back",
            "Given back",
            "%",
            0,
            200,
            null,
            "how much of the source's grain comes back; 50 when nothing is set");
    private static final Param.Real AMOUNT = new Param.Real(
            "amount",
            "Amount",
            "of 255",
            0,
            40,
            null,
            "by hand, its standard deviation in the middle of the light; 2 to 4 is just felt, 3 when nothing is set");
    private static final Param.Real COARSENESS = new Param.Real(
            "coarseness",
            "Coarseness",
            "",
            1,
            GrainStage.COARSEST,
            null,
            "1 from pixel to pixel, 2 about two pixels wide; larger pictures bear coarser grain; 1.6 by hand, as measured of the source's");
    private static final Param.Real COLOUR = new Param.Real(
            "colour", "Colour", "of 255", 0, 40, 0.0, "grain of the colours, by hand; black and white film has none");

    private static final double AMOUNT_USUAL = 3;
    private static final double COARSENESS_USUAL = 1.6;
    private static final long BACK_USUAL = 50;

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
    public StepGroup group() {
        return StepGroup.CLEAN;
    }

    @Override
    public List<Param> params() {
        return List.of(KIND, GIVEN_BACK, AMOUNT, COARSENESS, COLOUR);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        if (isSources(settings) && settings.has("amount")) {
            return List.of(Problem.at(
                    "amount",
                    "the source's grain is as strong as it is; say how much of it is given back, or choose by hand"));
        }
        if (!isSources(settings) && settings.has("back")) {
            return List.of(Problem.at("back", "grain by hand has an amount; choose the source's to give that back"));
        }
        return List.of();
    }

    private static boolean isSources(Settings settings) {
        return settings.choice(KIND).orElseThrow().equals("source");
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        if (!isSources(settings)) {
            return List.of(new GrainStage(
                    given.format(),
                    GrainStage.film(settings.real(AMOUNT).orElse(AMOUNT_USUAL) / 255),
                    settings.real(COLOUR).orElseThrow() / 255,
                    settings.real(COARSENESS).orElse(COARSENESS_USUAL)));
        }
        return given.raw()
                .finding(MEASURED)
                .<List<Stage>>map(noise -> List.of(sources(settings, given, noise)))
                .orElse(List.of());
    }

    private static Stage sources(Settings settings, Given given, NoiseModel noise) {
        double share = settings.whole(GIVEN_BACK).orElse(BACK_USUAL) / 100.0;
        return new GrainStage(
                given.format(),
                noise.levels().stream().map(level -> share * level).toList(),
                share * noise.colour() + settings.real(COLOUR).orElseThrow() / 255,
                settings.real(COARSENESS)
                        .orElseGet(
                                () -> GrainStage.coarseness(noise, given.raw().scale())));
    }

    @Override
    public List<Stage> beside(Settings settings, Given given, List<Stage> made) {
        return List.of();
    }

    @Override
    public String summary(Settings settings, Given given) {
        if (!isSources(settings)) {
            return Words.number(settings.real(AMOUNT).orElse(AMOUNT_USUAL)) + " of 255";
        }
        String back = settings.whole(GIVEN_BACK).orElse(BACK_USUAL) + " % of the source's";
        return given.raw().finding(MEASURED).isPresent() ? back : back + ", once measured";
    }
}
