package awlsmith.core.recipe;

import awlsmith.core.clean.DenoiseStage;
import awlsmith.core.clean.NoiseModel;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.pipeline.Stage;
import java.util.List;
import java.util.Optional;

/** Takes noise out, over time along the motion and within the picture, by as much as is measured or told. */
final class DenoiseStep implements StepKind {
    private static final Analysis<NoiseModel> MEASURED = new MeasureNoise();

    private static final Param.Choice MODE = new Param.Choice(
            "mode",
            "Mode",
            List.of(
                    new Param.Choice.Option(
                            "quality", "Quality", "a model puts back what went with the noise and takes what was left"),
                    new Param.Choice.Option("fast", "Fast", "by rule alone, several times as fast")),
            null,
            "quality where the model is at hand");

    private static final Param.Real STRENGTH = new Param.Real(
            "strength",
            "Strength",
            "x",
            0,
            3,
            1.0,
            "times the noise that is there; more takes fine texture with it, less leaves some");
    private static final Param.Real COLOUR = new Param.Real(
            "colour", "Colour", "x", 0, 3, 1.0, "times the noise of the colours; they bear more than light does");
    private static final Param.Whole FRAMES = new Param.Whole(
            "frames",
            "Frames",
            "each side",
            0,
            DenoiseStage.MOST_FRAMES,
            2L,
            "looked at before and after, laid over the frame along the motion; more are cleaner and slower, 0 takes each alone");
    private static final Param.Real NOISE = new Param.Real(
            "noise",
            "Noise",
            "of 255",
            0,
            60,
            null,
            "by hand, its standard deviation; measured in the clip where it is not set");
    private static final Param.Real GRAIN = new Param.Real(
            "grain",
            "Coarseness",
            "",
            1,
            4,
            1.0,
            "of noise that is set by hand: 1 from pixel to pixel, 2 as enlarged or compressed");

    @Override
    public String id() {
        return "denoise";
    }

    @Override
    public String name() {
        return "Denoise";
    }

    @Override
    public String purpose() {
        return "takes noise and grain out, by what neighbouring frames agree on and by what is no more than noise";
    }

    @Override
    public StepGroup group() {
        return StepGroup.CLEAN;
    }

    @Override
    public List<Param> params() {
        return List.of(MODE, STRENGTH, COLOUR, FRAMES, NOISE, GRAIN, SHARE);
    }

    @Override
    public boolean takesGrain() {
        return true;
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        List<Problem> woven = WholeFrames.check(given, "lines of two times would be laid over each other");
        if (!woven.isEmpty()) {
            return woven;
        }
        if (settings.has("grain") && !settings.has("noise")) {
            return List.of(Problem.at(
                    "grain",
                    "how coarse the noise is, is measured with it; set the noise by hand too, or leave this out"));
        }
        if (settings.choice(MODE).orElse("").equals("quality") && net().isEmpty()) {
            return List.of(Problem.at("mode", "the model against noise is not at hand; choose fast"));
        }
        return List.of();
    }

    private static Optional<ModelCard> net() {
        return Models.of(ModelCard.Job.DENOISE);
    }

    private static boolean withNet(Settings settings) {
        return !settings.choice(MODE).orElse("").equals("fast");
    }

    private static Optional<NoiseModel> model(Settings settings, Given given) {
        Optional<Double> told = settings.real(NOISE);
        if (told.isPresent()) {
            double sigma = told.get() / 255;
            // colour differences of halved planes hold about half of luma's noise (common practice, no source)
            return Optional.of(
                    NoiseModel.even(sigma, sigma / 2, settings.real(GRAIN).orElseThrow()));
        }
        return given.finding(MEASURED);
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Optional<ModelCard> card = withNet(settings) ? net() : Optional.empty();
        return model(settings, given)
                .<List<Stage>>map(noise -> List.of(new DenoiseStage(
                        given.format(),
                        noise,
                        Math.toIntExact(settings.whole(FRAMES).orElseThrow()),
                        settings.real(STRENGTH).orElseThrow(),
                        settings.real(COLOUR).orElseThrow(),
                        card.orElse(null),
                        card.map(one -> OpenedModel.of(one, "mode", given.form()))
                                .orElse(null))))
                .orElse(List.of());
    }

    @Override
    public String summary(Settings settings, Given given) {
        String strength = (withNet(settings) ? "" : "fast, ")
                + Words.number(settings.real(STRENGTH).orElseThrow()) + "x";
        return settings.real(NOISE)
                .map(told -> strength + " noise " + Words.number(told))
                .orElse(strength + (given.finding(MEASURED).isPresent() ? ", as measured" : ", once measured"));
    }
}
