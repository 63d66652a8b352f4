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

/** Goes out as 4:2:0 with even sides; about two thirds of the size of H.264 at the same look (common practice, no source). */
final class H265 implements Codec {
    /** Looks about as H.264 does at 17 (common practice, no source). */
    private static final long USUAL_QUALITY = 20;

    private static final Param.Whole QUALITY = new Param.Whole(
            "quality",
            "Quality",
            "CRF",
            0,
            51,
            USUAL_QUALITY,
            "constant rate factor: lower is better and larger; below 17 nothing is seen, above 27 detail goes");
    private static final Param.Choice DEPTH = new Param.Choice(
            "depth",
            "Depth",
            List.of(
                    new Param.Choice.Option("8", "8 bit", "plays where H.265 does"),
                    new Param.Choice.Option(
                            "10", "10 bit", "soft gradients without bands; most of what plays H.265 plays it"),
                    new Param.Choice.Option("12", "12 bit", "for further work; few players take it")),
            null,
            "bits of a sample; as many as the picture has where it is not set");
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
        return "h265";
    }

    @Override
    public String label() {
        return "H.265";
    }

    @Override
    public String purpose() {
        return "smaller than H.264 at the same look, and slower to make; plays on what is not too old";
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

    /** Fields would go out as whole pictures: the encoder knows no others. */
    @Override
    public Format format(Format treated, Settings settings) {
        int depth = settings.choice(DEPTH)
                .map(Integer::parseInt)
                .orElse(treated.depth() > 10 ? 12 : treated.depth() > 8 ? 10 : 8);
        return new Format(
                treated.width() + treated.width() % 2,
                treated.height() + treated.height() % 2,
                Chroma.S420,
                Deliverable.told(treated, Chroma.S420),
                depth,
                treated.colour(),
                treated.sar(),
                Scan.PROGRESSIVE,
                Alpha.NONE);
    }

    @Override
    public int gop(Settings settings) {
        return Math.toIntExact(settings.whole(GOP).orElseThrow());
    }

    @Override
    public List<String> warnings(Format file, Rational rate) {
        var warnings = new ArrayList<String>();
        if (file.depth() > 10) {
            // common practice, no source
            warnings.add("12 bits in H.265 play in few programs; 10 play in most that know it");
        }
        String size = file.width() + "x" + file.height();
        Optional<H265Level> level = H265Level.needed(file.width(), file.height(), rate);
        if (level.isEmpty()) {
            warnings.add(size + " at " + Math.round(rate.toDouble() * 100) / 100.0
                    + " frames a second is beyond every H.265 level; many players will refuse it. 3840x2160 is safe");
        } else if (level.get().compareTo(H265Level.L5_2) > 0) {
            warnings.add(size + " needs H.265 level " + level.get().label()
                    + "; most players stop at 5.2. 3840x2160 is safe");
        }
        return warnings;
    }

    /** Two thirds of what H.264 takes at a quality three steps better (common practice, no source). */
    @Override
    public double frameBytes(Format source, Format file, Settings settings, double sourceBits) {
        double pixels = (double) file.width() * file.height();
        double steps = (USUAL_QUALITY - settings.whole(QUALITY).orElseThrow()) / 6.0;
        double plain = 0.055 * pixels * Math.pow(2, steps);
        double growth = Math.pow(pixels / ((double) source.width() * source.height()), 0.75);
        double scaled = 1.35 * sourceBits * growth * Math.pow(2, steps);
        return (sourceBits > 0 ? Math.max(scaled, plain / 4) : plain) / 8;
    }
}
