package awlsmith.core.recipe;

import awlsmith.core.alpha.FillClear;
import awlsmith.core.alpha.WithAlpha;
import awlsmith.core.colour.Space;
import awlsmith.core.colour.SpaceStages;
import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.ShareStage;
import awlsmith.core.pipeline.Stage;
import java.util.ArrayList;
import java.util.List;

/**
 * The stages of a treatment while they are put together: between those of the steps it puts what brings pictures to the working space that
 * a step asks for, and carries transparency by the steps that know nothing of it. At the end pictures are coded as they came.
 */
final class Line {
    private final List<Stage> stages = new ArrayList<>();
    private Format format;
    /** How pictures were coded when they last were. */
    private Format coded;

    private Space space = Space.CODED;
    /** Whether colour was led into what is clear. */
    private boolean filled;

    Line(Format source) {
        format = source;
        coded = source;
    }

    /** Of the pictures behind the last stage. */
    Format format() {
        return format;
    }

    int count() {
        return stages.size();
    }

    /**
     * Makes ready for a step.
     *
     * @return the format of what reaches it
     */
    Format bring(Step step) {
        boolean itself = step.known().readsAlpha();
        if (format.alpha() == Alpha.STRAIGHT && !filled && !itself) {
            put(List.of(new FillClear(format)));
        }
        filled = !itself;
        to(step.known().space(step.settings()));
        return itself ? format : format.opaque();
    }

    void add(Step step, List<Stage> made) {
        put(step.known().readsAlpha() ? made : WithAlpha.around(format, inPart(step, made)));
    }

    /** A step that offers a share of itself, done by as much as is asked for. */
    private static List<Stage> inPart(Step step, List<Stage> made) {
        if (!step.known().params().contains(StepKind.SHARE)) {
            return made;
        }
        long share = step.settings().whole(StepKind.SHARE).orElseThrow();
        return share == 100
                ? made
                : made.stream()
                        .<Stage>map(stage -> new ShareStage(stage, share / 100.0))
                        .toList();
    }

    private void to(Space wanted) {
        if (space == Space.CODED) {
            coded = format;
        }
        Format home = coded.withSize(format.width(), format.height(), format.sar())
                .withScan(format.scan())
                .opaque();
        put(WithAlpha.around(format, SpaceStages.between(format.opaque(), space, wanted, home)));
        space = wanted;
    }

    private void put(List<Stage> more) {
        stages.addAll(more);
        format = stages.isEmpty() ? format : stages.getLast().output();
    }

    /** Those so far, and what would bring the pictures back to how they are coded. */
    List<Stage> soFar() {
        var now = new Line(format);
        now.coded = coded;
        now.space = space;
        now.stages.addAll(stages);
        return now.end();
    }

    /** All of them, and what brings the pictures back to how they are coded. */
    List<Stage> end() {
        to(Space.CODED);
        return stages;
    }
}
