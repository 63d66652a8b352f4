package awlsmith.core.recipe;

import awlsmith.core.detail.SharpenStage;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Makes edges and texture firmer. */
final class SharpenStep implements StepKind {
    private static final Param.Choice KIND = new Param.Choice(
            "kind",
            "Kind",
            List.of(
                    new Param.Choice.Option("edges", "Edges", "edges get narrower and never overshoot: no haloes"),
                    new Param.Choice.Option(
                            "mask",
                            "Unsharp mask",
                            "edges and texture get more contrast; too much of it leaves haloes")),
            "edges",
            "what becomes firmer");
    // ranges: common practice, no source
    private static final Param.Real RADIUS = new Param.Real(
            "radius",
            "Radius",
            "px",
            0.3,
            10,
            1.0,
            "how wide what gets firmer is: 0.5 to 1 the finest detail, 1.5 to 3 soft edges, 5 and more shapes");
    private static final Param.Whole AMOUNT =
            new Param.Whole("amount", "Amount", "%", 0, 500, 100L, "how much is added of what a blur would take away");
    private static final Param.Real THRESHOLD = new Param.Real(
            "threshold",
            "Threshold",
            "of 255",
            0,
            30,
            0.0,
            "what differs by less from its surroundings stays as it is");
    private static final Param.Real MOST =
            new Param.Real("most", "Limit", "of 255", 1, 255, 255.0, "how far any sample may move");
    private static final Param.Real SPARE = new Param.Real(
            "spare",
            "Spare surfaces",
            "of 255",
            0,
            20,
            3.0,
            "surfaces that vary by less than this, and their noise, are hardly touched; 0 spares none");
    private static final Param.Whole SKIN = new Param.Whole(
            "skin",
            "Spare skin",
            "%",
            0,
            100,
            0L,
            "how far colours of skin are left out; pores and wrinkles stay soft");

    @Override
    public String id() {
        return "sharpen";
    }

    @Override
    public String name() {
        return "Sharpen";
    }

    @Override
    public String purpose() {
        return "makes edges narrower without haloes, or edges and texture stronger";
    }

    @Override
    public StepGroup group() {
        return StepGroup.DETAIL;
    }

    @Override
    public List<Param> params() {
        return List.of(KIND, RADIUS, AMOUNT, SPARE, SKIN, THRESHOLD, MOST, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return WholeFrames.check(given, "its lines are of two times");
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return List.of(new SharpenStage(
                given.format(),
                new SharpenStage.Amounts(
                        settings.real(RADIUS).orElseThrow(),
                        settings.whole(AMOUNT).orElseThrow() / 100.0,
                        settings.real(THRESHOLD).orElseThrow() / 255,
                        settings.real(MOST).orElseThrow() / 255,
                        settings.real(SPARE).orElseThrow() / 255,
                        settings.whole(SKIN).orElseThrow() / 100.0,
                        settings.choice(KIND).orElseThrow().equals("edges"))));
    }

    @Override
    public String summary(Settings settings, Given given) {
        String kind = settings.choice(KIND).orElseThrow().equals("edges") ? "edges" : "unsharp mask";
        return kind + ", " + settings.whole(AMOUNT).orElseThrow() + " % at "
                + Words.number(settings.real(RADIUS).orElseThrow()) + " px";
    }
}
