package awlsmith.core.recipe;

import awlsmith.core.colour.Space;
import awlsmith.core.pipeline.Stage;
import java.util.List;

/** A kind of treatment: describes itself, checks its settings against a format and makes the stage. */
public interface StepKind {
    /** How much of a step is done; kinds that change samples where they are offer it, and the treatment sees to it. */
    Param.Whole SHARE = new Param.Whole(
            "share",
            "Share",
            "%",
            0,
            100,
            100L,
            "how much of it is done; less keeps more of the picture as it reaches the step");

    /** Name in recipes and on the command line. */
    String id();

    /** Name on the screen. */
    String name();

    /** What it is for, in a sentence. */
    String purpose();

    /** Where it stands among the others. */
    StepGroup group();

    /** What can be set, the most important first. */
    List<Param> params();

    /** What samples must mean to it; a treatment brings pictures there and, at last, back. */
    default Space space(Settings settings) {
        return Space.CODED;
    }

    /** Whether it deals with transparency itself; of all others a treatment carries it by them. */
    default boolean readsAlpha() {
        return false;
    }

    /** Whether it takes noise or grain out, so that what the source's was like is seen before it alone. */
    default boolean takesGrain() {
        return false;
    }

    /** What is wrong with these settings for what reaches the step; empty when nothing is. */
    List<Problem> check(Settings settings, Given given);

    /**
     * The treatment, one or more stages; only for settings that {@link #check} found nothing wrong with.
     *
     * @throws RecipeException when something it needs, such as a model's file, turns out to be unusable
     */
    List<Stage> stages(Settings settings, Given given);

    /**
     * What it does to the source's own pictures where they are brought along untreated: nothing where it only changes what samples say, else
     * the same as to all.
     *
     * @param made its own stages
     */
    default List<Stage> beside(Settings settings, Given given, List<Stage> made) {
        return params().contains(SHARE) ? List.of() : made;
    }

    /** The main setting in a few words, for the step's line: {@code 2x lanczos3}. */
    String summary(Settings settings, Given given);

    /** What it does over the clip, where that is known and worth a curve. */
    default List<StepCurve> curves(Settings settings, Given given) {
        return List.of();
    }
}
