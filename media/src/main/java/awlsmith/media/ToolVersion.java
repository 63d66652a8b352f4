package awlsmith.media;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Which FFmpeg there is. */
public final class ToolVersion {
    private ToolVersion() {}

    /** Asked once. */
    private static final class Known {
        static final String FFMPEG = ask();

        private static String ask() {
            try (Child child = Child.start(Tool.FFMPEG, List.of("-version"), Limits.asking(), line -> {});
                    var lines = new BufferedReader(new InputStreamReader(child.output(), StandardCharsets.UTF_8))) {
                String first = lines.readLine();
                return first == null ? "no FFmpeg" : first.replaceAll(" Copyright.*", "");
            } catch (IOException e) {
                throw new MediaException("FFmpeg does not tell its version: " + e.getMessage(), e);
            }
        }
    }

    /** As it calls itself: {@code ffmpeg version 5.1.9-0+deb12u1}. */
    public static String ffmpeg() {
        return Known.FFMPEG;
    }
}
