package awlsmith.core.recipe;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.time.RateStage;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** Brings frames to an even rate. */
final class RateStep implements StepKind {
    private static final String NEAREST = "nearest";

    /** Rates that television, film and the web are made in (common practice, no source). */
    private static final List<String> USUAL =
            List.of("24000/1001", "24", "25", "30000/1001", "30", "48", "50", "60000/1001", "60");

    private static final Param.Choice RATE = new Param.Choice(
            "rate",
            "Rate",
            Stream.concat(
                            Stream.of(new Param.Choice.Option(
                                    NEAREST, "Nearest", "of the usual rates the one nearest to the footage's mean")),
                            USUAL.stream()
                                    .map(rate -> new Param.Choice.Option(
                                            rate,
                                            Words.number(Math.round(1000
                                                            * Rational.parse(rate)
                                                                    .toDouble())
                                                    / 1000.0),
                                            rate + " frames a second")))
                    .toList(),
            NEAREST,
            "frames a second that come out");

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
        return "brings uneven frames, or those of another rate, to an even one by repeating and leaving out";
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
        return List.of();
    }

    private static Rational rate(Settings settings, Given given) {
        String chosen = settings.choice(RATE).orElseThrow();
        if (!chosen.equals(NEAREST)) {
            return Rational.parse(chosen);
        }
        double mean = given.times().mean();
        return USUAL.stream()
                .map(Rational::parse)
                .min(Comparator.comparingDouble(usual -> Math.abs(Math.log(usual.toDouble() / mean))))
                .orElseThrow();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Rational rate = rate(settings, given);
        boolean already = given.times().rate().filter(rate::equals).isPresent();
        return already ? List.of() : List.of(new RateStage(given.format(), given.times(), rate));
    }

    @Override
    public String summary(Settings settings, Given given) {
        Rational rate = rate(settings, given);
        String now = Words.number(Math.round(1000 * rate.toDouble()) / 1000.0) + " frames/s";
        return given.times().rate().filter(rate::equals).isPresent() ? "as it is, " + now : "to " + now;
    }
}
