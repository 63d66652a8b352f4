package awlsmith.core.pipeline;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;

/**
 * One treatment, made for one input format. It turns a few neighbouring input frames into one output frame, and says
 * how far it reaches in time and space, so that any region of any frame can be computed alone.
 *
 * <p>Contract: the output is a pure function of the input frames; computing a region gives the same bits as cutting it
 * out of the whole. Input frames are read only.
 */
public interface Stage {
    Format output();

    /** Where the whole input picture lies in the output picture. */
    default Placement placement() {
        return Placement.over(output());
    }

    /** Input frames wanted before the frame being made. */
    default int before() {
        return 0;
    }

    /** Input frames wanted after the frame being made. */
    default int after() {
        return 0;
    }

    /** Bytes beside its frames that each thread working on it needs, roughly; a net's inner planes are such. */
    default long workBytes() {
        return 0;
    }

    /** The part of the input picture that a part of the output picture is made from, on whole chroma samples. */
    Region needs(Region output);

    /**
     * Makes one output frame.
     *
     * @param input frames that each hold at least {@code needs(wanted)}
     * @param wanted part of the output picture, on whole chroma samples
     * @return a new frame over exactly {@code wanted}, with planes from the pool
     */
    Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work);

    /** Input frames by distance from the one being made. */
    interface Neighbours {
        /** The frame at this distance, -before..after; past the clip's ends the nearest frame there is. */
        Frame at(int distance);
    }
}
