package awlsmith.media;

/** The programs this module runs. */
enum Tool {
    FFMPEG("ffmpeg"),
    FFPROBE("ffprobe");

    private final String program;

    Tool(String program) {
        this.program = program;
    }

    /** Found by the system where nothing else is told: {@code -Dawlsmith.ffmpeg=} and {@code -Dawlsmith.ffprobe=} name others. */
    String program() {
        return System.getProperty("awlsmith." + program, program);
    }
}
