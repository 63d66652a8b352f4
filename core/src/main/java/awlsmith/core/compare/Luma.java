package awlsmith.core.compare;

import awlsmith.core.colour.LumaChroma;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;

/** The light of a frame: its luma, or red, green and blue weighed as BT.709 does, where it has no luma of its own. */
public final class Luma {
    /** For R'G'B', which says nothing of luma; clips are examined by the same weights. */
    static final LumaChroma WEIGHTS = LumaChroma.of(ColourTags.Matrix.BT709);

    private Luma() {}

    /** Over the frame's window; the frame's own plane where it has one, which must not be written to. */
    public static Plane of(Frame frame) {
        if (frame.format().chroma() != Chroma.RGB) {
            return frame.plane(0);
        }
        Plane luma = Plane.of(frame.window().width(), frame.window().height());
        for (int y = 0; y < luma.height(); y++) {
            for (int x = 0; x < luma.width(); x++) {
                luma.set(x, y, (float) WEIGHTS.luma(
                        frame.plane(0).at(x, y),
                        frame.plane(1).at(x, y),
                        frame.plane(2).at(x, y)));
            }
        }
        return luma;
    }
}
