package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Coder;
import awlsmith.core.plan.Deliverable;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * FFmpeg's words for encoders of graphics hardware. Their numbers of quality are on scales of their own, made to mean about what a rate factor
 * does (FFmpeg's documentation of its encoders, of version 5.1).
 */
final class HardwareWords {
    /** The first of a machine's graphics devices; which it is else is for the system to say. */
    private static final String VAAPI_DEVICE = "vaapi=hardware:/dev/dri/renderD128";

    private HardwareWords() {}

    /** FFmpeg's name of the encoder. */
    static String encoder(Codec codec, Coder coder) {
        return (codec == Codecs.H264 ? "h264_" : "hevc_") + coder.id();
    }

    /** What stands before the inputs. */
    static List<String> device(Deliverable deliverable) {
        return deliverable.coder() == Coder.VAAPI
                ? List.of("-init_hw_device", VAAPI_DEVICE, "-filter_hw_device", "hardware")
                : List.of();
    }

    /** What stands behind the other filters: into the layout that circuits read, and into their memory where they read no other. */
    static String upload(Format format, Deliverable deliverable) {
        String layout = format.depth() > 8 ? "p010le" : "nv12";
        return switch (deliverable.coder()) {
            case CORES -> "";
            case NVENC, QSV -> ",format=" + layout;
            case VAAPI -> ",format=" + layout + ",hwupload";
        };
    }

    static List<String> of(Path file, Format format, Deliverable deliverable, CodecWords.Rate rate) {
        Codec codec = deliverable.codec();
        Coder coder = deliverable.coder();
        var words = new ArrayList<String>(List.of("-c:v", encoder(codec, coder)));
        words.addAll(List.of("-profile:v", codec == Codecs.H264 ? "high" : format.depth() > 8 ? "main10" : "main"));
        // nought would leave it to the encoders
        String quality = deliverable.setting("quality").equals("0") ? "1" : deliverable.setting("quality");
        boolean byQuality = rate.bits() == 0;
        switch (coder) {
            case NVENC -> {
                words.addAll(List.of("-preset", CodecWords.effort(deliverable, "p2", "p4", "p7"), "-rc", "vbr"));
                words.addAll(byQuality ? List.of("-cq", quality, "-b:v", "0") : List.of());
            }
            case QSV -> {
                words.addAll(List.of("-preset", CodecWords.effort(deliverable, "veryfast", "medium", "veryslow")));
                words.addAll(byQuality ? List.of("-global_quality", quality) : List.of());
            }
            case VAAPI ->
                words.addAll(byQuality ? List.of("-rc_mode", "CQP", "-qp", quality) : List.of("-rc_mode", "VBR"));
            case CORES -> throw new IllegalStateException("the cores have words of their own");
        }
        words.addAll(byQuality ? List.of() : List.of("-b:v", Long.toString(rate.bits())));
        words.addAll(CodecWords.peak(deliverable));
        words.addAll(CodecWords.tag(codec, file));
        return words;
    }
}
