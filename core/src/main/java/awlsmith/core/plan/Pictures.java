package awlsmith.core.plan;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.List;

/** Every frame as a picture of its own, numbered, all in one archive; or one of them by itself. */
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
        PNG("png", "PNG pictures", "numbered pictures without loss, which every program reads", 0.55, Container.PNG),
        TIFF("tiff", "TIFF pictures", "numbered pictures without loss, for print and film tools", 0.8, Container.TIFF),
        JPEG("jpeg", "JPEG pictures", "numbered pictures, small; 8 bit", 0.08, Container.JPEG),
        EXR(
                "exr",
                "OpenEXR pictures",
                "numbered pictures in linear light, half floats, for compositing",
                0.8,
                Container.EXR);

        private final String id;
        private final String label;
        private final String purpose;
        private final double share;
        private final Container alone;

        Kind(String id, String label, String purpose, double share, Container alone) {
            this.id = id;
            this.label = label;
            this.purpose = purpose;
            this.share = share;
            this.alone = alone;
        }
    }

    private static final Param.Choice WHICH = new Param.Choice(
            "which",
            "Which",
            List.of(
                    new Param.Choice.Option("first", "the first", "of the span"),
                    new Param.Choice.Option("middle", "the middle one", "of the span"),
                    new Param.Choice.Option("last", "the last", "of the span")),
            "first",
            "frame goes out, where it is one picture by itself");

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
        return List.of(Container.ZIP, kind.alone);
    }

    @Override
    public List<Param> params() {
        return switch (kind) {
            case PNG, TIFF -> List.of(DEPTH, WHICH, FIRST);
            case JPEG -> List.of(QUALITY, WHICH, FIRST);
            case EXR -> List.of(WHICH, FIRST);
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

    @Override
    public Taking taking(Container container) {
        return container.isPicture() ? Taking.FEW : Taking.ALL;
    }

    @Override
    public List<Long> picks(Settings settings, FrameRange made) {
        return List.of(
                switch (settings.choice(WHICH).orElse("first")) {
                    case "middle" -> made.from() + made.count() / 2;
                    case "last" -> made.end() - 1;
                    default -> made.from();
                });
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
