package awlsmith.core.plan;

import awlsmith.core.picture.Format;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.List;

/** VP9 (VP9 Bitstream and Decoding Process Specification, 2016); about the size of H.265 at the same look (common practice, no source). */
final class Vp9 extends LongGop {
    Vp9() {
        super(
                List.of(Container.WEBM, Container.MKV),
                63,
                // looks about as H.264 does at 17 (common practice, no source)
                22,
                "below 18 nothing is seen, above 36 detail goes",
                List.of(
                        new Param.Choice.Option("8", "8 bit", "plays in every browser"),
                        new Param.Choice.Option("10", "10 bit", "soft gradients without bands; fewer play it"),
                        new Param.Choice.Option("12", "12 bit", "for further work; few players take it")));
    }

    @Override
    public String id() {
        return "vp9";
    }

    @Override
    public String label() {
        return "VP9";
    }

    @Override
    public String purpose() {
        return "for web pages: every browser plays it, free of charge; slow to make";
    }

    @Override
    int held(int bits) {
        return bits > 10 ? 12 : bits > 8 ? 10 : 8;
    }

    /** It knows whole pictures alone. */
    @Override
    boolean holdsFields(Format treated) {
        return false;
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        return bytes(source, file, settings, amount, 0.055, 1.3);
    }
}
