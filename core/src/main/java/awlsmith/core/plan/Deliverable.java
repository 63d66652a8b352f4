package awlsmith.core.plan;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;

/**
 * What a file to send out must be.
 *
 * @param codec of the picture
 * @param quality constant rate factor for H.264, 0..51, lower is better; not used by lossless codecs
 * @param depth bits of a code value; 0 keeps the source's as far as the codec can
 * @param gop most frames from one key frame to the next, 1..600
 * @param sound whether the source's sound goes along untouched
 */
public record Deliverable(Codec codec, int quality, int depth, int gop, boolean sound) {
    /** Picture codecs that can be sent out. */
    public enum Codec {
        H264("h264", "H.264", 16384),
        FFV1("ffv1", "FFV1", 32767);

        private final String id;
        private final String label;
        private final int largestSide;

        Codec(String id, String label, int largestSide) {
            this.id = id;
            this.label = label;
            this.largestSide = largestSide;
        }

        public String id() {
            return id;
        }

        public String label() {
            return label;
        }

        public int largestSide() {
            return largestSide;
        }

        public static Codec byId(String id) {
            for (Codec codec : values()) {
                if (codec.id.equals(id)) {
                    return codec;
                }
            }
            throw new IllegalArgumentException("codec is '" + id + "', must be one of h264, ffv1");
        }
    }

    /** Visually close to lossless without being huge (common practice, no source). */
    public static final int USUAL_QUALITY = 17;

    /** 48 frames at 24 a second is the trade's common default (common practice, no source). */
    public static final int USUAL_GOP = 48;

    public Deliverable {
        if (quality < 0 || quality > 51) {
            throw new IllegalArgumentException("quality is " + quality + ", must be in 0..51");
        }
        if (depth != 0 && depth != 8 && depth != 10 && depth != 12 && depth != 16) {
            throw new IllegalArgumentException("depth is " + depth + ", must be 8, 10, 12 or 16");
        }
        if (codec == Codec.H264 && depth > 10) {
            throw new IllegalArgumentException("depth is " + depth + ", H.264 holds 8 or 10; choose ffv1 for more");
        }
        if (gop < 1 || gop > 600) {
            throw new IllegalArgumentException("GOP is " + gop + " frames, must be in 1..600");
        }
    }

    public static Deliverable usual(Codec codec) {
        return new Deliverable(codec, USUAL_QUALITY, 0, USUAL_GOP, true);
    }

    /**
     * The format of the pictures in the file. H.264 goes out as 4:2:0 with even sides, which every player reads; FFV1
     * keeps the treated layout. Depth stays as far as the codec holds it, and so do fields. Chroma goes where files can tell it.
     * Missing colour tags are filled in with what the source was taken for, because an enlarged picture would otherwise be
     * guessed differently from its source.
     *
     * @param treated format behind the last step
     * @param sourceHeight lines of the source, which decide what untagged colour means
     */
    public Format fileFormat(Format treated, int sourceHeight) {
        boolean h264 = codec == Codec.H264;
        Chroma chroma = h264 ? Chroma.S420 : treated.chroma();
        return new Format(
                h264 ? treated.width() + treated.width() % 2 : treated.width(),
                h264 ? treated.height() + treated.height() % 2 : treated.height(),
                chroma,
                told(treated, chroma),
                depth != 0 ? depth : kept(treated),
                resolved(treated, sourceHeight),
                treated.sar(),
                holdsFields(treated) ? treated.scan() : Scan.PROGRESSIVE,
                h264 ? Alpha.NONE : treated.alpha());
    }

    /** The treated picture's depth as far as the codec goes; FFV1 through FFmpeg has not every depth for every layout. */
    private int kept(Format treated) {
        int bits = treated.depth();
        if (codec == Codec.H264) {
            return bits > 8 ? 10 : 8;
        }
        int most = treated.alpha().isThere() && treated.chroma() != Chroma.RGB ? 10 : 12;
        return bits == 9 ? 10 : bits > most ? 16 : bits;
    }

    /** Interlaced H.264 of halved chroma comes in whole rows of macroblock pairs: lines must be a multiple of four. */
    private boolean holdsFields(Format treated) {
        return codec == Codec.FFV1 || treated.height() % 4 == 0;
    }

    /** Files and their readers agree on these three places only (Matroska names no others; players know few). */
    private static Siting told(Format treated, Chroma chroma) {
        if (!treated.chroma().isSubsampled() || !chroma.isSubsampled()) {
            return Siting.LEFT;
        }
        for (Siting known : new Siting[] {treated.siting(), Siting.LEFT, Siting.CENTRE, Siting.TOP_LEFT}) {
            boolean named = known.equals(Siting.LEFT) || known.equals(Siting.CENTRE) || known.equals(Siting.TOP_LEFT);
            if (named && known.isSame(treated.siting(), treated.chroma())) {
                return known;
            }
        }
        return Siting.LEFT;
    }

    private ColourTags resolved(Format treated, int sourceHeight) {
        ColourTags tags = treated.colour();
        boolean toLuma = treated.chroma() == Chroma.RGB && codec == Codec.H264;
        if (treated.chroma() == Chroma.RGB && !toLuma) {
            return tags;
        }
        var matrix = tags.matrix();
        if (toLuma || matrix == ColourTags.Matrix.RGB) {
            matrix = sourceHeight <= 576 ? ColourTags.Matrix.SMPTE170M : ColourTags.Matrix.BT709;
        } else if (matrix == ColourTags.Matrix.UNSPECIFIED) {
            matrix = tags.matrixFor(sourceHeight);
        }
        var range = toLuma ? ColourTags.Range.LIMITED : tags.rangeFor(treated.chroma());
        return new ColourTags(matrix, range, tags.transfer(), tags.primaries());
    }
}
