package awlsmith.render;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.media.Clip;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.Optional;
import java.util.function.IntConsumer;

/**
 * Small pictures of a clip's frames, to look along it quickly where single frames take long to decode: JPEG files one after
 * the other in one file (motion JPEG), with a list of where each begins. Nothing is ever rendered from them.
 *
 * @param every frames from one picture to the next
 * @param starts of the pictures in the file, and its end
 */
public record Peeks(Path file, int every, int width, int height, long[] starts) {
    /** A clip with more frames has a picture of every second, third ... one. */
    public static final int MOST = 3000;

    private static final int LONGEST_WIDTH = 480;
    private static final int LONGEST_HEIGHT = 270;
    private static final int MARK = 0x4157_5031;

    public int count() {
        return starts.length - 1;
    }

    /**
     * Decodes the whole clip and writes its pictures; what was written before is there until the new ones are whole.
     *
     * @param told the frames read so far
     */
    public static void make(Clip clip, Path folder, IntConsumer told, PlanePool pool, Work work, Cancel cancel)
            throws IOException {
        int frames = clip.index().orElseThrow().count();
        int every = Math.max(1, Math.ceilDiv(frames, MOST));
        Format source = clip.format();
        Format small = small(source);
        var reduce = new EnlargeStage(source, small, Kernel.AREA);
        long[] starts = new long[Math.ceilDiv(frames, every) + 1];
        int made = 0;
        Path part = folder.resolve("peeks.part");
        try {
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(part));
                    var stream = clip.open(new FrameRange(0, frames), source.whole(), pool, cancel)) {
                int number = 0;
                for (Optional<Frame> next = stream.next(); next.isPresent(); next = stream.next()) {
                    Frame frame = next.get();
                    if (number % every == 0 && made + 1 < starts.length) {
                        byte[] picture = picture(frame, reduce, pool, work);
                        out.write(picture);
                        starts[made + 1] = starts[made] + picture.length;
                        made++;
                    }
                    frame.release(pool);
                    told.accept(++number);
                }
            }
            Files.move(part, pictures(folder), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
            list(folder, every, small, Arrays.copyOf(starts, made + 1));
        } finally {
            Files.deleteIfExists(part);
        }
    }

    private static byte[] picture(Frame frame, EnlargeStage reduce, PlanePool pool, Work work) {
        Format small = reduce.output();
        Frame reduced = reduce.treat(d -> frame, small.whole(), pool, work);
        byte[] jpeg = Jpeg.encode(ScreenPicture.of(reduced, small.whole(), 1, pool, work));
        if (reduced != frame) {
            reduced.release(pool);
        }
        return jpeg;
    }

    /** With square samples, in the box, never enlarged. */
    private static Format small(Format source) {
        double aspect = source.displayAspect().toDouble();
        double height = Math.min(source.height(), Math.min(LONGEST_HEIGHT, LONGEST_WIDTH / aspect));
        return source.withSize(even(height * aspect), even(height), Rational.ONE);
    }

    private static int even(double length) {
        return Math.max(2, (int) Math.round(length / 2) * 2);
    }

    /** The list comes last: pictures without one count as not made. */
    private static void list(Path folder, int every, Format small, long[] starts) throws IOException {
        Path part = folder.resolve("peeks-list.part");
        try (var out = new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(part)))) {
            out.writeInt(MARK);
            out.writeInt(every);
            out.writeInt(small.width());
            out.writeInt(small.height());
            out.writeInt(starts.length);
            for (long start : starts) {
                out.writeLong(start);
            }
        }
        Files.move(part, places(folder), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }

    /** Those of a folder; none where none were made or they cannot be read. */
    public static Optional<Peeks> in(Path folder) {
        if (!Files.exists(places(folder)) || !Files.exists(pictures(folder))) {
            return Optional.empty();
        }
        try (var in = new DataInputStream(Files.newInputStream(places(folder)))) {
            ByteBuffer all = ByteBuffer.wrap(in.readAllBytes());
            if (all.remaining() < 5 * Integer.BYTES || all.getInt() != MARK) {
                return Optional.empty();
            }
            int every = all.getInt();
            int width = all.getInt();
            int height = all.getInt();
            long[] starts = new long[all.getInt()];
            if (every < 1 || starts.length < 1 || all.remaining() != starts.length * Long.BYTES) {
                return Optional.empty();
            }
            all.asLongBuffer().get(starts);
            boolean whole = starts[starts.length - 1] == Files.size(pictures(folder));
            return whole ? Optional.of(new Peeks(pictures(folder), every, width, height, starts)) : Optional.empty();
        } catch (IOException | NegativeArraySizeException e) {
            return Optional.empty();
        }
    }

    /**
     * One picture, a JPEG file.
     *
     * @param number 0..count - 1, of the frame number * every
     */
    public byte[] picture(int number) throws IOException {
        ByteBuffer bytes = ByteBuffer.allocate((int) (starts[number + 1] - starts[number]));
        try (var channel = FileChannel.open(file)) {
            while (bytes.hasRemaining() && channel.read(bytes, starts[number] + bytes.position()) >= 0) {}
        }
        return bytes.array();
    }

    private static Path pictures(Path folder) {
        return folder.resolve("peeks.mjpeg");
    }

    private static Path places(Path folder) {
        return folder.resolve("peeks-list");
    }
}
