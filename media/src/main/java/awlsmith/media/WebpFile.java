package awlsmith.media;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import java.io.IOException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * An animated WebP (IETF RFC 9649, 2.7): pictures one behind another, each with the time that it is shown, every one of the whole canvas and in
 * place of the one before it. FFmpeg writes such files without saying that clear places replace what was there, and does not read them. Numbers of
 * sections are from memory.
 */
public final class WebpFile {
    private static final Rational MILLISECOND = new Rational(1, 1000);

    /** RFC 9649, 2.7.1.1: a time has 24 bits. */
    private static final long LONGEST = (1 << 24) - 1;

    private static final long LARGEST_FILE = 0xFFFF_FFFEL;
    private static final int ANIMATED = 0x02;
    private static final int WITH_ALPHA = 0x10;
    private static final int NOT_BLENDED = 0x02;
    private static final int FRAME_HEAD = 16;

    private WebpFile() {}

    /** @param kind four letters; @param bytes what it holds */
    private record Chunk(String kind, byte[] bytes) {
        long size() {
            return 8 + bytes.length + (bytes.length & 1);
        }
    }

    /**
     * Moves pictures into one file, one after another, so that the disk never holds all of them twice.
     *
     * @param stills a WebP each, of one size
     * @param times when each is shown, and when the last is no more, seconds, rising
     * @param once whether it stops at its end
     */
    public static void write(List<Path> stills, List<Rational> times, boolean once, Path out, Cancel cancel)
            throws IOException {
        if (stills.isEmpty()) {
            throw new MediaException("no picture was written; start the render again");
        }
        int[] canvas = null;
        boolean clear = false;
        try (var file = FileChannel.open(
                out, StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING, StandardOpenOption.WRITE)) {
            // sizes and flags are put in when all is known
            write(file, little(12 + 18 + 14));
            for (int n = 0; n < stills.size(); n++) {
                cancel.check();
                List<Chunk> chunks = picture(Files.readAllBytes(stills.get(n)));
                int[] size = size(chunks.getLast());
                canvas = canvas == null ? size : canvas;
                clear |= isClear(chunks);
                long shown = ticks(times.get(n + 1)) - ticks(times.get(n));
                ByteBuffer head = little(8 + FRAME_HEAD)
                        .put(ascii("ANMF"))
                        .putInt(Math.toIntExact(FRAME_HEAD
                                + chunks.stream().mapToLong(Chunk::size).sum()));
                three(head, 0);
                three(head, 0);
                three(head, size[0] - 1);
                three(head, size[1] - 1);
                three(head, Math.clamp(shown, 1, LONGEST));
                head.put((byte) NOT_BLENDED);
                write(file, head.rewind());
                for (Chunk chunk : chunks) {
                    write(file, bytes(chunk));
                }
                if (file.position() > LARGEST_FILE) {
                    throw new MediaException(
                            "an animated WebP holds 4 GB at most, and these pictures take more: choose a"
                                    + " lower quality, a smaller picture, a shorter span or another codec");
                }
                Files.delete(stills.get(n));
            }
            ByteBuffer head = little(12 + 18 + 14)
                    .put(ascii("RIFF"))
                    .putInt((int) (file.position() - 8))
                    .put(ascii("WEBPVP8X"))
                    .putInt(10)
                    .putInt(ANIMATED | (clear ? WITH_ALPHA : 0));
            three(head, canvas[0] - 1);
            three(head, canvas[1] - 1);
            head.put(ascii("ANIM")).putInt(6).putInt(0).putShort((short) (once ? 1 : 0));
            file.position(0);
            write(file, head.rewind());
        }
    }

    /**
     * Takes a file apart again and decodes all of its pictures.
     *
     * @param folder of its own to work in; it is left with the pictures in it
     * @param rate frames a second that the pictures were made for
     */
    public static ReadBack.Facts readBack(Path in, Path folder, Rational rate, Cancel cancel) throws IOException {
        Files.createDirectories(folder);
        var stills = new ArrayList<Path>();
        var shown = new ArrayList<Long>();
        try (var file = FileChannel.open(in)) {
            ByteBuffer head = read(file, 12);
            if (!four(head).equals("RIFF")
                    || Integer.toUnsignedLong(head.getInt()) != file.size() - 8
                    || !four(head).equals("WEBP")) {
                throw notWhole(in);
            }
            while (file.position() < file.size()) {
                cancel.check();
                Chunk chunk = chunk(file);
                if (!chunk.kind().equals("ANMF")) {
                    continue;
                }
                ByteBuffer frame = little(chunk.bytes());
                frame.position(12);
                shown.add((long) (frame.getShort() & 0xFFFF) | (frame.get() & 0xFF) << 16);
                Path still = folder.resolve("p%07d.webp".formatted(stills.size()));
                Files.write(still, alone(frame.position(FRAME_HEAD).slice()));
                // who decodes looks for numbered files as itself, and may be somebody else
                Files.setPosixFilePermissions(still, PosixFilePermissions.fromString("rw-r--r--"));
                stills.add(still);
            }
        } catch (BufferUnderflowException | IndexOutOfBoundsException | IllegalArgumentException e) {
            throw notWhole(in);
        }
        ReadBack.Facts facts = PictureFiles.readBack(stills, rate, cancel);
        var times = new long[Math.min(shown.size(), facts.index().count())];
        for (int n = 1; n < times.length; n++) {
            times[n] = times[n - 1] + shown.get(n - 1);
        }
        var index = new FrameIndex(
                MILLISECOND,
                times,
                new int[0],
                facts.index().errors() + Math.abs(facts.index().count() - stills.size()),
                new int[0],
                0,
                false,
                FrameIndex.AlphaSeen.NOT_LOOKED_FOR);
        MediaInfo info = facts.info();
        Rational lasts =
                MILLISECOND.times(shown.stream().mapToLong(Long::longValue).sum());
        var whole = new MediaInfo(
                in,
                "webp",
                Files.size(in),
                Rational.ZERO,
                Optional.of(lasts),
                0,
                info.video(),
                List.of(),
                MediaInfo.Extras.NONE);
        return new ReadBack.Facts(whole, index, List.of());
    }

    private static long ticks(Rational time) {
        return time.ticks(MILLISECOND);
    }

    private static MediaException notWhole(Path file) {
        return new MediaException(file.getFileName() + " is no whole animated WebP");
    }

    /** Of a file with one picture: its transparency where that lies apart, and the picture, last. */
    private static List<Chunk> picture(byte[] still) {
        ByteBuffer in = little(still);
        if (still.length < 20 || !four(in).equals("RIFF") || in.getInt() < 0 || !four(in).equals("WEBP")) {
            throw new MediaException("a picture that was coded is no WebP; start the render again");
        }
        List<Chunk> chunks = chunks(in).stream()
                .filter(one -> one.kind().equals("ALPH")
                        || one.kind().equals("VP8 ")
                        || one.kind().equals("VP8L"))
                .toList();
        if (chunks.isEmpty() || !chunks.getLast().kind().startsWith("VP8")) {
            throw new MediaException("a picture that was coded holds no pixels; start the render again");
        }
        return chunks;
    }

    /** Across and down, as its own header says: RFC 6386, 9.1, for what is like a key frame of VP8, else RFC 9649, 3.4. */
    private static int[] size(Chunk picture) {
        ByteBuffer in = little(picture.bytes());
        if (picture.kind().equals("VP8 ")) {
            return new int[] {in.getShort(6) & 0x3FFF, in.getShort(8) & 0x3FFF};
        }
        int bits = in.getInt(1);
        return new int[] {(bits & 0x3FFF) + 1, (bits >>> 14 & 0x3FFF) + 1};
    }

    private static boolean isClear(List<Chunk> chunks) {
        Chunk picture = chunks.getLast();
        return chunks.size() > 1 || picture.kind().equals("VP8L") && (picture.bytes()[4] & 0x10) != 0;
    }

    /** A frame's chunks as a file by itself. */
    private static byte[] alone(ByteBuffer frame) {
        List<Chunk> chunks = chunks(frame.order(ByteOrder.LITTLE_ENDIAN));
        if (chunks.isEmpty()) {
            throw new MediaException("a frame of the WebP holds no picture");
        }
        long size = 4 + chunks.stream().mapToLong(Chunk::size).sum();
        boolean apart = chunks.size() > 1;
        ByteBuffer out = little(Math.toIntExact(8 + size + (apart ? 18 : 0)))
                .put(ascii("RIFF"))
                .putInt(Math.toIntExact(size + (apart ? 18 : 0)))
                .put(ascii("WEBP"));
        if (apart) {
            int[] sides = size(chunks.getLast());
            out.put(ascii("VP8X")).putInt(10).putInt(WITH_ALPHA);
            three(out, sides[0] - 1);
            three(out, sides[1] - 1);
        }
        chunks.forEach(chunk -> out.put(bytes(chunk)));
        return out.array();
    }

    /** All that are left, one behind another. */
    private static List<Chunk> chunks(ByteBuffer in) {
        var chunks = new ArrayList<Chunk>();
        while (in.remaining() >= 8) {
            String kind = four(in);
            int length = in.getInt();
            if (length < 0 || length > in.remaining()) {
                throw new MediaException("a picture of the WebP is cut short");
            }
            var bytes = new byte[length];
            in.get(bytes);
            if ((length & 1) == 1 && in.hasRemaining()) {
                in.get();
            }
            chunks.add(new Chunk(kind, bytes));
        }
        return chunks;
    }

    private static Chunk chunk(FileChannel file) throws IOException {
        ByteBuffer head = read(file, 8);
        String kind = four(head);
        long length = Integer.toUnsignedLong(head.getInt());
        if (length > file.size() - file.position() || length > Integer.MAX_VALUE - 8) {
            throw new MediaException("a part of the WebP is cut short");
        }
        ByteBuffer bytes = read(file, (int) length);
        if ((length & 1) == 1) {
            file.position(file.position() + 1);
        }
        return new Chunk(kind, bytes.array());
    }

    private static ByteBuffer bytes(Chunk chunk) {
        return little(Math.toIntExact(chunk.size()))
                .put(ascii(chunk.kind()))
                .putInt(chunk.bytes().length)
                .put(chunk.bytes())
                .rewind();
    }

    private static void three(ByteBuffer out, long value) {
        out.put((byte) value).put((byte) (value >> 8)).put((byte) (value >> 16));
    }

    private static ByteBuffer little(int size) {
        return ByteBuffer.allocate(size).order(ByteOrder.LITTLE_ENDIAN);
    }

    private static ByteBuffer little(byte[] bytes) {
        return ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    private static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    private static String four(ByteBuffer in) {
        var letters = new byte[4];
        in.get(letters);
        return new String(letters, StandardCharsets.US_ASCII);
    }

    private static void write(FileChannel file, ByteBuffer bytes) throws IOException {
        while (bytes.hasRemaining()) {
            file.write(bytes);
        }
    }

    private static ByteBuffer read(FileChannel file, int size) throws IOException {
        ByteBuffer bytes = little(size);
        while (bytes.hasRemaining()) {
            if (file.read(bytes) < 0) {
                throw new MediaException("the WebP is cut short");
            }
        }
        return bytes.rewind();
    }
}
