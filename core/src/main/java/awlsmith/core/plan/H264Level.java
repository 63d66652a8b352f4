package awlsmith.core.plan;

import awlsmith.core.picture.Rational;
import java.util.Optional;

/**
 * The level an H.264 stream needs, from its size and rate. Source: ITU-T H.264 (08/2021) table A-1: MaxMBPS macroblocks
 * a second, MaxFS macroblocks a frame; clause A.3.1: no side beyond sqrt(8 MaxFS) macroblocks.
 */
public enum H264Level {
    L1("1", 1485, 99),
    L1_1("1.1", 3000, 396),
    L1_2("1.2", 6000, 396),
    L1_3("1.3", 11880, 396),
    L2("2", 11880, 396),
    L2_1("2.1", 19800, 792),
    L2_2("2.2", 20250, 1620),
    L3("3", 40500, 1620),
    L3_1("3.1", 108000, 3600),
    L3_2("3.2", 216000, 5120),
    L4("4", 245760, 8192),
    L4_1("4.1", 245760, 8192),
    L4_2("4.2", 522240, 8704),
    L5("5", 589824, 22080),
    L5_1("5.1", 983040, 36864),
    L5_2("5.2", 2073600, 36864),
    L6("6", 4177920, 139264),
    L6_1("6.1", 8355840, 139264),
    L6_2("6.2", 16711680, 139264);

    private final String label;
    private final long perSecond;
    private final long perFrame;

    H264Level(String label, long perSecond, long perFrame) {
        this.label = label;
        this.perSecond = perSecond;
        this.perFrame = perFrame;
    }

    /** As the standard writes it: {@code 5.2}. */
    public String label() {
        return label;
    }

    /** MaxMBPS of table A-1: most blocks of 16x16 pixels a second. */
    public long macroblocksPerSecond() {
        return perSecond;
    }

    /** MaxFS of table A-1: most blocks of 16x16 pixels a frame. */
    public long macroblocksPerFrame() {
        return perFrame;
    }

    /** The lowest level that holds pictures of this size at this rate; empty when none does. */
    public static Optional<H264Level> needed(int width, int height, Rational rate) {
        long across = (width + 15) / 16;
        long down = (height + 15) / 16;
        for (H264Level level : values()) {
            boolean fits = across * down <= level.perFrame
                    && across * across <= 8 * level.perFrame
                    && down * down <= 8 * level.perFrame
                    && rate.times(across * down).compareTo(Rational.of(level.perSecond)) <= 0;
            if (fits) {
                return Optional.of(level);
            }
        }
        return Optional.empty();
    }
}
