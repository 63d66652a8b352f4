package awlsmith.core.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Alpha;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Scan;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.upscale.TestCards;
import awlsmith.core.upscale.UpscaleStage;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RenderPlanTest {
    private static final Deliverable H264 = Deliverable.usual(Codecs.H264);
    private static final Deliverable FFV1 = Deliverable.usual(Codecs.FFV1);

    private static Format format(int width, int height, Chroma chroma) {
        return new Format(width, height, chroma, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
    }

    private static RenderPlan plan(Format source, String step, Deliverable deliverable, int rate, long memory) {
        Chain chain = new Recipe(step.isEmpty() ? List.of() : List.of(Step.parse(step))).chain(source);
        return RenderPlan.of(chain, deliverable, Rational.of(rate), 100, 2_000_000, 2, memory);
    }

    /**
     * ITU-T H.264 (08/2021) tables: the largest frame rates of well-known sizes at their levels: 720x576 at 25
     * is level 3, 1280x720 at 30 is 3.1, 1920x1080 at 30 is 4 and at 60 is 4.2, 3840x2160 at 30 is 5.1 and at 60 5.2,
     * 7680x4320 at 60 is 6.1 and at 120 6.2.
     */
    @ParameterizedTest
    @CsvSource({
        "176, 144, 15, 1", "352, 288, 30, 1.3", "720, 576, 25, 3", "1280, 720, 30, 3.1", "1280, 720, 60, 3.2",
        "1920, 1080, 30, 4", "1920, 1080, 60, 4.2", "3840, 2160, 30, 5.1", "3840, 2160, 60, 5.2", "7680, 4320, 60, 6.1",
        "7680, 4320, 120, 6.2"
    })
    void levelsAreTheStandards(int width, int height, int rate, String level) {
        assertThat(H264Level.needed(width, height, Rational.of(rate))
                        .orElseThrow()
                        .label())
                .isEqualTo(level);
    }

    @Test
    void noLevelHoldsMore() {
        assertThat(H264Level.needed(16384, 16384, Rational.of(25))).isEmpty();
        // A.3.1: a side of sqrt(8 * 139264) = 1055 macroblocks is the end
        assertThat(H264Level.needed(16 * 1056, 16, Rational.ONE)).isEmpty();
    }

    @Test
    void whatMostPlayersCannotShowIsToldBeforehand() {
        var plan = plan(format(1920, 1080, Chroma.S420), "enlarge factor=4", H264, 50, Long.MAX_VALUE);
        assertThat(plan.isPossible()).isTrue();
        assertThat(plan.warnings()).anyMatch(w -> w.contains("level 6.1") && w.contains("3840x2160 is safe"));
        assertThat(plan(format(1920, 1080, Chroma.S420), "enlarge factor=2", H264, 25, Long.MAX_VALUE)
                        .warnings())
                .isEmpty();
    }

    /** The usual mistake: a factor for small footage on footage that is large already; here on a wide panorama. */
    @Test
    void beyond8192TheLargestFactorThatStaysWithinIsTold() {
        Format large = format(4096, 512, Chroma.S420);
        for (Deliverable deliverable : List.of(H264, FFV1)) {
            assertThat(plan(large, "enlarge factor=3", deliverable, 25, Long.MAX_VALUE)
                            .warnings())
                    .anyMatch(w -> w.contains("12288x1536 is beyond 8192")
                            && w.contains("the source has 4096x512 already: factor 2 is the most that stays within"));
            assertThat(plan(large, "enlarge factor=2", deliverable, 25, Long.MAX_VALUE)
                            .warnings())
                    .noneMatch(w -> w.contains("8192"));
        }
    }

    /** Depth and fields stay where the codec holds them; what goes is told. */
    @Test
    void whatIsLostIsTold() {
        Format deep = format(1920, 1080, Chroma.S422).withDepth(12);
        assertThat(plan(deep, "", H264, 25, Long.MAX_VALUE).output().depth()).isEqualTo(10);
        assertThat(plan(deep, "", H264, 25, Long.MAX_VALUE).warnings())
                .anyMatch(warning -> warning.contains("12 bits go out as 10"))
                .anyMatch(warning -> warning.contains("4:2:0"));
        assertThat(plan(deep, "", FFV1, 25, Long.MAX_VALUE).warnings()).isEmpty();
        var eight = Deliverable.of("h264", Map.of("depth", 8), true);
        Format wide = format(1920, 1080, Chroma.S420)
                .withDepth(10)
                .withColour(new ColourTags(
                        ColourTags.Matrix.BT2020NC,
                        ColourTags.Range.LIMITED,
                        ColourTags.Transfer.SMPTE2084,
                        ColourTags.Primaries.BT2020));
        assertThat(plan(wide, "", eight, 25, Long.MAX_VALUE).warnings())
                .anyMatch(warning -> warning.contains("10 bits go out as 8"))
                .anyMatch(warning -> warning.contains("high dynamic range"));
        assertThat(plan(wide, "", H264, 25, Long.MAX_VALUE).warnings())
                .singleElement()
                .asString()
                .contains("10 bits in H.264");
        assertThat(plan(wide, "", FFV1, 25, Long.MAX_VALUE).warnings()).isEmpty();
        Format fields = format(720, 576, Chroma.S420).withScan(Scan.TOP_FIRST);
        assertThat(plan(fields, "", H264, 25, Long.MAX_VALUE).output().scan()).isEqualTo(Scan.TOP_FIRST);
        assertThat(plan(fields, "deinterlace mode=fast", H264, 50, Long.MAX_VALUE)
                        .warnings())
                .isEmpty();
        Format odd = format(720, 486, Chroma.S420).withScan(Scan.BOTTOM_FIRST);
        assertThat(plan(odd, "", H264, 25, Long.MAX_VALUE).output().scan()).isEqualTo(Scan.PROGRESSIVE);
        assertThat(plan(odd, "", H264, 25, Long.MAX_VALUE).warnings())
                .anyMatch(warning -> warning.contains("multiple of 4"));
        assertThat(plan(odd, "", FFV1, 25, Long.MAX_VALUE).output().scan()).isEqualTo(Scan.BOTTOM_FIRST);
    }

    /** ITU-R BT.601: 720x576 samples of 16:15 are seen as 768x576, 720x480 of 8:9 as 640x480. */
    @Test
    void oblongPixelsBecomeSquare() {
        Format pal = format(720, 576, Chroma.S420).withSize(720, 576, new Rational(16, 15));
        Format ntsc = pal.withSize(720, 480, new Rational(8, 9));
        assertSize(pal, "enlarge factor=1 pixels=square", 768, 576);
        assertSize(pal, "enlarge factor=2 pixels=square", 1536, 1152);
        assertSize(pal, "enlarge target=1080p pixels=square", 1440, 1080);
        assertSize(ntsc, "enlarge target=720p pixels=square", 960, 720);
        assertSize(ntsc, "enlarge factor=1 pixels=square", 720, 540);
        assertThat(new Recipe(List.of(Step.parse("enlarge factor=2")))
                        .chain(pal)
                        .output()
                        .sar())
                .isEqualTo(new Rational(16, 15));
    }

    private static void assertSize(Format source, String step, int width, int height) {
        Format out = new Recipe(List.of(Step.parse(step))).chain(source).output();
        assertThat(out.width() + "x" + out.height()).as(step).isEqualTo(width + "x" + height);
        assertThat(out.sar()).as(step).isEqualTo(Rational.ONE);
    }

    @Test
    void enlargingFieldsAsWholeFramesIsWarnedOf() {
        Format fields = format(720, 576, Chroma.S420).withScan(Scan.TOP_FIRST);
        assertThat(plan(fields, "enlarge factor=2", H264, 25, Long.MAX_VALUE).warnings())
                .anyMatch(warning -> warning.contains("deinterlace before enlarging"));
    }

    @Test
    void everyThreadOfANetCountsItsOwnMemory() {
        Format source = format(640, 360, Chroma.S420);
        var chain = new Chain(source, List.of(new UpscaleStage(source, CARD, new Hungry(), 1)));
        long one = RenderPlan.of(chain, H264, Rational.of(25), 100, 0, 1, Long.MAX_VALUE)
                .memoryBytes();
        long four = RenderPlan.of(chain, H264, Rational.of(25), 100, 0, 4, Long.MAX_VALUE)
                .memoryBytes();
        // tiles of 400 with 4 samples around them, no higher than the picture
        assertThat(four - one).isEqualTo(3 * 100L * 408 * 360);
    }

    private static final ModelCard CARD = TestCards.of(ModelCard.Job.ENLARGE, 2, 4);

    private static final class Hungry implements NetRunner {
        @Override
        public void run(List<Plane> frames, Plane correction) {}

        @Override
        public long bytes(int width, int height) {
            return 100L * width * height;
        }
    }

    @Test
    void tooLittleMemoryIsRefusedWithTheFigures() {
        var plan = plan(format(3840, 2160, Chroma.S444), "enlarge factor=2", H264, 25, 500_000_000L);
        assertThat(plan.refusals()).singleElement().asString().contains("MB of memory, 500 MB are allowed");
    }

    @Test
    void h264GoesOutAsFourTwoZeroWithEvenSides() {
        var plan = plan(format(3, 5, Chroma.RGB), "", H264, 25, Long.MAX_VALUE);
        assertThat(plan.output().chroma()).isEqualTo(Chroma.S420);
        assertThat(plan.output().width()).isEqualTo(4);
        assertThat(plan.output().height()).isEqualTo(6);
        assertThat(plan.warnings()).anyMatch(warning -> warning.contains("3x5 goes out as 4x6"));
        assertThat(plan.warnings()).anyMatch(warning -> warning.contains("half the resolution (4:2:0)"));
        assertThat(plan(format(3, 5, Chroma.RGB), "", FFV1, 25, Long.MAX_VALUE)
                        .output()
                        .chroma())
                .isEqualTo(Chroma.RGB);
    }

    /** Untagged standard definition is BT.601; once enlarged, players would guess BT.709 (common practice, no source). */
    @Test
    void untaggedColourIsTaggedWithWhatTheSourceWasTakenFor() {
        Format enlarged = plan(format(720, 480, Chroma.S420), "enlarge factor=2", H264, 30, Long.MAX_VALUE)
                .output();
        assertThat(enlarged.colour().matrix()).isEqualTo(ColourTags.Matrix.SMPTE170M);
        assertThat(enlarged.colour().range()).isEqualTo(ColourTags.Range.LIMITED);
        Format hd = plan(format(1280, 720, Chroma.S420), "", H264, 30, Long.MAX_VALUE)
                .output();
        assertThat(hd.colour().matrix()).isEqualTo(ColourTags.Matrix.BT709);
    }

    @Test
    void memoryFollowsTheWindowsNotTheLength() {
        Format source = format(1920, 1080, Chroma.S420);
        Chain chain = new Recipe(List.of(Step.parse("enlarge factor=2"))).chain(source);
        var minute = RenderPlan.of(chain, H264, Rational.of(25), 1500, 0, 2, Long.MAX_VALUE);
        var day = RenderPlan.of(chain, H264, Rational.of(25), 2_160_000, 0, 2, Long.MAX_VALUE);
        assertThat(day.memoryBytes()).isEqualTo(minute.memoryBytes()).isLessThan(1 << 30);
        assertThat(day.fileBytes()).isGreaterThan(1000 * minute.fileBytes());
    }

    @Test
    void deliverablesRefuseWhatTheirCodecCannotHold() {
        assertThatThrownBy(() -> Deliverable.of("h264", Map.of("depth", 12), true))
                .hasMessageContaining("depth is 12")
                .hasMessageContaining("one of 8, 10");
        assertThatThrownBy(() -> Deliverable.of("h264", Map.of("quality", 52), true))
                .hasMessageContaining("0..51");
        assertThatThrownBy(() -> Deliverable.of("ffv1", Map.of("depth", 9), true))
                .hasMessageContaining("one of 8, 10, 12, 16");
        assertThatThrownBy(() -> Deliverable.of("h264", Map.of("gop", 0), true)).hasMessageContaining("1..600");
        assertThatThrownBy(() -> Deliverable.of("ffv1", Map.of("quality", 17), true))
                .hasMessageContaining("FFV1 has no setting 'quality'; it has: depth");
        assertThatThrownBy(() -> Deliverable.of("mpeg1", Map.of(), true))
                .hasMessageContaining(
                        "no codec called 'mpeg1'; there are: h264, h265, av1, vp9, prores, dnxhr, ffv1, jpeg2000, png");
    }

    @Test
    void aDeliverableReadsBackFromItsOpenFormAndFromThatOfBefore() {
        var told = Deliverable.of("h264", Map.of("quality", 20, "depth", 10), false);
        assertThat(Deliverable.fromTree(told.toTree())).isEqualTo(told);
        assertThat(told.gop()).isEqualTo(48);
        assertThat(Deliverable.fromTree(Map.of("codec", "H264", "quality", 20, "depth", 0, "gop", 12, "sound", true)))
                .isEqualTo(Deliverable.of("h264", Map.of("quality", 20, "gop", 12), true));
        // 0 is no depth, but the best quality there is
        assertThat(Deliverable.fromTree(Map.of("codec", "H264", "quality", 0, "depth", 0, "gop", 48, "sound", true)))
                .isEqualTo(Deliverable.of("h264", Map.of("quality", 0, "gop", 48), true));
        assertThat(Deliverable.fromTree(Map.of("codec", "FFV1", "quality", 17, "depth", 12, "gop", 48, "sound", false)))
                .isEqualTo(Deliverable.of("ffv1", Map.of("depth", 12), false));
    }

    /** What describes a codec is what it does: each that holds transparency, depth or fields makes files of it. */
    @Test
    void codecsAreAsTheyDescribeThemselves() {
        for (Codec codec : Codecs.all()) {
            assertThat(codec.containers()).as(codec.id()).isNotEmpty();
            assertThat(Codecs.byId(codec.id())).isSameAs(codec);
            var clear = format(1280, 720, Chroma.S420).withAlpha(Alpha.STRAIGHT);
            Format file = Deliverable.usual(codec).fileFormat(clear, 720);
            assertThat(file.alpha().isThere()).as(codec.id()).isEqualTo(codec.holdsAlpha());
            codec.params().stream()
                    .filter(param -> param.key().equals("depth"))
                    .forEach(param -> ((Param.Choice) param).options().forEach(option -> {
                        var asked = Deliverable.of(codec.id(), Map.of("depth", option.id()), true);
                        assertThat(asked.fileFormat(format(1280, 720, Chroma.S420), 720)
                                        .depth())
                                .isEqualTo(Integer.parseInt(option.id()));
                    }));
        }
        assertThat(Codecs.usual("mkv")).isSameAs(Codecs.FFV1);
        assertThat(Codecs.usual("mov")).isSameAs(Codecs.H264);
        assertThat(Codecs.usual("webm")).isSameAs(Codecs.VP9);
        assertThat(Codecs.usual("mxf")).isSameAs(Codecs.DNXHR);
        assertThat(Codecs.usual("zip").id()).isEqualTo("png");
    }

    /** ITU-T H.265 tables A.8 and A.9, from memory: what the trade's usual sizes need. */
    @ParameterizedTest
    @CsvSource({
        "1280, 720, 30, 3.1",
        "1920, 1080, 30, 4",
        "1920, 1080, 60, 4.1",
        "3840, 2160, 30, 5",
        "3840, 2160, 60, 5.1",
        "3840, 2160, 120, 5.2",
        "7680, 4320, 30, 6",
        "7680, 4320, 120, 6.2",
        "16384, 9216, 25, none"
    })
    void levelsOfH265FollowFromSizeAndRate(int width, int height, int rate, String level) {
        assertThat(H265Level.needed(width, height, Rational.of(rate)).map(H265Level::label))
                .isEqualTo(level.equals("none") ? Optional.empty() : Optional.of(level));
    }

    /** Megabits a second of 1920x1080 at 30000/1001 that the makers of ProRes aim at (from memory), and what follows for twice the sides. */
    @ParameterizedTest
    @CsvSource({"proxy, 45", "lt, 102", "standard, 147", "hq, 220", "4444, 330", "4444xq, 500"})
    void sizesOfProResFollowItsTargets(String profile, double megabits) {
        var asked = Deliverable.of("prores", Map.of("profile", profile), true);
        for (int times : new int[] {1, 2}) {
            Format file = asked.fileFormat(format(1920 * times, 1080 * times, Chroma.S420), 1080);
            double bytes =
                    asked.codec().fileBytes(file, file, asked.settings(), new Codec.Amount(1, 30000 / 1001.0, 0));
            assertThat(bytes * 8 * 30000 / 1001 / 1e6)
                    .isCloseTo(megabits * times * times, within(0.02 * megabits * times * times));
        }
    }

    /** Megabits a second of 1920x1080 at 24000/1001 that are published for DNxHR (from memory: LB 36, SQ 116, HQ and HQX 176, 444 352). */
    @ParameterizedTest
    @CsvSource({"lb, 36", "sq, 116", "hq, 176", "hqx, 176", "444, 352"})
    void sizesOfDnxHrFollowWhatIsPublished(String profile, double megabits) {
        var asked = Deliverable.of("dnxhr", Map.of("profile", profile), true);
        Format file = asked.fileFormat(format(1920, 1080, Chroma.S420), 1080);
        double bytes =
                asked.codec().fileBytes(file, file, asked.settings(), new Codec.Amount(24000, 24000 / 1001.0, 0));
        assertThat(bytes * 8 / 1001 / 1e6).isCloseTo(megabits, within(0.03 * megabits));
    }

    @ParameterizedTest
    @CsvSource({
        "dnxhr, MOV, 240, 100, 25, 256x120",
        "dnxhr, MXF, 1920, 1080, 15, Frame rate",
        "jpeg2000, MXF, 1920, 1080, 12, 24",
        "av1, MP4, 60, 60, 25, 64x64",
        "gif, GIF, 320, 240, 60, 50 frames"
    })
    void whatACodecOrItsContainerDoesNotTakeIsRefusedWithWhatWould(
            String codec, Container container, int width, int height, int rate, String said) {
        var asked = Deliverable.of(codec, Map.of(), Optional.of(container), Sound.NONE);
        Format file = asked.fileFormat(format(width, height, Chroma.S420), height);
        assertThat(asked.codec().refusals(file, Rational.of(rate), container))
                .singleElement()
                .asString()
                .contains(said);
    }

    @Test
    void mxfTakesSquareSamplesAlone() {
        var asked = Deliverable.of("dnxhr", Map.of(), Optional.of(Container.MXF), Sound.NONE);
        Format wide = asked.fileFormat(format(720, 576, Chroma.S420), 576).withSize(720, 576, new Rational(16, 15));
        assertThat(asked.codec().refusals(wide, Rational.of(25), Container.MXF))
                .singleElement()
                .asString()
                .contains("16:15", "Enlarge");
        assertThat(asked.codec().refusals(wide, Rational.of(25), Container.MOV)).isEmpty();
    }

    @Test
    void aBitRateOrASizeAloneSaysThatItGoesByThat() {
        assertThat(Deliverable.of("h264", Map.of("size", 20), true).setting("by"))
                .isEqualTo("size");
        assertThat(Deliverable.of("h264", Map.of("bitrate", 2), true).setting("by"))
                .isEqualTo("bitrate");
        assertThat(Deliverable.of("h264", Map.of("bitrate", 2, "by", "quality"), true)
                        .isCodedInParts())
                .isTrue();
        assertThat(Deliverable.of("h264", Map.of("peak", 2), true).isCodedInParts())
                .isFalse();
        // their encoders here either refuse it or keep far below it
        for (String codec : new String[] {"av1", "vp9"}) {
            assertThatThrownBy(() -> Deliverable.of(codec, Map.of("peak", 2), true))
                    .hasMessageContaining("no setting 'peak'");
        }
    }

    /** Orders of before said true or false of sound, and nothing of a container. */
    @Test
    void deliverablesOfBeforeAreReadAsTheyWere() {
        var old = Deliverable.fromTree(Map.of("codec", "prores", "settings", Map.of("profile", "lt"), "sound", true));
        assertThat(old.container()).isEqualTo(Container.MOV);
        assertThat(old.sound()).isEqualTo(Sound.KEPT);
        var now = Deliverable.of("vp9", Map.of("quality", 30), Optional.of(Container.MKV), Sound.OPUS);
        assertThat(Deliverable.fromTree(now.toTree())).isEqualTo(now);
        assertThatThrownBy(() -> Deliverable.fromTree(Map.of("codec", "prores", "container", "webm", "sound", "none")))
                .hasMessageContaining("ProRes cannot stand in");
    }

    /** Each sends something out that stands in a file of its codec's usual container; the first is what goes out where nothing is said. */
    @Test
    void presetsAreDeliverables() {
        for (Preset preset : Preset.all()) {
            Deliverable out = preset.deliverable();
            assertThat(out.codec()).isSameAs(preset.codec());
            assertThat(out.fileFormat(format(1280, 720, Chroma.S420), 720).width())
                    .isEqualTo(1280);
            assertThat(Preset.byId(preset.id())).isSameAs(preset);
        }
        assertThat(Preset.all().getFirst().deliverable()).isEqualTo(H264);
        assertThatThrownBy(() -> Preset.byId("vhs")).hasMessageContaining("watch, small, web, edit, keep, stills");
    }
}
