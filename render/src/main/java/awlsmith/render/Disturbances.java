package awlsmith.render;

import awlsmith.core.pipeline.Cancel;
import awlsmith.media.MediaException;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.locks.LockSupport;

/**
 * What is ended from outside while a file is made, such as an FFmpeg that the system kills because memory runs short: nights are long, and nobody
 * is there to begin again. It is begun again from the finished parts, as long as that leads anywhere.
 */
final class Disturbances {
    private static final System.Logger LOG = System.getLogger(Disturbances.class.getName());

    /** How often it is begun again without a part more than before. */
    private static final int IN_VAIN = 3;

    /** For what ran short to be there again. */
    private static final Duration PAUSE = Duration.ofSeconds(2);

    private int all;
    private int inVain;
    private long most = -1;

    /**
     * Whether another go is worth it, told after a while; not where it is of another kind, or the last goes led nowhere.
     *
     * @param frames that are safe by now
     */
    boolean isEndured(MediaException e, long frames, Cancel cancel) {
        if (!e.isFromOutside()) {
            return false;
        }
        inVain = frames > most ? 1 : inVain + 1;
        most = Math.max(most, frames);
        if (inVain > IN_VAIN) {
            return false;
        }
        all++;
        LOG.log(System.Logger.Level.WARNING, "{0}; begun again at frame {1}", e.getMessage(), frames);
        long end = System.nanoTime() + PAUSE.toNanos();
        while (System.nanoTime() < end) {
            // where the whole process is being ended its children may have heard of it first
            cancel.check();
            LockSupport.parkNanos(50_000_000);
        }
        return true;
    }

    /** How often, in a sentence; empty where nothing was. */
    Optional<String> words() {
        return all == 0
                ? Optional.empty()
                : Optional.of("FFmpeg was killed from outside " + (all == 1 ? "once" : all + " times")
                        + " while it was made, and begun again");
    }
}
