package awlsmith.core.recipe;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
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
    public StepGroup group() {
        return StepGroup.PREPARE;
    }

    @Override
    public List<Param> params() {
        return List.of(TURN, MIRROR, ANGLE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        Format input = given.format();
        boolean lying = quarters(settings) % 2 == 1;
        if (input.scan().isInterlaced() && (lying || angle(settings) != 0)) {
            return List.of(Problem.at(
                    lying ? "turn" : "angle",
                    "the picture here is interlaced: turned, its fields would be torn apart. Deinterlace before"));
        }
        boolean upsideDown =
                quarters(settings) == 2 ^ settings.choice(MIRROR).orElseThrow().equals("down");
        if (input.scan().isInterlaced() && upsideDown && fieldsPart(input)) {
            return List.of(Problem.at(
                    quarters(settings) == 2 ? "turn" : "mirror",
                    "the picture here is interlaced and its " + input.height()
                            + " lines upside down would give one field the other's colours. Deinterlace before"));
        }
        return List.of();
    }

    /** Whether lines of luma change their field upside down and those of chroma do not, or the other way round. */
    private static boolean fieldsPart(Format input) {
        return input.chroma().planes() > 1
                && input.height() % 2 != input.chroma().planeHeight(1, input.height()) % 2;
    }

    private static int quarters(Settings settings) {
        return Integer.parseInt(settings.choice(TURN).orElseThrow()) / 90;
    }

    private static double angle(Settings settings) {
        return settings.real(ANGLE).orElseThrow();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format input = given.format();
        var stages = new ArrayList<Stage>();
        int quarters = quarters(settings);
        String mirror = settings.choice(MIRROR).orElseThrow();
        Format now = input;
        if (quarters != 0 || !mirror.equals("none")) {
            // chroma halved one way only cannot lie on its side: it is turned at full size
            boolean open = quarters % 2 == 1 && input.chroma() == Chroma.S422;
            Format full = open ? input.withChroma(Chroma.S444) : input;
            stages.addAll(LayoutStages.between(input, full));
            stages.add(new TurnStage(full, quarters, mirror.equals("across"), mirror.equals("down")));
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
    public String summary(Settings settings, Given given) {
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
