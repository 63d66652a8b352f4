package awlsmith.footage;

import awlsmith.core.picture.Plane;
import awlsmith.media.Rounding;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalDouble;

/** Sends luma frames through a lossy codec of FFmpeg's and back. */
public final class Codec {
    private Codec() {}

    /**
     * @param frames of one even size, luma 0..1
     * @param encoder FFmpeg's encoder with its options: {@code libx264 -crf 28}
     */
    public static List<Plane> through(List<Plane> frames, String encoder) {
        return coded(frames, encoder).frames();
    }

    /**
     * Frames that came back.
     *
     * @param step how coarsely the codec rounded, see {@link Rounding}; empty where it does not tell
     */
    public record Coded(List<Plane> frames, OptionalDouble step) {}

    /** The same with what the codec tells of itself. */
    public static Coded coded(List<Plane> frames, String encoder) {
        int width = frames.getFirst().width();
        int height = frames.getFirst().height();
        try {
            Path folder = Files.createTempDirectory("pairs");
            try {
                Path raw = folder.resolve("in.yuv");
                Path coded = folder.resolve("coded.mkv");
                Path back = folder.resolve("back.yuv");
                Files.write(raw, packed(frames, width, height));
                String form = "-f rawvideo -pix_fmt yuv420p";
                run(
                        folder,
                        form + " -s " + width + "x" + height + " -r 25 -i " + raw + " -c:v " + encoder + " -threads 1 "
                                + coded);
                run(folder, "-i " + coded + " " + form + " " + back);
                String name = encoder.split(" ")[0].replace("libx264", "h264");
                return new Coded(unpacked(Files.readAllBytes(back), width, height), Rounding.step(coded, name));
            } finally {
                for (String name : List.of("in.yuv", "coded.mkv", "back.yuv", "log")) {
                    Files.deleteIfExists(folder.resolve(name));
                }
                Files.delete(folder);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Sends luma frames through a filter of FFmpeg's. */
    public static List<Plane> filtered(List<Plane> frames, String filter) {
        return through(frames, "rawvideo -vf " + filter);
    }

    private static byte[] packed(List<Plane> frames, int width, int height) {
        int frame = width * height * 3 / 2;
        byte[] raw = new byte[frame * frames.size()];
        for (int n = 0; n < frames.size(); n++) {
            float[] samples = frames.get(n).packed();
            for (int i = 0; i < samples.length; i++) {
                raw[n * frame + i] = (byte) Math.round(16 + 219 * Math.clamp(samples[i], -0.07f, 1.08f));
            }
            java.util.Arrays.fill(raw, n * frame + samples.length, (n + 1) * frame, (byte) 128);
        }
        return raw;
    }

    private static List<Plane> unpacked(byte[] raw, int width, int height) {
        int frame = width * height * 3 / 2;
        var frames = new ArrayList<Plane>();
        for (int n = 0; n < raw.length / frame; n++) {
            Plane plane = Plane.of(width, height);
            for (int i = 0; i < width * height; i++) {
                plane.data()[i] = ((raw[n * frame + i] & 255) - 16) / 219f;
            }
            frames.add(plane);
        }
        return frames;
    }

    private static void run(Path folder, String arguments) throws IOException {
        var command = new ArrayList<>(List.of("ffmpeg", "-nostdin", "-v", "error", "-y"));
        command.addAll(List.of(arguments.trim().split("\\s+")));
        Process process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("log").toFile())
                .start();
        try {
            if (process.waitFor() != 0) {
                throw new IOException("FFmpeg failed: " + Files.readString(folder.resolve("log")));
            }
        } catch (InterruptedException e) {
            process.destroyForcibly();
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
        }
    }
}
