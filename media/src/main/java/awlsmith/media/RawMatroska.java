package awlsmith.media;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;

/**
 * Raw pictures with a time each, as a Matroska stream for FFmpeg's standard input: plain raw video has no place for
 * times, and clips of changing rate need them. Source: RFC 8794 (EBML) and RFC 9559 (Matroska): one track of
 * V_UNCOMPRESSED, one cluster a frame, time stamps in microseconds.
 */
final class RawMatroska {
    static final Rational TICK = new Rational(1, 1_000_000);

    private static final long UNKNOWN_SIZE = 0x01FFFFFFFFFFFFFFL;

    private final OutputStream out;
    private final Format format;

    RawMatroska(OutputStream out, Format format) {
        this.out = out;
        this.format = format;
    }

    void writeHeader() throws IOException {
        var head = new Element();
        head.number(0x4286, 1).number(0x42F7, 1).number(0x42F2, 4).number(0x42F3, 8);
        head.text(0x4282, "matroska").number(0x4287, 4).number(0x4285, 2);
        write(0x1A45DFA3, head);
        id(0x18538067);
        big(UNKNOWN_SIZE);
        var info = new Element();
        info.number(0x2AD7B1, 1000).text(0x4D80, "awlsmith").text(0x5741, "awlsmith");
        write(0x1549A966, info);
        var video = new Element();
        video.number(0xB0, format.width()).number(0xBA, format.height()).bytes(0x2EB524, fourCc());
        var track = new Element();
        track.number(0xD7, 1).number(0x73C5, 1).number(0x83, 1).number(0x9C, 0).text(0x86, "V_UNCOMPRESSED");
        track.nested(0xE0, video);
        var tracks = new Element();
        tracks.nested(0xAE, track);
        write(0x1654AE6B, tracks);
    }

    void writeFrame(byte[] raw, Rational time) throws IOException {
        var stamp = new Element();
        stamp.number(0xE7, time.ticks(TICK));
        byte[] clock = stamp.taken();
        long block = 4L + raw.length;
        id(0x1F43B675);
        big(0x0100000000000000L | clock.length + 1 + 8 + block);
        out.write(clock);
        out.write(0xA3);
        big(0x0100000000000000L | block);
        out.write(new byte[] {(byte) 0x81, 0, 0, (byte) 0x80});
        out.write(raw);
    }

    /** The code under which FFmpeg knows the layout in raw streams. */
    private byte[] fourCc() {
        boolean eight = format.depth() == 8;
        int depth = format.depth();
        if (format.alpha().isThere()) {
            return switch (format.chroma()) {
                case GREY -> throw new IllegalArgumentException("FFmpeg has no planes of grey with transparency");
                case S420 -> new byte[] {'Y', '4', 11, (byte) depth};
                case S422 -> new byte[] {'Y', '4', 10, (byte) depth};
                case S444 -> new byte[] {'Y', '4', 0, (byte) depth};
                case RGB -> eight ? ascii("RGBA") : new byte[] {'G', '4', 0, (byte) depth};
            };
        }
        return switch (format.chroma()) {
            case GREY -> eight ? ascii("Y800") : new byte[] {'Y', '1', 0, (byte) depth};
            case S420 -> eight ? ascii("I420") : new byte[] {'Y', '3', 11, (byte) depth};
            case S422 -> eight ? ascii("Y42B") : new byte[] {'Y', '3', 10, (byte) depth};
            case S444 -> eight ? ascii("444P") : new byte[] {'Y', '3', 0, (byte) depth};
            case RGB -> new byte[] {'G', '3', 0, (byte) depth};
        };
    }

    private static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    private void write(int id, Element element) throws IOException {
        byte[] body = element.taken();
        id(id);
        big(0x0100000000000000L | body.length);
        out.write(body);
    }

    private void id(int id) throws IOException {
        out.write(new byte[] {(byte) (id >> 24), (byte) (id >> 16), (byte) (id >> 8), (byte) id});
    }

    private void big(long value) throws IOException {
        for (int shift = 56; shift >= 0; shift -= 8) {
            out.write((int) (value >> shift) & 0xff);
        }
    }

    /** The inside of a master element, built up in memory. */
    private static final class Element {
        private final ByteArrayOutputStream body = new ByteArrayOutputStream();

        Element number(int id, long value) {
            byte[] bytes = new byte[8];
            for (int i = 0; i < 8; i++) {
                bytes[i] = (byte) (value >> (56 - 8 * i));
            }
            return bytes(id, bytes);
        }

        Element text(int id, String value) {
            return bytes(id, ascii(value));
        }

        Element nested(int id, Element inner) {
            return bytes(id, inner.taken());
        }

        Element bytes(int id, byte[] value) {
            for (int shift = 24; shift >= 0; shift -= 8) {
                if (id >>> shift != 0) {
                    body.write(id >> shift);
                }
            }
            // sizes here stay far below the four-byte form's limit
            int size = value.length | 0x10000000;
            for (int shift = 24; shift >= 0; shift -= 8) {
                body.write(size >> shift);
            }
            body.writeBytes(value);
            return this;
        }

        byte[] taken() {
            return body.toByteArray();
        }
    }
}
