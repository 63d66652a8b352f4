package awlsmith.media;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Coder;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Sound;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;

/**
 * The encoders of graphics hardware that work on this machine. That FFmpeg knows one, or that a device is there, says little (drivers, rights, formats,
 * sessions that are all taken): each is tried once, by the very words that files are made with, on a few small pictures that are then read back.
 */
public final class HardwareCoders {
    private static final int WIDTH = 320;
    private static final int HEIGHT = 192;
    private static final int FRAMES = 12;

    private static final Map<Tried, Boolean> TRIED = new ConcurrentHashMap<>();

    private record Tried(String codec, Coder coder, int depth) {}

    private HardwareCoders() {}

    /** Those that code a codec in 8 bits, the cores always first. */
    public static List<Coder> of(Codec codec) {
        return Arrays.stream(Coder.values()).filter(one -> works(codec, one, 8)).toList();
    }

    /** Whether pictures of so many bits are coded by it. */
    public static boolean works(Codec codec, Coder coder, int depth) {
        if (coder == Coder.CORES) {
            return true;
        }
        boolean isKnown = codec.params().stream().anyMatch(param -> param.key().equals(Codec.CODER));
        return isKnown && TRIED.computeIfAbsent(new Tried(codec.id(), coder, depth), HardwareCoders::tried);
    }

    /** What codes on this machine, in a few words. */
    public static String words() {
        var all = new LinkedHashMap<Coder, List<String>>();
        for (Codec codec : List.of(Codecs.H264, Codecs.H265)) {
            for (Coder coder : of(codec)) {
                if (coder != Coder.CORES) {
                    all.computeIfAbsent(coder, one -> new ArrayList<>()).add(codec.label());
                }
            }
        }
        if (all.isEmpty()) {
            return "the cores; graphics hardware that codes was looked for (NVENC, Quick Sync, VA-API) and none works here";
        }
        return "the cores, or "
                + all.entrySet().stream()
                        .map(one -> one.getKey().label() + " (" + String.join(" and ", one.getValue()) + ")")
                        .collect(Collectors.joining(", "));
    }

    /** Why this machine cannot code such a file as it is asked for, and what would work. @param format of its pictures */
    public static Optional<String> refusal(Deliverable deliverable, Format format) {
        Coder coder = deliverable.coder();
        Codec codec = deliverable.codec();
        if (works(codec, coder, format.depth())) {
            return Optional.empty();
        }
        return Optional.of(
                works(codec, coder, 8)
                        ? coder.label() + " codes no " + codec.label() + " of " + format.depth()
                                + " bits on this machine: choose a depth of 8, or let the cores code it"
                        : coder.label() + " codes no " + codec.label()
                                + " on this machine: FFmpeg tried it and could not. Let the cores code it");
    }

    /** Is done anew when it is asked for next. */
    static void forget() {
        TRIED.clear();
    }

    private static boolean tried(Tried what) {
        var format = new Format(
                WIDTH,
                HEIGHT,
                Chroma.S420,
                Siting.LEFT,
                what.depth(),
                ColourTags.UNKNOWN,
                Rational.ONE,
                Scan.PROGRESSIVE,
                Alpha.NONE);
        Path file = null;
        try {
            file = Files.createTempFile("awlsmith-coder", ".mkv");
            Deliverable deliverable = Deliverable.of(
                    what.codec(), Map.of(Codec.CODER, what.coder().id()), Optional.of(Container.MKV), Sound.NONE);
            try (var encoding = new Encoding(file, format, Optional.of(new Rational(25, 1)), deliverable, 1)) {
                byte[] grey = new byte[WIDTH * HEIGHT * 3 / 2 * (what.depth() > 8 ? 2 : 1)];
                Arrays.fill(grey, (byte) 1);
                for (int n = 0; n < FRAMES; n++) {
                    encoding.write(grey, new Rational(n, 25));
                }
                encoding.finish(new Cancel());
            }
            MediaInfo made = Prober.probe(file);
            return made.video().codec().equals(what.codec().equals("h265") ? "hevc" : what.codec())
                    && made.video().format().depth() == what.depth()
                    && PacketSizes.of(file, new Cancel()).bytes().size() == FRAMES;
        } catch (MediaException | IOException e) {
            return false;
        } finally {
            sweep(file);
        }
    }

    private static void sweep(Path file) {
        try {
            if (file != null) {
                Files.delete(file);
            }
        } catch (IOException e) {
            // it lies where the system sweeps
        }
    }
}
