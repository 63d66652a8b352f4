package awlsmith.demo.scene;

import java.awt.image.BufferedImage;
import java.awt.image.DataBufferInt;

/** A painted surface with half-size copies of itself, so that it can be seen from any distance without shimmering. */
final class Texture {
    private static final int BLOCK = 16;

    private final int[][] levels;
    private final int[] widths;
    private final int[] heights;
    private final boolean repeats;
    private final boolean[] empty;
    private final int emptyWidth;

    /**
     * @param image colours multiplied by their opacity (TYPE_INT_ARGB_PRE)
     * @param repeats whether the surface goes on like a tiled floor, or is empty beyond its edge
     */
    Texture(BufferedImage image, boolean repeats) {
        if (image.getType() != BufferedImage.TYPE_INT_ARGB_PRE) {
            throw new IllegalArgumentException("texture wants premultiplied colours");
        }
        if (repeats && (Integer.bitCount(image.getWidth()) != 1 || Integer.bitCount(image.getHeight()) != 1)) {
            throw new IllegalArgumentException(
                    "a tile's sides must be powers of two, this one is " + image.getWidth() + "x" + image.getHeight());
        }
        this.repeats = repeats;
        int count = 1;
        for (int side = Math.max(image.getWidth(), image.getHeight()); side > 1; side /= 2) {
            count++;
        }
        levels = new int[count][];
        widths = new int[count];
        heights = new int[count];
        levels[0] = ((DataBufferInt) image.getRaster().getDataBuffer()).getData();
        widths[0] = image.getWidth();
        heights[0] = image.getHeight();
        for (int i = 1; i < count; i++) {
            widths[i] = Math.max(1, widths[i - 1] / 2);
            heights[i] = Math.max(1, heights[i - 1] / 2);
            levels[i] = halved(levels[i - 1], widths[i - 1], heights[i - 1], widths[i], heights[i]);
        }
        emptyWidth = (widths[0] + BLOCK - 1) / BLOCK;
        empty = emptyBlocks();
    }

    /** Blocks with nothing in them nor in their neighbours, which a ray may pass without a look at their texels. */
    private boolean[] emptyBlocks() {
        int high = (heights[0] + BLOCK - 1) / BLOCK;
        boolean[] bare = new boolean[emptyWidth * high];
        java.util.Arrays.fill(bare, true);
        for (int y = 0; y < heights[0]; y++) {
            for (int x = 0; x < widths[0]; x++) {
                if (levels[0][y * widths[0] + x] != 0) {
                    bare[y / BLOCK * emptyWidth + x / BLOCK] = false;
                }
            }
        }
        boolean[] out = new boolean[bare.length];
        for (int y = 0; y < high; y++) {
            for (int x = 0; x < emptyWidth; x++) {
                boolean all = true;
                for (int j = Math.max(0, y - 1); j <= Math.min(high - 1, y + 1); j++) {
                    for (int i = Math.max(0, x - 1); i <= Math.min(emptyWidth - 1, x + 1); i++) {
                        all &= bare[j * emptyWidth + i];
                    }
                }
                out[y * emptyWidth + x] = all;
            }
        }
        return out;
    }

    int width() {
        return widths[0];
    }

    int height() {
        return heights[0];
    }

    /**
     * Adds the surface's colour to out, multiplied by {@code share}.
     *
     * @param u across, 0..1
     * @param v down, 0..1
     * @param footprint texels of the largest level that one ray covers
     * @param out red, green, blue 0..1 and opacity
     */
    void add(double u, double v, double footprint, float share, float[] out) {
        if (!repeats && footprint < BLOCK / 2.0) {
            int bx = (int) (u * widths[0]) / BLOCK;
            int by = (int) (v * heights[0]) / BLOCK;
            int block = by * emptyWidth + bx;
            if (block >= 0 && block < empty.length && empty[block]) {
                return;
            }
        }
        float lod = footprint <= 1 ? 0 : Math.min(levels.length - 1.001f, log2(footprint));
        int level = (int) lod;
        // blends two levels only half way between them, which halves the work and still never jumps
        float coarser = Math.clamp((lod - level) * 4 - 1.5f, 0f, 1f);
        if (coarser < 1) {
            bilinear(level, u, v, share * (1 - coarser), out);
        }
        if (coarser > 0) {
            bilinear(level + 1, u, v, share * coarser, out);
        }
    }

    /** Near enough: exact at powers of two, straight between them, read off the bits of the float. */
    private static float log2(double x) {
        return Float.floatToRawIntBits((float) x) * (1f / (1 << 23)) - 127;
    }

    private void bilinear(int level, double u, double v, float share, float[] out) {
        int w = widths[level];
        int h = heights[level];
        double x = u * w - 0.5;
        double y = v * h - 0.5;
        int xi = (int) Math.floor(x);
        int yi = (int) Math.floor(y);
        float fx = (float) (x - xi);
        float fy = (float) (y - yi);
        int[] texels = levels[level];
        float s = share * (1 / 255f);
        float low = s * fy;
        float top = s - low;
        int x1 = xi + 1;
        int y1 = yi + 1;
        if (repeats) {
            // sides of tiles are powers of two, and so are their smaller copies
            xi &= w - 1;
            x1 &= w - 1;
            yi &= h - 1;
            y1 &= h - 1;
        }
        int a = texel(texels, w, h, xi, yi);
        int b = texel(texels, w, h, x1, yi);
        int c = texel(texels, w, h, xi, y1);
        int d = texel(texels, w, h, x1, y1);
        if ((a | b | c | d) == 0) {
            return;
        }
        float wb = top * fx;
        float wa = top - wb;
        float wd = low * fx;
        float wc = low - wd;
        out[0] += wa * (a >> 16 & 0xff) + wb * (b >> 16 & 0xff) + wc * (c >> 16 & 0xff) + wd * (d >> 16 & 0xff);
        out[1] += wa * (a >> 8 & 0xff) + wb * (b >> 8 & 0xff) + wc * (c >> 8 & 0xff) + wd * (d >> 8 & 0xff);
        out[2] += wa * (a & 0xff) + wb * (b & 0xff) + wc * (c & 0xff) + wd * (d & 0xff);
        out[3] += wa * (a >>> 24) + wb * (b >>> 24) + wc * (c >>> 24) + wd * (d >>> 24);
    }

    private static int texel(int[] texels, int w, int h, int x, int y) {
        return x < 0 || y < 0 || x >= w || y >= h ? 0 : texels[y * w + x];
    }

    private static int[] halved(int[] in, int w, int h, int newW, int newH) {
        int[] out = new int[newW * newH];
        for (int y = 0; y < newH; y++) {
            int y0 = Math.min(2 * y, h - 1) * w;
            int y1 = Math.min(2 * y + 1, h - 1) * w;
            for (int x = 0; x < newW; x++) {
                int x0 = Math.min(2 * x, w - 1);
                int x1 = Math.min(2 * x + 1, w - 1);
                out[y * newW + x] = mean(in[y0 + x0], in[y0 + x1], in[y1 + x0], in[y1 + x1]);
            }
        }
        return out;
    }

    private static int mean(int a, int b, int c, int d) {
        int out = 0;
        for (int shift = 0; shift < 32; shift += 8) {
            int sum = (a >>> shift & 0xff) + (b >>> shift & 0xff) + (c >>> shift & 0xff) + (d >>> shift & 0xff);
            out |= (sum + 2 >> 2) << shift;
        }
        return out;
    }
}
