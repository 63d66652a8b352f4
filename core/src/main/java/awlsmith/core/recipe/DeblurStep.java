package awlsmith.core.recipe;

import awlsmith.core.clean.NoiseModel;
import awlsmith.core.detail.DeblurStage;
import awlsmith.core.detail.PointSpread;
import awlsmith.core.pipeline.Stage;
import java.util.List;
import java.util.Optional;

/** Undoes a blur by computing alone: nothing is made up. */
final class DeblurStep implements StepKind {
    private static final Analysis<NoiseModel> MEASURED = new MeasureNoise();

    private static final Param.Choice KIND = new Param.Choice(
            "kind",
            "Kind",
            List.of(
                    new Param.Choice.Option("bell", "Bell", "soft all over, as of most lenses, resizes and old codecs"),
                    new Param.Choice.Option("disc", "Disc", "out of focus: points became discs"),
                    new Param.Choice.Option("line", "Line", "moved while it was taken: points became lines")),
            "bell",
            "what became of a point of light");
    private static final Param.Real SIZE = new Param.Real(
            "size",
            "Size",
            "px",
            0.3,
            32,
            1.2,
            "of a bell its standard deviation, to 6: edges are about two and a half times as wide; of a disc its radius, to 9; of a line its"
                    + " length. Too large a size rings");
    private static final Param.Real ANGLE = new Param.Real(
            "angle", "Angle", "°", 0, 180, 0.0, "of a line: 0 sideways, 45 rising to the right, 90 upright");
    private static final Param.Real NOISE = new Param.Real(
            "noise",
            "Noise",
            "of 255",
            0,
            40,
            null,
            "standard deviation of the noise; more of it is held down more. Measured when it is not set");
    private static final Param.Real CALM = new Param.Real(
            "calm",
            "Calm",
            "",
            0,
            4,
            1.0,
            "how much ringing beside edges is held down, and the finest texture with it; 0 is the quickest");

    /** What codecs leave is noise to this step, and quiet places do not show it. */
    private static final double CODECS = 0.8;

    @Override
    public String id() {
        return "deblur";
    }

    @Override
    public String name() {
        return "Deblur";
    }

    @Override
    public String purpose() {
        return "undoes a blur of known shape by computing alone; nothing is made up";
    }

    @Override
    public StepGroup group() {
        return StepGroup.DETAIL;
    }

    @Override
    public List<Param> params() {
        return List.of(KIND, SIZE, ANGLE, NOISE, CALM, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        List<Problem> woven = WholeFrames.check(given, "its lines are of two times");
        if (!woven.isEmpty()) {
            return woven;
        }
        String kind = settings.choice(KIND).orElseThrow();
        double size = settings.real(SIZE).orElseThrow();
        double most = kind.equals("bell") ? 6 : kind.equals("disc") ? 9 : SIZE.max();
        if (size > most) {
            return List.of(Problem.at(
                    "size",
                    "size is " + Words.number(size) + ", a " + kind + " goes to " + Words.number(most)
                            + " px; reduce the picture first, it has fewer pixels' worth of detail anyway"));
        }
        if (settings.has("angle") && !kind.equals("line")) {
            return List.of(Problem.at("angle", "only a line has an angle; choose it, or leave the angle out"));
        }
        return List.of();
    }

    private static Optional<Double> noise(Settings settings, Given given) {
        Optional<Double> told = settings.real(NOISE);
        return told.isPresent()
                ? told
                : given.finding(MEASURED)
                        .map(model -> Math.hypot(
                                CODECS,
                                255
                                        * model.levels().stream()
                                                .mapToDouble(Double::doubleValue)
                                                .average()
                                                .orElseThrow()));
    }

    private static PointSpread spread(Settings settings) {
        double size = settings.real(SIZE).orElseThrow();
        return switch (settings.choice(KIND).orElseThrow()) {
            case "disc" -> new PointSpread.Disc(size);
            case "line" -> new PointSpread.Line(size, settings.real(ANGLE).orElseThrow());
            default -> new PointSpread.Bell(size, size);
        };
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return noise(settings, given)
                .<List<Stage>>map(noise -> List.of(new DeblurStage(
                        given.format(),
                        spread(settings),
                        noise,
                        settings.real(CALM).orElseThrow())))
                .orElse(List.of());
    }

    @Override
    public String summary(Settings settings, Given given) {
        String words = settings.choice(KIND).orElseThrow() + " of "
                + Words.number(settings.real(SIZE).orElseThrow()) + " px";
        return noise(settings, given).isPresent() ? words : words + ", once the noise is measured";
    }
}
