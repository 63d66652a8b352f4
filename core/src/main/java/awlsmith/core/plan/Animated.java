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

/** Pictures that move where only pictures can stand: GIF (CompuServe, GIF89a, 1990) and animated PNG (W3C PNG, third edition, 2025). */
final class Animated implements Codec {
    static final Param.Choice LOOP = new Param.Choice(
            "loop",
            "Plays",
            List.of(
                    new Param.Choice.Option("forever", "over and over", "begins again at its end"),
                    new Param.Choice.Option("once", "once", "stops at its last picture")),
            "forever",
            "what it does at its end");

    private static final Param.Whole COLOURS =
            new Param.Whole("colours", "Colours", "", 4, 256, 256L, "chosen for this clip; fewer are smaller");

    private static final Param.Choice DITHER = new Param.Choice(
            "dither",
            "Between colours",
            List.of(
                    new Param.Choice.Option("spread", "spread", "errors go to neighbours: the softest shades; large"),
                    new Param.Choice.Option("pattern", "a still pattern", "a pattern that does not swim; smaller"),
                    new Param.Choice.Option("none", "bands", "the nearest colour alone; the smallest")),
            "pattern",
            "how shades are shown that are not among the colours");

    /** Times are told in hundredths of a second. */
    private static final double GIF_TICK = 0.01;

    private final boolean gif;

    /** @param gif else animated PNG */
    Animated(boolean gif) {
        this.gif = gif;
    }

    @Override
    public String id() {
        return gif ? "gif" : "apng";
    }

    @Override
    public String label() {
        return gif ? "GIF" : "Animated PNG";
    }

    @Override
    public String purpose() {
        return gif
                ? "moves wherever pictures stand; 256 colours at most, large for what it shows"
                : "moves wherever pictures stand, every sample of 8 bits; large";
    }

    @Override
    public List<Container> containers() {
        return List.of(gif ? Container.GIF : Container.APNG);
    }

    @Override
    public List<Param> params() {
        return gif ? List.of(COLOURS, DITHER, LOOP) : List.of(LOOP);
    }

    @Override
    public int largestSide() {
        return 32767;
    }

    @Override
    public boolean isLossless() {
        return !gif;
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

    @Override
    public double tick() {
        return gif ? GIF_TICK : 0.001;
    }

    @Override
    public ColourTags colour(ColourTags tags) {
        return tags.ofRgb();
    }

    /** A palette can always be clear in places. */
    @Override
    public Format readAs(Format file) {
        return gif ? file.withAlpha(Alpha.STRAIGHT) : file;
    }

    @Override
    public Format format(Format treated, Settings settings) {
        return new Format(
                treated.width(),
                treated.height(),
                Chroma.RGB,
                Siting.LEFT,
                // readers do not lay deeper ones over each other, which is how their files are made
                8,
                treated.colour(),
                treated.sar(),
                Scan.PROGRESSIVE,
                treated.alpha());
    }

    /** Browsers show what is to last less than two hundredths of a second for ten (common practice, no source). */
    @Override
    public List<String> refusals(Format file, Rational rate, Container container) {
        return gif && rate.toDouble() > 50.001
                ? List.of("GIF goes at 50 frames a second at most, this has " + Math.round(rate.toDouble())
                        + "; bring it to 25 with the step Frame rate")
                : List.of();
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        double pixels = (double) file.width() * file.height();
        // common practice, no source
        return amount.frames() * pixels * (gif ? 0.45 : 1.6);
    }
}
