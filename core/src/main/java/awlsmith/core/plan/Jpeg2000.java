package awlsmith.core.plan;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.List;

/** What archives keep, each picture for itself: ISO/IEC 15444-1, with the reversible wavelet where nothing may be lost. */
final class Jpeg2000 implements Codec {
    private static final Param.Choice LOSS = new Param.Choice(
            "keeps",
            "Keeps",
            List.of(
                    new Param.Choice.Option("all", "every sample", "about half of the raw samples"),
                    new Param.Choice.Option("5", "a fifth", "a fifth of the raw samples; nothing is seen of it"),
                    new Param.Choice.Option("10", "a tenth", "a tenth of the raw samples; fine texture softens")),
            "all",
            "how much of the raw samples goes into the file");

    @Override
    public String id() {
        return "jpeg2000";
    }

    @Override
    public String label() {
        return "JPEG 2000";
    }

    @Override
    public String purpose() {
        return "for archives: each picture for itself, without loss; slow to make and to play";
    }

    @Override
    public List<Container> containers() {
        return List.of(Container.MKV, Container.MXF);
    }

    @Override
    public List<Param> params() {
        return List.of(LOSS);
    }

    @Override
    public int largestSide() {
        return 32767;
    }

    @Override
    public boolean isLossless() {
        return true;
    }

    @Override
    public Format format(Format treated, Settings settings) {
        return new Format(
                treated.width(),
                treated.height(),
                treated.chroma(),
                Deliverable.told(treated, treated.chroma()),
                held(treated),
                treated.colour(),
                treated.sar(),
                Scan.PROGRESSIVE,
                Alpha.NONE);
    }

    /** Its readers here have not every depth for every layout: the next that they have. */
    private static int held(Format treated) {
        int bits = treated.depth();
        if (treated.chroma() == Chroma.RGB) {
            return bits > 8 ? 16 : 8;
        }
        return bits == 9 ? 10 : bits > 12 ? 16 : bits == 11 ? 12 : bits;
    }

    @Override
    public List<String> refusals(Format file, Rational rate, Container container) {
        return Mxf.refusals(file, rate, container);
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        double raw = file.floatBytes() / 4.0 * file.depth() / 8;
        String kept = settings.choice(LOSS).orElseThrow();
        // half of the raw samples is common practice, no source
        return amount.frames() * raw * (kept.equals("all") ? 0.5 : 1.0 / Integer.parseInt(kept));
    }
}
