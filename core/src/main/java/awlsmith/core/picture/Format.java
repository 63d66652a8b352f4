package awlsmith.core.picture;

/**
 * The shape and meaning of a picture.
 *
 * @param width luma pixels across, 1..32768
 * @param height luma pixels down, 1..32768
 * @param chroma plane layout
 * @param siting where chroma samples lie
 * @param depth bits of the code values in the file it came from or goes to, 8..16; planes inside are always float
 * @param colour tags carried through
 * @param sar sample aspect ratio, width to height of one pixel
 * @param scan how its lines were taken
 * @param alpha whether a plane of transparency lies behind the others, and how colour goes with it
 */
public record Format(
        int width,
        int height,
        Chroma chroma,
        Siting siting,
        int depth,
        ColourTags colour,
        Rational sar,
        Scan scan,
        Alpha alpha) {
    public static final int MAX_SIDE = 32768;

    /** Opaque pictures. */
    public Format(
            int width,
            int height,
            Chroma chroma,
            Siting siting,
            int depth,
            ColourTags colour,
            Rational sar,
            Scan scan) {
        this(width, height, chroma, siting, depth, colour, sar, scan, Alpha.NONE);
    }

    /** Whole frames, opaque. */
    public Format(int width, int height, Chroma chroma, Siting siting, int depth, ColourTags colour, Rational sar) {
        this(width, height, chroma, siting, depth, colour, sar, Scan.PROGRESSIVE);
    }

    public Format {
        if (width < 1 || width > MAX_SIDE || height < 1 || height > MAX_SIDE) {
            throw new IllegalArgumentException(
                    "picture is " + width + "x" + height + ", each side must be in 1.." + MAX_SIDE);
        }
        if (depth < 8 || depth > 16) {
            throw new IllegalArgumentException("depth is " + depth + " bits, must be in 8..16");
        }
        if (!sar.isPositive()) {
            throw new IllegalArgumentException("sample aspect ratio is " + sar + ", must be above 0");
        }
    }

    /** The same at another size, with pixels of another shape. */
    public Format withSize(int newWidth, int newHeight, Rational newSar) {
        return new Format(newWidth, newHeight, chroma, siting, depth, colour, newSar, scan, alpha);
    }

    /** The same with other bits to a code value. */
    public Format withDepth(int newDepth) {
        return new Format(width, height, chroma, siting, newDepth, colour, sar, scan, alpha);
    }

    /** The same with its planes laid out otherwise; the tags stay as they are. */
    public Format withChroma(Chroma newChroma) {
        return new Format(width, height, newChroma, siting, depth, colour, sar, scan, alpha);
    }

    /** The same with chroma samples in another place. */
    public Format withSiting(Siting newSiting) {
        return new Format(width, height, chroma, newSiting, depth, colour, sar, scan, alpha);
    }

    /** The same with other colour tags. */
    public Format withColour(ColourTags newColour) {
        return new Format(width, height, chroma, siting, depth, newColour, sar, scan, alpha);
    }

    /** The same with its lines taken otherwise. */
    public Format withScan(Scan newScan) {
        return new Format(width, height, chroma, siting, depth, colour, sar, newScan, alpha);
    }

    /** The same with another word on transparency. */
    public Format withAlpha(Alpha newAlpha) {
        return new Format(width, height, chroma, siting, depth, colour, sar, scan, newAlpha);
    }

    /** The same without its plane of transparency. */
    public Format opaque() {
        return withAlpha(Alpha.NONE);
    }

    /** The plane of transparency as a grey picture of its own. */
    public Format alphaAlone() {
        return new Format(width, height, Chroma.GREY, siting, depth, colour, sar, scan);
    }

    /** Planes of a frame, that of transparency among them. */
    public int planes() {
        return chroma.planes() + (alpha.isThere() ? 1 : 0);
    }

    /** All of the picture. */
    public Region whole() {
        return Region.whole(width, height);
    }

    /** Width to height of the picture as it is meant to be seen. */
    public Rational displayAspect() {
        return new Rational(width, height).times(sar);
    }

    /** Bytes one frame takes as float planes. */
    public long floatBytes() {
        return floatBytes(whole());
    }

    /** Bytes a window of this picture takes as float planes. */
    public long floatBytes(Region window) {
        long samples = 0;
        for (int p = 0; p < planes(); p++) {
            samples += (long) chroma.planeWidth(p, window.width()) * chroma.planeHeight(p, window.height());
        }
        return samples * Float.BYTES;
    }
}
