package awlsmith.core.recipe;

import awlsmith.core.clean.RepairStage;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.pipeline.Stage;
import java.util.List;
import java.util.Optional;

/** Repairs what a lossy codec did, with a model, at the picture's own size. */
final class RepairStep implements StepKind {
    private static final Param.Real ROUNDING = new Param.Real(
            "rounding",
            "Rounding",
            "of 255",
            1,
            256,
            null,
            "how coarsely the codec rounded: 8 for H.264 at QP 22, 16 at 28, 32 at 34, 64 at 40; MPEG-2's quantiser scale. More repairs"
                    + " more; where it is not set the model judges by the picture");

    private static final Param.Choice COLOUR = new Param.Choice(
            "colour",
            "Colour",
            List.of(
                    new Param.Choice.Option("repair", "Repair too", "colour's blocks and smears go as well"),
                    new Param.Choice.Option("leave", "Leave", "light alone is repaired, in two thirds of the time")),
            "repair",
            "whether the colours are repaired with the light");

    @Override
    public String id() {
        return "repair";
    }

    @Override
    public String name() {
        return "Repair compression";
    }

    @Override
    public String purpose() {
        return "takes away a codec's blocks and rings and gives back what frames around still have";
    }

    @Override
    public StepGroup group() {
        return StepGroup.CLEAN;
    }

    @Override
    public List<Param> params() {
        return List.of(ROUNDING, COLOUR, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        List<Problem> woven = WholeFrames.check(given, "lines of two times would be taken for one");
        if (!woven.isEmpty()) {
            return woven;
        }
        return net().isEmpty()
                ? List.of(Problem.at("", "the model against compression is not at hand; take this step out"))
                : List.of();
    }

    private static Optional<ModelCard> net() {
        return Models.of(ModelCard.Job.REPAIR);
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        ModelCard card = net().orElseThrow();
        float told = settings.real(ROUNDING).map(step -> RepairStage.told(step)).orElse(RepairStage.UNKNOWN);
        return List.of(new RepairStage(
                given.format(),
                card,
                OpenedModel.of(card, "rounding", given.form()),
                1,
                List.of(told),
                isColoured(settings)));
    }

    private static boolean isColoured(Settings settings) {
        return settings.choice(COLOUR).orElseThrow().equals("repair");
    }

    @Override
    public String summary(Settings settings, Given given) {
        return settings.real(ROUNDING)
                .map(step -> "rounded to " + Words.number(step))
                .orElse("as it looks");
    }
}
