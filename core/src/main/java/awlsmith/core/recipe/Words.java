package awlsmith.core.recipe;

import java.math.BigDecimal;

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

    static IllegalArgumentException refused(Param param, Object value, String why) {
        String shown = value instanceof Double d ? number(d) : String.valueOf(value);
        if (shown.length() > 40) {
            shown = shown.substring(0, 40) + "…";
        }
        return new IllegalArgumentException(
                param.key() + " is " + shown + ", " + why + ": allowed is " + param.allowed());
    }
}
