package awlsmith.core.picture;

/**
 * Planar code values of whole frames as they come through a pipe: planes one after another without gaps, 8-bit samples
 * as bytes, deeper ones as little-endian 16-bit words. RGB lies in the order green, blue, red; transparency is the last plane.
 *
 * <p>RGB of 8 bits with transparency lies pixel by pixel instead, as red, green, blue and opacity: FFmpeg takes such pictures apart with
 * opacity one code too low (swscale of 5.1).
 */
public final class RawLayout {
    private static final CodeRows ROWS =
            Lanes.chosen() == Lanes.VECTOR && VectorCodeRows.isPossible() ? new VectorCodeRows() : new ScalarCodeRows();
    private static final float[] DITHER = Dither.doubledRows();

    /** Depth up to which rounding is dithered; at 16 bits a step is far below anything seen. */
    private static final int DEEPEST_DITHERED = 12;

    private final Format format;
    private final int sampleBytes;
    private final boolean packed;
    private final int[] planeAt;
    private final int frameBytes;

    /** @throws IllegalArgumentException when one frame takes 2 GiB or more */
    public RawLayout(Format format) {
        this.format = format;
        this.sampleBytes = format.depth() > 8 ? 2 : 1;
        this.packed = isPacked(format);
        long total = 0;
        for (int p = 0; p < format.planes(); p++) {
            total += (long) planeWidth(p) * planeHeight(p) * sampleBytes;
        }
        if (total > Integer.MAX_VALUE - 64) {
            throw new IllegalArgumentException("one frame of " + format.width() + "x" + format.height() + " takes "
                    + total + " bytes, must stay under 2 GiB");
        }
        frameBytes = (int) total;
        planeAt = new int[format.planes()];
        int at = 0;
        for (int slot = 0; slot < planeAt.length; slot++) {
            planeAt[planeInSlot(slot)] = at;
            at += planeWidth(slot) * planeHeight(slot) * sampleBytes;
        }
    }

    /** Whether raw pictures of this format lie pixel by pixel. */
    public static boolean isPacked(Format format) {
        return format.chroma() == Chroma.RGB && format.alpha().isThere() && format.depth() == 8;
    }

    /** Of the frames. */
    public Format format() {
        return format;
    }

    /** Whether every sample of transparency in a raw frame lets nothing through. */
    public boolean isOpaque(byte[] raw) {
        if (!format.alpha().isThere()) {
            return true;
        }
        int top = (1 << format.depth()) - 1;
        int from = packed ? 3 : planeAt[format.planes() - 1];
        int step = packed ? 4 : sampleBytes;
        for (int at = from; at < frameBytes; at += step) {
            int code = raw[at] & 0xff | (sampleBytes == 2 ? (raw[at + 1] & 0xff) << 8 : 0);
            if (code != top) {
                return false;
            }
        }
        return true;
    }

    /** Bytes of one raw frame. */
    public int frameBytes() {
        return frameBytes;
    }

    /** Reads rows {@code from..to} (in samples of plane p of the window) of a raw frame into a frame's plane. */
    public void unpackRows(byte[] raw, Frame frame, int p, int from, int to) {
        Chroma chroma = format.chroma();
        int left = frame.window().x() / chroma.stepX(p);
        int top = frame.window().y() / chroma.stepY(p);
        Plane plane = frame.plane(p);
        CodeScale scale = CodeScale.of(format, p);
        byte[] row = new byte[packed ? plane.width() : 0];
        for (int y = from; y < to; y++) {
            if (packed) {
                int pixel = (top + y) * format.width() + left;
                for (int x = 0; x < row.length; x++) {
                    row[x] = raw[4 * (pixel + x) + p];
                }
                ROWS.fromBytes(row, 0, plane.data(), plane.row(y), plane.width(), scale);
                continue;
            }
            int at = planeAt[p] + ((top + y) * planeWidth(p) + left) * sampleBytes;
            if (sampleBytes == 1) {
                ROWS.fromBytes(raw, at, plane.data(), plane.row(y), plane.width(), scale);
            } else {
                ROWS.fromShorts(raw, at, plane.data(), plane.row(y), plane.width(), scale);
            }
        }
    }

    /** Unpacks the part of a raw frame that the frame's window covers; of an opaque frame's planes no transparency. */
    public void unpack(byte[] raw, Frame frame) {
        for (int p = 0; p < frame.planes().size(); p++) {
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
        byte[] row = new byte[packed ? plane.width() : 0];
        for (int y = from; y < to; y++) {
            int at = planeAt[p] + y * planeWidth(p) * sampleBytes;
            int ditherAt = ((y + shift) & (Dither.SIDE - 1)) * 2 * Dither.SIDE + (shift & (Dither.SIDE - 1));
            if (packed) {
                ROWS.toBytes(plane.data(), plane.row(y), row, 0, plane.width(), scale, dither, ditherAt);
                for (int x = 0; x < row.length; x++) {
                    raw[4 * (y * format.width() + x) + p] = row[x];
                }
            } else if (sampleBytes == 1) {
                ROWS.toBytes(plane.data(), plane.row(y), raw, at, plane.width(), scale, dither, ditherAt);
            } else {
                ROWS.toShorts(plane.data(), plane.row(y), raw, at, plane.width(), scale, dither, ditherAt);
            }
        }
    }

    /** All rows of all planes, see {@link #packRows}. */
    public void pack(Frame frame, byte[] raw) {
        for (int p = 0; p < format.planes(); p++) {
            packRows(frame, raw, p, 0, frame.plane(p).height());
        }
    }

    private int planeInSlot(int slot) {
        if (format.chroma() != Chroma.RGB || slot > 2) {
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
