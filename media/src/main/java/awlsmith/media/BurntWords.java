package awlsmith.media;

import awlsmith.core.mark.MarkPicture;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;

/**
 * The words of a subtitle track as pictures, drawn by FFmpeg's filter (libass) with the fonts of this machine. What moves within one subtitle stands
 * as it does in the middle of its time.
 */
public final class BurntWords {
    private static final Duration LIMIT = Duration.ofMinutes(30);
    private static final int MOST_WORDS = 100_000;

    /** Ticks a second that moments are told FFmpeg in. */
    private static final Rational TICK = new Rational(1, 1_000_000);

    private static final int SAMPLES = 4;

    private final Path folder;
    private final int width;
    private final int height;
    private final Cancel cancel;
    /** Moments at which what is shown changes, ticks of the file's clock, rising. */
    private final long[] changes;

    private long drawnFor = Long.MIN_VALUE;
    private Optional<Drawn> drawn = Optional.empty();

    /**
     * Words as they lie on a frame.
     *
     * @param left of the frame's samples, even; @param top likewise
     */
    public record Drawn(MarkPicture picture, int left, int top) {}

    private BurntWords(Path folder, int width, int height, long[] changes, Cancel cancel) {
        this.folder = folder;
        this.width = width;
        this.height = height;
        this.changes = changes;
        this.cancel = cancel;
    }

    /**
     * @param track of words
     * @param folder of its own to work in
     * @param width of the frames, pixels; @param height likewise
     * @throws MediaException when the track cannot be read
     */
    public static BurntWords of(
            MediaInfo source, MediaInfo.Subtitles track, Path folder, int width, int height, Cancel cancel) {
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new MediaException("the disk refused a folder for the subtitles: " + e.getMessage(), e);
        }
        var arguments = new ArrayList<String>(
                List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+warning", "-y", "-copyts"));
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-i", Input.url(source.file()), "-map", "0:" + track.index()));
        arguments.addAll(List.of("-c:s", "ass", "-f", "ass", "words.ass"));
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.coding(folder), line -> {})) {
            child.finish("reading the subtitles", cancel);
        }
        return new BurntWords(folder, width, height, changes(folder.resolve("words.ass"), cancel), cancel);
    }

    private static long[] changes(Path words, Cancel cancel) {
        var arguments = List.of(
                "-hide_banner",
                "-loglevel",
                "level+error",
                "-f",
                "ass",
                "-protocol_whitelist",
                "file",
                "-show_entries",
                "packet=pts_time,duration_time",
                "-of",
                "csv=p=0",
                Input.url(words));
        var moments = new TreeSet<Long>();
        try (Child child = Child.start(Tool.FFPROBE, arguments, Limits.reading(LIMIT), line -> {});
                var lines = new BufferedReader(new InputStreamReader(child.output(), StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                cancel.check();
                String[] parts = line.split(",");
                if (parts.length >= 2 && isNumber(parts[0]) && isNumber(parts[1]) && moments.size() < MOST_WORDS) {
                    long begin = Math.round(Double.parseDouble(parts[0]) * 1e6);
                    moments.add(begin);
                    moments.add(begin + Math.round(Double.parseDouble(parts[1]) * 1e6));
                }
            }
        } catch (IOException e) {
            throw new MediaException("the subtitles could not be read: " + e.getMessage(), e);
        }
        return moments.stream().mapToLong(Long::longValue).toArray();
    }

    private static boolean isNumber(String text) {
        return text.matches("-?\\d{1,9}(\\.\\d{1,9})?");
    }

    /**
     * What is shown at a moment; empty while nothing is.
     *
     * @param clock the source file's, seconds
     */
    public synchronized Optional<Drawn> at(Rational clock) {
        // what begins with a frame is seen in it, though its time is rounded
        long moment = clock.ticks(TICK) + 500;
        int found = java.util.Arrays.binarySearch(changes, moment);
        int before = found >= 0 ? found : -found - 2;
        if (before < 0 || before + 1 >= changes.length) {
            return Optional.empty();
        }
        if (changes[before] != drawnFor) {
            drawnFor = changes[before];
            drawn = draw((changes[before] + changes[before + 1]) / 2);
        }
        return drawn;
    }

    private Optional<Drawn> draw(long moment) {
        var arguments =
                new ArrayList<String>(List.of("-hide_banner", "-nostdin", "-nostats", "-loglevel", "level+error"));
        arguments.addAll(List.of(
                "-f",
                "lavfi",
                "-i",
                "color=c=black@0.0:s=" + width + "x" + height + ":r=25,format=rgba,settb=1/1000000,setpts=" + moment
                        + ",subtitles=words.ass:alpha=1:original_size=" + width + "x" + height));
        arguments.addAll(List.of("-frames:v", "1", "-f", "rawvideo", "-pix_fmt", "rgba", "pipe:1"));
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.coding(folder), line -> {})) {
            byte[] rgba = child.output().readNBytes(SAMPLES * width * height);
            child.finish("drawing the subtitles", cancel);
            if (rgba.length != SAMPLES * width * height) {
                throw new MediaException("the subtitles could not be drawn; leave them out, or let them go along");
            }
            return cut(rgba);
        } catch (IOException e) {
            throw new MediaException("the subtitles could not be drawn: " + e.getMessage(), e);
        }
    }

    /** What is not clear of it, from even samples on. */
    private Optional<Drawn> cut(byte[] rgba) {
        int left = width;
        int right = -1;
        int top = height;
        int bottom = -1;
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                if (rgba[SAMPLES * (y * width + x) + 3] != 0) {
                    left = Math.min(left, x);
                    right = Math.max(right, x);
                    top = Math.min(top, y);
                    bottom = y;
                }
            }
        }
        if (right < 0) {
            return Optional.empty();
        }
        int fromX = left / 4 * 4;
        int fromY = top / 4 * 4;
        int wide = right + 1 - fromX;
        int high = bottom + 1 - fromY;
        var colours = List.of(Plane.of(wide, high), Plane.of(wide, high), Plane.of(wide, high));
        Plane opacity = Plane.of(wide, high);
        for (int y = 0; y < high; y++) {
            for (int x = 0; x < wide; x++) {
                int at = SAMPLES * ((fromY + y) * width + fromX + x);
                // the filter lays them over black that is clear: colours come weighed by opacity
                float a = (rgba[at + 3] & 0xff) / 255f;
                opacity.data()[opacity.row(y) + x] = a;
                for (int c = 0; c < 3; c++) {
                    Plane to = colours.get(c);
                    to.data()[to.row(y) + x] = Math.min(a, (rgba[at + c] & 0xff) / 255f);
                }
            }
        }
        return Optional.of(new Drawn(new MarkPicture(colours, opacity), fromX, fromY));
    }
}
