package awlsmith.core.plan;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.Arrays;
import java.util.List;

/** The other mezzanine for cutting, of any size: SMPTE ST 2019-1 (VC-3). */
final class DnxHr implements Codec {
    /** Its profiles, with bytes of one picture of 1920x1080 in thousands, as its encoder here makes them. */
    private enum Profile {
        LB("lb", "LB", 188, 8, "small, to cut with and be replaced"),
        SQ("sq", "SQ", 606, 8, "good enough for most that is sent out"),
        HQ("hq", "HQ", 918, 8, "the best of those with 8 bits"),
        HQX("hqx", "HQX", 918, 10, "10 bits, for grading and for keeping"),
        FULL("444", "444", 1835, 10, "colour at every pixel");

        private final String id;
        private final String label;
        private final int kilobytes;
        private final int depth;
        private final String effect;

        Profile(String id, String label, int kilobytes, int depth, String effect) {
            this.id = id;
            this.label = label;
            this.kilobytes = kilobytes;
            this.depth = depth;
            this.effect = effect;
        }
    }

    private static final Param.Choice PROFILE = new Param.Choice(
            "profile",
            "Profile",
            Arrays.stream(Profile.values())
                    .map(one -> new Param.Choice.Option(one.id, one.label, one.effect))
                    .toList(),
            "hqx",
            "how much it keeps, and how large it is");

    @Override
    public String id() {
        return "dnxhr";
    }

    @Override
    public String label() {
        return "DNxHR";
    }

    @Override
    public String purpose() {
        return "for cutting and grading; large, quick to work with, at home in MXF";
    }

    @Override
    public List<Container> containers() {
        return List.of(Container.MOV, Container.MXF, Container.MKV);
    }

    @Override
    public List<Param> params() {
        return List.of(PROFILE);
    }

    @Override
    public int largestSide() {
        return 16384;
    }

    @Override
    public ColourTags colour(ColourTags tags) {
        return tags.limited();
    }

    private static Profile profile(Settings settings) {
        String chosen = settings.choice(PROFILE).orElseThrow();
        return Arrays.stream(Profile.values())
                .filter(one -> one.id.equals(chosen))
                .findFirst()
                .orElseThrow();
    }

    @Override
    public Format format(Format treated, Settings settings) {
        Profile profile = profile(settings);
        boolean full = profile == Profile.FULL;
        return new Format(
                treated.width() + (full ? 0 : treated.width() % 2),
                treated.height(),
                full ? Chroma.S444 : Chroma.S422,
                // it tells no other
                Siting.LEFT,
                profile.depth,
                treated.colour(),
                treated.sar(),
                Scan.PROGRESSIVE,
                Alpha.NONE);
    }

    /** ST 2019-1 begins at 256x120. */
    @Override
    public List<String> refusals(Format file, Rational rate, Container container) {
        return file.width() < 256 || file.height() < 120
                ? List.of(file.width() + "x" + file.height()
                        + " is too small for DNxHR, which begins at 256x120; enlarge it, or choose ProRes")
                : Mxf.refusals(file, rate, container);
    }

    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        double blocks = Math.ceil(file.width() / 16.0) * Math.ceil(file.height() / 16.0);
        return amount.frames() * profile(settings).kilobytes * 1e3 * blocks / (120 * 68);
    }
}
