package awlsmith.core.picture;

import java.math.BigInteger;

/**
 * An exact fraction, always in lowest terms with a positive denominator: frame rates, time stamps in seconds, sample
 * aspect ratios. 24000/1001 film stays exact over any length, where a double would drift.
 *
 * <p>Arithmetic throws {@link ArithmeticException} when a result no longer fits 64-bit terms; it never rounds silently.
 */
public record Rational(long num, long den) implements Comparable<Rational> {
    public static final Rational ZERO = new Rational(0, 1);
    public static final Rational ONE = new Rational(1, 1);

    public Rational {
        if (den == 0) {
            throw new IllegalArgumentException("denominator is 0, must not be");
        }
        long common = gcd(Math.absExact(num), Math.absExact(den));
        if (den < 0) {
            common = -common;
        }
        num /= common;
        den /= common;
    }

    /** A whole number. */
    public static Rational of(long whole) {
        return new Rational(whole, 1);
    }

    /** Reads {@code 25}, {@code 30000/1001}, {@code 16:15} or a decimal such as {@code 12.5}. */
    public static Rational parse(String text) {
        String trimmed = text.trim();
        int cut = Math.max(trimmed.indexOf('/'), trimmed.indexOf(':'));
        try {
            if (cut >= 0) {
                return new Rational(
                        Long.parseLong(trimmed.substring(0, cut)), Long.parseLong(trimmed.substring(cut + 1)));
            }
            var decimal = new java.math.BigDecimal(trimmed);
            if (decimal.scale() > 12 || decimal.precision() > 18) {
                throw new IllegalArgumentException("'" + trimmed + "' has more digits than a time or ratio needs");
            }
            int scale = Math.max(0, decimal.scale());
            return reduce(
                    decimal.movePointRight(scale).toBigIntegerExact(),
                    BigInteger.TEN.pow(scale),
                    "reading '" + trimmed + "'");
        } catch (ArithmeticException | NumberFormatException e) {
            throw new IllegalArgumentException("'" + text + "' is not a fraction such as 25, 12.5 or 30000/1001");
        }
    }

    /** The exact sum. */
    public Rational plus(Rational other) {
        return reduce(
                big(num).multiply(big(other.den)).add(big(other.num).multiply(big(den))),
                big(den).multiply(big(other.den)),
                "sum");
    }

    /** The exact difference. */
    public Rational minus(Rational other) {
        return plus(new Rational(Math.negateExact(other.num), other.den));
    }

    /** The exact product. */
    public Rational times(Rational other) {
        return reduce(big(num).multiply(big(other.num)), big(den).multiply(big(other.den)), "product");
    }

    /** The exact product with a whole number. */
    public Rational times(long factor) {
        return times(of(factor));
    }

    /** The exact quotient; the other must not be 0. */
    public Rational dividedBy(Rational other) {
        return reduce(big(num).multiply(big(other.den)), big(den).multiply(big(other.num)), "quotient");
    }

    /** 1 by this, which must not be 0. */
    public Rational inverse() {
        return new Rational(den, num);
    }

    /** This value counted in ticks of {@code tick}, rounded to the nearest, halves up. */
    public long ticks(Rational tick) {
        BigInteger n = big(num).multiply(big(tick.den)).shiftLeft(1);
        BigInteger d = big(den).multiply(big(tick.num));
        BigInteger[] parts = n.add(d).divideAndRemainder(d.shiftLeft(1));
        boolean below = parts[1].signum() < 0;
        return (below ? parts[0].subtract(BigInteger.ONE) : parts[0]).longValueExact();
    }

    /** The whole number at or below. */
    public long floor() {
        return Math.floorDiv(num, den);
    }

    /** The nearest double. */
    public double toDouble() {
        return (double) num / den;
    }

    /** Whether it is above 0. */
    public boolean isPositive() {
        return num > 0;
    }

    @Override
    public int compareTo(Rational other) {
        return big(num).multiply(big(other.den)).compareTo(big(other.num).multiply(big(den)));
    }

    @Override
    public String toString() {
        return den == 1 ? Long.toString(num) : num + "/" + den;
    }

    private static Rational reduce(BigInteger n, BigInteger d, String what) {
        if (d.signum() == 0) {
            throw new ArithmeticException("division by zero in a " + what);
        }
        BigInteger common = n.gcd(d);
        if (common.signum() == 0) {
            return ZERO;
        }
        try {
            return new Rational(
                    n.divide(common).longValueExact(), d.divide(common).longValueExact());
        } catch (ArithmeticException e) {
            throw new ArithmeticException("the " + what + " " + n + "/" + d + " does not fit 64-bit terms");
        }
    }

    private static BigInteger big(long value) {
        return BigInteger.valueOf(value);
    }

    private static long gcd(long a, long b) {
        while (b != 0) {
            long rest = a % b;
            a = b;
            b = rest;
        }
        return a == 0 ? 1 : a;
    }
}
