package awlsmith.core.fields;

/**
 * Fills single missing lines from five fields, sample by sample.
 *
 * <p>The fields before and after give a value, as if nothing moved, and a doubt: half of how far they differ, or how far the
 * lines above and below have changed. The field itself gives another value: the coarse light of its lines above and below
 * with the fine light of the fields beside (M. Weston's vertical-temporal filter of three fields, BBC, in the shape in which
 * it is published), or a cubic over its own lines where those agree. That one is believed, but led no farther from the
 * first than the doubt, which grows where the first would stick out as a comb.
 */
final class LineFiller {
    /** Weston's filter: the field's own lines at 1 and 3 lines away, the lines of the fields beside at 0, 2 and 4. */
    private static final float NEAR = 0.526f;

    private static final float FAR = -0.026f;
    private static final float FINE_0 = 0.170f;
    private static final float FINE_2 = -0.116f;
    private static final float FINE_4 = 0.031f;
    /** Within a field alone: a cubic's weights. */
    private static final float ALONE_NEAR = 0.62f;

    private static final float ALONE_FAR = -0.12f;

    /** A comb raises the doubt at most so many times: where nothing moves at all fine lines may look like one. */
    private static final float COMB = 3;

    private final FieldsAround f;

    LineFiller(FieldsAround fields) {
        this.f = fields;
    }

    /**
     * @param line of the missing parity; its neighbours in this field are the lines above and below it
     * @param left column of the picture it begins at
     */
    void fill(int line, int left, int width, float[] out, int at) {
        int above = line - 1 + f.before().parity();
        float[] d = f.here().plane().data();
        float[] b = f.before().plane().data();
        float[] a = f.after().plane().data();
        float[] past = f.twoBefore().plane().data();
        float[] next = f.twoAfter().plane().data();
        int d0 = f.here().row(above - 1) + left;
        int d1 = f.here().row(above) + left;
        int d2 = f.here().row(above + 1) + left;
        int d3 = f.here().row(above + 2) + left;
        int[] bs = rows(f.before(), line, left);
        int[] as = rows(f.after(), line, left);
        int past1 = f.twoBefore().row(above) + left;
        int past2 = f.twoBefore().row(above + 1) + left;
        int next1 = f.twoAfter().row(above) + left;
        int next2 = f.twoAfter().row(above + 1) + left;
        for (int x = 0; x < width; x++) {
            float upper = d[d1 + x];
            float lower = d[d2 + x];
            float before = b[bs[2] + x];
            float after = a[as[2] + x];
            float up = b[bs[1] + x] + a[as[1] + x];
            float down = b[bs[3] + x] + a[as[3] + x];
            float value = 0.5f * (before + after);
            float change = Math.abs(before - after);
            float changeBefore = Math.abs(upper - past[past1 + x]) + Math.abs(lower - past[past2 + x]);
            float changeAfter = Math.abs(upper - next[next1 + x]) + Math.abs(lower - next[next2 + x]);
            float doubt = 0.5f * Math.max(change, Math.max(changeBefore, changeAfter));
            float comb = sticksOut(value - upper, value - lower, 0.5f * up - upper, 0.5f * down - lower);
            doubt = Math.max(doubt, Math.min(comb, COMB * doubt));
            float own;
            if (Math.abs(upper - lower) > change) {
                float outer = b[bs[0] + x] + a[as[0] + x] + b[bs[4] + x] + a[as[4] + x];
                own = NEAR * (upper + lower)
                        + FAR * (d[d0 + x] + d[d3 + x])
                        + FINE_0 * (before + after)
                        + FINE_2 * (up + down)
                        + FINE_4 * outer;
            } else {
                own = ALONE_NEAR * (upper + lower) + ALONE_FAR * (d[d0 + x] + d[d3 + x]);
            }
            out[at + x] = value + Math.max(-doubt, Math.min(doubt, own - value));
        }
    }

    private static int[] rows(FieldWindow field, int line, int left) {
        int[] rows = new int[5];
        for (int k = 0; k < 5; k++) {
            rows[k] = field.row(line - 2 + k) + left;
        }
        return rows;
    }

    /**
     * How far a value sticks out between the lines above and below without the lines beyond them doing the same: a comb.
     *
     * @param overUpper value less the line above, @param overLower less the line below
     * @param beyondUpper the line beyond the upper one less it, @param beyondLower the same below
     */
    private static float sticksOut(float overUpper, float overLower, float beyondUpper, float beyondLower) {
        float most = Math.max(Math.max(overUpper, overLower), Math.min(beyondUpper, beyondLower));
        float least = Math.min(Math.min(overUpper, overLower), Math.max(beyondUpper, beyondLower));
        return Math.max(0, Math.max(least, -most));
    }
}
