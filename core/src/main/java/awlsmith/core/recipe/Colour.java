package awlsmith.core.recipe;

import java.util.Locale;
import java.util.regex.Pattern;

/**
 * A colour as screens show it: R'G'B' of eight bits.
 *
 * @param red 0..255, likewise the others
 */
public record Colour(int red, int green, int blue) {
    private static final Pattern WRITTEN = Pattern.compile("#?([0-9a-fA-F]{6})");

    /** @throws IllegalArgumentException when it is not written {@code #8090a0} */
    public static Colour parse(String text) {
        var written = WRITTEN.matcher(text.trim());
        if (!written.matches()) {
            throw new IllegalArgumentException("not a colour like #8090a0");
        }
        int code = Integer.parseInt(written.group(1), 16);
        return new Colour(code >> 16, code >> 8 & 255, code & 255);
    }

    /** Red, green and blue, 0..1. */
    public double[] rgb() {
        return new double[] {red / 255.0, green / 255.0, blue / 255.0};
    }

    /** {@code #8090a0}. */
    @Override
    public String toString() {
        return String.format(Locale.ROOT, "#%02x%02x%02x", red, green, blue);
    }
}
