package awlsmith.core.plan;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.List;
import java.util.Optional;

/** What H.264 and H.265 have in common: 4:2:0 with even sides, which every player reads, a constant rate factor, and groups of pictures. */
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

    private final Param.Whole quality;
    private final Param.Choice depth;

    /**
     * @param usual rate factor
     * @param seen what is seen of which rate factors
     * @param depths that it holds
     */
    LongGop(long usual, String seen, List<Param.Choice.Option> depths) {
        quality = new Param.Whole(
                "quality", "Quality", "CRF", 0, 51, usual, "constant rate factor: lower is better and larger; " + seen);
        depth = new Param.Choice(
                "depth", "Depth", depths, null, "bits of a sample; as many as the picture has where it is not set");
    }

    @Override
    public final List<Container> containers() {
        return List.of(Container.MP4, Container.MOV, Container.MKV);
    }

    @Override
    public final List<Param> params() {
        return List.of(quality, depth, GOP);
    }

    @Override
    public final int largestSide() {
        return 16384;
    }

    @Override
    public final boolean isLossless() {
        return false;
    }

    @Override
    public final boolean holdsAlpha() {
        return false;
    }

    @Override
    public final int gop(Settings settings) {
        return Math.toIntExact(settings.whole(GOP).orElseThrow());
    }

    /** Whether such pictures go out as the fields that they are. */
    abstract boolean holdsFields(Format treated);

    /** The depth that is held, where none was asked for. @param bits of the picture */
    abstract int held(int bits);

    @Override
    public final Format format(Format treated, Settings settings) {
        return new Format(
                treated.width() + treated.width() % 2,
                treated.height() + treated.height() % 2,
                Chroma.S420,
                Deliverable.told(treated, Chroma.S420),
                settings.choice(depth).map(Integer::parseInt).orElse(held(treated.depth())),
                treated.colour(),
                treated.sar(),
                holdsFields(treated) ? treated.scan() : Scan.PROGRESSIVE,
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
    final double bytes(Format source, Format file, Settings settings, double sourceBits, double plain, double finer) {
        double pixels = (double) file.width() * file.height();
        double more = Math.pow(2, (quality.fallback() - settings.whole(quality).orElseThrow()) / 6.0);
        double growth = Math.pow(pixels / ((double) source.width() * source.height()), 0.75);
        double least = plain * pixels * more;
        return (sourceBits > 0 ? Math.max(finer * sourceBits * growth * more, least / 4) : least) / 8;
    }
}
