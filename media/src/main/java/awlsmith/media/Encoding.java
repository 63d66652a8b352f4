package awlsmith.media;

import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Deliverable;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Writes raw pictures into one file through one FFmpeg process. */
public final class Encoding implements AutoCloseable {
    private static final Cancel NEVER = new Cancel();

    private final Child child;
    private final OutputStream pipe;
    private final RawMatroska timed;

    /** How FFmpeg calls the ways that lines of pictures were taken. */
    enum Fields {
        NONE("prog", "progressive"),
        TOP_FIRST("tff", "tt"),
        BOTTOM_FIRST("bff", "bb");

        final String mode;
        final String order;

        Fields(String mode, String order) {
            this.mode = mode;
            this.order = order;
        }

        static Fields of(Scan scan) {
            return switch (scan) {
                case PROGRESSIVE -> NONE;
                case TOP_FIRST -> TOP_FIRST;
                case BOTTOM_FIRST -> BOTTOM_FIRST;
            };
        }

        String order() {
            return order;
        }
    }

    /**
     * @param file to write; its ending names the container
     * @param format of the pictures; interlaced ones are coded as such
     * @param rate frames a second, or empty when every picture brings its own time
     * @param threads the encoder may use
     */
    public Encoding(Path file, Format format, Optional<Rational> rate, Deliverable deliverable, int threads) {
        var fields = Fields.of(format.scan());
        var arguments = new ArrayList<String>(List.of("-hide_banner", "-nostats", "-loglevel", "level+warning", "-y"));
        arguments.addAll(HardwareWords.device(deliverable));
        if (rate.isPresent()) {
            arguments.addAll(List.of(
                    "-f",
                    "rawvideo",
                    "-pix_fmt",
                    PixelLayout.name(format),
                    "-video_size",
                    format.width() + "x" + format.height(),
                    "-framerate",
                    rate.get().toString(),
                    "-i",
                    "pipe:0"));
        } else {
            arguments.addAll(List.of("-f", "matroska", "-i", "pipe:0", "-enc_time_base", "-1"));
        }
        arguments.addAll(List.of(
                "-vf",
                tagFilter(format, fields.mode) + HardwareWords.upload(format, deliverable),
                "-fps_mode",
                "passthrough"));
        arguments.addAll(tags(format));
        arguments.addAll(CodecWords.of(file, format, deliverable, threads, CodecWords.Rate.QUALITY));
        arguments.addAll(CodecWords.fields(format, deliverable.codec()));
        arguments.addAll(List.of("-map_metadata", "-1", Input.url(file)));
        child = Child.start(Tool.FFMPEG, arguments, Limits.encoding(file).by(deliverable.coder()), line -> {});
        pipe = child.input();
        timed = rate.isPresent() ? null : new RawMatroska(pipe, format);
        if (timed != null) {
            try {
                timed.writeHeader();
            } catch (IOException e) {
                throw broken(e);
            }
        }
    }

    /** @param fields FFmpeg's word for how the lines were taken */
    static String tagFilter(Format format, String fields) {
        ColourTags colour = format.colour();
        return "setsar=" + format.sar().num() + "/" + format.sar().den() + ",setparams=range="
                + ColourNames.of(colour.range()) + ":color_primaries=" + ColourNames.of(colour.primaries())
                + ":color_trc=" + ColourNames.of(colour.transfer()) + ":colorspace=" + ColourNames.of(colour.matrix())
                + ":field_mode=" + fields;
    }

    static List<String> tags(Format format) {
        ColourTags colour = format.colour();
        var tags = new ArrayList<String>(List.of(
                "-color_range",
                ColourNames.of(colour.range()),
                "-colorspace",
                ColourNames.option(colour.matrix()),
                "-color_trc",
                ColourNames.option(colour.transfer()),
                "-color_primaries",
                ColourNames.of(colour.primaries())));
        if (format.chroma().isSubsampled()) {
            tags.add("-chroma_sample_location");
            tags.add(ColourNames.of(format.siting()));
        }
        return tags;
    }

    /**
     * Writes one picture; waits while the encoder is busy.
     *
     * @param time seconds from this file's start, used when pictures bring their own times
     */
    public void write(byte[] raw, Rational time) {
        try {
            if (timed != null) {
                timed.writeFrame(raw, time);
            } else {
                pipe.write(raw);
            }
        } catch (IOException e) {
            throw broken(e);
        }
    }

    private RuntimeException broken(IOException e) {
        int code = child.exit(NEVER);
        return code == 0
                ? new MediaException("the encoder stopped before the end", e)
                : child.failure("encoding", code);
    }

    /** Ends the file and waits for it to be written. */
    public void finish(Cancel cancel) {
        try {
            pipe.close();
        } catch (IOException e) {
            throw broken(e);
        }
        child.finish("encoding", cancel);
    }

    /** For tests that kill it from outside. */
    long pid() {
        return child.pid();
    }

    @Override
    public void close() {
        child.close();
    }
}
