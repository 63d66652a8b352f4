package awlsmith.media;

import java.nio.file.Path;
import java.util.List;

/** The options under which a file of unknown origin is opened. */
final class Input {
    /** Demuxers of the containers we take in; none of them follows links to other places. */
    private static final String DEMUXERS = String.join(
            ",",
            "mov",
            "matroska",
            "avi",
            "mpeg",
            "mpegts",
            "mpegvideo",
            "dv",
            "mxf",
            "gif",
            "apng",
            "flv",
            "asf",
            "ogg",
            "h264",
            "hevc",
            "m4v",
            "nut",
            "ivf",
            "yuv4mpegpipe",
            "png_pipe",
            "jpeg_pipe",
            "tiff_pipe",
            "webp_pipe",
            "exr_pipe",
            // sound that was sent out alone; taken in it is refused for having no picture
            "wav",
            "flac");

    private Input() {}

    /** Options that stand before {@code -i}, without the file itself. */
    static List<String> guards() {
        return List.of("-protocol_whitelist", "file", "-format_whitelist", DEMUXERS);
    }

    /** The same where one more kind of file is read; those that it names are held to the others. */
    static List<String> guardsWith(String demuxer) {
        return List.of("-protocol_whitelist", "file", "-format_whitelist", DEMUXERS + "," + demuxer);
    }

    /** The file as an URL, so that no name is taken for an option or a protocol. */
    static String url(Path file) {
        return "file:" + file.toAbsolutePath();
    }
}
