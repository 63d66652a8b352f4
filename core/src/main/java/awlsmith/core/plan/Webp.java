package awlsmith.core.plan;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.List;

/** Pictures that move on pages of the web, far smaller than GIF (WebP, IETF RFC 9649, 2024). */
final class Webp implements Codec {
    private static final Param.Choice KEEPS = new Param.Choice(
            "keeps",
            "Keeps",
            List.of(
                    new Param.Choice.Option("most", "what is seen", "small, as the quality below says"),
                    new Param.Choice.Option("all", "every sample", "several times as large")),
            "most",
            "whether anything may be lost");

    private static final Param.Whole QUALITY =
            new Param.Whole("quality", "Quality", "", 1, 100, 80L, "where something may be lost; larger is better");

    /** A frame of VP8 has 14 bits for each of its sides (RFC 6386, 9.1; its number from memory). */
    private static final int LARGEST = 16383;

    @Override
    public String id() {
        return "webp";
    }

    @Override
    public String label() {
        return "Animated WebP";
    }

    @Override
    public String purpose() {
        return "moves on pages of the web, much smaller than GIF, in full colour; programs beside browsers seldom read it";
    }

    @Override
    public List<Container> containers() {
        return List.of(Container.WEBP);
    }

    @Override
    public List<Param> params() {
        return List.of(KEEPS, QUALITY, Animated.LOOP);
    }

    @Override
    public int largestSide() {
        return LARGEST;
    }

    @Override
    public boolean holdsAlpha() {
        return true;
    }

    @Override
    public boolean isCodedInParts(Settings settings) {
        return false;
    }

    @Override
    public boolean tellsColour() {
        return false;
    }

    private static boolean isKept(Settings settings) {
        return settings.choice(KEEPS).orElseThrow().equals("all");
    }

    /** Luma and chroma are those of BT.601 in limited range (RFC 6386, 9.2), else samples are R'G'B'. */
    @Override
    public ColourTags colour(ColourTags tags, Settings settings) {
        return isKept(settings)
                ? tags.ofRgb()
                : new ColourTags(
                        ColourTags.Matrix.BT470BG, ColourTags.Range.LIMITED, tags.transfer(), tags.primaries());
    }

    /** FFmpeg reads samples without loss with a plane that tells what is clear, be anything clear or not. */
    @Override
    public Format readAs(Format file) {
        return file.chroma() == Chroma.RGB ? file.withAlpha(Alpha.STRAIGHT) : file;
    }

    @Override
    public Format format(Format treated, Settings settings) {
        return new Format(
                treated.width(),
                treated.height(),
                isKept(settings) ? Chroma.RGB : Chroma.S420,
                // its readers take it to lie between the luma samples (common practice, no source)
                Siting.CENTRE,
                8,
                treated.colour(),
                treated.sar(),
                Scan.PROGRESSIVE,
                treated.alpha());
    }

    /** Browsers show what is to last ten milliseconds and less for a hundred (common practice, no source). */
    @Override
    public List<String> refusals(Format file, Rational rate, Container container) {
        return rate.toDouble() > 60.001
                ? List.of("browsers show an animated WebP of " + Math.round(rate.toDouble())
                        + " frames a second at a tenth of its pace; bring it to 60 or fewer with the step Frame rate")
                : List.of();
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        double pixels = (double) file.width() * file.height();
        // common practice, no source
        return amount.frames() * pixels * (isKept(settings) ? 1.2 : 0.1);
    }
}
