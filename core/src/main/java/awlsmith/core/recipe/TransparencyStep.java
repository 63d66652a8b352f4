package awlsmith.core.recipe;

import awlsmith.core.alpha.AlphaStage;
import awlsmith.core.colour.LumaChroma;
import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import java.util.ArrayList;
import java.util.List;

/** Says what colour means where the picture is clear, and how it goes out; no file tells it. */
final class TransparencyStep implements StepKind {
    private static final String STRAIGHT = "straight";
    private static final String PREMULTIPLIED = "premultiplied";
    private static final String OPAQUE = "opaque";

    private static final Param.Choice READS = new Param.Choice(
            "reads",
            "It comes",
            List.of(
                    new Param.Choice.Option(
                            STRAIGHT, "Straight", "colours are whole; usual in pictures and mezzanines"),
                    new Param.Choice.Option(
                            PREMULTIPLIED,
                            "Premultiplied",
                            "colours are weighed by opacity; usual where something was rendered over black")),
            STRAIGHT,
            "taken wrongly, edges get a dark or a bright rim");
    private static final Param.Choice LEAVES = new Param.Choice(
            "leaves",
            "It goes on",
            List.of(
                    new Param.Choice.Option(STRAIGHT, "Straight", "best for the steps behind"),
                    new Param.Choice.Option(
                            PREMULTIPLIED, "Premultiplied", "weighed by opacity; put the step last for that"),
                    new Param.Choice.Option(OPAQUE, "Opaque", "laid over a colour; nothing is clear any more")),
            STRAIGHT,
            "what the steps behind and the file get");
    private static final Param.Tint BEHIND =
            new Param.Tint("behind", "Behind it", "#000000", "the colour that an opaque picture is laid over");

    @Override
    public String id() {
        return "transparency";
    }

    @Override
    public String name() {
        return "Transparency";
    }

    @Override
    public String purpose() {
        return "says how colour goes with transparency, or lays the picture over a colour";
    }

    @Override
    public StepGroup group() {
        return StepGroup.PREPARE;
    }

    @Override
    public List<Param> params() {
        return List.of(READS, LEAVES, BEHIND);
    }

    @Override
    public boolean readsAlpha() {
        return true;
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        if (!given.format().alpha().isThere()) {
            return List.of(
                    Problem.at("", "the picture that reaches this step is opaque everywhere; leave the step out"));
        }
        return List.of();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        var stages = new ArrayList<Stage>();
        Format now = given.format();
        Alpha read = alpha(settings.choice(READS).orElseThrow());
        // one that an earlier step of this kind left weighed is known to be
        boolean told = now.alpha() == Alpha.STRAIGHT && read == Alpha.PREMULTIPLIED;
        Alpha is = told ? read : now.alpha();
        String leaves = settings.choice(LEAVES).orElseThrow();
        Format taken = now.withAlpha(is);
        if (leaves.equals(OPAQUE)) {
            float[] behind = samples(settings.tint(BEHIND).orElseThrow(), now);
            stages.add(AlphaStage.over(behind, taken));
        } else if (alpha(leaves) != is) {
            stages.add(AlphaStage.to(alpha(leaves), taken));
        } else if (told) {
            stages.add(AlphaStage.to(is, taken));
        }
        return stages;
    }

    private static Alpha alpha(String id) {
        return id.equals(PREMULTIPLIED) ? Alpha.PREMULTIPLIED : Alpha.STRAIGHT;
    }

    /** A colour as a picture's own samples. */
    static float[] samples(Colour colour, Format format) {
        double[] rgb = colour.rgb();
        if (format.chroma() == Chroma.RGB) {
            return new float[] {(float) rgb[0], (float) rgb[1], (float) rgb[2]};
        }
        var matrix = LumaChroma.of(format.colour().matrixFor(format.height()));
        double luma = matrix.luma(rgb[0], rgb[1], rgb[2]);
        return format.chroma() == Chroma.GREY
                ? new float[] {(float) luma}
                : new float[] {(float) luma, (float) matrix.cb(luma, rgb[2]), (float) matrix.cr(luma, rgb[0])};
    }

    @Override
    public String summary(Settings settings, Given given) {
        String leaves = settings.choice(LEAVES).orElseThrow();
        return leaves.equals(OPAQUE)
                ? "over " + settings.tint(BEHIND).orElseThrow()
                : "comes " + settings.choice(READS).orElseThrow() + ", leaves " + leaves;
    }
}
