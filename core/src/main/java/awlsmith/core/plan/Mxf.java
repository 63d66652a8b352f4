package awlsmith.core.plan;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** What MXF asks of pictures beside what their codec does. */
final class Mxf {
    /** Edit rates that its readers know (SMPTE ST 377-1 allows any; common practice, no source). */
    private static final Set<Rational> RATES = Set.of(
            new Rational(24000, 1001),
            Rational.of(24),
            Rational.of(25),
            new Rational(30000, 1001),
            Rational.of(30),
            Rational.of(48),
            Rational.of(50),
            new Rational(60000, 1001),
            Rational.of(60));

    private Mxf() {}

    static List<String> refusals(Format file, Rational rate, Container container) {
        if (container != Container.MXF) {
            return List.of();
        }
        var refusals = new ArrayList<String>();
        if (!file.sar().equals(Rational.ONE)) {
            // what is written of it is not read back by every reader
            refusals.add("MXF holds square samples alone here, these are "
                    + file.sar().num() + ":" + file.sar().den()
                    + "; make them square with the step Enlarge, or choose another container");
        }
        if (!RATES.contains(rate)) {
            String rates = RATES.stream().sorted().map(Mxf::words).collect(Collectors.joining(", "));
            refusals.add("MXF goes at " + rates + " frames a second, this has " + words(rate)
                    + "; bring it to one of them with the step Frame rate, or choose another container");
        }
        return refusals;
    }

    private static String words(Rational rate) {
        return Optional.of(Math.round(rate.toDouble() * 1000) / 1000.0)
                .map(r -> r == Math.rint(r) ? "" + r.intValue() : "" + r)
                .get();
    }
}
