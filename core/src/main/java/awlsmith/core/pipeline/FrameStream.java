package awlsmith.core.pipeline;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import java.util.Optional;

/**
 * Frames one after another, pulled by whoever wants them. One thread at a time. The puller owns the frame it gets and
 * gives its planes back to the pool when done.
 */
public interface FrameStream extends AutoCloseable {
    /** Of its frames. */
    Format format();

    /** The next frame, or empty at the end. */
    Optional<Frame> next();

    /** Lets go of everything behind the stream; may be called at any time, more than once. */
    @Override
    void close();
}
