package awlsmith.media;

import awlsmith.core.colour.TransferCurve;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Coder;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * Codes pictures that lie finished in parts without loss: what must see all of them first, such as a bit rate that is to be kept or a
 * palette, or what cannot be put together of parts.
 */
public final class FinalEncoding {
    /** Encoders here that look at all pictures first. */
    private static final Set<String> TWO_PASSES = Set.of("h264", "h265", "vp9");

    /** Entries of a table of light: one for each code value of 16 bits. */
    private static final int TABLE = 65536;

    /** Digits of a picture's number in its name; more where there are more. */
    private static final String NUMBERED = "p%07d.";

    private final List<Joiner.Segment> parts;
    private final Format format;
    private final Optional<Rational> rate;
    private final Deliverable deliverable;
    private final Path folder;
    private final int threads;

    /** Hears how far it is. */
    public interface Watch {
        /** @param doing in a few words; @param frames of all of them that are done in this go */
        void coding(String doing, long frames);
    }

    /**
     * @param parts in FFV1, in their order
     * @param format of their pictures, and of the file's
     * @param rate frames a second, or empty when they come unevenly
     * @param folder of its own to work in
     */
    public FinalEncoding(
            List<Joiner.Segment> parts,
            Format format,
            Optional<Rational> rate,
            Deliverable deliverable,
            Path folder,
            int threads) {
        this.parts = parts;
        this.format = format;
        this.rate = rate;
        this.deliverable = deliverable;
        this.folder = folder;
        this.threads = threads;
    }

    /** Whether the encoder looks at all pictures before it writes the first, for so many bits a second. */
    private boolean looksFirst(long bits) {
        return bits > 0 && TWO_PASSES.contains(deliverable.codec().id()) && deliverable.coder() == Coder.CORES;
    }

    /**
     * Looks at all pictures, where that is needed; once, before any number of {@link #write} of about so many bits.
     *
     * @param bits a second; 0 where quality decides
     */
    public void look(long bits, Watch watch, Cancel cancel) {
        list();
        if (looksFirst(bits)) {
            var words = new ArrayList<>(CodecWords.of(
                    folder.resolve("nothing.mkv"), format, deliverable, threads, new CodecWords.Rate(bits, 1)));
            words.addAll(List.of("-f", "null", "-"));
            run(words, plain(), "looking at all pictures", watch, cancel);
        }
        if (deliverable.codec().id().equals("gif")) {
            String palette = ",palettegen=stats_mode=diff:max_colors=" + deliverable.setting("colours");
            run(
                    List.of("-frames:v", "1", "-update", "1", "palette.png"),
                    plain() + palette,
                    "choosing colours",
                    watch,
                    cancel);
        }
    }

    /**
     * Writes the pictures, behind {@link #look}.
     *
     * @param bits a second; 0 where quality decides
     * @return a file of pictures alone
     */
    public Path write(long bits, Watch watch, Cancel cancel) {
        list();
        Path file = folder.resolve("coded." + ending());
        var words = new ArrayList<>(
                CodecWords.of(file, format, deliverable, threads, new CodecWords.Rate(bits, looksFirst(bits) ? 2 : 0)));
        words.addAll(CodecWords.fields(format, deliverable.codec()));
        words.addAll(List.of("-map_metadata", "-1", Input.url(file)));
        run(words, filter(), "coding", watch, cancel);
        return file;
    }

    /**
     * Writes every picture into a file of its own.
     *
     * @return its files, in their order
     */
    public List<Path> pictures(Watch watch, Cancel cancel) throws IOException {
        list();
        var words = new ArrayList<>(
                CodecWords.of(folder.resolve("p.png"), format, deliverable, threads, CodecWords.Rate.QUALITY));
        words.addAll(List.of("-f", "image2", "-start_number", "0", NUMBERED + PictureFiles.ending(deliverable)));
        run(words, filter(), "writing pictures", watch, cancel);
        try (var files = Files.list(folder)) {
            return files.filter(file -> file.getFileName().toString().matches("p\\d{7,}\\..*"))
                    .sorted(Comparator.comparing(
                                    (Path file) -> file.getFileName().toString().length())
                            .thenComparing(file -> file.getFileName().toString()))
                    .toList();
        }
    }

    private String ending() {
        return switch (deliverable.container()) {
            case GIF, APNG -> deliverable.container().ending();
            default -> deliverable.codec().containers().contains(Container.MP4) ? "mp4" : "nut";
        };
    }

    private void list() {
        try {
            Files.createDirectories(folder);
            Files.writeString(folder.resolve("parts.txt"), Joiner.listing(parts));
        } catch (IOException e) {
            throw new MediaException("the disk refused a list of what goes into the file: " + e.getMessage(), e);
        }
    }

    /** Times of an even rate are counted anew: a list of parts knows them to a millionth of a second only. */
    private String plain() {
        String even =
                rate.map(r -> "settb=" + r.den() + "/" + r.num() + ",setpts=N,").orElse("");
        return even + Encoding.tagFilter(format, Encoding.Fields.of(format.scan()).mode);
    }

    private String filter() {
        return switch (deliverable.codec().id()) {
            case "gif" ->
                "[0:v]" + plain() + "[v];[v][1:v]paletteuse=diff_mode=rectangle:dither="
                        + switch (deliverable.setting("dither")) {
                            case "spread" -> "sierra2_4a";
                            case "none" -> "none";
                            default -> "bayer:bayer_scale=3";
                        };
            case "exr" -> plain() + linear();
            default -> plain() + HardwareWords.upload(format, deliverable);
        };
    }

    /**
     * Pictures for compositing are in linear light (OpenEXR's own recommendation); what is there already stays. By a table of every code
     * value, as the steps decode it.
     */
    private String linear() {
        String floats = format.alpha().isThere() ? "gbrapf32le" : "gbrpf32le";
        var curve = TransferCurve.of(format);
        boolean grey = format.chroma() == Chroma.GREY;
        if (curve == TransferCurve.LINEAR) {
            return ",format=" + (grey ? "grayf32le" : floats);
        }
        var table = new StringBuilder("LUT_1D_SIZE " + TABLE + "\n");
        for (int i = 0; i < TABLE; i++) {
            double light = curve.decoding().applyAsDouble(i / (TABLE - 1.0));
            table.append(String.format(Locale.ROOT, "%1$.9g %1$.9g %1$.9g%n", light));
        }
        try {
            Files.writeString(folder.resolve("linear.cube"), table);
        } catch (IOException e) {
            throw new MediaException("the disk refused a table of light: " + e.getMessage(), e);
        }
        return ",format=" + floats + ",lut1d=linear.cube:interp=linear" + (grey ? ",format=grayf32le" : "");
    }

    private void run(List<String> words, String filter, String doing, Watch watch, Cancel cancel) {
        boolean complex = filter.startsWith("[");
        var arguments = new ArrayList<String>(List.of(
                "-hide_banner", "-nostdin", "-nostats", "-progress", "pipe:1", "-loglevel", "level+warning", "-y"));
        arguments.addAll(HardwareWords.device(deliverable));
        arguments.addAll(List.of("-protocol_whitelist", "file", "-f", "concat", "-safe", "0", "-i", "file:parts.txt"));
        if (complex) {
            arguments.addAll(List.of("-protocol_whitelist", "file", "-i", "file:palette.png"));
        }
        arguments.addAll(List.of(complex ? "-filter_complex" : "-vf", filter, "-fps_mode", "passthrough"));
        // encoders go by it where they share out bits
        String tick = rate.map(r -> r.den() + "/" + r.num()).orElse("-1");
        arguments.addAll(List.of("-enc_time_base", tick));
        arguments.addAll(Encoding.tags(format));
        arguments.addAll(words);
        try (Child child = Child.start(
                        Tool.FFMPEG, arguments, Limits.coding(folder).by(deliverable.coder()), line -> {});
                var lines = new BufferedReader(new InputStreamReader(child.output(), StandardCharsets.UTF_8))) {
            var hearing = Thread.ofVirtual().start(() -> hear(lines, doing, watch));
            child.finish(doing, cancel);
            hearing.join();
        } catch (IOException e) {
            throw new MediaException("the encoder could not be heard: " + e.getMessage(), e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new Cancel.Stopped();
        }
    }

    private static void hear(BufferedReader lines, String doing, Watch watch) {
        try {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                if (line.matches("frame=\\s*\\d{1,12}")) {
                    watch.coding(doing, Long.parseLong(line.substring(6).trim()));
                }
            }
        } catch (IOException e) {
            // it was closed: whoever waits for it learns why
        }
    }
}
