package awlsmith.media;

/** The programs this module runs. */
enum Tool {
    FFMPEG("ffmpeg"),
    FFPROBE("ffprobe");

    private final String program;

    Tool(String program) {
        this.program = program;
    }

    String program() {
        return program;
    }
}
