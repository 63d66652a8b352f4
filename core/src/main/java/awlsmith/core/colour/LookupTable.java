package awlsmith.core.colour;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/**
 * Colours out by colours in: a curve for each of red, green and blue, or a cube of colours. Between its points a curve goes straight, a cube
 * by the tetrahedron that a colour lies in; colours beyond the domain keep their distance from its border.
 *
 * <p>Sources: the open text form of {@code .cube} files, version 1.0 of 2013 (from memory; FFmpeg's lut1d and lut3d read the
 * same files); J. Kasson, W. Plouffe and S. Nin, "A tetrahedral interpolation technique for color space conversion", SPIE 1909,
 * 1993.
 */
public final class LookupTable {
    private static final int LARGEST_CUBE = 256;
    private static final int LARGEST_CURVE = 65536;
    /** Numbers beyond this are no colours. */
    private static final float MOST = 1e6f;

    private final boolean cube;
    private final int size;
    private final float[] low;
    private final float[] scale;
    private final float[] high;
    /** Red, green, blue of each point; of a cube red changes fastest. */
    private final float[] points;

    private LookupTable(boolean cube, int size, float[] low, float[] high, float[] points) {
        this.cube = cube;
        this.size = size;
        this.low = low;
        this.high = high;
        this.points = points;
        this.scale = new float[3];
        for (int c = 0; c < 3; c++) {
            scale[c] = (size - 1) / (high[c] - low[c]);
        }
    }

    /** Points on a side. */
    public int size() {
        return size;
    }

    /** Whether it holds a cube of colours, not three curves. */
    public boolean isCube() {
        return cube;
    }

    /** @throws IllegalArgumentException with a sentence that says what is wrong and where */
    public static LookupTable read(byte[] file) {
        boolean cube = false;
        int size = 0;
        float[] low = {0, 0, 0};
        float[] high = {1, 1, 1};
        List<float[]> points = new ArrayList<>();
        String[] lines = new String(file, StandardCharsets.ISO_8859_1).split("\\R", -1);
        for (int i = 0; i < lines.length; i++) {
            String line = lines[i].trim();
            if (line.isEmpty() || line.startsWith("#") || line.startsWith("TITLE")) {
                continue;
            }
            String[] words = line.split("\\s+");
            String where = "line " + (i + 1);
            switch (words[0]) {
                case "LUT_1D_SIZE", "LUT_3D_SIZE" -> {
                    if (size != 0) {
                        throw new IllegalArgumentException(
                                where + " gives a second size; a file with both curves and a cube cannot be read here");
                    }
                    cube = words[0].equals("LUT_3D_SIZE");
                    size = size(words, cube ? LARGEST_CUBE : LARGEST_CURVE, where);
                }
                case "DOMAIN_MIN" -> low = numbers(words, 1, 3, where);
                case "DOMAIN_MAX" -> high = numbers(words, 1, 3, where);
                case "LUT_1D_INPUT_RANGE", "LUT_3D_INPUT_RANGE" -> {
                    float[] both = numbers(words, 1, 2, where);
                    low = new float[] {both[0], both[0], both[0]};
                    high = new float[] {both[1], both[1], both[1]};
                }
                default -> {
                    if (size == 0) {
                        throw new IllegalArgumentException(
                                where
                                        + " is no part of a lookup table; one begins with LUT_1D_SIZE or LUT_3D_SIZE and a number");
                    }
                    if (points.size() >= count(cube, size)) {
                        throw new IllegalArgumentException(where + " is one colour more than the size promises");
                    }
                    points.add(numbers(words, 0, 3, where));
                }
            }
        }
        if (size == 0) {
            throw new IllegalArgumentException("no LUT_1D_SIZE or LUT_3D_SIZE is told; is it a lookup table at all?");
        }
        if (points.size() < count(cube, size)) {
            throw new IllegalArgumentException("it holds " + points.size() + " colours, its size promises "
                    + count(cube, size) + "; it is cut short");
        }
        for (int c = 0; c < 3; c++) {
            if (!(high[c] > low[c])) {
                throw new IllegalArgumentException("its domain ends before it begins");
            }
        }
        float[] all = new float[3 * points.size()];
        for (int i = 0; i < points.size(); i++) {
            System.arraycopy(points.get(i), 0, all, 3 * i, 3);
        }
        return new LookupTable(cube, size, low, high, all);
    }

    private static int count(boolean cube, int size) {
        return cube ? size * size * size : size;
    }

    private static int size(String[] words, int most, String where) {
        try {
            int size = Integer.parseInt(words.length == 2 ? words[1] : "");
            if (size >= 2 && size <= most) {
                return size;
            }
        } catch (NumberFormatException e) {
            // told below
        }
        throw new IllegalArgumentException(where + ": the size must be 2.." + most);
    }

    private static float[] numbers(String[] words, int from, int count, String where) {
        float[] numbers = new float[count];
        try {
            if (words.length != from + count) {
                throw new NumberFormatException();
            }
            for (int i = 0; i < count; i++) {
                numbers[i] = Float.parseFloat(words[from + i]);
                if (!(Math.abs(numbers[i]) <= MOST)) {
                    throw new NumberFormatException();
                }
            }
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException(where + " should hold " + count + " numbers");
        }
        return numbers;
    }

    /**
     * Colours of a row, in place of themselves or elsewhere.
     *
     * @param rgb red, green and blue samples; @param at of the first of each
     * @param to where the new ones go; @param toAt likewise
     */
    void row(float[][] rgb, int[] at, float[][] to, int[] toAt, int count) {
        float[] made = new float[3];
        for (int i = 0; i < count; i++) {
            float r = rgb[0][at[0] + i];
            float g = rgb[1][at[1] + i];
            float b = rgb[2][at[2] + i];
            colour(r, g, b, made);
            to[0][toAt[0] + i] = made[0];
            to[1][toAt[1] + i] = made[1];
            to[2][toAt[2] + i] = made[2];
        }
    }

    /** One colour. */
    void colour(float r, float g, float b, float[] made) {
        float rIn = Math.clamp(r, low[0], high[0]);
        float gIn = Math.clamp(g, low[1], high[1]);
        float bIn = Math.clamp(b, low[2], high[2]);
        float x = (rIn - low[0]) * scale[0];
        float y = (gIn - low[1]) * scale[1];
        float z = (bIn - low[2]) * scale[2];
        if (cube) {
            inCube(x, y, z, made);
        } else {
            made[0] = onCurve(x, 0);
            made[1] = onCurve(y, 1);
            made[2] = onCurve(z, 2);
        }
        made[0] += r - rIn;
        made[1] += g - gIn;
        made[2] += b - bIn;
    }

    private float onCurve(float x, int c) {
        int i = Math.min((int) x, size - 2);
        float a = points[3 * i + c];
        return a + (x - i) * (points[3 * i + 3 + c] - a);
    }

    /** From black's corner of a cell to white's, along the edges in the order in which the colour's parts fall. */
    private void inCube(float x, float y, float z, float[] made) {
        int i = Math.min((int) x, size - 2);
        int j = Math.min((int) y, size - 2);
        int k = Math.min((int) z, size - 2);
        float fx = x - i;
        float fy = y - j;
        float fz = z - k;
        int dx = 3;
        int dy = 3 * size;
        int dz = 3 * size * size;
        int corner = i * dx + j * dy + k * dz;
        int first;
        int second;
        float most;
        float middle;
        float least;
        if (fx >= fy) {
            if (fy >= fz) {
                first = dx;
                second = dx + dy;
                most = fx;
                middle = fy;
                least = fz;
            } else if (fx >= fz) {
                first = dx;
                second = dx + dz;
                most = fx;
                middle = fz;
                least = fy;
            } else {
                first = dz;
                second = dz + dx;
                most = fz;
                middle = fx;
                least = fy;
            }
        } else if (fz >= fy) {
            first = dz;
            second = dz + dy;
            most = fz;
            middle = fy;
            least = fx;
        } else if (fz >= fx) {
            first = dy;
            second = dy + dz;
            most = fy;
            middle = fz;
            least = fx;
        } else {
            first = dy;
            second = dy + dx;
            most = fy;
            middle = fx;
            least = fz;
        }
        int opposite = corner + dx + dy + dz;
        for (int c = 0; c < 3; c++) {
            made[c] = (1 - most) * points[corner + c]
                    + (most - middle) * points[corner + first + c]
                    + (middle - least) * points[corner + second + c]
                    + least * points[opposite + c];
        }
    }
}
