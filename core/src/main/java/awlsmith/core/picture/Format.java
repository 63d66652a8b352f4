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
 */
public record Format(
        int width, int height, Chroma chroma, Siting siting, int depth, ColourTags colour, Rational sar, Scan scan) {
    public static final int MAX_SIDE = 32768;

    /** Whole frames. */
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

    public Format withSize(int newWidth, int newHeight, Rational newSar) {
        return new Format(newWidth, newHeight, chroma, siting, depth, colour, newSar, scan);
    }

    public Format withDepth(int newDepth) {
        return new Format(width, height, chroma, siting, newDepth, colour, sar, scan);
    }

    public Format withChroma(Chroma newChroma) {
        return new Format(width, height, newChroma, siting, depth, colour, sar, scan);
    }

    public Format withSiting(Siting newSiting) {
        return new Format(width, height, chroma, newSiting, depth, colour, sar, scan);
    }

    public Format withColour(ColourTags newColour) {
        return new Format(width, height, chroma, siting, depth, newColour, sar, scan);
    }

    public Format withScan(Scan newScan) {
        return new Format(width, height, chroma, siting, depth, colour, sar, newScan);
    }

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
        for (int p = 0; p < chroma.planes(); p++) {
            samples += (long) chroma.planeWidth(p, window.width()) * chroma.planeHeight(p, window.height());
        }
        return samples * Float.BYTES;
    }
}
