package awlsmith.core.plan;

import awlsmith.core.fields.CadenceStage;
import awlsmith.core.fields.DeinterlaceStage;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Stage;
import java.util.ArrayList;
import java.util.List;

/**
 * What a render will make and take, told before it starts.
 *
 * @param output format of the file's pictures
 * @param frames to be made
 * @param ratePerSecond of them
 * @param seconds the span lasts
 * @param memoryBytes planes and buffers alive at once
 * @param fileBytes roughly what the file will weigh
 * @param refusals why it cannot be done, each with what would work; empty when it can
 * @param warnings what to think over first
 */
public record RenderPlan(
        Format output,
        long frames,
        double ratePerSecond,
        double seconds,
        long memoryBytes,
        long fileBytes,
        List<String> refusals,
        List<String> warnings) {

    /** Raw frames that wait between decoder, treatment and encoder. */
    public static final int FRAMES_IN_FLIGHT = 6;

    /** Side beyond which most players and decoders give up (common practice, no source). */
    private static final int WIDE_SUPPORT_SIDE = 8192;

    /** What people ask for without much thought; a source that does not bear it is large already. */
    private static final int USUAL_FACTOR = 4;

    public RenderPlan {
        refusals = List.copyOf(refusals);
        warnings = List.copyOf(warnings);
    }

    /** With more to think over. */
    public RenderPlan warning(List<String> more) {
        var all = new ArrayList<>(warnings);
        all.addAll(more);
        return new RenderPlan(output, frames, ratePerSecond, seconds, memoryBytes, fileBytes, refusals, all);
    }

    /** Against which more stands. */
    public RenderPlan refusing(List<String> more) {
        var all = new ArrayList<>(refusals);
        all.addAll(more);
        return new RenderPlan(output, frames, ratePerSecond, seconds, memoryBytes, fileBytes, all, warnings);
    }

    /** Whose file weighs so much. */
    public RenderPlan weighing(long bytes) {
        return new RenderPlan(output, frames, ratePerSecond, seconds, memoryBytes, bytes, refusals, warnings);
    }

    /** Whether nothing stands against it; warnings do not. */
    public boolean isPossible() {
        return refusals.isEmpty();
    }

    /**
     * @param chain the recipe's stages on this clip
     * @param rate frames a second going out
     * @param sourceBitRate bits a second of the source's picture, or 0 when unknown
     * @param threads that work at once
     * @param memoryLimit bytes this machine may use for a render
     */
    public static RenderPlan of(
            Chain chain,
            Deliverable deliverable,
            Rational rate,
            long frames,
            long sourceBitRate,
            int threads,
            long memoryLimit) {
        Format treated = chain.output();
        Format file = deliverable.fileFormat(treated, chain.source().height());
        double seconds = frames / rate.toDouble();
        var all = new Codec.Amount(frames, rate.toDouble(), sourceBitRate / rate.toDouble());
        if (deliverable.taking() == Taking.SOUND || deliverable.taking() == Taking.SOURCE) {
            double bytes = deliverable.codec().fileBytes(chain.source(), file, deliverable.settings(), all);
            return new RenderPlan(file, frames, rate.toDouble(), seconds, 0, (long) bytes, List.of(), List.of());
        }
        var refusals = new ArrayList<String>();
        var warnings = new ArrayList<String>();
        boolean isItself = deliverable.codec().holdsPictures();
        if (isItself) {
            tellLosses(chain, file, deliverable, warnings);
        }
        checkSize(chain.source(), file, deliverable, rate, refusals, warnings);
        long memory = chain.bytesAlive(treated.whole())
                + chain.workBytes() * threads
                + FRAMES_IN_FLIGHT * rawBytes(chain.source(), file, refusals);
        if (memory > memoryLimit) {
            refusals.add("this needs about " + megabytes(memory) + " MB of memory, " + megabytes(memoryLimit)
                    + " MB are allowed; choose a smaller size");
        }
        if (isItself && (treated.width() != file.width() || treated.height() != file.height())) {
            warnings.add(deliverable.codec().label() + " needs even sides: the edge is repeated by one pixel, "
                    + treated.width() + "x" + treated.height() + " goes out as " + file.width() + "x" + file.height());
        }
        long pictures = deliverable.taking() == Taking.ALL
                ? frames
                : deliverable.picks(new FrameRange(0, frames)).size();
        return new RenderPlan(
                file,
                frames,
                rate.toDouble(),
                seconds,
                memory,
                (long) deliverable
                        .codec()
                        .fileBytes(
                                chain.source(),
                                file,
                                deliverable.settings(),
                                new Codec.Amount(pictures, all.rate(), all.sourceBits())),
                refusals,
                warnings);
    }

    /** What the pictures will not have any more, though nobody asked for it to go. */
    private static void tellLosses(Chain chain, Format file, Deliverable deliverable, List<String> warnings) {
        Format treated = chain.output();
        String codec = deliverable.codec().label();
        if (losesFields(chain)) {
            warnings.add(
                    "the footage is interlaced and its fields are treated as whole frames: the file will say that it is "
                            + "progressive; deinterlace before enlarging");
        } else if (treated.scan().isInterlaced() && !file.scan().isInterlaced()) {
            String keeps = deliverable.codec() == Codecs.H264
                    ? " keeps fields only where the lines are a multiple of 4; this has " + treated.height() + " and"
                    : " has whole pictures alone here; this";
            warnings.add("the footage is interlaced, and " + codec + keeps
                    + " will say that it is progressive. Deinterlace, or choose FFV1");
        }
        if (treated.alpha().isThere() && !file.alpha().isThere()) {
            warnings.add(
                    "the pictures are transparent in places, which " + codec
                            + " cannot hold: they go out over black. FFV1 keeps it; the step Transparency lays them over another colour");
        }
        if (file.depth() < treated.depth()) {
            warnings.add(treated.depth() + " bits go out as " + file.depth() + ": soft gradients may show bands"
                    + (deliverable.settings().has("depth") ? "" : ". FFV1 keeps them"));
        }
        boolean wide = treated.colour().transfer() == ColourTags.Transfer.SMPTE2084
                || treated.colour().transfer() == ColourTags.Transfer.ARIB_STD_B67;
        if (wide && file.depth() < 10) {
            warnings.add(
                    "the footage has a high dynamic range, which wants 10 bits at least (ITU-R BT.2100); 8 will show bands");
        }
        boolean less =
                treated.chroma() == Chroma.RGB || treated.chroma() == Chroma.S444 || treated.chroma() == Chroma.S422;
        if (less && file.chroma() == Chroma.S420) {
            warnings.add(
                    "colour goes out at half the resolution (4:2:0), which every player reads; FFV1 keeps it as it is");
        }
    }

    /** Whether a step made whole frames of fields without having been asked to. */
    private static boolean losesFields(Chain chain) {
        Format before = chain.source();
        for (Stage stage : chain.stages()) {
            boolean asked = stage.inner() instanceof DeinterlaceStage || stage.inner() instanceof CadenceStage;
            if (!asked && before.scan().isInterlaced() && !stage.output().scan().isInterlaced()) {
                return true;
            }
            before = stage.output();
        }
        return false;
    }

    private static void checkSize(
            Format source,
            Format file,
            Deliverable deliverable,
            Rational rate,
            List<String> refusals,
            List<String> warnings) {
        int side = Math.max(file.width(), file.height());
        String size = file.width() + "x" + file.height();
        if (side > deliverable.codec().largestSide()) {
            refusals.add(size + " is beyond " + deliverable.codec().label() + ", which ends at "
                    + deliverable.codec().largestSide() + " pixels on a side; choose a smaller size");
            return;
        }
        if (side > WIDE_SUPPORT_SIDE) {
            warnings.add(size + " is beyond " + WIDE_SUPPORT_SIDE + " pixels on a side; many players will refuse it. "
                    + smaller(source));
        }
        refusals.addAll(deliverable.codec().refusals(file, rate, deliverable.container()));
        warnings.addAll(deliverable.codec().warnings(file, rate));
    }

    /** The usual mistake is a factor meant for small footage on footage that is large already. */
    private static String smaller(Format source) {
        int side = Math.max(source.width(), source.height());
        double most = Math.floor(10.0 * WIDE_SUPPORT_SIDE / side) / 10;
        String has = "the source has " + source.width() + "x" + source.height();
        if (most <= 1) {
            return has + " already";
        }
        return has + (most < USUAL_FACTOR ? " already" : "") + ": factor "
                + (most == Math.rint(most) ? "" + (int) most : "" + most) + " is the most that stays within";
    }

    private static long rawBytes(Format source, Format file, List<String> refusals) {
        try {
            return (long) new RawLayout(source).frameBytes() + new RawLayout(file).frameBytes();
        } catch (IllegalArgumentException e) {
            refusals.add(e.getMessage() + "; choose a smaller size");
            return 0;
        }
    }

    private static long megabytes(long bytes) {
        return Math.ceilDiv(bytes, 1_000_000);
    }
}
