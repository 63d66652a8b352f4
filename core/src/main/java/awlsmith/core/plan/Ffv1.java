package awlsmith.core.plan;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.List;

/** Keeps every sample and the treated layout; RFC 9043. */
final class Ffv1 implements Codec {
    private static final Param.Choice DEPTH = new Param.Choice(
            "depth",
            "Depth",
            List.of(
                    new Param.Choice.Option("8", "8 bit", "a quarter smaller than 10"),
                    new Param.Choice.Option("10", "10 bit", "what most mezzanines have"),
                    new Param.Choice.Option("12", "12 bit", "what the best cameras have"),
                    new Param.Choice.Option("16", "16 bit", "nothing is rounded that could ever be seen")),
            null,
            "bits of a sample; as many as the picture has where it is not set");

    @Override
    public String id() {
        return "ffv1";
    }

    @Override
    public String label() {
        return "FFV1";
    }

    @Override
    public String purpose() {
        return "lossless, for further work and for keeping";
    }

    @Override
    public List<Container> containers() {
        return List.of(Container.MKV);
    }

    @Override
    public List<Param> params() {
        return List.of(DEPTH);
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
    public boolean holdsAlpha() {
        return true;
    }

    @Override
    public Format format(Format treated, Settings settings) {
        return new Format(
                treated.width(),
                treated.height(),
                treated.chroma(),
                Deliverable.told(treated, treated.chroma()),
                held(treated, settings.choice(DEPTH).map(Integer::parseInt).orElse(treated.depth())),
                treated.colour(),
                treated.sar(),
                treated.scan(),
                treated.alpha());
    }

    /** FFV1 through FFmpeg has not every depth for every layout: the next that it has. */
    private static int held(Format treated, int bits) {
        int most = treated.alpha().isThere() && treated.chroma() != Chroma.RGB ? 10 : 12;
        return bits == 9 ? 10 : bits > most ? 16 : bits;
    }

    /** Half of the raw samples (common practice, no source). */
    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        return amount.frames() * file.floatBytes() / 4.0 * file.depth() / 8 * 0.5;
    }
}
