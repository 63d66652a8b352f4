package awlsmith.core.plan;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.List;

/**
 * A codec that pictures go out in. Like a kind of step it describes itself: what can be set, what it holds and what not; the
 * command's options, the API and the dialog of sending out follow from that. A new one is one class, one line in {@link Codecs}, and its
 * words to FFmpeg.
 */
public interface Codec {
    /** Name in orders and on the command line. */
    String id();

    /** Name on the screen. */
    String label();

    /** What it is for, in a few words. */
    String purpose();

    /** What it may stand in, the usual one first. */
    List<Container> containers();

    /** What can be set, the most important first. */
    List<Param> params();

    /** Pixels on a side that it ends at. */
    int largestSide();

    /** Whether every sample comes back as it went in. */
    boolean isLossless();

    /** Whether pictures may be clear in places. */
    boolean holdsAlpha();

    /** Whether files of it can say that black and white are the ends of all codes; others go out in limited range. */
    default boolean holdsFullRange() {
        return true;
    }

    /** Bits that readers give samples back in. @param file format of the pictures that were written */
    default int readDepth(Format file) {
        return file.depth();
    }

    /**
     * The format of the pictures in the file; colour tags stay as they are, {@link Deliverable#fileFormat} fills them in.
     *
     * @param treated format behind the last step
     */
    Format format(Format treated, Settings settings);

    /** Frames from one picture that stands for itself to the next. */
    int gop(Settings settings);

    /** What many players will not take, in sentences. */
    List<String> warnings(Format file, Rational rate);

    /**
     * Bytes of one frame, roughly.
     *
     * @param sourceBits bits of a frame of the source, or 0 when unknown
     */
    double frameBytes(Format source, Format file, Settings settings, double sourceBits);
}
