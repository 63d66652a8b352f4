package awlsmith.render;

import awlsmith.core.colour.LumaChroma;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
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
import java.awt.image.BufferedImage;
import java.nio.file.Path;
import java.util.Optional;

/**
 * A moving picture to show to others, made of a proof: an edge that wanders between source and treated, or both beside each
 * other, under a strip of captions.
 */
public final class Comparison {
    /** How source and treated are put together. */
    public enum Look {
        WIPE,
        PAIR
    }

    /** Seconds the edge takes from one side to the other and back. */
    private static final double SWEEP_SECONDS = 4;
    /** Share of the width at either side that the edge never enters, so that both are always seen. */
    private static final double HELD = 0.08;

    private static final int EDGE = 2;

    private final Clip proof;
    private final Look look;
    private final BufferedImage captions;
    private final int width;
    private final int height;
    private final int strip;
    private final Format file;

    /**
     * @param proof as {@link Proof} made it
     * @param captions a strip as wide as the comparison, see {@link #width}; cut or filled with black where it is not
     */
    public Comparison(Clip proof, Look look, BufferedImage captions) {
        Format format = proof.format();
        if (format.chroma() != Chroma.S420 || format.height() % 4 != 0) {
            throw new MediaException("this file is not a proof; make the proof anew");
        }
        this.proof = proof;
        this.look = look;
        this.captions = captions;
        this.width = format.width();
        this.height = format.height() / 2;
        this.strip = captions == null ? 0 : (captions.getHeight() + 1) & -2;
        this.file = format.withSize(width(look, width), height + strip, Rational.ONE);
    }

    /** Pixels across a comparison of a proof that is so wide. */
    public static int width(Look look, int proofWidth) {
        return look == Look.PAIR ? 2 * proofWidth : proofWidth;
    }

    /**
     * @param frames of the proof, to tell how far it is
     * @param rate frames a second
     * @throws MediaException with a sentence when it went wrong
     * @throws Cancel.Stopped when asked to stop
     */
    public void make(
            Path out, long frames, Rational rate, boolean sound, Machine machine, RenderWatch watch, Cancel cancel) {
        var layout = new RawLayout(file);
        byte[] raw = new byte[layout.frameBytes()];
        Frame picture = Frame.blank(file, file.whole(), 0, Rational.ZERO, machine.planes());
        letter(picture);
        Optional<ProofEncoding.Sound> heard = sound
                ? Optional.of(new ProofEncoding.Sound(
                        proof.info().file(), Rational.ZERO, Rational.of(frames).dividedBy(rate)))
                : Optional.empty();
        try (var encoding = new ProofEncoding(out, file, rate, heard, machine.threads());
                var stream =
                        proof.open(new FrameRange(0, frames), proof.format().whole(), machine.planes(), cancel)) {
            for (long n = 0; n < frames; n++) {
                cancel.check();
                watch.giveWay();
                Optional<Frame> frame = stream.next();
                if (frame.isEmpty()) {
                    break;
                }
                put(frame.get(), picture, edge(n / rate.toDouble()));
                frame.get().release(machine.planes());
                layout.pack(picture, raw);
                encoding.write(raw);
                watch.frames(n + 1, new RenderWatch.Shares(0, 0, 0));
            }
            encoding.finish();
        } finally {
            picture.release(machine.planes());
        }
    }

    /** Where the edge stands, in pixels: there and back, slowing down at the ends. */
    int edge(double seconds) {
        double swing = (1 - Math.cos(2 * Math.PI * (seconds / SWEEP_SECONDS + 0.25))) / 2;
        return (int) Math.round(width * (HELD + (1 - 2 * HELD) * swing));
    }

    private void put(Frame both, Frame picture, int edge) {
        for (int p = 0; p < 3; p++) {
            int step = p == 0 ? 1 : 2;
            Plane from = both.plane(p);
            Plane to = picture.plane(p);
            int w = width / step;
            int h = height / step;
            int left = look == Look.PAIR ? w : edge / step;
            for (int y = 0; y < h; y++) {
                int row = to.row(strip / step + y);
                System.arraycopy(from.data(), from.row(y), to.data(), row, left);
                int treated = from.row(h + y);
                if (look == Look.PAIR) {
                    System.arraycopy(from.data(), treated, to.data(), row + w, w);
                } else {
                    System.arraycopy(from.data(), treated + left, to.data(), row + left, w - left);
                }
                for (int x = left; look == Look.WIPE && x < Math.min(w, left + Math.max(1, EDGE / step)); x++) {
                    to.data()[row + x] = p == 0 ? 1 : 0;
                }
            }
        }
    }

    /** Draws the captions once; they stay. */
    private void letter(Frame picture) {
        if (captions == null) {
            return;
        }
        var matrix = file.colour().matrixFor(file.height());
        var weights = LumaChroma.of(matrix == ColourTags.Matrix.RGB ? ColourTags.Matrix.BT709 : matrix);
        for (int y = 0; y < strip; y++) {
            for (int x = 0; x < file.width(); x++) {
                int rgb = x < captions.getWidth() && y < captions.getHeight() ? captions.getRGB(x, y) : 0;
                double r = (rgb >> 16 & 255) / 255.0;
                double g = (rgb >> 8 & 255) / 255.0;
                double b = (rgb & 255) / 255.0;
                double luma = weights.luma(r, g, b);
                picture.plane(0).set(x, y, (float) luma);
                if (x % 2 == 0 && y % 2 == 0) {
                    picture.plane(1).set(x / 2, y / 2, (float) weights.cb(luma, b));
                    picture.plane(2).set(x / 2, y / 2, (float) weights.cr(luma, r));
                }
            }
        }
    }
}
