package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.upscale.NetForm;
import java.util.List;

/** A kind of treatment: describes itself, checks its settings against a format and makes the stage. */
public interface StepKind {
    /** Name in recipes and on the command line. */
    String id();

    /** Name on the screen. */
    String name();

    /** What it is for, in a sentence. */
    String purpose();

    List<Param> params();

    /** What is wrong with these settings for pictures of this format; empty when nothing is. */
    List<Problem> check(Settings settings, Format input);

    /**
     * The treatment, one or more stages; only for settings that {@link #check} found nothing wrong with.
     *
     * @param form that nets run in
     * @throws RecipeException when something it needs, such as a model's file, turns out to be unusable
     */
    List<Stage> stages(Settings settings, Format input, NetForm form);

    /** The main setting in a few words, for the step's line: {@code 2x lanczos3}. */
    String summary(Settings settings, Format input);
}
