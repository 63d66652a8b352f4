package awlsmith.core.plan;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.ArrayList;
import java.util.List;

/** AV1 (AV1 Bitstream and Decoding Process Specification, Alliance for Open Media, 2019); about half the size of H.264 at the same look (common practice, no source). */
final class Av1 extends LongGop {
    /** What its encoder takes, from its own sentences. */
    private static final int LEAST = 64;

    private static final int HIGHEST = 8704;

    Av1() {
        super(
                List.of(Container.MP4, Container.MKV, Container.WEBM),
                63,
                // looks about as H.264 does at 17 (common practice, no source)
                24,
                "below 20 nothing is seen, above 40 detail goes",
                List.of(
                        new Param.Choice.Option("8", "8 bit", "for the oldest of its players"),
                        new Param.Choice.Option(
                                "10", "10 bit", "soft gradients without bands; what plays AV1 plays it")));
    }

    @Override
    public String id() {
        return "av1";
    }

    @Override
    public String label() {
        return "AV1";
    }

    @Override
    public String purpose() {
        return "the smallest at the same look, free of charge; for the web and new devices";
    }

    @Override
    int held(int bits) {
        return bits > 8 ? 10 : 8;
    }

    /** It knows whole pictures alone. */
    @Override
    boolean holdsFields(Format treated) {
        return false;
    }

    /** Section 6.4.2, chroma_sample_position: on the left, or on the very place of a sample of luma. */
    @Override
    Siting told(Siting named) {
        return named.equals(Siting.TOP_LEFT) ? named : Siting.LEFT;
    }

    @Override
    public List<String> refusals(Format file, Rational rate, Container container) {
        var refusals = new ArrayList<String>();
        String size = file.width() + "x" + file.height();
        if (file.width() < LEAST || file.height() < LEAST) {
            refusals.add(size + " is too small for AV1 here, which begins at 64x64; enlarge it, or choose H.264");
        }
        if (file.height() > HIGHEST) {
            refusals.add(size + " is too high for AV1 here, which ends at 8704 lines; choose a smaller size, or H.265");
        }
        return refusals;
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        return bytes(source, file, settings, amount, 0.045, 1.1);
    }
}
