package awlsmith.core.recipe;

import awlsmith.core.clean.RepairStage;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.pipeline.Stage;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Makes soft and worn footage sharper at its own size, with a model. */
final class RefineStep implements StepKind {
    private static final Analysis<MeasureBlur.Blur> MEASURED = new MeasureBlur();

    private static final Param.Real SOFTNESS = new Param.Real(
            "softness",
            "Softness",
            "px",
            0,
            RepairStage.SOFTEST,
            null,
            "deviation of the blur it is to undo: 0 sharp, 0.7 a little soft, 1.2 out of focus, 2 very; edges are about two and a half times as"
                    + " wide. Told too much it rings; measured in the clip where it is not set");
    private static final Param.Real ROUNDING = new Param.Real(
            "rounding",
            "Rounding",
            "of 255",
            1,
            256,
            null,
            "how coarsely the codec rounded, as of the repair of compression; where it is not set the model judges by the picture");

    @Override
    public String id() {
        return "refine";
    }

    @Override
    public String name() {
        return "Refine";
    }

    @Override
    public String purpose() {
        return "makes soft and worn footage sharper and cleaner at its own size, with a model";
    }

    @Override
    public StepGroup group() {
        return StepGroup.DETAIL;
    }

    @Override
    public List<Param> params() {
        return List.of(SOFTNESS, ROUNDING, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        var problems = new ArrayList<>(WholeFrames.check(given, "lines of two times would be taken for one"));
        if (net().isEmpty()) {
            problems.add(
                    Problem.at("", "the model for soft footage is not at hand; take this step out, or deblur instead"));
        }
        return problems;
    }

    private static Optional<ModelCard> net() {
        return Models.of(ModelCard.Job.REFINE);
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        ModelCard card = net().orElseThrow();
        float rounding = settings.real(ROUNDING).map(RepairStage::told).orElse(RepairStage.UNKNOWN);
        Optional<Double> softness =
                settings.real(SOFTNESS).or(() -> given.finding(MEASURED).map(MeasureBlur.Blur::deviation));
        return List.of(new RepairStage(
                given.format(),
                card,
                OpenedModel.of(card, "softness", given.form()),
                1,
                List.of(rounding, softness.map(RepairStage::soft).orElse(RepairStage.UNKNOWN)),
                false));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return settings.real(SOFTNESS)
                .map(blur -> "soft by " + Words.number(blur) + " px")
                .orElse(given.finding(MEASURED)
                        .map(found ->
                                "soft by " + Words.number(Math.rint(10 * found.deviation()) / 10) + " px, as measured")
                        .orElse("once measured"));
    }
}
