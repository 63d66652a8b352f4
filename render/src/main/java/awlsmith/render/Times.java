package awlsmith.render;

import awlsmith.core.picture.Rational;

/** Times as people write them: seconds {@code 12.5}, clock {@code 1:02.5} or {@code 1:02:03}. */
public final class Times {
    private Times() {}

    public static Rational parse(String text) {
        String[] parts = text.trim().split(":", -1);
        try {
            if (parts.length > 3 || text.isBlank()) {
                throw new IllegalArgumentException();
            }
            Rational total = Rational.ZERO;
            for (int i = 0; i < parts.length; i++) {
                Rational part = Rational.parse(parts[i]);
                boolean last = i == parts.length - 1;
                boolean tooMuch = i > 0 && part.compareTo(Rational.of(60)) >= 0;
                if (part.num() < 0 || tooMuch || !last && part.den() != 1) {
                    throw new IllegalArgumentException();
                }
                total = total.times(60).plus(part);
            }
            return total;
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(
                    "'" + text + "' is not a time; write seconds (12.5) or a clock (1:02.5, 1:02:03)");
        }
    }
}
