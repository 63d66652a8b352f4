package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import java.util.Map;

/**
 * Something a step has to know of the whole clip before it can treat its first frame: every frame that reaches the step is shown to
 * it once, in order.
 *
 * @param <T> what is found; a record of plain values
 */
public interface Analysis<T> {
    /** Names it with its version and everything that what is found depends on, beside the pictures: {@code camera-path/1}. */
    String id();

    /** What is being done, for whoever waits: {@code following the camera}. */
    String doing();

    /** Begins. */
    Fold<T> begin(Format input, Timing times);

    /** Its open form: plain maps, lists, numbers and strings. */
    Map<String, Object> toTree(T found);

    /** @throws IllegalArgumentException when the tree is not what {@link #toTree} makes */
    T fromTree(Map<?, ?> tree);

    /** Sees frame after frame. */
    interface Fold<T> {
        /** @param frame a whole picture; given back to the pool afterwards */
        void see(Frame frame, Work work);

        /** What was found in all of them. */
        T found();
    }
}
