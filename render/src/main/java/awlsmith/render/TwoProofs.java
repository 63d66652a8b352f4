package awlsmith.render;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import awlsmith.media.ProofEncoding;
import java.nio.file.Path;
import java.util.Optional;

/** Two proofs of the same place in one: the treated picture of one above that of the other, frame for frame. */
public final class TwoProofs {
    private final Clip above;
    private final Clip below;
    private final Format file;

    /** @param above whose treated picture goes where a proof has the source; both as {@link Proof} made them */
    public TwoProofs(Clip above, Clip below) {
        Format format = below.format();
        Format other = above.format();
        if (format.chroma() != Chroma.S420
                || format.height() % 4 != 0
                || other.chroma() != Chroma.S420
                || other.width() != format.width()
                || other.height() != format.height()) {
            throw new MediaException("these two proofs are not of the same size; prove the same place with both takes");
        }
        this.above = above;
        this.below = below;
        this.file = format;
    }

    /**
     * @param frames that both hold
     * @param rate frames a second
     * @return frames made
     * @throws MediaException with a sentence when it went wrong
     * @throws Cancel.Stopped when asked to stop before the first frame
     */
    public long make(
            Path out, long frames, Rational rate, boolean sound, Machine machine, RenderWatch watch, Cancel cancel) {
        var layout = new RawLayout(file);
        byte[] raw = new byte[layout.frameBytes()];
        Optional<ProofEncoding.Sound> heard = sound
                ? Optional.of(new ProofEncoding.Sound(
                        below.info().file(), Rational.ZERO, Rational.of(frames).dividedBy(rate)))
                : Optional.empty();
        var range = new FrameRange(0, frames);
        long done = 0;
        Frame both = Frame.blank(file, file.whole(), 0, Rational.ZERO, machine.planes());
        try (var encoding = new ProofEncoding(out, file, rate, heard, machine.threads());
                var first = above.open(range, file.whole(), machine.planes(), cancel);
                var second = below.open(range, file.whole(), machine.planes(), cancel)) {
            try {
                while (done < frames) {
                    cancel.check();
                    watch.giveWay();
                    Optional<Frame> a = first.next();
                    Optional<Frame> b = second.next();
                    if (a.isEmpty() || b.isEmpty()) {
                        break;
                    }
                    put(a.get(), both, 0);
                    put(b.get(), both, 1);
                    a.get().release(machine.planes());
                    b.get().release(machine.planes());
                    layout.pack(both, raw);
                    encoding.write(raw);
                    done++;
                    watch.frames(done, new RenderWatch.Shares(0, 0, 0));
                }
            } catch (Cancel.Stopped e) {
                // what is there can be played
            }
            if (done == 0) {
                cancel.check();
                throw new MediaException("one of the two proofs holds no picture; prove again");
            }
            encoding.finish();
        } finally {
            both.release(machine.planes());
        }
        return done;
    }

    /** Copies the treated half of a proof into the half of that number. */
    private static void put(Frame proof, Frame both, int half) {
        for (int p = 0; p < 3; p++) {
            Plane from = proof.plane(p);
            Plane to = both.plane(p);
            int height = from.height() / 2;
            for (int y = 0; y < height; y++) {
                System.arraycopy(from.data(), from.row(height + y), to.data(), to.row(half * height + y), to.width());
            }
        }
    }
}
