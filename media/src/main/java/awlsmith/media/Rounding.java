package awlsmith.media;

import awlsmith.core.pipeline.Cancel;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How coarsely a file's codec rounded its pictures, by its own quantisers: MPEG-1, MPEG-2, H.261, H.263, MPEG-4 part 2 and H.264 tell them,
 * others do not.
 *
 * <p>Source: ITU-T H.264, 8.5.9 and table 8-15's scaling: the step doubles with every 6 of QP and is 1 at QP 4; ISO/IEC 13818-2, 7.4.2.3: a
 * coefficient is its level times the weight times quantiser_scale by 16, where a flat matrix has 16; ITU-T H.263, 6.2.1: twice QUANT a level.
 */
public final class Rounding {
    /** Frames looked at. */
    private static final int FRAMES = 30;

    private static final Duration LONGEST = Duration.ofSeconds(20);
    private static final List<String> TELLING = List.of(
            "h264",
            "mpeg1video",
            "mpeg2video",
            "mpeg4",
            "h263",
            "h261",
            "flv1",
            "msmpeg4v2",
            "msmpeg4v3",
            "wmv1",
            "wmv2");

    private static final Pattern SLICE = Pattern.compile("video encoding parameters: type 1; qp=(-?\\d+)");
    private static final Pattern FRAME = Pattern.compile("New frame, type: .*");
    /** A row of macroblocks: after the decoder's name two characters for each. */
    private static final Pattern ROW = Pattern.compile("^\\[[^]]*] ((?:[ \\d]\\d)+)$");

    private Rounding() {}

    /**
     * The step between values that the codec tells apart, of 255, over some frames of the clip: the mean by its logarithm.
     *
     * @return empty where the codec does not tell, or the frames cannot be decoded
     */
    public static OptionalDouble step(MediaInfo info, Cancel cancel) {
        Optional<Double> seconds = info.duration().map(d -> d.toDouble());
        // a third into the clip: the beginning may be a slate
        double from = seconds.filter(s -> s > 10).map(s -> s / 3).orElse(0.0);
        return step(info.file(), info.video().codec(), info.video().index(), from, cancel);
    }

    /** The same of a file of which only the codec is known. */
    public static OptionalDouble step(Path file, String codec) {
        return step(file, codec, 0, 0, new Cancel());
    }

    private static OptionalDouble step(Path file, String codec, int stream, double from, Cancel cancel) {
        if (!TELLING.contains(codec)) {
            return OptionalDouble.empty();
        }
        var arguments = new ArrayList<String>(List.of("-hide_banner", "-nostdin", "-nostats"));
        // one thread: lines of several frames would mix
        arguments.addAll(List.of("-loglevel", codec.equals("h264") ? "info" : "debug", "-threads", "1"));
        if (!codec.equals("h264")) {
            arguments.addAll(List.of("-debug", "qp"));
        }
        arguments.addAll(Input.guards());
        arguments.addAll(List.of("-export_side_data", "venc_params", "-ss", "" + from, "-i", Input.url(file)));
        arguments.addAll(
                List.of("-map", "0:" + stream, "-frames:v", "" + FRAMES, "-vf", "showinfo", "-f", "null", "-"));
        var heard = new Heard(codec);
        try (Child child = Child.start(Tool.FFMPEG, arguments, Limits.reading(LONGEST), heard::line)) {
            child.exit(cancel);
        } catch (MediaException e) {
            cancel.check();
        }
        return heard.step();
    }

    /** What a decoder says of its quantisers. */
    static final class Heard {
        private final String codec;
        private double logs;
        private long count;

        Heard(String codec) {
            this.codec = codec;
        }

        void line(String line) {
            Matcher slice = SLICE.matcher(line);
            if (slice.find()) {
                add(Math.pow(2, (Integer.parseInt(slice.group(1)) - 4) / 6.0));
                return;
            }
            Matcher row = ROW.matcher(line);
            if (!FRAME.matcher(line).find() && row.matches()) {
                String all = row.group(1);
                for (int i = 0; i < all.length(); i += 2) {
                    int scale = Integer.parseInt(all.substring(i, i + 2).strip());
                    if (scale > 0) {
                        add(codec.startsWith("mpeg1") || codec.startsWith("mpeg2") ? scale : 2 * scale);
                    }
                }
            }
        }

        private void add(double step) {
            logs += Math.log(step);
            count++;
        }

        OptionalDouble step() {
            return count == 0 ? OptionalDouble.empty() : OptionalDouble.of(Math.exp(logs / count));
        }
    }
}
