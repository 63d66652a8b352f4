package awlsmith.core.detail;

/**
 * Sums of samples in square windows, moved down a picture row by row. They are sums of whole numbers: so they come out alike, to the bit, wherever
 * they began.
 */
final class BoxSums {
    private final int first;
    private final int radius;
    private final int width;
    private final long[] columns;

    /**
     * @param first column that windows are asked for; @param count of columns
     * @param radius of the windows; @param width of the whole picture, at whose edges windows end
     */
    BoxSums(int first, int count, int radius, int width) {
        this.radius = radius;
        this.width = width;
        this.first = Math.max(0, first - radius);
        columns = new long[Math.min(width, first + count + radius) - this.first];
    }

    /** The first column that is summed. */
    int first() {
        return first;
    }

    /**
     * Adds a row to the columns' sums, or takes it away.
     *
     * @param at index of the sample of the first column; @param scale steps to 1
     */
    void add(float[] data, int at, float scale, int sign) {
        for (int i = 0; i < columns.length; i++) {
            columns[i] += sign * (int) (data[at + i] * scale);
        }
    }

    /** The same with the squares of the samples' whole numbers. */
    void addSquares(float[] data, int at, float scale, int sign) {
        for (int i = 0; i < columns.length; i++) {
            long value = (int) (data[at + i] * scale);
            columns[i] += sign * value * value;
        }
    }

    /** Sums of the windows around columns, as far as the picture goes. @param from the first of them; @param out gets one for each */
    void across(int from, long[] out) {
        long sum = 0;
        int right = Math.min(width - 1, from + radius) - first;
        for (int i = Math.max(0, from - radius) - first; i <= right; i++) {
            sum += columns[i];
        }
        for (int k = 0; k < out.length; k++) {
            out[k] = sum;
            int in = from + k + 1 + radius;
            int gone = from + k - radius;
            if (in < width && in - first < columns.length) {
                sum += columns[in - first];
            }
            if (gone >= 0) {
                sum -= columns[gone - first];
            }
        }
    }
}
