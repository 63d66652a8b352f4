package awlsmith.core.recipe;

import awlsmith.core.motion.PictureBetween.Doubt;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.retime.MadeStage;
import awlsmith.core.retime.RateStage;
import awlsmith.core.retime.ScenesByHand;
import awlsmith.core.retime.ShutterStage;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/** Brings frames to an even rate. */
final class RateStep implements StepKind {
    private static final String NEAREST = "nearest";
    private static final String HELD = "held";
    private static final String MIXED = "mixed";
    private static final String MADE = "made";
    /** Where rates are made so many times what they were. */
    private static final String TIMES = "x";

    private static final int MOST_TIMES = 5;
    /** Motion cannot be found in pictures of fewer samples on a side. */
    private static final int LEAST = 32;

    /** Rates that television, film and the web are made in (common practice, no source); the nearest of them is looked for. */
    private static final List<String> USUAL =
            List.of("24000/1001", "24", "25", "30000/1001", "30", "48", "50", "60000/1001", "60");

    /** Beyond those, for slow pictures and quick screens. */
    private static final List<String> QUICK = List.of("90", "100", "120000/1001", "120", "240");

    private static final Param.Choice RATE = new Param.Choice(
            "rate",
            "Rate",
            Stream.of(
                            Stream.of(new Param.Choice.Option(
                                    NEAREST, "Nearest", "of the usual rates the one nearest to the footage's mean")),
                            Stream.of(2, 3, 4, MOST_TIMES)
                                    .map(times -> new Param.Choice.Option(
                                            times + TIMES, times + " times", times + " times the footage's rate")),
                            Stream.concat(USUAL.stream(), QUICK.stream())
                                    .map(rate -> new Param.Choice.Option(
                                            rate,
                                            Words.number(Math.round(1000
                                                            * Rational.parse(rate)
                                                                    .toDouble())
                                                    / 1000.0),
                                            rate + " frames a second")))
                    .flatMap(options -> options)
                    .toList(),
            NEAREST,
            "frames a second that come out");

    private static final Param.Choice FRAMES = new Param.Choice(
            "frames",
            "Frames between",
            List.of(
                    new Param.Choice.Option(
                            HELD, "Held", "the frame that is shown then, some repeated, some left out; none is made"),
                    new Param.Choice.Option(
                            MIXED,
                            "Mixed",
                            "the frames before and after are mixed as they are, each by how near it is; what moves is seen"
                                    + " twice"),
                    new Param.Choice.Option(
                            MADE,
                            "Made",
                            "made along the motion of the frames around; the clip's own stay where they fall on a"
                                    + " moment")),
            HELD,
            "what is shown at moments that the clip has no frame for");

    private static final Param.Whole CUTS = new Param.Whole(
            "cuts",
            "Cuts",
            "%",
            0,
            100,
            50L,
            "how easily two frames are taken for two scenes, between which none is made; less makes more. Where frames"
                    + " are made or mixed");

    private static final Param.Marks SCENES = new Param.Marks(
            "scenes",
            "Cuts by hand",
            "a cut",
            "no cut",
            "before the frame that is seen: where a scene begins and was not found, and where none does though one was. Where frames are made or"
                    + " mixed");

    private static final Param.Choice DOUBT = new Param.Choice(
            "doubt",
            "In doubt",
            List.of(
                    new Param.Choice.Option("motion", "Motion", "the motion is followed all the same"),
                    new Param.Choice.Option("blend", "Blend", "the frames before and after are mixed"),
                    new Param.Choice.Option("nearer", "Nearer", "the nearer frame is shown")),
            "motion",
            "what is done where both frames do not show the same along the motion. Where frames are made");

    private static final Param.Choice DETAIL = new Param.Choice(
            "detail",
            "Detail",
            List.of(
                    new Param.Choice.Option(
                            "kept", "Kept", "as strong as in the frames around: it is the nearer frame's alone"),
                    new Param.Choice.Option(
                            "mean", "Mean", "the mean of both frames': least error, but grain and fine texture pulse")),
            "kept",
            "what becomes of grain and fine texture. Where frames are made");

    private static final String NONE = "0";

    private static final Param.Choice SHUTTER = new Param.Choice(
            "shutter",
            "Shutter",
            List.of(
                    new Param.Choice.Option(NONE, "As filmed", "no blur is added"),
                    new Param.Choice.Option("90", "90\u00b0", "open for a quarter of the time from frame to frame"),
                    new Param.Choice.Option("180", "180\u00b0", "open for half of it, as film cameras mostly are"),
                    new Param.Choice.Option("270", "270\u00b0", "open for three quarters of it"),
                    new Param.Choice.Option("360", "360\u00b0", "open all the time")),
            NONE,
            "blurs what moves as a shutter would that is open so long; five to nine frames are made for each. Where frames"
                    + " are made");

    @Override
    public String id() {
        return "rate";
    }

    @Override
    public String name() {
        return "Frame rate";
    }

    @Override
    public String purpose() {
        return "brings frames to an even rate, by repeating and leaving out or by making those between along the"
                + " motion; behind Speed it makes slow motion";
    }

    @Override
    public StepGroup group() {
        return StepGroup.MOTION;
    }

    @Override
    public List<Param> params() {
        return List.of(RATE, FRAMES, DETAIL, SHUTTER, CUTS, SCENES, DOUBT);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        if (isHeld(settings)) {
            return List.of();
        }
        Format format = given.format();
        List<Problem> woven = WholeFrames.check(given, "between two frames, its fields would be mixed");
        if (!woven.isEmpty()) {
            return woven;
        }
        return Math.min(format.width(), format.height()) < LEAST
                ? List.of(Problem.at(
                        "frames",
                        "the picture here is " + format.width() + "x" + format.height()
                                + "; to find motion or cuts at least " + LEAST
                                + " pixels on each side are needed. Choose held"))
                : List.of();
    }

    private static boolean isHeld(Settings settings) {
        return settings.choice(FRAMES).orElseThrow().equals(HELD);
    }

    private static boolean isMade(Settings settings) {
        return settings.choice(FRAMES).orElseThrow().equals(MADE);
    }

    private static Rational rate(Settings settings, Given given) {
        String chosen = settings.choice(RATE).orElseThrow();
        if (chosen.endsWith(TIMES)) {
            long times = Long.parseLong(chosen.substring(0, chosen.length() - TIMES.length()));
            return given.times().rate().orElseGet(() -> nearest(given)).times(times);
        }
        return chosen.equals(NEAREST) ? nearest(given) : Rational.parse(chosen);
    }

    private static Rational nearest(Given given) {
        double mean = given.times().mean();
        return USUAL.stream()
                .map(Rational::parse)
                .min(Comparator.comparingDouble(usual -> Math.abs(Math.log(usual.toDouble() / mean))))
                .orElseThrow();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Rational rate = rate(settings, given);
        int shutter = shutter(settings);
        boolean already = given.times().rate().filter(rate::equals).isPresent();
        if (already && shutter == 0) {
            return List.of();
        }
        if (isHeld(settings)) {
            return List.of(new RateStage(given.format(), given.times(), rate));
        }
        var way = new MadeStage.Way(
                doubt(settings), torn(settings.whole(CUTS).orElseThrow()), isDetailKept(settings), scenes(settings));
        if (shutter == 0) {
            return List.of(new MadeStage(given.format(), given.times(), rate, way));
        }
        var quick = new MadeStage(given.format(), given.times(), rate.times(ShutterStage.PARTS), way);
        return List.of(quick, new ShutterStage(given.format(), quick.times(given.times()), rate, shutter));
    }

    /** Empty where frames are mixed as they are. */
    private static Optional<Doubt> doubt(Settings settings) {
        return isMade(settings)
                ? Optional.of(Doubt.valueOf(settings.choice(DOUBT).orElseThrow().toUpperCase(Locale.ROOT)))
                : Optional.empty();
    }

    private static ScenesByHand scenes(Settings settings) {
        return settings.marks(SCENES)
                .map(points -> new ScenesByHand(points.list().stream()
                        .map(point -> new ScenesByHand.Mark(point.x(), point.y() == 1))
                        .toList()))
                .orElse(ScenesByHand.NONE);
    }

    /** With a shutter what is mixed anyway gains nothing. */
    private static boolean isDetailKept(Settings settings) {
        return isMade(settings) && settings.choice(DETAIL).orElseThrow().equals("kept") && shutter(settings) == 0;
    }

    /** Degrees; 0 where none is wanted. */
    private static int shutter(Settings settings) {
        return isMade(settings) ? Integer.parseInt(settings.choice(SHUTTER).orElseThrow()) : 0;
    }

    /** Half and less of torn squares is two scenes at 30 % of them, as measured; the ends are three times as much and as little. */
    private static double torn(long cuts) {
        return cuts == 0 ? 2 : 0.3 * Math.pow(3, (50 - cuts) / 50.0);
    }

    @Override
    public String summary(Settings settings, Given given) {
        Rational rate = rate(settings, given);
        String now = Words.number(Math.round(1000 * rate.toDouble()) / 1000.0) + " frames/s";
        int shutter = shutter(settings);
        boolean already = given.times().rate().filter(rate::equals).isPresent();
        return (already
                        ? "as it is, " + now
                        : "to " + now
                                + (isHeld(settings)
                                        ? ""
                                        : ", " + settings.choice(FRAMES).orElseThrow()))
                + (shutter == 0 ? "" : ", shutter " + shutter + "\u00b0");
    }
}
