package awlsmith.media;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Small clips for tests, made by FFmpeg, and FFmpeg's own word on files. */
public final class TestClips {
    private TestClips() {}

    /** Runs FFmpeg with these words, split at blanks, and fails with its output when it fails. */
    public static String ffmpeg(String words) {
        return run("ffmpeg", "-hide_banner -nostdin -y " + words);
    }

    public static String ffprobe(String words) {
        return run("ffprobe", "-v error " + words);
    }

    /** What another reader of Debian's says. */
    public static String other(String tool, String words) {
        return run(tool, words);
    }

    /** One entry of the picture stream, as ffprobe prints it. */
    public static String entry(Path file, String entry) {
        return ffprobe("-select_streams v:0 -show_entries stream=" + entry + " -of csv=p=0 " + file)
                .strip();
    }

    /** What a file says of itself under a name, in capitals or not; empty where it says nothing. */
    public static String tag(Path file, String name) {
        for (String key : List.of(name, name.toUpperCase(java.util.Locale.ROOT))) {
            String words = ffprobe("-show_entries format_tags=" + key + " -of default=nw=1:nk=1 " + file)
                    .strip();
            if (!words.isEmpty()) {
                return words;
            }
        }
        return "";
    }

    /** The times of all packets of the picture, in order of showing, as ffprobe prints them. */
    public static List<Double> times(Path file) {
        return Arrays.stream(ffprobe("-select_streams v:0 -show_entries packet=pts_time -of csv=p=0 " + file)
                        .split("\\s+"))
                .filter(line -> !line.isBlank())
                .map(line -> Double.parseDouble(line.replace(",", "")))
                .sorted()
                .toList();
    }

    /**
     * A moving test picture in which every frame differs, with B-frames.
     *
     * @param rate as FFmpeg writes it
     */
    public static Path moving(Path folder, String name, int width, int height, String rate, int frames, String codec) {
        Path file = folder.resolve(name);
        ffmpeg("-f lavfi -i testsrc2=s=%dx%d:r=%s -frames:v %d %s %s"
                .formatted(width, height, rate, frames, codec, file));
        return file;
    }

    private static String run(String tool, String words) {
        var command = new ArrayList<String>(List.of(tool));
        command.addAll(List.of(words.trim().split("\\s+")));
        try {
            Process process =
                    new ProcessBuilder(command).redirectErrorStream(true).start();
            String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            if (process.waitFor() != 0) {
                throw new IllegalStateException(String.join(" ", command) + " failed: " + output);
            }
            return output;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
