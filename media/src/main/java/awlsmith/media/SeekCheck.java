package awlsmith.media;

import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import java.util.Optional;
import java.util.function.DoubleConsumer;

/**
 * Proves that frames of a clip reached by seeking are those decoded from its start, at a fair sample of places, and finds how far
 * before a frame decoding must begin where they are not: open groups of pictures, pictures refreshed bit by bit, wrong marks of key
 * frames, broken indexes, settings that stand in the first packet only.
 */
public final class SeekCheck {
    /** Places looked at; every frame shown later is held against its checksum anyway, so more would only cost time. */
    private static final int PLACES = 10;

    private static final int FRAMES = 3;

    private SeekCheck() {}

    /**
     * @param progress hears shares of the work, 0..1
     * @return the index, with the place to begin decoding at
     * @throws MediaException when a frame cannot be reached at all
     */
    public static FrameIndex check(MediaInfo info, FrameIndex index, DoubleConsumer progress, Cancel cancel) {
        var clip = new Clip(info, Optional.of(index));
        if (index.count() <= FRAMES || !clip.timesAreSound()) {
            return index;
        }
        int worst = index.entry();
        var pool = new PlanePool(0);
        Region corner = new Region(0, 0, Math.min(2, info.video().format().width()), 1)
                .aligned(
                        info.video().format().chroma(),
                        info.video().format().width(),
                        info.video().format().height());
        for (int place = 0; place < PLACES && worst != Decoding.FROM_START; place++) {
            // not at even distances, which could all fall on key frames
            long from = 1 + (long) ((index.count() - 1 - FRAMES) * (place + golden(place)) / PLACES);
            var range = new FrameRange(from, Math.min(index.count(), from + FRAMES));
            try (var decoding = new Decoding(clip, range, frame -> corner, pool, cancel, worst)) {
                while (decoding.next().isPresent()) {
                    // held against its checksum inside
                }
                worst = Math.max(worst, decoding.attempt());
            }
            progress.accept((place + 1.0) / PLACES);
        }
        return index.from(worst);
    }

    /** Spread over 0..1. */
    private static double golden(int place) {
        return place * 0.6180339887 % 1;
    }
}
