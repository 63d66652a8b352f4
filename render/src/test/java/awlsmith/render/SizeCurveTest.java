package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Size against quality: held against whole files that are made so, and against FFmpeg's own psnr filter. */
class SizeCurveTest {
    private static final int FRAMES = 180;
    private static final int FEW = 12;

    @TempDir
    Path folder;

    private RenderRequest request(String name, Deliverable deliverable, int frames) {
        Path file = folder.resolve("clip.mkv");
        if (!Files.exists(file)) {
            TestClips.ffmpeg("-f lavfi -i testsrc2=s=128x80:r=30:d=6,noise=alls=12:allf=t:all_seed=3"
                    + " -pix_fmt yuv420p -c:v ffv1 " + file);
        }
        var info = Prober.probe(file);
        var clip = new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
        var recipe = new Recipe(List.of(Step.parse("sharpen")));
        return new RenderRequest(
                clip,
                recipe,
                new FrameRange(0, frames),
                deliverable,
                folder.resolve(name),
                folder.resolve("scratch-" + name),
                FRAMES);
    }

    @Test
    void coarserIsSmallerAndLessAlikeAndTheSizeIsThatOfTheWholeFile() {
        for (String codec : List.of("h264", "h265", "av1", "vp9")) {
            String ending = codec.equals("vp9") ? "webm" : "mp4";
            // whatever it went by: a size is no quality
            var request = request(
                    codec + "." + ending,
                    Deliverable.of(codec, Map.of("size", 3), false),
                    codec.equals("h264") ? FRAMES : FEW);
            var points = new ArrayList<SizeCurve.Point>();
            try (Machine machine = Machine.of(2);
                    var curve = SizeCurve.of(request, machine, 5, new Cancel())) {
                var qualities = request.deliverable().codec().qualities().stream()
                        .sorted()
                        .toList();
                (codec.equals("h264") ? qualities : List.of(qualities.getFirst(), qualities.getLast()))
                        .forEach(q -> points.add(curve.at(q, new Cancel())));
                var shown = curve.picture(Optional.empty(), new Cancel());
                var coarse = curve.picture(Optional.of(qualities.getLast()), new Cancel());
                assertThat(coarse.width()).isEqualTo(shown.width()).isEqualTo(128);
                assertThat(coarse.rgb()).isNotEqualTo(shown.rgb());
                if (codec.equals("h264")) {
                    holdAgainstTheWhole(request, points.get(2), machine);
                }
            }
            assertThat(points).hasSizeGreaterThanOrEqualTo(2);
            for (int n = 1; n < points.size(); n++) {
                assertThat(points.get(n).fileBytes())
                        .as(codec + points)
                        .isLessThan(points.get(n - 1).fileBytes());
                assertThat(points.get(n).ssim()).isLessThan(points.get(n - 1).ssim());
                assertThat(points.get(n).psnr()).isLessThan(points.get(n - 1).psnr());
                assertThat(points.get(n).worst())
                        .isLessThanOrEqualTo(points.get(n).ssim());
            }
            assertThat(request.scratch()).doesNotExist();
        }
    }

    /** The whole file at that rate factor, and FFmpeg's psnr of it against the treated frames kept without loss. */
    private void holdAgainstTheWhole(RenderRequest request, SizeCurve.Point point, Machine machine) {
        var whole = request("whole.mp4", request.deliverable().atQuality(point.quality()), FRAMES);
        long bytes = new Renderer(whole, machine, RenderWatch.SILENT, new Cancel())
                .render()
                .facts()
                .info()
                .bytes();
        assertThat((double) point.fileBytes()).isCloseTo(bytes, within(0.2 * bytes));
        var kept = request("kept.mkv", Deliverable.of("ffv1", Map.of(), false), FRAMES);
        new Renderer(kept, machine, RenderWatch.SILENT, new Cancel()).render();
        // containers tell times by other clocks, and the filter pairs frames by time
        String said = TestClips.ffmpeg("-v info -i " + whole.out() + " -i " + kept.out()
                + " -lavfi [0:v]settb=1/30,setpts=N[a];[1:v]settb=1/30,setpts=N[b];[a][b]psnr -f null -");
        var luma = Pattern.compile("PSNR y:([0-9.]+)").matcher(said);
        assertThat(luma.find()).as(said).isTrue();
        assertThat(point.psnr()).isCloseTo(Double.parseDouble(luma.group(1)), within(0.5));
    }

    @Test
    void whatIsShownIsWhereMostIsLost() {
        var treated = Plane.of(640, 480);
        var made = Plane.of(640, 480);
        for (int y = 300; y < 330; y++) {
            for (int x = 420; x < 450; x++) {
                made.set(x, y, 0.5f);
            }
        }
        Region shown = SizeCurve.mostLost(treated, made);
        assertThat(shown.x()).isBetween(450 - 176, 420);
        assertThat(shown.y()).isBetween(330 - 120, 300);
        assertThat(SizeCurve.mostLost(Plane.of(20, 12), Plane.of(20, 12))).isEqualTo(new Region(0, 0, 20, 12));
    }

    @Test
    void picturesTooSmallForTheMeasureAreTold() throws IOException {
        Path file = folder.resolve("tiny.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=16x8:r=30:d=0.1 -pix_fmt yuv420p -c:v ffv1 " + file);
        var info = Prober.probe(file);
        var clip = new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
        var request = new RenderRequest(
                clip,
                new Recipe(List.of()),
                new FrameRange(0, 3),
                Deliverable.of("h264", Map.of(), false),
                folder.resolve("tiny.mp4"),
                folder.resolve("scratch-tiny"),
                3);
        try (Machine machine = Machine.of(1);
                var curve = SizeCurve.of(request, machine, 5, new Cancel())) {
            SizeCurve.Point point = curve.at(30, new Cancel());
            assertThat(point.frames()).isEqualTo(3);
            assertThat(point.ssim()).isNaN();
            assertThat(point.psnr()).isPositive();
        }
    }
}
