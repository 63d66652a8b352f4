package awlsmith.core.recipe;

import awlsmith.core.detail.UnsmearStage;
import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** Takes the blur of motion out of what moves. */
final class UnsmearStep implements StepKind {
    private static final int LEAST = 32;

    private static final Param.Real SHUTTER = new Param.Real(
            "shutter",
            "Shutter",
            "\u00b0",
            10,
            360,
            180.0,
            "how long it was open, of the 360\u00b0 from frame to frame: film cameras mostly 180\u00b0, phones less in sunlight and up"
                    + " to 360\u00b0 at night. Too much makes double edges");

    @Override
    public String id() {
        return "unsmear";
    }

    @Override
    public String name() {
        return "Motion blur";
    }

    @Override
    public String purpose() {
        return "takes the blur out of what moves, along the way it goes; what stands stays as it is. It helps where things go evenly"
                + " by two pixels a frame and more, not where noise or a codec has taken the detail";
    }

    @Override
    public StepGroup group() {
        return StepGroup.DETAIL;
    }

    @Override
    public List<Param> params() {
        return List.of(SHUTTER, SHARE);
    }

    @Override
    public List<Problem> check(Settings settings, Given given) {
        List<Problem> woven = WholeFrames.check(given, "motion is told by whole frames");
        if (!woven.isEmpty()) {
            return woven;
        }
        Format format = given.format();
        return Math.min(format.width(), format.height()) < LEAST
                ? List.of(Problem.at(
                        "",
                        "the picture here is " + format.width() + "x" + format.height() + "; to find motion at least "
                                + LEAST + " pixels on each side are needed"))
                : List.of();
    }

    @Override
    public List<Stage> stages(Settings settings, Given given) {
        return List.of(new UnsmearStage(given.format(), settings.real(SHUTTER).orElseThrow()));
    }

    @Override
    public String summary(Settings settings, Given given) {
        return "shutter " + Words.number(settings.real(SHUTTER).orElseThrow()) + "\u00b0";
    }
}
