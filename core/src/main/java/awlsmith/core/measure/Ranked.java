package awlsmith.core.measure;

/** One value by its rank, without sorting the others (C. A. R. Hoare, "Algorithm 65: find", Communications of the ACM 4(7), 1961). */
final class Ranked {
    private Ranked() {}

    /**
     * @param values their order is changed
     * @param count of them that count
     * @param rank from 0 for the smallest; below count
     */
    static float at(float[] values, int count, int rank) {
        int from = 0;
        int end = count - 1;
        while (from < end) {
            float pivot = values[from + (end - from) / 2];
            int i = from;
            int j = end;
            while (i <= j) {
                while (values[i] < pivot) {
                    i++;
                }
                while (pivot < values[j]) {
                    j--;
                }
                if (i <= j) {
                    float other = values[i];
                    values[i++] = values[j];
                    values[j--] = other;
                }
            }
            if (rank <= j) {
                end = j;
            } else if (rank >= i) {
                from = i;
            } else {
                return values[rank];
            }
        }
        return values[rank];
    }
}
