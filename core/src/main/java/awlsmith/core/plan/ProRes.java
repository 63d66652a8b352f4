package awlsmith.core.plan;

import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Siting;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Settings;
import java.util.Arrays;
import java.util.List;

/** A mezzanine for cutting: every picture stands for itself, colour at half the columns or whole. SMPTE RDD 36. */
final class ProRes implements Codec {
    /**
     * Its profiles, with megabits a second of 1920x1080 at 30000/1001, about which its makers publish targets (from memory).
     */
    private enum Profile {
        PROXY("proxy", "Proxy", 45, "small, to cut with and be replaced"),
        LT("lt", "LT", 102, "light; good for what was compressed before"),
        STANDARD("standard", "422", 147, "the usual one to cut"),
        HQ("hq", "422 HQ", 220, "for grading and for keeping"),
        FULL("4444", "4444", 330, "colour at every pixel, and transparency"),
        XQ("4444xq", "4444 XQ", 500, "the same at the highest rate");

        private final String id;
        private final String label;
        private final double megabits;
        private final String effect;

        Profile(String id, String label, double megabits, String effect) {
            this.id = id;
            this.label = label;
            this.megabits = megabits;
            this.effect = effect;
        }

        boolean isFull() {
            return this == FULL || this == XQ;
        }
    }

    private static final Param.Choice PROFILE = new Param.Choice(
            "profile",
            "Profile",
            Arrays.stream(Profile.values())
                    .map(one -> new Param.Choice.Option(one.id, one.label, one.effect))
                    .toList(),
            null,
            "how much it keeps, and how large it is; 422 HQ where it is not set, and 4444 where there is transparency");

    @Override
    public String id() {
        return "prores";
    }

    @Override
    public String label() {
        return "ProRes";
    }

    @Override
    public String purpose() {
        return "for cutting and grading; large, quick to work with";
    }

    @Override
    public List<Container> containers() {
        return List.of(Container.MOV, Container.MKV);
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
    public boolean holdsAlpha() {
        return true;
    }

    /** It says nothing of range, and is read as limited. */
    @Override
    public ColourTags colour(ColourTags tags) {
        return tags.limited();
    }

    /** Whole colour is decoded to 12 bits, whatever was written. */
    @Override
    public Format readAs(Format file) {
        return file.chroma() == Chroma.S444 ? file.withDepth(12) : file;
    }

    private static Profile profile(Settings settings, boolean isClear) {
        return settings.choice(PROFILE)
                .flatMap(chosen -> Arrays.stream(Profile.values())
                        .filter(one -> one.id.equals(chosen))
                        .findFirst())
                .orElse(isClear ? Profile.FULL : Profile.HQ);
    }

    @Override
    public Format format(Format treated, Settings settings) {
        boolean full = profile(settings, treated.alpha().isThere()).isFull();
        Chroma chroma = full ? Chroma.S444 : Chroma.S422;
        return new Format(
                treated.width() + (full ? 0 : treated.width() % 2),
                treated.height(),
                chroma,
                // it tells no other
                Siting.LEFT,
                10,
                treated.colour(),
                treated.sar(),
                treated.scan(),
                full ? treated.alpha() : Alpha.NONE);
    }

    /** By its macroblocks, as its targets go. */
    @Override
    public double fileBytes(Format source, Format file, Settings settings, Amount amount) {
        double blocks = Math.ceil(file.width() / 16.0) * Math.ceil(file.height() / 16.0);
        return amount.frames()
                * profile(settings, file.alpha().isThere()).megabits
                * 1e6
                / 8
                / 29.97
                * blocks
                / (120 * 68);
    }
}
