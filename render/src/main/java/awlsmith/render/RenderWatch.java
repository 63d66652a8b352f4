package awlsmith.render;

import awlsmith.core.colour.ScreenPicture;

/** Hears how a render gets on. Called from several threads, one call at a time. */
public interface RenderWatch {
    RenderWatch SILENT = new RenderWatch() {};

    /** Most pixels on a side of a small picture. */
    int PICTURE = 320;

    /** Waits here before each frame while something more urgent runs. */
    default void giveWay() {}

    /** @param done frames that lie finished from an earlier run; called once, first */
    default void begins(long done) {}

    /** @param done frames treated so far, those of earlier runs included */
    default void frames(long done, Shares shares) {}

    /** Whether the next treated frame is wanted as a small picture. */
    default boolean wantsPicture() {
        return false;
    }

    /** @param frame that was treated just now, as {@link #wantsPicture} wished, at most {@link #PICTURE} pixels wide and high */
    default void picture(ScreenPicture frame) {}

    /** A segment is safely on disk. */
    default void segment(int number, long frames) {}

    /**
     * All frames are treated, and are coded or put together now.
     *
     * @param doing in a few words; @param frames of all of them that are done in this go, 0 where nobody counts
     */
    default void ending(String doing, long frames) {}

    /**
     * Seconds each part of the work has been busy since this run began.
     *
     * @param decode waiting for and unpacking source frames
     * @param treat computing and packing
     * @param encode handing pictures to the encoder
     */
    record Shares(double decode, double treat, double encode) {}
}
