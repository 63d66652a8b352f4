package awlsmith.core.recipe;

import awlsmith.core.fields.DeinterlaceStage;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Stage;
import java.util.List;

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
    public List<Param> params() {
        return List.of(RATE, ORDER);
    }

    @Override
    public List<Problem> check(Settings settings, Format input) {
        if (order(settings, input) == Scan.PROGRESSIVE) {
            return List.of(Problem.at(
                    "order",
                    "the file says that its frames are whole; if they are combed, choose which field comes first"));
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
    public List<Stage> stages(Settings settings, Format input) {
        boolean everyField = settings.choice(RATE).orElseThrow().equals("fields");
        return List.of(new DeinterlaceStage(input, order(settings, input), everyField));
    }

    @Override
    public String summary(Settings settings, Format input) {
        String order = order(settings, input) == Scan.BOTTOM_FIRST ? "bottom first" : "top first";
        return order + ", to " + settings.choice(RATE).orElseThrow();
    }
}
