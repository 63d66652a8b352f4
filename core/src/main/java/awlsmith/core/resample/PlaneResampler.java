package awlsmith.core.resample;

import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.Plane;
import awlsmith.core.pipeline.Work;

/**
 * Resamples one plane, first across, then down. Rows resampled across stay in a small ring that the second pass reads,
 * so a picture of any size passes through a few rows of scratch. Immutable; safe for several threads at once.
 *
 * <p>Any window of the target gives the same bits as the same window cut from the whole.
 */
public final class PlaneResampler {
    private static final TapBlend BLEND = blend(Lanes.chosen());
    private static final int ROWS = TapBlend.ROWS;

    private final TapTable across;
    private final TapTable down;
    private final boolean acrossIsCopy;
    private final boolean downIsCopy;
    private final boolean acrossDoubles;
    private final TapBlend blend;

    /** @param across weights along rows; @param down weights along columns */
    public PlaneResampler(TapTable across, TapTable down) {
        this(across, down, BLEND);
    }

    PlaneResampler(TapTable across, TapTable down, TapBlend blend) {
        this.across = across;
        this.down = down;
        this.acrossIsCopy = across.isIdentity();
        this.downIsCopy = down.isIdentity();
        this.acrossDoubles = !acrossIsCopy && across.isDoubling();
        this.blend = blend;
    }

    static TapBlend blend(Lanes lanes) {
        return lanes == Lanes.VECTOR && VectorTapBlend.isPossible() ? new VectorTapBlend() : new ScalarTapBlend();
    }

    /** Weights along rows. */
    public TapTable across() {
        return across;
    }

    /** Weights along columns. */
    public TapTable down() {
        return down;
    }

    /**
     * Fills a window of the target plane.
     *
     * @param src window of the source plane that holds at least what the tables need
     * @param srcX column of the whole source plane that src starts at
     * @param srcY row of the whole source plane that src starts at
     * @param dst window of the target plane, written fully; must not share samples with src
     * @param dstX column of the whole target plane that dst starts at
     * @param dstY row of the whole target plane that dst starts at
     */
    public void resample(Plane src, int srcX, int srcY, Plane dst, int dstX, int dstY, Work work) {
        work.bands(dst.height(), 32, (from, to) -> new Band(src, srcX, srcY, dst, dstX, dstY).rows(from, to));
    }

    /** The scratch and state of one band of target rows. */
    private final class Band {
        private final Plane src;
        private final int srcX;
        private final int srcY;
        private final Plane dst;
        private final int dstX;
        private final int dstY;
        private final int origin;
        private final float[] turned;
        private final float[] made;
        private final float[] ring;
        private final int ringRows;
        private final Doubling doubling;
        private int nextRow = -1;

        Band(Plane src, int srcX, int srcY, Plane dst, int dstX, int dstY) {
            this.src = src;
            this.srcX = srcX;
            this.srcY = srcY;
            this.dst = dst;
            this.dstX = dstX;
            this.dstY = dstY;
            int width = dst.width();
            origin = across.first(dstX);
            int columns = across.first(dstX + width - 1) + across.taps() - origin;
            boolean turns = !acrossIsCopy && !acrossDoubles;
            turned = turns ? new float[columns * ROWS] : new float[0];
            made = turns ? new float[width * ROWS] : new float[0];
            doubling = acrossDoubles ? new Doubling(dstX, width) : null;
            ringRows = down.taps() + ROWS;
            ring = new float[Math.multiplyExact(ringRows, width)];
        }

        void rows(int from, int to) {
            int taps = down.taps();
            int[] rowAt = new int[taps];
            for (int y = from; y < to; y++) {
                int target = dstY + y;
                int last = down.needsTo(target, target + 1);
                if (nextRow < 0) {
                    nextRow = down.needsFrom(target, target + 1);
                }
                while (nextRow < last) {
                    int until = Math.min(Math.min(nextRow + ROWS, srcY + src.height()), down.sourceSize());
                    prepare(nextRow, until);
                    nextRow = until;
                }
                for (int k = 0; k < taps; k++) {
                    int row = TapTable.mirror(down.first(target) + k, down.sourceSize());
                    rowAt[k] = row % ringRows * dst.width();
                }
                if (downIsCopy) {
                    int at = target % ringRows * dst.width();
                    System.arraycopy(ring, at, dst.data(), dst.row(y), dst.width());
                } else {
                    blend.down(ring, rowAt, taps, down.weights(), target * taps, dst.data(), dst.row(y), dst.width());
                }
            }
        }

        /** Resamples source rows from..to across and puts them in the ring. */
        private void prepare(int from, int to) {
            if (acrossIsCopy) {
                for (int y = from; y < to; y++) {
                    System.arraycopy(
                            src.data(), src.row(y - srcY) + dstX - srcX, ring, y % ringRows * dst.width(), dst.width());
                }
                return;
            }
            if (doubling != null) {
                for (int y = from; y < to; y++) {
                    doubling.row(src, srcX, y - srcY, ring, y % ringRows * dst.width());
                }
                return;
            }
            turn(from, to - from);
            blend.across(turned, across.firsts(), origin, dstX, dst.width(), across.taps(), across.weights(), made);
            turnBack(from, to - from);
        }

        /** Source rows on their side, mirrored past the edges: sample (x, r) at turned[(x - origin) * ROWS + r]. */
        private void turn(int from, int rows) {
            int columns = turned.length / ROWS;
            float[] in = src.data();
            for (int r = 0; r < rows; r++) {
                int row = src.row(from + r - srcY) - srcX;
                for (int c = 0; c < columns && origin + c < 0; c++) {
                    turned[c * ROWS + r] = in[row + TapTable.mirror(origin + c, across.sourceSize())];
                }
                int end = Math.min(columns, across.sourceSize() - origin);
                for (int c = end < 0 ? 0 : end; c < columns; c++) {
                    turned[c * ROWS + r] = in[row + TapTable.mirror(origin + c, across.sourceSize())];
                }
            }
            int begin = Math.max(0, -origin);
            int end = Math.min(columns, across.sourceSize() - origin);
            for (int block = begin; block < end; block += ROWS) {
                int stop = Math.min(block + ROWS, end);
                for (int r = 0; r < rows; r++) {
                    int row = src.row(from + r - srcY) - srcX + origin;
                    for (int c = block; c < stop; c++) {
                        turned[c * ROWS + r] = in[row + c];
                    }
                }
            }
        }

        private void turnBack(int from, int rows) {
            int width = dst.width();
            for (int block = 0; block < width; block += ROWS) {
                int stop = Math.min(block + ROWS, width);
                for (int r = 0; r < rows; r++) {
                    int row = (from + r) % ringRows * width;
                    for (int c = block; c < stop; c++) {
                        ring[row + c] = made[c * ROWS + r];
                    }
                }
            }
        }
    }

    /**
     * The pass across when it doubles: even and odd target samples are each a blend of shifted copies of the same row, then
     * dealt out in turn. No row is turned on its side; the sums are the very same.
     */
    private final class Doubling {
        private final int width;
        private final int startEven;
        private final boolean oddFirst;
        private final int origin;
        private final float[] padded;
        private final float[] even;
        private final float[] odd;
        private final float[] pairs;
        private final int[] evenAt;
        private final int[] oddAt;

        Doubling(int dstX, int width) {
            this.width = width;
            startEven = dstX & -2;
            oddFirst = (dstX & 1) == 1;
            int count = (dstX + width - startEven + 1) / 2;
            int first = startEven / 2;
            int taps = across.taps();
            int evenFirst = across.first(0) + first;
            int oddFirst0 = across.first(1) + first;
            origin = Math.min(evenFirst, oddFirst0);
            padded = new float[Math.max(evenFirst, oddFirst0) + count + taps - origin];
            even = new float[count];
            odd = new float[count];
            pairs = new float[2 * count];
            evenAt = new int[taps];
            oddAt = new int[taps];
            for (int k = 0; k < taps; k++) {
                evenAt[k] = evenFirst - origin + k;
                oddAt[k] = oddFirst0 - origin + k;
            }
        }

        void row(Plane src, int srcX, int y, float[] out, int outAt) {
            int size = across.sourceSize();
            int heldTo = Math.min(size, srcX + src.width());
            int begin = Math.max(srcX, origin) - origin;
            int end = Math.min(heldTo, origin + padded.length) - origin;
            int row = src.row(y) - srcX;
            System.arraycopy(src.data(), row + origin + begin, padded, begin, end - begin);
            for (int c = 0; c < begin; c++) {
                padded[c] = beyond(src, srcX, heldTo, row, origin + c);
            }
            for (int c = end; c < padded.length; c++) {
                padded[c] = beyond(src, srcX, heldTo, row, origin + c);
            }
            blend.down(padded, evenAt, across.taps(), across.weights(), 0, even, 0, even.length);
            blend.down(padded, oddAt, across.taps(), across.weights(), across.taps(), odd, 0, odd.length);
            if (oddFirst || 2 * even.length != width) {
                blend.zip(even, odd, pairs, 0, even.length);
                System.arraycopy(pairs, oddFirst ? 1 : 0, out, outAt, width);
            } else {
                blend.zip(even, odd, out, outAt, even.length);
            }
        }

        /** Mirrored at the picture's edges; at a window's edges anything will do, as no wanted sample reaches there. */
        private float beyond(Plane src, int heldFrom, int heldTo, int row, int sample) {
            int mirrored = TapTable.mirror(sample, across.sourceSize());
            return src.data()[row + Math.clamp(mirrored, heldFrom, heldTo - 1)];
        }
    }
}
