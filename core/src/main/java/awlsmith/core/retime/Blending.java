package awlsmith.core.retime;

import awlsmith.core.picture.Rational;

/**
 * How a clip was brought from a lower rate to its own by mixing: its frame k shows the moment k ratio + offset, counted in frames of what was there before, and
 * is a mix of the two around that moment, each by how near it is.
 *
 * @param rate frames a second of what was there before
 * @param offset 0 or more and less than 1
 */
public record Blending(Rational rate, Rational offset) {
    public Blending {
        if (!rate.isPositive() || offset.compareTo(Rational.ZERO) < 0 || offset.compareTo(Rational.ONE) >= 0) {
            throw new IllegalArgumentException(
                    "rate is " + rate + ", offset " + offset + "; must be more than 0, and 0 or more and less than 1");
        }
    }

    /** Frames of what was there before, to one of the clip. */
    Rational ratio(Rational now) {
        return rate.dividedBy(now);
    }
}
