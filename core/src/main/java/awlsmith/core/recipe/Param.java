package awlsmith.core.recipe;

import java.util.List;

/**
 * One thing a user can set on a step: its key, what it may be, and what it does to the picture. The interface's controls,
 * the command line's help and the validation all follow from these.
 */
public sealed interface Param {
    /** Name in recipes and on the command line. */
    String key();

    /** Name on the screen. */
    String label();

    /** What it does to the picture, in a sentence. */
    String effect();

    /** The value when none is given, or null when the step itself decides. */
    Object fallback();

    /** What is allowed, in words: {@code 0.125..8 x}. */
    String allowed();

    /**
     * The value in its proper type.
     *
     * @throws IllegalArgumentException with a sentence that names key, value and what is allowed
     */
    Object read(Object value);

    /** A real number; value type Double. */
    record Real(String key, String label, String unit, double min, double max, Double fallback, String effect)
            implements Param {
        @Override
        public String allowed() {
            return Words.number(min) + ".." + Words.number(max) + (unit.isEmpty() ? "" : " " + unit);
        }

        @Override
        public Object read(Object value) {
            double number;
            try {
                number = value instanceof Number n
                        ? n.doubleValue()
                        : Double.parseDouble(String.valueOf(value).trim());
            } catch (NumberFormatException e) {
                throw Words.refused(this, value, "not a number");
            }
            if (!(number >= min && number <= max)) {
                throw Words.refused(this, value, "outside");
            }
            return number;
        }
    }

    /** A whole number; value type Long. */
    record Whole(String key, String label, String unit, long min, long max, Long fallback, String effect)
            implements Param {
        @Override
        public String allowed() {
            return min + ".." + max + (unit.isEmpty() ? "" : " " + unit);
        }

        @Override
        public Object read(Object value) {
            long number;
            try {
                number = value instanceof Number n
                        ? new java.math.BigDecimal(n.toString()).longValueExact()
                        : Long.parseLong(String.valueOf(value).trim());
            } catch (ArithmeticException | NumberFormatException e) {
                throw Words.refused(this, value, "not a whole number");
            }
            if (number < min || number > max) {
                throw Words.refused(this, value, "outside");
            }
            return number;
        }
    }

    /** One of a few named options; value type String. */
    record Choice(String key, String label, List<Option> options, String fallback, String effect) implements Param {
        /** @param id value in recipes; @param label on the screen; @param effect what it does */
        public record Option(String id, String label, String effect) {}

        public Choice {
            options = List.copyOf(options);
        }

        @Override
        public String allowed() {
            return "one of "
                    + String.join(", ", options.stream().map(Option::id).toList());
        }

        @Override
        public Object read(Object value) {
            String text = String.valueOf(value).trim();
            if (options.stream().noneMatch(option -> option.id().equals(text))) {
                throw Words.refused(this, value, "not among the choices");
            }
            return text;
        }
    }
}
