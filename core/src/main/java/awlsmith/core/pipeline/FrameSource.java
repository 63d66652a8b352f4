package awlsmith.core.pipeline;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;

/** A clip that can be opened at any frame; each opening is independent of the others. */
public interface FrameSource {
    Format format();

    /**
     * Frames of the range in order, ending early where the clip does.
     *
     * @param window part of the picture wanted, starting and ending on whole chroma samples or the picture's edge
     */
    FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel);
}
