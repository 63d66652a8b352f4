package awlsmith.core.recipe;

import awlsmith.core.model.NetForm;
import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.Timing;
import java.util.Optional;

/**
 * What a step is given to work on: everything that is known of what reaches it.
 *
 * @param format of the pictures that reach it
 * @param times of their frames
 * @param form that nets run in
 * @param files that recipes name
 * @param look finds what analyses of these very pictures found
 * @param raw the pictures before noise and grain were taken out
 * @param framed finds what analyses found in the first pictures that show the same moments in the same frame, whatever their size
 * @param source from the clip to the same pictures untreated, by the steps alone that change where or when they are
 */
public record Given(
        Format format, Timing times, NetForm form, SideFiles files, Look look, Raw raw, Look framed, Chain source) {
    /**
     * Pictures whose noise and grain nobody took out yet.
     *
     * @param scale times that they were made larger since, along either side
     */
    public record Raw(double scale, Look look) {
        /** What an analysis found in them; empty when it has not been made yet. */
        @SuppressWarnings("unchecked")
        public <T> Optional<T> finding(Analysis<T> analysis) {
            return (Optional<T>) look.at(analysis);
        }
    }

    /** Finds what an analysis found in the pictures that reach a step. */
    @FunctionalInterface
    public interface Look {
        /** Empty when it has not been made yet; that it is wanted is noted. */
        Optional<Object> at(Analysis<?> analysis);
    }

    /** What an analysis found in the pictures that reach this step; empty when it has not been made yet. */
    @SuppressWarnings("unchecked")
    public <T> Optional<T> finding(Analysis<T> analysis) {
        return (Optional<T>) look.at(analysis);
    }

    /**
     * What an analysis found in the first pictures that show the same moments in the same frame: what tells of the camera alone need not wait for
     * steps that clean or enlarge. Empty when it has not been made yet.
     */
    @SuppressWarnings("unchecked")
    public <T> Optional<T> framed(Analysis<T> analysis) {
        return (Optional<T>) framed.at(analysis);
    }
}
