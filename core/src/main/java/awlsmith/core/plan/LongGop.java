package awlsmith.core.plan;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * What codecs for watching have in common: 4:2:0 with even sides, which every player reads, groups of pictures, and three ways to say how
 * large the file may become.
 */
abstract class LongGop implements Codec {
    /** 48 frames at 24 a second is the trade's common default (common practice, no source). */
    private static final Param.Whole GOP = new Param.Whole(
            "gop",
            "GOP",
            "frames",
            1,
            600,
            48L,
            "most frames from one key frame to the next; fewer seek quicker and take more");

    /** How large the file becomes. */
    static final String BY = "by";

    /** What is left of a choice by quality once all else that decides about size is taken away. */
    static final String QUALITY = "quality";

    private static final Param.Choice RULE = new Param.Choice(
            BY,
            "Goes by",
            List.of(
                    new Param.Choice.Option("quality", "quality", "looks the same throughout; its size follows"),
                    new Param.Choice.Option(
                            "bitrate", "bit rate", "so many bits a second in the mean; coded at the end"),
                    new Param.Choice.Option(
                            "size", "size", "no larger than told; coded at the end, as often as it takes")),
            "quality",
            "what decides how large the file becomes");

    private static final Param.Real BIT_RATE = new Param.Real(
            "bitrate", "Bit rate", "Mb/s", 0.05, 2000, 8.0, "of the pictures, in the mean; where it goes by bit rate");
    private static final Param.Real SIZE = new Param.Real(
            "size", "Size", "MB", 0.05, 1_000_000, 100.0, "of the whole file at most; where it goes by size");
    private static final Param.Real PEAK = new Param.Real(
            "peak",
            "At most",
            "Mb/s",
            0.05,
            4000,
            null,
            "bits a second that no second exceeds by much: what a slow line or an old player bears; coded at the end");
    private static final Param.Choice EFFORT = new Param.Choice(
            "effort",
            "Effort",
            List.of(
                    new Param.Choice.Option("quick", "quick", "coded in a third of the time, about a tenth larger"),
                    new Param.Choice.Option("usual", "usual", "what most take"),
                    new Param.Choice.Option(
                            "thorough", "thorough", "two to three times as long, some percent smaller")),
            "usual",
            "how long is searched for what makes it small (common practice, no source)");

    private static final Param.Choice CODER = new Param.Choice(
            Codec.CODER,
            "Coded by",
            Arrays.stream(Coder.values())
                    .map(one -> new Param.Choice.Option(one.id(), one.label(), one.effect()))
                    .toList(),
            Coder.CORES.id(),
            "what does the coding; graphics hardware only where this machine has some that works");

    private final List<Container> containers;
    private final Param.Whole quality;
    private final Param.Choice depth;

    /**
     * @param containers that it may stand in, the usual one first
     * @param most largest rate factor
     * @param usual rate factor
     * @param seen what is seen of which rate factors
     * @param depths that it holds
     */
    LongGop(List<Container> containers, long most, long usual, String seen, List<Param.Choice.Option> depths) {
        this.containers = containers;
        quality = new Param.Whole(
                QUALITY, "Quality", "CRF", 0, most, usual, "constant rate factor: lower is better and larger; " + seen);
        depth = new Param.Choice(
                "depth", "Depth", depths, null, "bits of a sample; as many as the picture has where it is not set");
    }

    @Override
    public final List<Container> containers() {
        return containers;
    }

    @Override
    public final List<Param> params() {
        var params = new ArrayList<Param>(List.of(RULE, quality, BIT_RATE, SIZE));
        if (keepsPeaks()) {
            params.add(PEAK);
        }
        params.addAll(List.of(depth, GOP, EFFORT));
        if (isKnownToHardware()) {
            params.add(CODER);
        }
        return List.copyOf(params);
    }

    /** Whether circuits code it, and FFmpeg has a way to them. */
    boolean isKnownToHardware() {
        return false;
    }

    @Override
    public final Coder coder(Settings settings) {
        return isKnownToHardware() ? Coder.of(settings.choice(CODER).orElseThrow()) : Coder.CORES;
    }

    /** Whether its encoder here keeps to a rate that no second exceeds by much. */
    boolean keepsPeaks() {
        return false;
    }

    /** Two finer than usual and three coarser, a tenth of the scale apart. */
    @Override
    public final List<Integer> qualities() {
        int usual = Math.toIntExact((Long) quality.fallback());
        int step = Math.toIntExact(Math.round(quality.max() / 10.0));
        return IntStream.of(0, 1, 2, -1, 3, -2)
                .map(n -> usual + n * step)
                .filter(q -> q >= 0 && q <= quality.max())
                .boxed()
                .toList();
    }

    @Override
    public final Settings atQuality(Settings settings, int rateFactor) {
        var values = new LinkedHashMap<String, Object>(settings.tree());
        List.of(BY, BIT_RATE.key(), SIZE.key(), PEAK.key()).forEach(values::remove);
        values.put(QUALITY, rateFactor);
        return Settings.read(label(), params(), values);
    }

    /** With a rate that is to be kept throughout, parts would each keep it for themselves. */
    @Override
    public final boolean isCodedInParts(Settings settings) {
        return settings.choice(RULE).orElseThrow().equals("quality") && !settings.has(PEAK.key());
    }

    @Override
    public int largestSide() {
        return 16384;
    }

    @Override
    public final int gop(Settings settings) {
        return Math.toIntExact(settings.whole(GOP).orElseThrow());
    }

    /** Whether such pictures go out as the fields that they are. */
    abstract boolean holdsFields(Format treated);

    /** Where its files can say that chroma lies. @param named one of those that containers name */
    Siting told(Siting named) {
        return named;
    }

    /** The depth that is held, where none was asked for. @param bits of the picture */
    abstract int held(int bits);

    @Override
    public final Format format(Format treated, Settings settings) {
        return new Format(
                treated.width() + treated.width() % 2,
                treated.height() + treated.height() % 2,
                Chroma.S420,
                told(Deliverable.told(treated, Chroma.S420)),
                settings.choice(depth).map(Integer::parseInt).orElse(held(treated.depth())),
                treated.colour(),
                treated.sar(),
                // fields are for the encoders on the cores alone
                holdsFields(treated) && coder(settings) == Coder.CORES ? treated.scan() : Scan.PROGRESSIVE,
                Alpha.NONE);
    }

    /** @param level that is needed; empty where none suffices; @param isUsual whether most players have it */
    final Optional<String> levelWarning(Format file, Rational rate, Optional<String> level, boolean isUsual) {
        String size = file.width() + "x" + file.height();
        if (level.isEmpty()) {
            return Optional.of(size + " at " + Math.round(rate.toDouble() * 100) / 100.0
                    + " frames a second is beyond every " + label()
                    + " level; many players will refuse it. 3840x2160 is safe");
        }
        return isUsual
                ? Optional.empty()
                : Optional.of(size + " needs " + label() + " level " + level.get()
                        + "; most players stop at 5.2. 3840x2160 is safe");
    }

    /**
     * The source's bits grow with the 0.75th power of the picture area, six steps of the rate factor halve them (common practice, no source); never
     * below what plain footage takes.
     *
     * @param plain bits of a pixel of plain footage at the usual rate factor; @param finer times the source's bits
     */
    final double bytes(Format source, Format file, Settings settings, Amount amount, double plain, double finer) {
        return switch (settings.choice(RULE).orElseThrow()) {
            case "bitrate" -> settings.real(BIT_RATE).orElseThrow() * 1e6 / 8 * amount.frames() / amount.rate();
            case "size" -> settings.real(SIZE).orElseThrow() * 1e6;
            default -> {
                double pixels = (double) file.width() * file.height();
                double more = Math.pow(
                        2, (quality.fallback() - settings.whole(quality).orElseThrow()) / 6.0);
                double growth = Math.pow(pixels / ((double) source.width() * source.height()), 0.75);
                double least = plain * pixels * more;
                double bits = amount.sourceBits() > 0
                        ? Math.max(finer * amount.sourceBits() * growth * more, least / 4)
                        : least;
                yield bits / 8 * amount.frames();
            }
        };
    }
}
