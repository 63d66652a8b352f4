package awlsmith.core.picture;

/**
 * Planar code values of whole frames as they come through a pipe: planes one after another without gaps, 8-bit samples
 * as bytes, deeper ones as little-endian 16-bit words. RGB lies in the order green, blue, red.
 */
public final class RawLayout {
    private static final CodeRows ROWS =
            Lanes.chosen() == Lanes.VECTOR && VectorCodeRows.isPossible() ? new VectorCodeRows() : new ScalarCodeRows();
    private static final float[] DITHER = Dither.doubledRows();

    /** Depth up to which rounding is dithered; at 16 bits a step is far below anything seen. */
    private static final int DEEPEST_DITHERED = 12;

    private final Format format;
    private final int sampleBytes;
    private final int[] planeAt;
    private final int frameBytes;

    public RawLayout(Format format) {
        this.format = format;
        this.sampleBytes = format.depth() > 8 ? 2 : 1;
        Chroma chroma = format.chroma();
        long total = 0;
        for (int p = 0; p < chroma.planes(); p++) {
            total += (long) planeWidth(p) * planeHeight(p) * sampleBytes;
        }
        if (total > Integer.MAX_VALUE - 64) {
            throw new IllegalArgumentException("one frame of " + format.width() + "x" + format.height() + " takes "
                    + total + " bytes, must stay under 2 GiB");
        }
        frameBytes = (int) total;
        planeAt = new int[chroma.planes()];
        int at = 0;
        for (int slot = 0; slot < planeAt.length; slot++) {
            planeAt[planeInSlot(slot)] = at;
            at += planeWidth(slot) * planeHeight(slot) * sampleBytes;
        }
    }

    public Format format() {
        return format;
    }

    public int frameBytes() {
        return frameBytes;
    }

    /** Reads rows {@code from..to} (in samples of plane p of the window) of a raw frame into a frame's plane. */
    public void unpackRows(byte[] raw, Frame frame, int p, int from, int to) {
        Chroma chroma = format.chroma();
        int left = p == 0 ? frame.window().x() : frame.window().x() / chroma.stepX();
        int top = p == 0 ? frame.window().y() : frame.window().y() / chroma.stepY();
        Plane plane = frame.plane(p);
        CodeScale scale = CodeScale.of(format, p);
        for (int y = from; y < to; y++) {
            int at = planeAt[p] + ((top + y) * planeWidth(p) + left) * sampleBytes;
            if (sampleBytes == 1) {
                ROWS.fromBytes(raw, at, plane.data(), plane.row(y), plane.width(), scale);
            } else {
                ROWS.fromShorts(raw, at, plane.data(), plane.row(y), plane.width(), scale);
            }
        }
    }

    /** Unpacks the part of a raw frame that the frame's window covers. */
    public void unpack(byte[] raw, Frame frame) {
        for (int p = 0; p < format.chroma().planes(); p++) {
            unpackRows(raw, frame, p, 0, frame.plane(p).height());
        }
    }

    /**
     * Writes rows {@code from..to} of plane p of a whole frame as code values. Values beyond the code range are clipped
     * here and nowhere before; up to 12 bits the rounding is dithered.
     */
    public void packRows(Frame frame, byte[] raw, int p, int from, int to) {
        Plane plane = frame.plane(p);
        CodeScale scale = CodeScale.of(format, p);
        float[] dither = format.depth() <= DEEPEST_DITHERED ? DITHER : null;
        // each plane reads the tile from another corner, so the three do not nod together
        int shift = 23 * p;
        for (int y = from; y < to; y++) {
            int at = planeAt[p] + y * planeWidth(p) * sampleBytes;
            int ditherAt = ((y + shift) & (Dither.SIDE - 1)) * 2 * Dither.SIDE + (shift & (Dither.SIDE - 1));
            if (sampleBytes == 1) {
                ROWS.toBytes(plane.data(), plane.row(y), raw, at, plane.width(), scale, dither, ditherAt);
            } else {
                ROWS.toShorts(plane.data(), plane.row(y), raw, at, plane.width(), scale, dither, ditherAt);
            }
        }
    }

    public void pack(Frame frame, byte[] raw) {
        for (int p = 0; p < format.chroma().planes(); p++) {
            packRows(frame, raw, p, 0, frame.plane(p).height());
        }
    }

    private int planeInSlot(int slot) {
        if (format.chroma() != Chroma.RGB) {
            return slot;
        }
        return slot == 0 ? 1 : slot == 1 ? 2 : 0;
    }

    private int planeWidth(int p) {
        return format.chroma().planeWidth(p, format.width());
    }

    private int planeHeight(int p) {
        return format.chroma().planeHeight(p, format.height());
    }
}
