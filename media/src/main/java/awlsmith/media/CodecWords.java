package awlsmith.media;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Coder;
import awlsmith.core.plan.Deliverable;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** FFmpeg's words for each of our codecs. */
final class CodecWords {
    private CodecWords() {}

    /**
     * What decides how many bits a picture gets.
     *
     * @param bits a second, in the mean; 0 where quality decides
     * @param pass 1 looks, 2 writes; 0 where there is one alone
     */
    record Rate(long bits, int pass) {
        static final Rate QUALITY = new Rate(0, 0);
    }

    /**
     * @param file to write; its ending names the container
     * @param format of its pictures
     */
    static List<String> of(Path file, Format format, Deliverable deliverable, int threads, Rate rate) {
        var words = new ArrayList<String>(
                deliverable.coder() == Coder.CORES
                        ? onCores(file, format, deliverable, threads, rate)
                        : HardwareWords.of(file, format, deliverable, rate));
        if (deliverable.codec().gop(deliverable.settings()) > 1 || deliverable.codec() == Codecs.FFV1) {
            words.addAll(List.of("-g", Integer.toString(deliverable.gop())));
        }
        words.addAll(List.of("-threads", Integer.toString(threads)));
        return words;
    }

    private static List<String> onCores(Path file, Format format, Deliverable deliverable, int threads, Rate rate) {
        var words = new ArrayList<String>();
        switch (deliverable.codec().id()) {
            case "h264" -> {
                words.addAll(List.of("-c:v", "libx264", "-preset", effort(deliverable, "veryfast", "medium", "slow")));
                words.addAll(List.of("-profile:v", format.depth() > 8 ? "high10" : "high"));
                words.addAll(rate(deliverable, rate, "-crf"));
            }
            case "h265" -> {
                words.addAll(List.of("-c:v", "libx265", "-preset", effort(deliverable, "fast", "medium", "slow")));
                words.addAll(
                        List.of("-profile:v", format.depth() > 10 ? "main12" : format.depth() > 8 ? "main10" : "main"));
                words.addAll(rate(deliverable, new Rate(rate.bits(), 0), "-crf"));
                words.addAll(List.of(
                        "-x265-params",
                        // parts stand for themselves and are put together; threads are counted once, here
                        "log-level=warning:open-gop=0:pools=" + threads
                                + (rate.pass() > 0 ? ":pass=" + rate.pass() + ":stats=x265.log" : "")));
                words.addAll(tag(deliverable.codec(), file));
            }
            case "av1" -> {
                words.addAll(List.of("-c:v", "libsvtav1", "-preset", effort(deliverable, "10", "8", "5")));
                words.addAll(rate(deliverable, new Rate(rate.bits(), 0), "-crf"));
                words.addAll(List.of("-svtav1-params", "lp=" + threads));
            }
            case "vp9" -> {
                words.addAll(List.of("-c:v", "libvpx-vp9", "-deadline", "good"));
                words.addAll(List.of("-cpu-used", effort(deliverable, "5", "3", "1"), "-row-mt", "1"));
                words.addAll(List.of("-tile-columns", "2", "-auto-alt-ref", "1", "-lag-in-frames", "25"));
                words.addAll(List.of("-profile:v", format.depth() > 8 ? "2" : "0"));
                words.addAll(rate(deliverable, rate, "-crf"));
                if (rate.bits() == 0) {
                    // without it the rate factor is only the worst that is allowed
                    words.addAll(List.of("-b:v", "0"));
                }
            }
            case "prores" -> {
                words.addAll(List.of(
                        "-c:v", "prores_ks", "-profile:v", proResProfile(format, deliverable), "-vendor", "apl0"));
                words.addAll(format.alpha().isThere() ? List.of("-alpha_bits", "16") : List.of());
            }
            case "dnxhr" ->
                words.addAll(List.of("-c:v", "dnxhd", "-profile:v", "dnxhr_" + deliverable.setting("profile")));
            case "jpeg2000" -> {
                String keeps = deliverable.setting("keeps");
                words.addAll(List.of("-c:v", "libopenjpeg", "-format", "j2k"));
                words.addAll(
                        keeps.equals("all") ? List.of() : List.of("-irreversible", "1", "-compression_level", keeps));
            }
            case "ffv1" ->
                words.addAll(List.of("-c:v", "ffv1", "-level", "3", "-slices", slices(format), "-slicecrc", "1"));
            case "png" -> words.addAll(List.of("-c:v", "png", "-pred", "mixed", "-pix_fmt", packed(format, "be")));
            case "apng" ->
                words.addAll(List.of(
                        "-c:v",
                        "apng",
                        "-pred",
                        "mixed",
                        "-pix_fmt",
                        packed(format, "be"),
                        "-plays",
                        deliverable.setting("loop").equals("once") ? "1" : "0",
                        "-f",
                        "apng"));
            case "tiff" ->
                words.addAll(List.of("-c:v", "tiff", "-compression_algo", "deflate", "-pix_fmt", packed(format, "le")));
            case "jpeg" ->
                words.addAll(List.of(
                        "-c:v",
                        "mjpeg",
                        "-huffman",
                        "optimal",
                        "-pix_fmt",
                        format.chroma() == Chroma.GREY ? "gray" : "yuvj444p",
                        "-q:v",
                        deliverable.setting("quality")));
            case "exr" ->
                words.addAll(List.of(
                        "-c:v",
                        "exr",
                        "-format",
                        "half",
                        "-compression",
                        "zip16",
                        "-pix_fmt",
                        format.chroma() == Chroma.GREY
                                ? "grayf32le"
                                : format.alpha().isThere() ? "gbrapf32le" : "gbrpf32le"));
            case "webp" -> {
                boolean all = deliverable.setting("keeps").equals("all");
                words.addAll(List.of("-c:v", "libwebp", "-lossless", all ? "1" : "0", "-quality"));
                // without loss it says how long is sought for the smallest
                words.add(all ? "50" : deliverable.setting("quality"));
                words.addAll(List.of("-pix_fmt", all ? "bgra" : format.alpha().isThere() ? "yuva420p" : "yuv420p"));
            }
            case "gif" ->
                words.addAll(List.of(
                        "-c:v", "gif", "-loop", deliverable.setting("loop").equals("once") ? "-1" : "0", "-f", "gif"));
            default -> throw new IllegalStateException("FFmpeg's words for " + deliverable.codec() + " are not known");
        }
        return words;
    }

    /** @param factor option of the rate factor */
    private static List<String> rate(Deliverable deliverable, Rate rate, String factor) {
        var words = new ArrayList<String>(
                rate.bits() > 0
                        ? List.of("-b:v", Long.toString(rate.bits()))
                        : List.of(factor, deliverable.setting("quality")));
        words.addAll(peak(deliverable));
        if (rate.pass() > 0) {
            words.addAll(List.of("-pass", Integer.toString(rate.pass()), "-passlogfile", "pass"));
        }
        return words;
    }

    static List<String> peak(Deliverable deliverable) {
        if (!deliverable.settings().has("peak")) {
            return List.of();
        }
        long peak = Math.round(Double.parseDouble(deliverable.setting("peak")) * 1e6);
        // two seconds of it may wait: common practice, no source
        return List.of("-maxrate", Long.toString(peak), "-bufsize", Long.toString(2 * peak));
    }

    static String effort(Deliverable deliverable, String quick, String usual, String thorough) {
        return switch (deliverable.setting("effort")) {
            case "quick" -> quick;
            case "thorough" -> thorough;
            default -> usual;
        };
    }

    /** FFmpeg's name of samples that lie beside each other. @param order of their bytes */
    private static String packed(Format format, String order) {
        boolean deep = format.depth() > 8;
        if (format.chroma() == Chroma.GREY) {
            return deep ? "gray16" + order : "gray";
        }
        String name = format.alpha().isThere() ? "rgba" : "rgb";
        return deep ? name + (format.alpha().isThere() ? "64" : "48") + order : name.equals("rgb") ? "rgb24" : name;
    }

    /** What an encoder has to be told of pictures that are two fields. */
    static List<String> fields(Format format, Codec codec) {
        var fields = Encoding.Fields.of(format.scan());
        if (fields == Encoding.Fields.NONE) {
            return List.of();
        }
        var words = new ArrayList<String>(
                List.of("-field_order", fields.order, "-top", fields == Encoding.Fields.TOP_FIRST ? "1" : "0"));
        if (codec == Codecs.PRORES) {
            words.addAll(List.of("-flags:v", "+ildct"));
        }
        if (codec == Codecs.H264) {
            words.addAll(List.of("-flags:v", "+ildct+ilme"));
            // which comes first is written into the stream by this alone
            words.addAll(List.of("-x264-params", fields.mode + "=1"));
        }
        return words;
    }

    /** What FFmpeg has to be told where such pictures are written or copied into a file: many players know H.265 in MP4 by this name alone. */
    static List<String> tag(Codec codec, Path file) {
        String name = file.toString().toLowerCase(Locale.ROOT);
        boolean isMp4 = name.endsWith(".mp4") || name.endsWith(".mov");
        return codec == Codecs.H265 && isMp4 ? List.of("-tag:v", "hvc1") : List.of();
    }

    /** FFmpeg's number of the chosen one, or of the usual one of such pictures. */
    private static String proResProfile(Format format, Deliverable deliverable) {
        return switch (deliverable.setting("profile")) {
            case "proxy" -> "0";
            case "lt" -> "1";
            case "standard" -> "2";
            case "hq" -> "3";
            case "4444" -> "4";
            case "4444xq" -> "5";
            default -> format.chroma() == Chroma.S444 ? "4" : "3";
        };
    }

    /** FFV1's slices let threads share a picture, but must not be too small. FFmpeg makes one alone only of what CIF holds. */
    private static String slices(Format format) {
        if (Math.min(format.width(), format.height()) >= 256) {
            return "16";
        }
        return format.width() <= 352 && format.height() <= 288 ? "1" : "4";
    }
}
