package awlsmith.core.recipe;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.retime.BlendFinder;
import awlsmith.core.retime.Blending;
import awlsmith.core.retime.UnblendStage;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/** Takes apart frames that are mixes of two. */
final class UnblendStep implements StepKind {
    private static final String MEASURED = "measured";

    private static final Param.Choice RATE = new Param.Choice(
            "rate",
            "Rate before",
            Stream.concat(
                            Stream.of(new Param.Choice.Option(MEASURED, "Measured", "what the frames tell")),
                            BlendFinder.RATES.stream()
                                    .sorted()
                                    .map(rate -> new Param.Choice.Option(
                                            rate.toString(), text(rate), text(rate) + " frames a second")))
                    .toList(),
            MEASURED,
            "frames a second that there were before they were mixed");

    private static String text(Rational rate) {
        return Words.number(Math.round(1000 * rate.toDouble()) / 1000.0);
    }

    @Override
    public String id() {
        return "unblend";
    }

    @Override
    public String name() {
        return "Undo mixing";
    }

    @Override
    public String purpose() {
        return "takes apart frames that are mixes of two, as a change of rate by mixing leaves them, and brings back the"
                + " rate there was";
    }

    @Override
    public StepGroup group() {
        return StepGroup.MOTION;
    }

    @Override
    public List<Param> params() {
        return List.of(RATE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        List<Problem> woven = WholeFrames.check(given, "its fields were mixed, which frames do not tell");
        if (!woven.isEmpty()) {
            return woven;
        }
        String chosen = settings.choice(RATE).orElseThrow();
        Optional<Rational> now = given.times().rate();
        if (chosen.equals(MEASURED) || now.isEmpty()) {
            return List.of();
        }
        double most = UnblendStage.MOST * now.orElseThrow().toDouble();
        return Rational.parse(chosen).toDouble() > most
                ? List.of(Problem.at(
                        "rate",
                        "frames come at " + text(now.orElseThrow()) + " a second here; only what was mixed from "
                                + Words.number(Math.floor(10 * most) / 10) + " or less can be taken apart"))
                : List.of();
    }

    private static List<Rational> rates(Settings settings) {
        String chosen = settings.choice(RATE).orElseThrow();
        return chosen.equals(MEASURED) ? BlendFinder.RATES : List.of(Rational.parse(chosen));
    }

    private static Optional<Optional<Blending>> found(Settings settings, Given given) {
        // what comes unevenly was not mixed to an even rate
        return given.times().rate().isEmpty()
                ? Optional.of(Optional.empty())
                : given.finding(new FindBlends(rates(settings)));
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return found(settings, given)
                .flatMap(found -> found)
                .<List<Stage>>map(blending -> List.of(
                        new UnblendStage(given.format(), given.times().rate().orElseThrow(), blending)))
                .orElse(List.of());
    }

    @Override
    public String summary(Settings settings, Given given) {
        return found(settings, given)
                .map(found -> found.map(blending -> "back to " + text(blending.rate()) + " frames/s")
                        .orElse("nothing was mixed, all stays"))
                .orElse("once the frames are looked at");
    }
}
