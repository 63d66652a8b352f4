package awlsmith.render;

import awlsmith.core.model.Models;
import awlsmith.media.ToolVersion;

/** What makes the pixels, as a whole. */
public final class Engine {
    /** Raised whenever the same request gives other pixels than before, so that parts of two kinds never end in one file. */
    static final int PIXELS = 4;

    /** That encoders of parts use: what some of them write hangs on it, and parts of one file are made on several machines. */
    static final int CODING_THREADS = 4;

    public static final String VERSION = "0.1.0";

    /** What has to be the same on machines that make parts of one file: our pixels, the nets, and FFmpeg, whose encoders differ. */
    public static String fingerprint() {
        return VERSION + " pixels " + PIXELS + " nets " + Models.fingerprint() + " " + ToolVersion.ffmpeg();
    }

    private Engine() {}
}
