package awlsmith.core.recipe;

import java.util.Collection;
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

    /**
     * A real number; value type Double, or where it may be keyed {@link Points} of seconds and values.
     *
     * @param keyed whether it may change over time; the seconds are those of the frames that reach the step
     */
    record Real(
            String key,
            String label,
            String unit,
            double min,
            double max,
            Double fallback,
            String effect,
            boolean keyed)
            implements Param {
        /** One that stays the same throughout. */
        public Real(String key, String label, String unit, double min, double max, Double fallback, String effect) {
            this(key, label, unit, min, max, fallback, effect, false);
        }

        @Override
        public String allowed() {
            return range()
                    + (keyed ? ", or values at seconds like 0:" + Words.number(min) + ",2.5:" + Words.number(max) : "");
        }

        private String range() {
            return Words.number(min) + ".." + Words.number(max) + (unit.isEmpty() ? "" : " " + unit);
        }

        @Override
        public Object read(Object value) {
            if (keyed && String.valueOf(value).contains(":")) {
                return keys(value);
            }
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

        private Object keys(Object value) {
            Points points = Words.read(this, value, Points::parse);
            for (Points.Point point : points.list()) {
                if (point.x() < 0) {
                    throw Words.refused(this, value, "a time before the first frame");
                }
                if (!(point.y() >= min && point.y() <= max)) {
                    throw Words.refused(this, Words.number(point.y()), "outside");
                }
            }
            return points.list().size() == 1 ? (Object) points.list().getFirst().y() : points;
        }
    }

    /** A colour; value type {@link Colour}. */
    record Tint(String key, String label, String fallbackText, String effect) implements Param {
        @Override
        public Object fallback() {
            return fallbackText == null ? null : Colour.parse(fallbackText);
        }

        @Override
        public String allowed() {
            return "a colour like #8090a0";
        }

        @Override
        public Object read(Object value) {
            return Words.read(this, value, Colour::parse);
        }
    }

    /** A curve over 0..1 through points; value type {@link Points}. */
    record Curve(String key, String label, String effect) implements Param {
        /** Beyond these ends nobody needs a point. */
        private static final double LEAST = -0.5;

        private static final double MOST = 1.5;

        @Override
        public Object fallback() {
            return null;
        }

        @Override
        public String allowed() {
            return "two points or more within -0.5..1.5, like 0:0,0.5:0.6,1:1";
        }

        @Override
        public Object read(Object value) {
            Points points = Words.read(this, value, Points::parse);
            boolean outside = points.list().stream()
                    .anyMatch(point -> Math.min(point.x(), point.y()) < LEAST || Math.max(point.x(), point.y()) > MOST);
            if (outside) {
                throw Words.refused(this, value, "outside");
            }
            if (points.list().size() < 2) {
                throw Words.refused(this, value, "one point is no curve");
            }
            return points;
        }
    }

    /**
     * Moments at which something is so, or is not, whatever is found by itself; value type {@link Points}, seconds of what reaches the step, and 1 or 0.
     *
     * @param yes what 1 says, on the screen; @param no what 0 says
     */
    record Marks(String key, String label, String yes, String no, String effect) implements Param {
        @Override
        public Object fallback() {
            return null;
        }

        @Override
        public String allowed() {
            return "times in seconds with 1 or 0, like 3.2:1,7.5:0";
        }

        @Override
        public Object read(Object value) {
            Points points = Words.read(this, value, Points::parse);
            if (points.list().stream().anyMatch(point -> point.x() < 0 || point.y() != 0 && point.y() != 1)) {
                throw Words.refused(this, value, "neither 1 nor 0, or before the beginning");
            }
            return points;
        }
    }

    /**
     * A file that is kept for recipes; value type {@link FileRef}.
     *
     * @param ending of such files
     */
    record FromFile(String key, String label, String ending, String effect) implements Param {
        @Override
        public Object fallback() {
            return null;
        }

        @Override
        public String allowed() {
            return "a ." + ending + " file, on the command line by its path";
        }

        @Override
        public Object read(Object value) {
            return Words.read(this, value, FileRef::parse);
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

        /** The same with some of its options alone. */
        public Choice among(Collection<String> ids) {
            return new Choice(
                    key,
                    label,
                    options.stream().filter(option -> ids.contains(option.id())).toList(),
                    fallback,
                    effect);
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
