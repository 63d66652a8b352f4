package awlsmith.core.recipe;

import awlsmith.core.fields.CadenceStage;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Stage;
import java.util.ArrayList;
import java.util.List;

/** Takes out frames or fields that were repeated in a rhythm. */
final class CadenceStep implements StepKind {
    private static final Param.Choice KIND = new Param.Choice(
            "kind",
            "Repeated",
            List.of(
                    new Param.Choice.Option("frames", "Frames", "one frame of every period only repeats the last"),
                    new Param.Choice.Option("film", "Fields, 3:2", "film of 24 frames brought to 30 by fields")),
            "frames",
            "what was repeated");
    private static final Param.Whole PERIOD = new Param.Whole(
            "period", "Period", "frames", 2, 100, 5L, "frames until the rhythm comes again; always 5 with 3:2");
    private static final Param.Whole PHASE = new Param.Whole(
            "phase",
            "Phase",
            "frames",
            0,
            99,
            0L,
            "which frame of a period is the repeat; with 3:2, which is the first of the two woven ones");
    private static final Param.Choice ORDER = FieldOrder.param("for 3:2 only");

    @Override
    public String id() {
        return "cadence";
    }

    @Override
    public String name() {
        return "Undo cadence";
    }

    @Override
    public String purpose() {
        return "takes out frames or fields that were repeated to reach a higher rate";
    }

    @Override
    public StepGroup group() {
        return StepGroup.PREPARE;
    }

    @Override
    public List<Param> params() {
        return List.of(KIND, PERIOD, PHASE, ORDER);
    }

    private static boolean film(Settings settings) {
        return settings.choice(KIND).orElseThrow().equals("film");
    }

    private static Scan order(Settings settings, Format input) {
        return FieldOrder.of(settings, ORDER, input);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        Format input = given.format();
        var problems = new ArrayList<Problem>();
        long period = film(settings) ? 5 : settings.whole(PERIOD).orElseThrow();
        long phase = settings.whole(PHASE).orElseThrow();
        if (phase >= period) {
            problems.add(Problem.at(
                    "phase", "phase is " + phase + "; with a period of " + period + " it must be 0.." + (period - 1)));
        }
        if (film(settings) && !order(settings, input).isInterlaced()) {
            problems.add(
                    Problem.at("order", "the file says that its frames are whole; choose which field comes first"));
        }
        return problems;
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format input = given.format();
        int phase = Math.toIntExact(settings.whole(PHASE).orElseThrow());
        return List.of(
                film(settings)
                        ? CadenceStage.film(input, order(settings, input), phase)
                        : CadenceStage.frames(
                                input, Math.toIntExact(settings.whole(PERIOD).orElseThrow()), phase));
    }

    @Override
    public String summary(Settings settings, Given given) {
        long phase = settings.whole(PHASE).orElseThrow();
        return film(settings)
                ? "3:2, from frame " + phase
                : "one in " + settings.whole(PERIOD).orElseThrow() + ", frame " + phase;
    }
}
