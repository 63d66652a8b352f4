package awlsmith.core.model;

import awlsmith.core.picture.Plane;
import java.util.List;

/** Runs one net. Several threads may call it at once; each call works on the calling thread alone. */
public interface NetRunner {
    /**
     * What has to be added to the plain enlargement of a part of a picture.
     *
     * <p>The part begins at a multiple of the model's step in the picture, and ends at one or at the picture's edge.
     *
     * <p>Samples within the net's reach of the part's edges are only right where the edge is the picture's own.
     *
     * @param frames one plane for each that the net reads, all of the same size; nominally 0..1
     * @param correction gets factor times as many samples both ways
     */
    void run(List<Plane> frames, Plane correction);

    /**
     * The same of a net that gives several planes, as many as asked for.
     *
     * @param given gets factor times as many samples both ways in each
     */
    default void run(List<Plane> frames, List<Plane> given) {
        if (given.size() != 1) {
            throw new IllegalArgumentException(given.size() + " planes are asked of a net that gives one");
        }
        run(frames, given.getFirst());
    }

    /** Bytes that one call needs for itself on a part of this size, roughly. */
    default long bytes(int width, int height) {
        return 0;
    }
}
