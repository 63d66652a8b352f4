package awlsmith.core.alpha;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Work;
import java.util.List;

/**
 * A clip whose transparent pictures lie over middle grey, for measures that know of light alone: over black what is clear would count
 * as borders and as crushed shadows.
 */
public final class OverGrey implements FrameSource {
    private static final float GREY = 0.5f;

    private final FrameSource clip;
    private final Chain laid;

    private OverGrey(FrameSource clip) {
        this.clip = clip;
        Format format = clip.format();
        float[] behind = new float[format.chroma().planes()];
        for (int p = 0; p < behind.length; p++) {
            behind[p] = format.chroma().isDifference(p) ? 0 : GREY;
        }
        this.laid = new Chain(format, List.of(AlphaStage.over(behind, format)));
    }

    /** The clip itself where it is opaque. */
    public static FrameSource of(FrameSource clip) {
        return clip.format().alpha().isThere() ? new OverGrey(clip) : clip;
    }

    @Override
    public Format format() {
        return laid.output();
    }

    @Override
    public FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel) {
        return laid.open(clip, range, window, pool, Work.alone().with(cancel));
    }
}
