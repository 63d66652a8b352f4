package awlsmith.core.recipe;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.shape.StraightenStage;
import awlsmith.core.shape.TurnStage;
import java.util.ArrayList;
import java.util.List;

/** Turns by quarters, mirrors, and straightens a horizon that leans. */
final class TurnStep implements StepKind {
    private static final Param.Choice TURN = new Param.Choice(
            "turn",
            "Turn",
            List.of(
                    new Param.Choice.Option("0", "0°", "as it is"),
                    new Param.Choice.Option("90", "90°", "a quarter clockwise"),
                    new Param.Choice.Option("180", "180°", "upside down"),
                    new Param.Choice.Option("270", "270°", "a quarter anticlockwise")),
            "0",
            "by quarters, clockwise");
    private static final Param.Choice MIRROR = new Param.Choice(
            "mirror",
            "Mirror",
            List.of(
                    new Param.Choice.Option("none", "None", "as it is"),
                    new Param.Choice.Option("across", "Across", "left becomes right"),
                    new Param.Choice.Option("down", "Down", "top becomes bottom")),
            "none",
            "before it is turned");
    private static final Param.Real ANGLE = new Param.Real(
            "angle",
            "Straighten",
            "°",
            -StraightenStage.MOST,
            StraightenStage.MOST,
            0.0,
            "clockwise; the corners that would be empty are cut off");

    @Override
    public String id() {
        return "turn";
    }

    @Override
    public String name() {
        return "Turn";
    }

    @Override
    public String purpose() {
        return "turns, mirrors or straightens the picture";
    }

    @Override
    public List<Param> params() {
        return List.of(TURN, MIRROR, ANGLE);
    }

    @Override
    public List<Problem> check(Settings settings, Format input) {
        boolean lying = quarters(settings) % 2 == 1;
        if (input.scan().isInterlaced() && (lying || angle(settings) != 0)) {
            return List.of(Problem.at(
                    lying ? "turn" : "angle",
                    "the picture here is interlaced: turned, its fields would be torn apart. Deinterlace before"));
        }
        return List.of();
    }

    private static int quarters(Settings settings) {
        return Integer.parseInt(settings.choice(TURN).orElseThrow()) / 90;
    }

    private static double angle(Settings settings) {
        return settings.real(ANGLE).orElseThrow();
    }

    @Override
    public List<Stage> stages(Settings settings, Format input) {
        var stages = new ArrayList<Stage>();
        int quarters = quarters(settings);
        String mirror = settings.choice(MIRROR).orElseThrow();
        Format now = input;
        if (quarters != 0 || !mirror.equals("none")) {
            boolean exact = !input.chroma().isSubsampled()
                    || input.siting() == Siting.CENTRE && input.chroma() == Chroma.S420
                    || input.siting() == Siting.LEFT && quarters == 0 && mirror.equals("down");
            Format open = exact ? input : input.withChroma(Chroma.S444);
            // chroma that does not lie in the middle would come to lie on the wrong side: it is turned at full size
            stages.addAll(LayoutStages.between(input, open));
            stages.add(new TurnStage(open, quarters, mirror.equals("across"), mirror.equals("down")));
            Format turned = stages.getLast().output();
            now = turned.withChroma(input.chroma());
            stages.addAll(LayoutStages.between(turned, now));
        }
        if (angle(settings) != 0) {
            stages.add(new StraightenStage(now, angle(settings)));
        }
        return stages;
    }

    @Override
    public String summary(Settings settings, Format input) {
        var parts = new ArrayList<String>();
        if (quarters(settings) != 0) {
            parts.add(90 * quarters(settings) + "°");
        }
        String mirror = settings.choice(MIRROR).orElseThrow();
        if (!mirror.equals("none")) {
            parts.add("mirrored " + mirror);
        }
        if (angle(settings) != 0) {
            parts.add(Words.number(angle(settings)) + "°");
        }
        return parts.isEmpty() ? "as it is" : String.join(", ", parts);
    }
}
