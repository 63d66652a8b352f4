package awlsmith.core.compare;

import awlsmith.core.colour.LumaChroma;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;

/**
 * How the light and colour of a picture are spread, counted in code values of 8-bit video: black 16, white 235, colour
 * differences 16..240 around 128 (ITU-R BT.601-7 section 2.5.3 and BT.709-6 item 4.6).
 *
 * @param histogram how many samples of luma have each code value, 256
 * @param columns across of the waveform
 * @param waveform samples of luma by column and code value, columns x 256
 * @param vectors samples by Cb and Cr, 256 x 256: index Cr x 256 + Cb; empty without colour
 * @param below luma samples under black, @param above over white
 * @param samples of luma counted
 */
public record Scopes(
        int[] histogram, int columns, int[] waveform, int[] vectors, long below, long above, long samples) {
    public static final int CODES = 256;
    private static final float BLACK = 16;
    private static final float LUMA_SPAN = 219;
    private static final float GREY = 128;
    private static final float CHROMA_SPAN = 224;

    /** @param columns at most so many; a narrow picture has as many as pixels */
    public static Scopes of(Frame frame, int columns) {
        Plane[] planes = frame.planes().toArray(Plane[]::new);
        boolean rgb = frame.format().chroma() == Chroma.RGB;
        // R'G'B' has no luma of its own: it is weighed as BT.709 does
        LumaChroma weights = rgb ? Luma.WEIGHTS : null;
        int width = planes[0].width();
        int height = planes[0].height();
        int across = Math.min(columns, width);
        int[] histogram = new int[CODES];
        int[] waveform = new int[across * CODES];
        long below = 0;
        long above = 0;
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                double luma = rgb
                        ? weights.luma(planes[0].at(x, y), planes[1].at(x, y), planes[2].at(x, y))
                        : planes[0].at(x, y);
                int code = code(BLACK + LUMA_SPAN * luma);
                histogram[code]++;
                waveform[(int) ((long) x * across / width) * CODES + code]++;
                below += code < BLACK ? 1 : 0;
                above += code > BLACK + LUMA_SPAN ? 1 : 0;
            }
        }
        return new Scopes(
                histogram,
                across,
                waveform,
                planes.length < 3 ? new int[0] : vectors(planes, weights),
                below,
                above,
                (long) width * height);
    }

    private static int[] vectors(Plane[] planes, LumaChroma weights) {
        int[] counts = new int[CODES * CODES];
        for (int y = 0; y < planes[1].height(); y++) {
            for (int x = 0; x < planes[1].width(); x++) {
                double cb = planes[1].at(x, y);
                double cr = planes[2].at(x, y);
                if (weights != null) {
                    double r = planes[0].at(x, y);
                    double luma = weights.luma(r, planes[1].at(x, y), planes[2].at(x, y));
                    cb = weights.cb(luma, planes[2].at(x, y));
                    cr = weights.cr(luma, r);
                }
                counts[code(GREY + CHROMA_SPAN * cr) * CODES + code(GREY + CHROMA_SPAN * cb)]++;
            }
        }
        return counts;
    }

    private static int code(double value) {
        return (int) Math.clamp(Math.round(value), 0, CODES - 1);
    }
}
