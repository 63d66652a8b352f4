package awlsmith.core.recipe;

import awlsmith.core.colour.PointCurve;
import awlsmith.core.colour.Space;
import awlsmith.core.light.CurveStage;
import awlsmith.core.pipeline.Stage;
import java.util.List;
import java.util.Optional;

/** Sets what is black and what is white, and how light lies between them; on R'G'B', so that colour grows with the contrast. */
final class LevelsStep implements StepKind {
    /** Per cent that black and white must lie apart. */
    private static final double APART = 1;

    private static final Param.Real BLACK = new Param.Real(
            "black",
            "Black",
            "%",
            -50,
            90,
            0.0,
            "what lies here becomes black; faded film has its black at 10 to 25",
            true);
    private static final Param.Real WHITE =
            new Param.Real("white", "White", "%", 10, 150, 100.0, "what lies here becomes white", true);
    private static final Param.Real GAMMA = new Param.Real(
            "gamma", "Gamma", "", 0.2, 5, 1.0, "above 1 lifts what lies between, below 1 lowers it", true);
    private static final Param.Curve CURVE =
            new Param.Curve("curve", "Curve", "light out by light in, behind the three above; 0 is black and 1 white");

    @Override
    public String id() {
        return "levels";
    }

    @Override
    public String name() {
        return "Levels";
    }

    @Override
    public String purpose() {
        return "sets black, white and what lies between, steadily or over time";
    }

    @Override
    public StepGroup group() {
        return StepGroup.COLOUR;
    }

    @Override
    public List<Param> params() {
        return List.of(BLACK, WHITE, GAMMA, CURVE, SHARE);
    }

    @Override
    public Space space(Settings settings) {
        return Space.RGB;
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        Points black = settings.keyed(BLACK).orElseThrow();
        Points white = settings.keyed(WHITE).orElseThrow();
        // straight lines are nearest to each other at a point of one of them
        for (Points keys : List.of(black, white)) {
            for (Points.Point key : keys.list()) {
                if (white.straight(key.x()) - black.straight(key.x()) < APART) {
                    return List.of(Problem.at(
                            "black",
                            "black lies at " + Words.number(black.straight(key.x())) + " % and white at "
                                    + Words.number(white.straight(key.x())) + " %"
                                    + (black.list().size() + white.list().size() > 2
                                            ? ", " + Words.number(key.x()) + " s in"
                                            : "")
                                    + "; white must lie at least 1 % above black"));
                }
            }
        }
        return List.of();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Points black = settings.keyed(BLACK).orElseThrow();
        Points white = settings.keyed(WHITE).orElseThrow();
        Points gamma = settings.keyed(GAMMA).orElseThrow();
        Optional<Points> curve = settings.curve(CURVE);
        if (black.list().size() + white.list().size() + gamma.list().size() == 3) {
            return List.of(CurveStage.of(given.format(), at(0, black, white, gamma, curve)));
        }
        return List.of(
                CurveStage.over(given.format(), seconds -> new PointCurve[] {at(seconds, black, white, gamma, curve)}));
    }

    /** Below black gamma mirrors, so that excursions are kept. */
    private static PointCurve at(double seconds, Points black, Points white, Points gamma, Optional<Points> curve) {
        double low = black.straight(seconds) / 100;
        double span = white.straight(seconds) / 100 - low;
        double power = 1 / gamma.straight(seconds);
        return PointCurve.of(v -> {
            double level = (v - low) / span;
            double lifted = power == 1 ? level : Math.signum(level) * Math.pow(Math.abs(level), power);
            return curve.map(points -> points.smooth(lifted)).orElse(lifted);
        });
    }

    @Override
    public String summary(Settings settings, Given given) {
        return span(settings.keyed(BLACK).orElseThrow()) + " to "
                + span(settings.keyed(WHITE).orElseThrow()) + " %, gamma "
                + span(settings.keyed(GAMMA).orElseThrow())
                + (settings.curve(CURVE).isPresent() ? ", curve" : "");
    }

    /** One value, or the first and the last of several. */
    static String span(Points keys) {
        String first = Words.number(keys.list().getFirst().y());
        return keys.list().size() == 1
                ? first
                : first + "…" + Words.number(keys.list().getLast().y());
    }
}
