package awlsmith.media;

import awlsmith.core.picture.Rational;
import java.util.Locale;

/** Sound played faster or slower with its pitch kept. */
final class Pace {
    /** FFmpeg's filter does twice as fast well in one go, and half as fast; beyond that it leaves samples out. */
    private static final double MOST = 2;

    private Pace() {}

    /**
     * FFmpeg's filters for it; silence is put before sound that begins later than the pictures.
     *
     * @param speed times as fast
     */
    static String filter(Rational speed) {
        var filter = new StringBuilder("aresample=async=1:first_pts=0");
        double rest = speed.toDouble();
        while (rest > MOST || rest < 1 / MOST) {
            double part = rest > 1 ? MOST : 1 / MOST;
            filter.append(String.format(Locale.ROOT, ",atempo=%.9f", part));
            rest /= part;
        }
        return filter.append(String.format(Locale.ROOT, ",atempo=%.9f", rest)).toString();
    }
}
