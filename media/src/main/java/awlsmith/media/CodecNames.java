package awlsmith.media;

import java.util.Locale;
import java.util.Map;

/** Codecs as people write them. */
public final class CodecNames {
    private static final Map<String, String> NAMES = Map.ofEntries(
            Map.entry("h264", "H.264"),
            Map.entry("hevc", "H.265"),
            Map.entry("mpeg2video", "MPEG-2"),
            Map.entry("mpeg1video", "MPEG-1"),
            Map.entry("mpeg4", "MPEG-4"),
            Map.entry("msmpeg4v3", "MS MPEG-4"),
            Map.entry("dvvideo", "DV"),
            Map.entry("prores", "ProRes"),
            Map.entry("mjpeg", "Motion JPEG"),
            Map.entry("ffv1", "FFV1"),
            Map.entry("mp2", "MP2"),
            Map.entry("mp3", "MP3"),
            Map.entry("aac", "AAC"),
            Map.entry("pcm_s16le", "PCM"),
            Map.entry("gif", "GIF"),
            Map.entry("apng", "Animated PNG"),
            Map.entry("png", "PNG"),
            Map.entry("tiff", "TIFF"),
            Map.entry("exr", "OpenEXR"),
            Map.entry("av1", "AV1"),
            Map.entry("vp9", "VP9"),
            Map.entry("dnxhd", "DNxHD"),
            Map.entry("jpeg2000", "JPEG 2000"),
            Map.entry("opus", "Opus"),
            Map.entry("flac", "FLAC"),
            Map.entry("pcm_s24le", "PCM"));

    private CodecNames() {}

    public static String of(String codec) {
        return NAMES.getOrDefault(codec, codec.toUpperCase(Locale.ROOT));
    }
}
