package awlsmith.core.recipe;

import awlsmith.core.fields.DeinterlaceStage;
import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Stage;
import java.util.List;
import java.util.Optional;

/** Makes whole frames of fields. */
final class DeinterlaceStep implements StepKind {
    private static final int LEAST_LINES = 16;

    private static final Param.Choice RATE = new Param.Choice(
            "rate",
            "Rate",
            List.of(
                    new Param.Choice.Option("fields", "Fields", "a frame for every field: all motion, twice the rate"),
                    new Param.Choice.Option("frames", "Frames", "a frame for every two fields: the rate stays")),
            "fields",
            "how many frames come out");
    private static final Param.Choice MODE = new Param.Choice(
            "mode",
            "Mode",
            List.of(
                    new Param.Choice.Option("quality", "Quality", "a net follows what moves"),
                    new Param.Choice.Option("fast", "Fast", "by a rule alone, several times faster")),
            null,
            "how missing lines are made; quality where its model is at hand");
    private static final Param.Choice ORDER = FieldOrder.param("wrong, motion jumps back and forth");

    @Override
    public String id() {
        return "deinterlace";
    }

    @Override
    public String name() {
        return "Deinterlace";
    }

    @Override
    public String purpose() {
        return "makes whole frames of fields; where nothing moves every line is kept";
    }

    @Override
    public StepGroup group() {
        return StepGroup.PREPARE;
    }

    @Override
    public List<Param> params() {
        return List.of(MODE, RATE, ORDER);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        Format input = given.format();
        if (order(settings, input) == Scan.PROGRESSIVE) {
            return List.of(Problem.at(
                    "order",
                    "the file says that its frames are whole; if they are combed, choose which field comes first"));
        }
        if (settings.choice(MODE).orElse("").equals("quality") && model().isEmpty()) {
            return List.of(Problem.at("mode", "the model for fields is not at hand; choose fast"));
        }
        return input.height() < LEAST_LINES
                ? List.of(Problem.at(
                        "",
                        "the picture has only " + input.height() + " rows, at least " + LEAST_LINES + " are needed"))
                : List.of();
    }

    private static Scan order(Settings settings, Format input) {
        return FieldOrder.of(settings, ORDER, input);
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format input = given.format();
        NetForm form = given.form();
        boolean everyField = settings.choice(RATE).orElseThrow().equals("fields");
        Scan order = order(settings, input);
        Optional<ModelCard> card = withModel(settings) ? model() : Optional.empty();
        return List.of(
                card.isEmpty()
                        ? new DeinterlaceStage(input, order, everyField)
                        : new DeinterlaceStage(
                                input, order, everyField, card.get(), OpenedModel.of(card.get(), "mode", form)));
    }

    private static boolean withModel(Settings settings) {
        return !settings.choice(MODE).orElse("").equals("fast");
    }

    private static Optional<ModelCard> model() {
        return Models.of(ModelCard.Job.FIELDS);
    }

    @Override
    public String summary(Settings settings, Given given) {
        Format input = given.format();
        String order = order(settings, input) == Scan.BOTTOM_FIRST ? "bottom first" : "top first";
        String means = withModel(settings) ? ", quality" : ", fast";
        return order + ", to " + settings.choice(RATE).orElseThrow() + means;
    }
}
