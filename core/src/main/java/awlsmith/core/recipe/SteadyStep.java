package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.shape.StraightenStage;
import awlsmith.core.steady.CameraPath;
import awlsmith.core.steady.CameraPath.Kind;
import awlsmith.core.steady.Smoothing;
import awlsmith.core.steady.SteadyMoves;
import awlsmith.core.steady.SteadyStage;
import awlsmith.core.steady.Warp;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntToDoubleFunction;

/** Holds the picture steady against a shaking hand. */
final class SteadyStep implements StepKind {
    private static final Analysis<CameraPath> FOLLOW = new FollowCamera();
    private static final int LEAST = 32;
    /** Values of a curve at most. */
    private static final int POINTS = 300;

    private static final int KEPT = 8;
    private static final Map<Asked, Smoothed> RECENT = new LinkedHashMap<>(KEPT, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Asked, Smoothed> eldest) {
            return size() > KEPT;
        }
    };

    private static final Param.Choice WAY = new Param.Choice(
            "way",
            "Way",
            List.of(
                    new Param.Choice.Option("smooth", "Smooth", "quick movements go, slow ones like panning stay"),
                    new Param.Choice.Option("sweep", "Sweep", "one even movement over each scene"),
                    new Param.Choice.Option(
                            "still", "Still", "as on a tripod: all frames of a scene lie over its middle one")),
            "smooth",
            "what becomes of the way the camera went");

    private static final Param.Real OVER = new Param.Real(
            "over",
            "Calmed over",
            "s",
            0.1,
            5,
            1.0,
            "movements quicker than this are taken out; slower ones, as when panning, stay. Where the way is smooth");

    private static final Param.Choice MOVES = new Param.Choice(
            "moves",
            "Takes out",
            List.of(
                    new Param.Choice.Option("shift", "Shifts", "movements across and down alone"),
                    new Param.Choice.Option("turn", "Turns too", "shifts, turns about the axis, and zoom"),
                    new Param.Choice.Option(
                            "perspective", "Perspective too", "also what leans when the camera tilts and swings")),
            "turn",
            "which of the camera's movements are taken out");

    private static final Param.Real ROLLING = new Param.Real(
            "rolling",
            "Rolling shutter",
            "%",
            0,
            100,
            null,
            "share of the time from frame to frame that the sensor took to read its rows, which makes upright things lean"
                    + " when the camera swings; left empty it is measured");

    private static final Param.Choice EDGES = new Param.Choice(
            "edges",
            "Edges",
            List.of(
                    new Param.Choice.Option("cut", "Cut", "the rim is cut off, so that the picture is whole"),
                    new Param.Choice.Option(
                            "fill",
                            "Filled",
                            "it keeps its size: each scene is enlarged by as little as it takes, in the same resampling"),
                    new Param.Choice.Option(
                            "black", "Black", "the picture keeps its size; what a frame does not show is black"),
                    new Param.Choice.Option(
                            "mirror", "Mirrored", "it keeps its size; the frame is mirrored at its edges"),
                    new Param.Choice.Option(
                            "neighbours",
                            "From neighbours",
                            "it keeps its size; what a frame does not show is taken from those up to eight before and"
                                    + " behind")),
            "cut",
            "what is shown where a moved frame does not reach");

    private static final Param.Whole RIM = new Param.Whole(
            "rim",
            "Rim",
            "%",
            1,
            20,
            6L,
            "of each side: so far a frame can be moved; so much is cut off where edges are cut, and enlarged away at most"
                    + " where they are filled");

    private static final Param.Choice ROLL = new Param.Choice(
            "roll",
            "Roll",
            List.of(
                    new Param.Choice.Option("way", "As the way", "it is calmed as the rest of the way is"),
                    new Param.Choice.Option(
                            "level", "Level", "through each scene the horizon leans as it does in the scene's mean")),
            "way",
            "what becomes of the camera's turning about its axis. Where turns are taken out");

    private static final Param.Real ANGLE = new Param.Real(
            "angle",
            "Straighten",
            "\u00b0",
            -StraightenStage.MOST,
            StraightenStage.MOST,
            0.0,
            "turns the picture clockwise in the same resampling, enlarged by as little as leaves no empty corner");

    @Override
    public String id() {
        return "steady";
    }

    @Override
    public String name() {
        return "Steady";
    }

    @Override
    public String purpose() {
        return "takes the shake of a hand out of the picture: shifts, turns, and what a rolling shutter bends";
    }

    @Override
    public StepGroup group() {
        return StepGroup.MOTION;
    }

    @Override
    public List<Param> params() {
        return List.of(WAY, OVER, MOVES, EDGES, RIM, ROLL, ANGLE, ROLLING);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        Format input = given.format();
        List<Problem> woven = WholeFrames.check(given, "moved, its fields would change places");
        if (!woven.isEmpty()) {
            return woven;
        }
        return Math.min(input.width(), input.height()) < LEAST
                ? List.of(Problem.at(
                        "",
                        "the picture here is " + input.width() + "x" + input.height() + "; at least " + LEAST
                                + " pixels on each side are needed"))
                : List.of();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Format input = given.format();
        double share = rim(settings);
        SteadyStage.Edges edges = edges(settings);
        boolean cut = edges == SteadyStage.Edges.CUT;
        int rimX = cut ? whole(share * input.width(), input.chroma().stepX()) : 0;
        int rimY = cut ? whole(share * input.height(), input.chroma().stepY()) : 0;
        SteadyMoves moves = given.framed(FOLLOW)
                .map(path -> {
                    Smoothed smoothed = smoothed(settings, given, path);
                    return new SteadyMoves(
                            Optional.of(smoothed.path()),
                            kind(settings),
                            smoothed.moves().warps(),
                            rolling(settings, path));
                })
                .orElse(SteadyMoves.NONE);
        return List.of(new SteadyStage(input, rimX, rimY, moves, edges));
    }

    /** What the smoothing follows from. */
    private record Asked(
            CameraPath path,
            Kind kind,
            Smoothing.Way way,
            boolean fills,
            double frames,
            double rolling,
            double rim,
            Smoothing.Horizon horizon) {
        Smoothed smoothed() {
            CameraPath straight = path.straightened(rolling);
            var smoothing = new Smoothing(straight, kind, frames, rolling, horizon);
            return new Smoothed(straight, fills ? smoothing.filling(way, rim) : smoothing.moves(way, rim));
        }
    }

    /** @param path that was smoothed */
    private record Smoothed(CameraPath path, Smoothing.Moves moves) {}

    /** The same is asked for its line, its curves and its pictures. */
    private static Smoothed smoothed(Settings settings, Given given, CameraPath path) {
        Format input = given.format();
        double share = rim(settings);
        // what is cut off in whole samples may be a little less than asked
        double held = edges(settings) == SteadyStage.Edges.CUT
                ? Math.min(
                        (double) whole(share * input.width(), input.chroma().stepX()) / input.width(),
                        (double) whole(share * input.height(), input.chroma().stepY()) / input.height())
                : share;
        double frames = settings.real(OVER).orElseThrow() * given.times().mean() / 2;
        var asked = new Asked(
                path,
                kind(settings),
                way(settings),
                edges(settings) == SteadyStage.Edges.FILL,
                frames,
                rolling(settings, path),
                held,
                horizon(settings));
        synchronized (RECENT) {
            return RECENT.computeIfAbsent(asked, Asked::smoothed);
        }
    }

    private static double rim(Settings settings) {
        return settings.whole(RIM).orElseThrow() / 100.0;
    }

    private static double rolling(Settings settings, CameraPath path) {
        return settings.real(ROLLING).isPresent() ? settings.real(ROLLING).orElseThrow() / 100 : path.rolling();
    }

    private static Smoothing.Horizon horizon(Settings settings) {
        return new Smoothing.Horizon(
                settings.real(ANGLE).orElseThrow(),
                settings.choice(ROLL).orElseThrow().equals("level"));
    }

    private static Kind kind(Settings settings) {
        return Kind.valueOf(settings.choice(MOVES).orElseThrow().toUpperCase(Locale.ROOT));
    }

    private static Smoothing.Way way(Settings settings) {
        return Smoothing.Way.valueOf(settings.choice(WAY).orElseThrow().toUpperCase(Locale.ROOT));
    }

    private static SteadyStage.Edges edges(Settings settings) {
        return SteadyStage.Edges.valueOf(settings.choice(EDGES).orElseThrow().toUpperCase(Locale.ROOT));
    }

    private static int whole(double samples, int step) {
        return Math.max(step, (int) Math.round(samples / step) * step);
    }

    /** How, how much of the picture stays, and once the way is known whether the rim is wide enough. */
    @Override
    public String summary(Settings settings, Given given) {
        String how = switch (way(settings)) {
            case SMOOTH -> "over " + Words.number(settings.real(OVER).orElseThrow()) + " s";
            case SWEEP -> "one even sweep a scene";
            case STILL -> "still";
        };
        Format input = given.format();
        // what straightening leaves, of what the rim leaves of each side
        double left = (1 - 2 * rim(settings))
                * horizon(settings)
                        .kept(input.height() / (input.width() * input.sar().toDouble()));
        String edges = switch (edges(settings)) {
            case CUT -> ", keeps " + Math.round(100 * left * left) + " % of the picture";
            case FILL -> ", enlarged by up to " + Math.round(100 / left - 100) + " %";
            default -> ", full size, moved by up to " + settings.whole(RIM).orElseThrow() + " %";
        };
        double angle = settings.real(ANGLE).orElseThrow();
        return how
                + (horizon(settings).level() && kind(settings) != Kind.SHIFT ? ", level" : "")
                + (angle == 0 ? "" : ", straightened by " + Words.number(angle) + "\u00b0")
                + edges
                + given.framed(FOLLOW).map(path -> known(settings, given, path)).orElse("");
    }

    private static String known(Settings settings, Given given, CameraPath path) {
        int cramped = smoothed(settings, given, path).moves().cramped();
        String narrow = cramped == 0
                ? ""
                : "; the rim is too narrow for " + Math.max(1, Math.round(100.0 * cramped / path.frames()))
                        + " % of frames";
        double rolling = rolling(settings, path);
        return narrow + (rolling == 0 ? "" : "; rows read in " + Math.round(100 * rolling) + " % of a frame");
    }

    /** The way the camera went, and the way it goes now; in each scene from its first frame on. */
    @Override
    public List<StepCurve> curves(Settings settings, Given given) {
        return given.framed(FOLLOW)
                .filter(path -> path.frames() > 1)
                .map(path -> {
                    Smoothed smoothed = smoothed(settings, given, path);
                    Warp[] warps = smoothed.moves().warps();
                    double[][] course = smoothed.path().course();
                    boolean turns = kind(settings) != Kind.SHIFT;
                    var curves = new ArrayList<StepCurve>();
                    curves.add(curve("across", "% of the width", 100, course[0], n -> -warps[n].c()));
                    curves.add(curve("down", "% of the width", 100, course[1], n -> -warps[n].f()));
                    if (turns) {
                        curves.add(curve("turn", "\u00b0", Math.toDegrees(1), course[2], n -> -warps[n].angle()));
                    }
                    return List.copyOf(curves);
                })
                .orElse(List.of());
    }

    private static StepCurve curve(String name, String unit, double scale, double[] course, IntToDoubleFunction moved) {
        int count = Math.min(POINTS, course.length);
        var before = new ArrayList<Double>();
        var after = new ArrayList<Double>();
        for (int i = 0; i < count; i++) {
            int n = (int) ((long) i * course.length / count);
            before.add(rounded(scale * course[n]));
            after.add(rounded(scale * (course[n] + moved.applyAsDouble(n))));
        }
        return new StepCurve(name, unit, before, after);
    }

    private static double rounded(double value) {
        return Math.rint(1000 * value) / 1000;
    }
}
