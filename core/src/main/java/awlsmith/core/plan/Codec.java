package awlsmith.core.plan;

import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.List;

/**
 * A codec that pictures go out in. Like a kind of step it describes itself: what can be set, what it holds and what not; the
 * command's options, the API and the dialog of sending out follow from that. A new one is one class, one line in {@link Codecs}, and its
 * words to FFmpeg.
 */
public interface Codec {
    /** Key of the setting that names a {@link Coder}, where there is a choice. */
    String CODER = "coder";

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

    /** Whether every sample comes back as it went in, where nothing else is set. */
    default boolean isLossless() {
        return false;
    }

    /** Whether pictures may be clear in places. */
    default boolean holdsAlpha() {
        return false;
    }

    /** What the file says of its colours. @param tags of the treated pictures, filled in where they said nothing */
    default ColourTags colour(ColourTags tags) {
        return tags;
    }

    /** The same, where it hangs on what was set. */
    default ColourTags colour(ColourTags tags, Settings settings) {
        return colour(tags);
    }

    /** What readers give back of pictures that were written so. */
    default Format readAs(Format file) {
        return file;
    }

    /** Whether files of it say what their colours mean, and how long samples are in proportion; else all readers take the same for granted. */
    default boolean tellsColour() {
        return true;
    }

    /** Seconds that files of it count in at the coarsest. */
    default double tick() {
        return 0.001;
    }

    /**
     * Whether a render's parts are coded one by one and then put together as they are. Else they are kept without loss, and coded
     * when all of them are there.
     */
    default boolean isCodedInParts(Settings settings) {
        return true;
    }

    /** What codes it. */
    default Coder coder(Settings settings) {
        return Coder.CORES;
    }

    /** Whether the treated pictures themselves go out, to be kept or looked at; else a view of them, in a size of its own. */
    default boolean holdsPictures() {
        return true;
    }

    /** Which of the treated frames go into such a file. */
    default Taking taking(Container container) {
        return Taking.ALL;
    }

    /**
     * Those that go into it where it takes {@link Taking#FEW}, by their numbers, rising.
     *
     * @param made all of them; not open
     */
    default List<Long> picks(Settings settings, FrameRange made) {
        throw new IllegalStateException(label() + " takes all frames, or none");
    }

    /** Why such pictures cannot go out in it, each with what would work; empty when they can. */
    default List<String> refusals(Format file, Rational rate, Container container) {
        return List.of();
    }

    /**
     * The format of the pictures in the file; colour tags stay as they are, {@link Deliverable#fileFormat} fills them in.
     *
     * @param treated format behind the last step
     */
    Format format(Format treated, Settings settings);

    /** Frames from one picture that stands for itself to the next; 1 where each does. */
    default int gop(Settings settings) {
        return 1;
    }

    /** Rate factors that span what is chosen among, the most usual first; empty where it does not go by one. */
    default List<Integer> qualities() {
        return List.of();
    }

    /** The same settings at another rate factor, whatever they went by; of a codec that has {@link #qualities}. */
    default Settings atQuality(Settings settings, int rateFactor) {
        throw new IllegalStateException(label() + " goes by no rate factor");
    }

    /** What many players will not take, in sentences. */
    default List<String> warnings(Format file, Rational rate) {
        return List.of();
    }

    /**
     * How many pictures there are.
     *
     * @param rate frames a second
     * @param sourceBits bits of a frame of the source, or 0 when unknown
     */
    record Amount(long frames, double rate, double sourceBits) {}

    /** Bytes of the file, roughly; sound not counted. */
    double fileBytes(Format source, Format file, Settings settings, Amount amount);
}
