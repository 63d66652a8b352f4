package awlsmith.core.measure;

import awlsmith.core.picture.Plane;

/**
 * How much of a picture consists of bands: level pieces of a row, one small step apart from the next. Slopes that have code values enough, noise
 * and texture have no level pieces; flat drawings have larger steps. Our own measure, no source.
 */
public final class Bands {
    /** Length from which on a piece is level, samples. */
    private static final int LONG = 12;
    /** Differences within a piece, and from one to the next, of 255. */
    private static final float SAME = 0.35f / 255;

    private static final float LEAST = 0.6f / 255;
    private static final float MOST = 3.5f / 255;

    private Bands() {}

    /** Share of the samples that lie in such pieces, 0..1; the rows alone are asked. @param luma 0..1 */
    public static double share(Plane luma) {
        long banded = 0;
        float[] d = luma.data();
        for (int y = 0; y < luma.height(); y += 2) {
            int row = luma.row(y);
            int begun = 0;
            int before = 0;
            float step = 0;
            boolean isCounted = false;
            for (int x = 1; x <= luma.width(); x++) {
                float change = x == luma.width() ? 1 : Math.abs(d[row + x] - d[row + x - 1]);
                if (change < SAME) {
                    continue;
                }
                int length = x - begun;
                boolean follows = step > LEAST && step < MOST && before >= LONG && length >= LONG;
                if (follows) {
                    banded += length + (isCounted ? 0 : before);
                }
                isCounted = follows;
                before = length;
                step = change;
                begun = x;
            }
        }
        return (double) banded / ((luma.height() + 1) / 2) / luma.width();
    }
}
