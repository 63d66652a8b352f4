package awlsmith.core.plan;

import java.util.Locale;
import java.util.Set;

/**
 * Which model a clip's file speaks for, before anyone has looked at its pictures.
 *
 * @param model id of a family
 * @param reason a phrase to read after the model's name
 */
public record ModelSuggestion(String model, String reason) {
    /** Codecs of tape, disc and early network video; what comes in them was mostly worn already. */
    private static final Set<String> OLD = Set.of(
            "mpeg1video", "mpeg2video", "mpeg4", "h263", "flv1", "wmv1", "wmv2", "wmv3", "vc1", "dvvideo", "mjpeg");

    private static final Set<String> SPARING = Set.of("hevc", "vp9", "av1");

    /** Bits a pixel below which compression shows; the newer codecs need fewer (common practice, no source). */
    private static final double FEW = 0.1;

    private static final double FEW_SPARING = 0.06;

    /**
     * @param codec FFmpeg's name of it
     * @param codecLabel the same for reading
     * @param bitRate bits a second, 0 when unknown
     */
    public static ModelSuggestion of(
            String codec, String codecLabel, int width, int height, double rate, long bitRate) {
        double bits = bitRate / (width * (double) height * rate);
        String amount = String.format(Locale.ROOT, "%.2f bits a pixel", bits);
        if (codec.equals("gif")) {
            return new ModelSuggestion("drawn", "GIF holds few colours, as drawings and screens have");
        }
        if (OLD.contains(codec)) {
            return new ModelSuggestion("worn", codecLabel + " is a codec of tapes, discs and early cameras");
        }
        if (bitRate > 0 && bits < (SPARING.contains(codec) ? FEW_SPARING : FEW)) {
            return new ModelSuggestion("worn", amount + " in " + codecLabel + " is strong compression");
        }
        return new ModelSuggestion(
                "photographic",
                bitRate > 0 ? amount + " in " + codecLabel + " is light compression" : "nothing speaks for another");
    }
}
