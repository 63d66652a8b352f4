package awlsmith.core.plan;

import awlsmith.core.picture.Rational;
import java.util.Optional;

/**
 * The level an H.265 stream needs, from its size and rate. Source: ITU-T H.265 (08/2021) tables A.8 and A.9, from memory: MaxLumaPs samples a picture,
 * MaxLumaSr samples a second; clause A.4.1: no side beyond sqrt(8 MaxLumaPs).
 */
public enum H265Level {
    L1("1", 36_864, 552_960),
    L2("2", 122_880, 3_686_400),
    L2_1("2.1", 245_760, 7_372_800),
    L3("3", 552_960, 16_588_800),
    L3_1("3.1", 983_040, 33_177_600),
    L4("4", 2_228_224, 66_846_720),
    L4_1("4.1", 2_228_224, 133_693_440),
    L5("5", 8_912_896, 267_386_880),
    L5_1("5.1", 8_912_896, 534_773_760),
    L5_2("5.2", 8_912_896, 1_069_547_520),
    L6("6", 35_651_584, 1_069_547_520),
    L6_1("6.1", 35_651_584, 2_139_095_040),
    L6_2("6.2", 35_651_584, 4_278_190_080L);

    private final String label;
    private final long picture;
    private final long second;

    H265Level(String label, long picture, long second) {
        this.label = label;
        this.picture = picture;
        this.second = second;
    }

    /** As the standard writes it: {@code 5.1}. */
    public String label() {
        return label;
    }

    /** The lowest level that holds pictures of this size at this rate; empty when none does. */
    public static Optional<H265Level> needed(int width, int height, Rational rate) {
        long samples = (long) width * height;
        for (H265Level level : values()) {
            boolean fits = samples <= level.picture
                    && (long) width * width <= 8 * level.picture
                    && (long) height * height <= 8 * level.picture
                    && rate.times(samples).compareTo(Rational.of(level.second)) <= 0;
            if (fits) {
                return Optional.of(level);
            }
        }
        return Optional.empty();
    }
}
