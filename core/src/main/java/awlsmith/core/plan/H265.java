package awlsmith.core.plan;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** ITU-T H.265; about two thirds of the size of H.264 at the same look (common practice, no source). */
final class H265 extends LongGop {
    H265() {
        // looks about as H.264 does at 17 (common practice, no source)
        super(
                List.of(Container.MP4, Container.MOV, Container.MKV),
                51,
                20,
                "below 17 nothing is seen, above 27 detail goes",
                List.of(
                        new Param.Choice.Option("8", "8 bit", "plays where H.265 does"),
                        new Param.Choice.Option(
                                "10", "10 bit", "soft gradients without bands; most of what plays H.265 plays it"),
                        new Param.Choice.Option("12", "12 bit", "for further work; few players take it")));
    }

    @Override
    public String id() {
        return "h265";
    }

    @Override
    public String label() {
        return "H.265";
    }

    @Override
    public String purpose() {
        return "smaller than H.264 at the same look, and slower to make; plays on what is not too old";
    }

    @Override
    boolean keepsPeaks() {
        return true;
    }

    @Override
    boolean isKnownToHardware() {
        return true;
    }

    @Override
    int held(int bits) {
        return bits > 10 ? 12 : bits > 8 ? 10 : 8;
    }

    /** The encoder knows whole pictures alone. */
    @Override
    boolean holdsFields(Format treated) {
        return false;
    }

    @Override
    public List<String> warnings(Format file, Rational rate) {
        var warnings = new ArrayList<String>();
        if (file.depth() > 10) {
            // common practice, no source
            warnings.add("12 bits in H.265 play in few programs; 10 play in most that know it");
        }
        Optional<H265Level> level = H265Level.needed(file.width(), file.height(), rate);
        boolean isUsual =
                level.filter(one -> one.compareTo(H265Level.L5_2) <= 0).isPresent();
        levelWarning(file, rate, level.map(H265Level::label), isUsual).ifPresent(warnings::add);
        return warnings;
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        return bytes(source, file, settings, amount, 0.055, 1.35);
    }
}
