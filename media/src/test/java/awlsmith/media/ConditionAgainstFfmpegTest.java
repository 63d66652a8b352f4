package awlsmith.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.condition.Condition;
import awlsmith.core.condition.Curves;
import awlsmith.core.condition.Dropped;
import awlsmith.core.condition.Examiner;
import awlsmith.core.condition.Fade;
import awlsmith.core.condition.Judge;
import awlsmith.core.light.EvenLightStage;
import awlsmith.core.measure.Levels;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Scan;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Work;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What we find in a clip against what FFmpeg 5.1's own filters find in the same file. */
class ConditionAgainstFfmpegTest {
    @TempDir
    static Path folder;

    /** Detail at all scales that moves across: a slow zoom into a fractal. */
    private static final String SCENE = "-f lavfi -i mandelbrot=s=352x288:r=25:start_scale=1:end_scale=0.2:end_pts=60";

    private static Judge judge(Path file) {
        Clip clip = DecodingTest.indexed(file);
        return new Judge(new Examiner(clip, 25, new PlanePool(1 << 26)).examine(Work.alone(), done -> {}));
    }

    private static List<Double> told(Path file, String filter, String pattern) {
        String said = TestClips.ffmpeg("-hide_banner -nostats -i " + file + " -vf " + filter + " -f null -");
        return Pattern.compile(pattern)
                .matcher(said)
                .results()
                .map(MatchResult::group)
                .map(text -> Double.parseDouble(text.replaceAll(".*[:=]\\s*", "")))
                .toList();
    }

    private static double last(List<Double> values) {
        return values.getLast();
    }

    @Test
    void blocksRiseWithCompressionInTheOrderOfBlockdetect() {
        var ours = new ArrayList<Double>();
        var theirs = new ArrayList<Double>();
        for (int quantiser : new int[] {3, 8, 16, 31}) {
            Path file = folder.resolve("q" + quantiser + ".mkv");
            TestClips.ffmpeg(
                    SCENE + " -frames:v 30 -pix_fmt yuv420p -c:v mpeg2video -qscale:v " + quantiser + " " + file);
            ours.add(judge(file).condition().finding("blocks").value());
            theirs.add(last(told(file, "blockdetect", "block mean: [0-9.]+")));
        }
        assertThat(theirs).isSorted();
        assertThat(ours).isSorted().doesNotHaveDuplicates();
    }

    @Test
    void blocksRiseWithTheCrfOfH264() {
        var ours = new ArrayList<Double>();
        for (int crf : new int[] {18, 30, 40, 48}) {
            Path file = folder.resolve("crf" + crf + ".mp4");
            TestClips.ffmpeg(SCENE + " -frames:v 30 -pix_fmt yuv420p -c:v libx264 -crf " + crf + " " + file);
            ours.add(judge(file).condition().finding("blocks").value());
        }
        assertThat(ours).isSorted();
        assertThat(ours.getLast()).isGreaterThan(ours.getFirst() + 5);
    }

    @Test
    void blurRisesInTheOrderOfBlurdetect() {
        var ours = new ArrayList<Double>();
        var theirs = new ArrayList<Double>();
        for (String sigma : new String[] {"0.4", "1", "2", "3"}) {
            Path file = folder.resolve("blur" + sigma + ".mkv");
            TestClips.ffmpeg("-f lavfi -i testsrc2=s=352x288:r=25 -frames:v 12 -vf gblur=" + sigma
                    + " -pix_fmt yuv420p -c:v ffv1 " + file);
            ours.add(judge(file).condition().finding("blur").value());
            theirs.add(last(told(file, "blurdetect", "blur mean: [0-9.]+")));
        }
        assertThat(theirs).isSorted();
        assertThat(ours).isSorted().doesNotHaveDuplicates();
    }

    /** FFmpeg's idet counts the frames of each kind. */
    @ParameterizedTest
    @ValueSource(strings = {"tinterlace=mode=interleave_top", "tinterlace=mode=interleave_bottom", "null"})
    void fieldOrderAsIdetHasIt(String weave) {
        Path file = folder.resolve("fields" + weave.hashCode() + ".mkv");
        // of whole frames idet takes the moving lines of FFmpeg's test picture for fields, so they come from a fractal
        String scene = weave.equals("null") ? SCENE : "-f lavfi -i testsrc2=s=352x288:r=50";
        TestClips.ffmpeg(scene + " -frames:v 80 -vf gblur=0.7," + weave + " -pix_fmt yuv420p -c:v ffv1 " + file);
        String said = TestClips.ffmpeg("-hide_banner -nostats -i " + file + " -vf idet -f null -");
        String counts = said.substring(said.lastIndexOf("Multi frame detection"));
        double top = count(counts, "TFF");
        double bottom = count(counts, "BFF");
        double whole = count(counts, "Progressive");
        Scan theirs =
                top > bottom && top > whole ? Scan.TOP_FIRST : bottom > whole ? Scan.BOTTOM_FIRST : Scan.PROGRESSIVE;
        assertThat(judge(file).condition().scan()).isEqualTo(theirs);
    }

    private static double count(String text, String kind) {
        var matcher = Pattern.compile(kind + ":\\s*(\\d+)").matcher(text);
        return matcher.find() ? Double.parseDouble(matcher.group(1)) : 0;
    }

    @Test
    void cutsWhereScdetSeesThem() {
        Path file = folder.resolve("cuts.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=320x240:r=25:d=1.2 -f lavfi -i mandelbrot=s=320x240:r=25 "
                + "-f lavfi -i smptebars=s=320x240:r=25:d=1 -filter_complex "
                + "[1:v]trim=duration=1.4[m];[0:v]setsar=1[a];[m]setsar=1[b];[2:v]setsar=1[c];[a][b][c]concat=n=3:v=1 "
                + "-pix_fmt yuv420p -c:v libx264 -crf 20 " + file);
        List<Double> theirs = told(file, "scdet=t=10", "lavfi\\.scd\\.time: [0-9.]+");
        Curves ours = judge(file).curves();
        assertThat(theirs).hasSize(2);
        assertThat(ours.cuts()).hasSize(2);
        for (int i = 0; i < 2; i++) {
            assertThat(ours.cuts().get(i) / 25.0).isCloseTo(theirs.get(i), within(0.03));
        }
    }

    @Test
    void bordersAsCropdetectHasThem() {
        Path file = folder.resolve("bars.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=320x180:r=25 -frames:v 20 -vf pad=352:240:16:32:black"
                + " -pix_fmt yuv420p -c:v libx264 -crf 18 " + file);
        String said = TestClips.ffmpeg("-hide_banner -nostats -i " + file + " -vf cropdetect=round=2 -f null -");
        String crop = said.substring(said.lastIndexOf("crop=") + 5).strip().split("\\s")[0];
        Condition condition = judge(file).condition();
        var borders = condition.borders();
        String ours = (352 - borders.left() - borders.right()) + ":" + (240 - borders.top() - borders.bottom()) + ":"
                + borders.left() + ":" + borders.top();
        assertThat(ours).isEqualTo(crop);
    }

    /** FFmpeg's ebur128 writes its summary at the end. */
    @Test
    void loudnessAsEbur128HasIt() {
        Path file = folder.resolve("sound.mkv");
        TestClips.ffmpeg(
                "-f lavfi -i color=gray:s=64x48:r=25:d=12 -f lavfi -i anoisesrc=d=12:c=pink:a=0.3:r=48000:seed=7"
                        + " -f lavfi -i sine=f=330:d=12:r=48000 -filter_complex [1:a]volume='if(lt(t,5),1,0.1)':eval=frame[n];"
                        + "[n][2:a]join=inputs=2:channel_layout=stereo -c:v ffv1 -c:a pcm_s16le " + file);
        String said = TestClips.ffmpeg("-nostats -i " + file + " -af ebur128 -f null -");
        String summary = said.substring(said.lastIndexOf("Integrated loudness"));
        var theirs = Pattern.compile("I:\\s*(-?[0-9.]+) LUFS").matcher(summary);
        assertThat(theirs.find()).isTrue();
        var ours = SoundReading.check(Prober.probe(file), new Cancel()).orElseThrow();
        assertThat(ours.loudness()).isCloseTo(Double.parseDouble(theirs.group(1)), within(0.15));
    }

    /** mpdecimate drops the frames that only repeat the one before. */
    @Test
    void repeatsAsMpdecimateDropsThem() {
        Path file = folder.resolve("repeats.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=352x288:r=20 -frames:v 60 -vf gblur=0.7,fps=25"
                + " -pix_fmt yuv420p -c:v libx264 -crf 20 " + file);
        int all = judge(file).curves().light().length;
        String said = TestClips.ffmpeg("-hide_banner -nostats -i " + file + " -vf mpdecimate,showinfo -f null -");
        long kept = Pattern.compile("showinfo.*\\bn:\\s*\\d+")
                .matcher(said)
                .results()
                .count();
        Judge judge = judge(file);
        assertThat(judge.curves().repeats()).hasSize((int) (all - kept));
        assertThat(judge.condition().pulldown())
                .isPresent()
                .get()
                .satisfies(p -> assertThat(p.period()).isEqualTo(5));
    }

    /** FFmpeg's fade filter says where each fade is; its blackdetect agrees where black begins. */
    @Test
    void fadesAreFoundWhereTheFilterPutThem() {
        Path file = folder.resolve("fades.mkv");
        TestClips.ffmpeg(SCENE + " -frames:v 150 -vf fade=in:0:20,fade=out:110:25 -pix_fmt yuv420p -c:v ffv1 " + file);
        Judge judge = judge(file);
        List<Fade> fades = judge.curves().fades();
        assertThat(fades).hasSize(2);
        assertThat(fades.getFirst()).satisfies(fade -> {
            assertThat(fade.in()).isTrue();
            assertThat(fade.black()).isTrue();
            assertThat(fade.from()).isBetween(0L, 3L);
            assertThat(fade.end()).isBetween(17L, 24L);
        });
        assertThat(fades.getLast()).satisfies(fade -> {
            assertThat(fade.in()).isFalse();
            assertThat(fade.from()).isBetween(108L, 114L);
            assertThat(fade.end()).isBetween(130L, 136L);
        });
        double black = last(told(file, "blackdetect=d=0.1:pix_th=0.06", "black_start:[0-9.]+"));
        assertThat(fades.getLast().end() / 25.0).isCloseTo(black, within(0.2));
        assertThat(judge.condition().finding("fades").words()).isEqualTo("1 fade in, 1 fade out");
        assertThat(judge.curves().dropped()).isEmpty();
    }

    @Test
    void aWhiteFadeIsOneAndAnUnevenPictureIsNone() {
        Path white = folder.resolve("white.mkv");
        TestClips.ffmpeg(SCENE + " -frames:v 60 -vf fade=out:30:25:color=white -pix_fmt yuv420p -c:v ffv1 " + white);
        assertThat(judge(white).curves().fades()).singleElement().satisfies(fade -> {
            assertThat(fade.in()).isFalse();
            assertThat(fade.black()).isFalse();
        });
        Path none = folder.resolve("none.mkv");
        TestClips.ffmpeg(SCENE + " -frames:v 60 -pix_fmt yuv420p -c:v ffv1 " + none);
        assertThat(judge(none).curves().fades()).isEmpty();
        assertThat(judge(none).condition().finding("fades").severity()).isZero();
    }

    /** Packets dropped by FFmpeg's own filter leave holes in the file's times. */
    @Test
    void framesThatTheClockMissesAreTold() {
        Path whole = folder.resolve("whole-clock.mkv");
        TestClips.ffmpeg(SCENE + " -frames:v 60 -pix_fmt yuv420p -c:v ffv1 " + whole);
        Path file = folder.resolve("holes.mkv");
        TestClips.ffmpeg("-i " + whole + " -c copy -bsf:v noise=drop='eq(n\\,20)+between(n\\,40\\,42)' " + file);
        Judge judge = judge(file);
        assertThat(judge.curves().dropped()).containsExactly(new Dropped(20, 1, true), new Dropped(39, 3, true));
        assertThat(judge.condition().finding("dropped").words()).isEqualTo("4 frames are missing at 2 places");
    }

    /** A steady pan from which frames were taken out and whose times were written anew, as a capture that dropped them does. */
    @Test
    void steadyMotionThatLeapsTellsOfFramesThatTheClockDoesNotMiss() {
        Path still = folder.resolve("wide.png");
        TestClips.ffmpeg("-f lavfi -i mandelbrot=s=1024x288 -frames:v 1 " + still);
        Path file = folder.resolve("leaps.mkv");
        TestClips.ffmpeg("-loop 1 -framerate 25 -i " + still
                + " -vf crop=352:288:4*n:0,select='not(eq(n\\,30)+between(n\\,60\\,61))',"
                + "setpts=N/25/TB -frames:v 90 -pix_fmt yuv420p -c:v ffv1 " + file);
        assertThat(judge(file).curves().dropped())
                .containsExactly(new Dropped(30, 1, false), new Dropped(59, 2, false));
    }

    /** Flicker that FFmpeg's eq filter put in, taken out by us and by FFmpeg's deflicker over as many frames. */
    @Test
    void lightIsAsEvenAsBehindDeflicker() {
        Path file = folder.resolve("flicker.mkv");
        TestClips.ffmpeg(SCENE + " -frames:v 80 -vf eq=brightness='0.05*sin(2.3*n)+0.03*sin(5.1*n)':eval=frame"
                + " -pix_fmt yuv420p -c:v ffv1 " + file);
        Path theirs = folder.resolve("deflicker.mkv");
        TestClips.ffmpeg("-i " + file + " -vf deflicker=size=11:mode=am -c:v ffv1 " + theirs);
        Judge before = judge(file);
        assertThat(before.condition().finding("flicker").isNoticed()).isTrue();
        Clip clip = DecodingTest.indexed(file);
        var ours = new ArrayList<Float>();
        var chain = new Chain(clip.format(), List.of(new EvenLightStage(clip.format(), 5, 1)));
        try (var frames =
                chain.open(clip, FrameRange.all(), clip.format().whole(), new PlanePool(1 << 26), Work.alone())) {
            for (var frame = frames.next(); frame.isPresent(); frame = frames.next()) {
                ours.add((float) Levels.of(frame.get()).mean());
            }
        }
        double left = jumps(ours);
        double leftByThem = jumps(light(judge(theirs)));
        assertThat(left).isLessThan(0.25 * jumps(light(before)));
        assertThat(left).isLessThan(1.1 * leftByThem);
    }

    private static List<Float> light(Judge judge) {
        var all = new ArrayList<Float>();
        for (float one : judge.curves().light()) {
            all.add(one);
        }
        return all;
    }

    /** Root mean square of the second difference away from the clip's ends. */
    private static double jumps(List<Float> light) {
        double sum = 0;
        for (int n = 8; n + 8 < light.size(); n++) {
            double d = light.get(n) - (light.get(n - 1) + light.get(n + 1)) / 2;
            sum += d * d;
        }
        return Math.sqrt(sum / (light.size() - 16));
    }

    /** Noise that FFmpeg's filter adds to the colour differences alone; its documentation gives no scale, so only the order is held. */
    @Test
    void colourNoiseIsToldApartFromThatOfLight() {
        double before = 0;
        for (int strength : new int[] {0, 20, 40}) {
            Path file = folder.resolve("colour" + strength + ".mkv");
            TestClips.ffmpeg(SCENE + " -frames:v 20 -vf hue=s=0.5,format=yuv444p,noise=c1s=" + strength + ":c2s="
                    + strength + ":c1f=t:c2f=t -c:v ffv1 " + file);
            Condition condition = judge(file).condition();
            double found = condition.finding("colour-noise").value();
            if (strength > 0) {
                assertThat(found).isGreaterThan(before + 2);
            }
            assertThat(condition.finding("noise").value()).isLessThan(1.5);
            before = found;
        }
    }

    /** Grey by having no colour differences, and by having empty ones: told, and no fault. */
    @Test
    void blackAndWhiteIsToldAndIsNoFault() {
        for (String layout : List.of("gray", "yuv420p")) {
            Path file = folder.resolve(layout + ".mkv");
            TestClips.ffmpeg(SCENE + " -frames:v 12 -vf format=gray,format=" + layout + " -c:v ffv1 " + file);
            var colour = judge(file).condition().finding("colour");
            assertThat(colour.words()).as(layout).isEqualTo("black and white");
            assertThat(colour.isNoticed()).as(layout).isFalse();
        }
    }
}
