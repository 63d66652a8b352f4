package awlsmith.core.plan;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** ITU-T H.264. */
final class H264 extends LongGop {
    H264() {
        // visually close to lossless without being huge (common practice, no source)
        super(
                List.of(Container.MP4, Container.MOV, Container.MKV),
                51,
                17,
                "below 15 nothing is seen, above 24 blocks may be",
                List.of(
                        new Param.Choice.Option("8", "8 bit", "plays nearly everywhere"),
                        new Param.Choice.Option("10", "10 bit", "soft gradients without bands; few browsers play it")));
    }

    @Override
    public String id() {
        return "h264";
    }

    @Override
    public String label() {
        return "H.264";
    }

    @Override
    public String purpose() {
        return "plays nearly everywhere";
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
        return bits > 8 ? 10 : 8;
    }

    /** Interlaced pictures of halved chroma come in whole rows of macroblock pairs: lines must be a multiple of four. */
    @Override
    boolean holdsFields(Format treated) {
        return treated.height() % 4 == 0;
    }

    @Override
    public List<String> warnings(Format file, Rational rate) {
        var warnings = new ArrayList<String>();
        if (file.depth() > 8) {
            // common practice, no source
            warnings.add(file.depth()
                    + " bits in H.264 play in most programs, but in few browsers and televisions; 8 play everywhere");
        }
        Optional<H264Level> level = H264Level.needed(file.width(), file.height(), rate);
        boolean isUsual =
                level.filter(one -> one.compareTo(H264Level.L5_2) <= 0).isPresent();
        levelWarning(file, rate, level.map(H264Level::label), isUsual).ifPresent(warnings::add);
        return warnings;
    }

    /** Twice the source's bits: a finer quantiser than most sources have. */
    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        return bytes(source, file, settings, amount, 0.08, 2);
    }
}
