package awlsmith.core.plan;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Goes out as 4:2:0 with even sides, which every player reads. */
final class H264 implements Codec {
    /** Visually close to lossless without being huge (common practice, no source). */
    private static final long USUAL_QUALITY = 17;

    private static final Param.Whole QUALITY = new Param.Whole(
            "quality",
            "Quality",
            "CRF",
            0,
            51,
            USUAL_QUALITY,
            "constant rate factor: lower is better and larger; below 15 nothing is seen, above 24 blocks may be");
    private static final Param.Choice DEPTH = new Param.Choice(
            "depth",
            "Depth",
            List.of(
                    new Param.Choice.Option("8", "8 bit", "plays nearly everywhere"),
                    new Param.Choice.Option("10", "10 bit", "soft gradients without bands; few browsers play it")),
            null,
            "bits of a sample; as many as the picture has where it is not set");
    /** 48 frames at 24 a second is the trade's common default (common practice, no source). */
    private static final Param.Whole GOP = new Param.Whole(
            "gop",
            "GOP",
            "frames",
            1,
            600,
            48L,
            "most frames from one key frame to the next; fewer seek quicker and take more");

    @Override
    public String id() {
        return "h264";
    }

    @Override
    public String label() {
        return "H.264";
    }

    @Override
    public String purpose() {
        return "plays nearly everywhere";
    }

    @Override
    public List<Container> containers() {
        return List.of(Container.MP4, Container.MOV, Container.MKV);
    }

    @Override
    public List<Param> params() {
        return List.of(QUALITY, DEPTH, GOP);
    }

    @Override
    public int largestSide() {
        return 16384;
    }

    @Override
    public boolean isLossless() {
        return false;
    }

    @Override
    public boolean holdsAlpha() {
        return false;
    }

    @Override
    public Format format(Format treated, Settings settings) {
        return new Format(
                treated.width() + treated.width() % 2,
                treated.height() + treated.height() % 2,
                Chroma.S420,
                Deliverable.told(treated, Chroma.S420),
                settings.choice(DEPTH).map(Integer::parseInt).orElse(treated.depth() > 8 ? 10 : 8),
                treated.colour(),
                treated.sar(),
                holdsFields(treated) ? treated.scan() : Scan.PROGRESSIVE,
                Alpha.NONE);
    }

    /** Interlaced pictures of halved chroma come in whole rows of macroblock pairs: lines must be a multiple of four. */
    private static boolean holdsFields(Format treated) {
        return treated.height() % 4 == 0;
    }

    @Override
    public int gop(Settings settings) {
        return Math.toIntExact(settings.whole(GOP).orElseThrow());
    }

    static int quality(Settings settings) {
        return Math.toIntExact(settings.whole(QUALITY).orElseThrow());
    }

    @Override
    public List<String> warnings(Format file, Rational rate) {
        var warnings = new ArrayList<String>();
        if (file.depth() > 8) {
            // common practice, no source
            warnings.add(file.depth()
                    + " bits in H.264 play in most programs, but in few browsers and televisions; 8 play everywhere");
        }
        String size = file.width() + "x" + file.height();
        Optional<H264Level> level = H264Level.needed(file.width(), file.height(), rate);
        if (level.isEmpty()) {
            warnings.add(size + " at " + Math.round(rate.toDouble() * 100) / 100.0
                    + " frames a second is beyond every H.264 level; many players will refuse it. 3840x2160 is safe");
        } else if (level.get().compareTo(H264Level.L5_2) > 0) {
            warnings.add(size + " needs H.264 level " + level.get().label()
                    + "; most players stop at 5.2. 3840x2160 is safe");
        }
        return warnings;
    }

    /**
     * The source's bits grow with the 0.75th power of the picture area (common practice, no source), doubled for a finer quantiser than
     * most sources have; never below what plain footage takes.
     */
    @Override
    public double frameBytes(Format source, Format file, Settings settings, double sourceBits) {
        double pixels = (double) file.width() * file.height();
        double steps = (USUAL_QUALITY - quality(settings)) / 6.0;
        double plain = 0.08 * pixels * Math.pow(2, steps);
        double growth = Math.pow(pixels / ((double) source.width() * source.height()), 0.75);
        double scaled = 2 * sourceBits * growth * Math.pow(2, steps);
        return (sourceBits > 0 ? Math.max(scaled, plain / 4) : plain) / 8;
    }
}
