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

/** Every frame as a picture of its own, numbered, all in one archive. */
final class Pictures implements Codec {
    private static final Param.Whole FIRST =
            new Param.Whole("first", "First number", "", 0, 9_999_999, 1L, "that the first picture's name ends in");

    private static final Param.Choice DEPTH = new Param.Choice(
            "depth",
            "Depth",
            List.of(
                    new Param.Choice.Option("8", "8 bit", "every program reads it"),
                    new Param.Choice.Option("16", "16 bit", "nothing is rounded that could ever be seen")),
            null,
            "bits of a sample; 16 where it is not set and the picture has more than 8");

    private static final Param.Whole QUALITY =
            new Param.Whole("quality", "Quality", "", 1, 31, 2L, "lower is better and larger; below 4 nothing is seen");

    /** What pictures there are, with bytes of a raw byte that is kept (common practice, no source). */
    enum Kind {
        PNG("png", "PNG pictures", "numbered pictures without loss, which every program reads", 0.55),
        TIFF("tiff", "TIFF pictures", "numbered pictures without loss, for print and film tools", 0.8),
        JPEG("jpeg", "JPEG pictures", "numbered pictures, small; 8 bit", 0.08),
        EXR("exr", "OpenEXR pictures", "numbered pictures in linear light, half floats, for compositing", 0.8);

        private final String id;
        private final String label;
        private final String purpose;
        private final double share;

        Kind(String id, String label, String purpose, double share) {
            this.id = id;
            this.label = label;
            this.purpose = purpose;
            this.share = share;
        }
    }

    private final Kind kind;

    Pictures(Kind kind) {
        this.kind = kind;
    }

    @Override
    public String id() {
        return kind.id;
    }

    @Override
    public String label() {
        return kind.label;
    }

    @Override
    public String purpose() {
        return kind.purpose;
    }

    @Override
    public List<Container> containers() {
        return List.of(Container.ZIP);
    }

    @Override
    public List<Param> params() {
        return switch (kind) {
            case PNG, TIFF -> List.of(DEPTH, FIRST);
            case JPEG -> List.of(QUALITY, FIRST);
            case EXR -> List.of(FIRST);
        };
    }

    @Override
    public int largestSide() {
        return kind == Kind.JPEG ? 65500 : 32767;
    }

    @Override
    public boolean isLossless() {
        return kind != Kind.JPEG;
    }

    @Override
    public boolean holdsAlpha() {
        return kind != Kind.JPEG;
    }

    @Override
    public boolean isCodedInParts(Settings settings) {
        return false;
    }

    /** Readers take R'G'B' of full range for granted, and JPEG's luma and chroma as JFIF (ITU-T T.871) has them. */
    @Override
    public boolean tellsColour() {
        return false;
    }

    @Override
    public ColourTags colour(ColourTags tags) {
        return kind == Kind.JPEG
                ? new ColourTags(ColourTags.Matrix.BT470BG, ColourTags.Range.FULL, tags.transfer(), tags.primaries())
                : tags.ofRgb();
    }

    @Override
    public Format format(Format treated, Settings settings) {
        boolean jpeg = kind == Kind.JPEG;
        boolean grey = treated.chroma() == Chroma.GREY && !treated.alpha().isThere();
        Chroma chroma = grey ? Chroma.GREY : jpeg ? Chroma.S444 : Chroma.RGB;
        int depth = switch (kind) {
            case JPEG -> 8;
            case EXR -> 16;
            default -> settings.choice(DEPTH).map(Integer::parseInt).orElse(treated.depth() > 8 ? 16 : 8);
        };
        return new Format(
                treated.width(),
                treated.height(),
                chroma,
                Siting.LEFT,
                depth,
                treated.colour(),
                treated.sar(),
                Scan.PROGRESSIVE,
                jpeg ? Alpha.NONE : treated.alpha());
    }

    @Override
    public List<String> warnings(Format file, Rational rate) {
        return file.sar().equals(Rational.ONE)
                ? List.of()
                : List.of(
                        "the picture's samples are not square, which pictures by themselves hardly ever say: they will look "
                                + (file.sar().toDouble() > 1 ? "too narrow" : "too wide")
                                + ". Make them square with the step Enlarge");
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        return amount.frames() * file.floatBytes() / 4.0 * (file.depth() > 8 ? 2 : 1) * kind.share;
    }
}
