package awlsmith.core.recipe;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.retime.SpeedStage;
import java.util.List;

/** Plays faster or slower. */
final class SpeedStep implements StepKind {
    private static final Param.Whole SPEED = new Param.Whole(
            "speed", "Speed", "%", 10, 800, 100L, "50 is half as fast and twice as long; sound keeps its pitch");

    @Override
    public String id() {
        return "speed";
    }

    @Override
    public String name() {
        return "Speed";
    }

    @Override
    public String purpose() {
        return "plays the same frames faster or slower; sound, chapters and subtitles keep to them";
    }

    @Override
    public StepGroup group() {
        return StepGroup.MOTION;
    }

    @Override
    public List<Param> params() {
        return List.of(SPEED);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        return List.of();
    }

    private static Rational speed(Settings settings) {
        return new Rational(settings.whole(SPEED).orElseThrow(), 100);
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        Rational speed = speed(settings);
        return speed.equals(Rational.ONE) ? List.of() : List.of(new SpeedStage(given.format(), speed));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return settings.whole(SPEED).orElseThrow() + " %";
    }
}
