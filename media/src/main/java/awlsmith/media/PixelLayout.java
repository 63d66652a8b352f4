package awlsmith.media;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import java.util.regex.Pattern;

/**
 * FFmpeg's pixel formats and ours. A format that is already planar comes through as it is; packed, paletted or odd ones
 * are unpacked by FFmpeg to the nearest planar one.
 *
 * @param name pixel format to ask of FFmpeg
 * @param chroma plane layout
 * @param depth bits of a code value
 * @param fullRange true for the formats that are full range by their name
 */
record PixelLayout(String name, Chroma chroma, int depth, boolean fullRange) {
    private static final Pattern DEEP = Pattern.compile("(?:p|gray)(9|10|12|14|16)(?:le|be)?$");

    static PixelLayout decoding(String pixFmt) {
        boolean full = pixFmt.startsWith("yuvj");
        int depth = depth(pixFmt);
        Chroma chroma = chroma(pixFmt);
        if (full) {
            return new PixelLayout(name(chroma, 8).replace("yuv", "yuvj"), chroma, 8, true);
        }
        return new PixelLayout(name(chroma, depth), chroma, depth, false);
    }

    /**
     * The same with its transparency as a last plane: FFmpeg has none such for luma alone, nor for every depth.
     *
     * @param pixFmt one that {@link #hasAlpha}
     */
    static PixelLayout decodingWithAlpha(String pixFmt) {
        Chroma found = chroma(pixFmt);
        Chroma chroma = found == Chroma.GREY ? Chroma.RGB : found;
        int bits = depth(pixFmt);
        int depth = bits == 12 && chroma == Chroma.S420 ? 16 : bits;
        return new PixelLayout(name(chroma, depth, true), chroma, depth, found == Chroma.GREY);
    }

    /** Formats with a plane or sample of transparency; palettes have one too. */
    static boolean hasAlpha(String pixFmt) {
        return pixFmt.matches("(yuva|gbrap|ya8|ya16|rgba|bgra|argb|abgr|ayuv|pal8|vuya).*");
    }

    static String name(Format format) {
        return name(format.chroma(), format.depth(), format.alpha().isThere());
    }

    private static String name(Chroma chroma, int depth) {
        return name(chroma, depth, false);
    }

    private static String name(Chroma chroma, int depth, boolean alpha) {
        String base = switch (chroma) {
            case GREY -> "gray";
            case S420 -> "yuv420p";
            case S422 -> "yuv422p";
            case S444 -> "yuv444p";
            case RGB -> "gbrp";
        };
        if (alpha && chroma == Chroma.RGB && depth == 8) {
            // see RawLayout
            return "rgba";
        }
        String clear = base.replace("yuv", "yuva").replace("gbrp", "gbrap");
        return (alpha ? clear : base) + (depth == 8 ? "" : depth + "le");
    }

    private static int depth(String pixFmt) {
        var deep = DEEP.matcher(pixFmt);
        if (deep.find()) {
            int bits = Integer.parseInt(deep.group(1));
            return bits == 9 ? 10 : bits == 14 ? 16 : bits;
        }
        if (pixFmt.matches("(p010|p210|p410|y210|v210|x2rgb10|x2bgr10|xv30).*")) {
            return 10;
        }
        if (pixFmt.matches("(p016|p216|p416|rgb48|bgr48|rgba64|bgra64|ya16|xyz12|grayf32|gbrpf32|gbrapf32).*")) {
            return 16;
        }
        return 8;
    }

    private static Chroma chroma(String f) {
        if (f.matches("(gray|mono|ya8|ya16|y400).*")) {
            return Chroma.GREY;
        }
        if (f.matches("(rgb|bgr|gbr|argb|abgr|rgba|bgra|0rgb|0bgr|pal8|x2rgb|x2bgr|xyz|bayer).*")) {
            return Chroma.RGB;
        }
        if (f.matches("(yuvj?a?444|yuvj?a?440|yuvj?411|ayuv|vuy|nv24|nv42|p410|p416|xv30).*")) {
            return Chroma.S444;
        }
        if (f.matches("(yuvj?a?422|yuyv|uyvy|yvyu|nv16|nv20|p210|p216|y210|v210).*")) {
            return Chroma.S422;
        }
        return Chroma.S420;
    }
}
