package awlsmith.core.recipe;

import java.math.BigDecimal;
import java.util.function.Function;

/** Sentences about values, written one way everywhere. */
final class Words {
    private Words() {}

    /** A number without needless zeros. */
    static String number(double value) {
        if (Double.isNaN(value) || Double.isInfinite(value)) {
            return Double.toString(value);
        }
        return BigDecimal.valueOf(value).stripTrailingZeros().toPlainString();
    }

    /** Reads a written value; what is wrong with it is told together with what is allowed. */
    static <T> T read(Param param, Object value, Function<String, T> parse) {
        try {
            return parse.apply(String.valueOf(value));
        } catch (IllegalArgumentException e) {
            throw refused(param, value, e.getMessage());
        }
    }

    static IllegalArgumentException refused(Param param, Object value, String why) {
        String shown = value instanceof Double d ? number(d) : String.valueOf(value);
        if (shown.length() > 40) {
            shown = shown.substring(0, 40) + "…";
        }
        return new IllegalArgumentException(
                param.key() + " is " + shown + ", " + why + ": allowed is " + param.allowed());
    }
}
