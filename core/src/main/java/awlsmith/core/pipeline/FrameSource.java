package awlsmith.core.pipeline;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import java.util.Optional;

/** A clip that can be opened at any frame; each opening is independent of the others. */
public interface FrameSource {
    /** Of its pictures. */
    Format format();

    /**
     * Frames of the range in order, ending early where the clip does.
     *
     * @param window part of the picture wanted, starting and ending on whole chroma samples or the picture's edge
     */
    FrameStream open(FrameRange range, Region window, PlanePool pool, Cancel cancel);

    /** Which part is wanted of a frame. */
    @FunctionalInterface
    interface Windows {
        /** @return starting and ending on whole chroma samples or the picture's edge */
        Region of(long frame);
    }

    /** Frames of the range in order, each holding the part that is wanted of it: what is not looked at need not be unpacked. */
    default FrameStream open(FrameRange range, Windows windows, PlanePool pool, Cancel cancel) {
        FrameStream whole = open(range, format().whole(), pool, cancel);
        return new FrameStream() {
            @Override
            public Format format() {
                return whole.format();
            }

            @Override
            public Optional<Frame> next() {
                return whole.next().map(frame -> {
                    Region part = windows.of(frame.number());
                    if (part.equals(frame.window())) {
                        return frame;
                    }
                    Frame cut = frame.copy(part, frame.number(), frame.time(), pool);
                    frame.release(pool);
                    return cut;
                });
            }

            @Override
            public void close() {
                whole.close();
            }
        };
    }
}
