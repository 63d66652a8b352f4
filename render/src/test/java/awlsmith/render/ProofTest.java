package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Work;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.ProofEncoding;
import awlsmith.media.TestClips;
import java.awt.image.BufferedImage;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Proofs and the comparisons made of them, read back with the pictures they must show. */
class ProofTest {
    private static final Rational RATE = Rational.of(25);

    @TempDir
    static Path folder;

    private static Machine machine;
    private static Clip clip;

    @BeforeAll
    static void makeClip() {
        machine = Machine.of(2);
        clip = indexed(TestClips.moving(
                folder, "clip.mp4", 96, 64, "25", 40, "-pix_fmt yuv420p -c:v libx264 -qp 4 -g 20 -bf 2"));
    }

    @AfterAll
    static void close() {
        machine.close();
    }

    private static Clip indexed(Path file) {
        MediaInfo info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    private static Recipe recipe(String... steps) {
        return new Recipe(java.util.Arrays.stream(steps).map(Step::parse).toList());
    }

    private static List<Plane> frames(Clip from, Recipe recipe, FrameRange range, Region part) {
        Chain chain = recipe.chain(from.format());
        var lumas = new ArrayList<Plane>();
        try (var stream = chain.open(from, chain.outputOf(range), part, new PlanePool(0), Work.alone())) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                lumas.add(frame.get().plane(0));
            }
        }
        return lumas;
    }

    private static Plane half(Frame frame, int top) {
        int height = frame.plane(0).height() / 2;
        return frame.plane(0).window(new Region(0, top * height, frame.plane(0).width(), height));
    }

    private static List<Frame> made(Proof proof, Path file) {
        long done = proof.make(file, RATE, Optional.empty(), machine, RenderWatch.SILENT, new Cancel());
        assertThat(done).isEqualTo(proof.frames());
        return read(file);
    }

    private static List<Frame> read(Path file) {
        Clip back = indexed(file);
        var all = new ArrayList<Frame>();
        try (var stream = back.open(FrameRange.all(), back.format().whole(), new PlanePool(0), new Cancel())) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                all.add(frame.get());
            }
        }
        return all;
    }

    /** Source above, treated below, each the very frames a render makes, with as good as no loss. */
    @Test
    void bothSidesAreWhatARenderGives() {
        Recipe treated = recipe("enlarge factor=2 kernel=lanczos3");
        Recipe plain = recipe("enlarge factor=2 kernel=bilinear");
        Region part = new Region(40, 20, 120, 80);
        FrameRange range = new FrameRange(7, 19);
        var frames = made(new Proof(clip, treated.on(clip.material()), part, range), folder.resolve("both.mp4"));
        var above = frames(clip, plain, range, part);
        var below = frames(clip, treated, range, part);
        assertThat(frames).hasSize(12);
        for (int n = 0; n < 12; n++) {
            assertThat(Psnr.of(above.get(n), half(frames.get(n), 0), 0))
                    .as("source " + n)
                    .isGreaterThan(44);
            assertThat(Psnr.of(below.get(n), half(frames.get(n), 1), 0))
                    .as("treated " + n)
                    .isGreaterThan(44);
        }
    }

    /** With a crop and black bars the source stays locked to the treated picture. */
    @Test
    void theSourceLiesWhereTheTreatedPictureHasIt() {
        Recipe treated = recipe("crop left=16 width=64 top=8 height=48", "enlarge factor=2 kernel=bilinear");
        FrameRange range = new FrameRange(3, 6);
        for (Frame frame : made(
                new Proof(clip, treated.on(clip.material()), new Region(0, 0, 128, 96), range),
                folder.resolve("crop.mp4"))) {
            // the same kernel on both sides: nothing differs but at the crop's own edges
            assertThat(Psnr.of(half(frame, 0), half(frame, 1), 6)).isGreaterThan(44);
        }
        Recipe boxed = recipe("enlarge width=256 height=128 fit=letterbox kernel=bilinear");
        var proof = new Proof(clip, boxed.on(clip.material()), new Region(0, 0, 256, 128), range);
        for (Frame frame : made(proof, folder.resolve("box.mp4"))) {
            assertThat(Psnr.of(half(frame, 0), half(frame, 1), 0)).isGreaterThan(42);
            assertThat(half(frame, 0).at(4, 60)).as("black beside the source").isCloseTo(0, within(0.02f));
        }
    }

    /** Where a recipe makes two frames of one, the source's is held for both. */
    @Test
    void theSourcesFrameIsHeldWhileTheTreatedMovesOn() {
        Path file = folder.resolve("fields.mp4");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=50 -vf interlace -frames:v 12 -pix_fmt yuv420p -c:v libx264 "
                + "-qp 4 -flags +ilme+ildct -top 1 " + file);
        Clip interlaced = indexed(file);
        var proof = new Proof(
                interlaced,
                recipe("deinterlace rate=fields", "enlarge factor=2 kernel=bilinear")
                        .on(interlaced.material()),
                new Region(0, 0, 192, 128),
                new FrameRange(2, 6));
        assertThat(proof.frames()).isEqualTo(8);
        var frames = made(proof, folder.resolve("held.mp4"));
        for (int n = 0; n < 8; n += 2) {
            assertThat(Psnr.of(half(frames.get(n), 0), half(frames.get(n + 1), 0), 0))
                    .isGreaterThan(40);
            assertThat(Psnr.of(half(frames.get(n), 1), half(frames.get(n + 1), 1), 0))
                    .isLessThan(40);
        }
    }

    @Test
    void whatWasMadeUntilItWasStoppedIsAWholeFile() {
        var cancel = new Cancel();
        var proof = new Proof(
                clip,
                recipe("enlarge factor=2 kernel=bilinear").on(clip.material()),
                new Region(0, 0, 64, 64),
                new FrameRange(0, 40));
        var watch = new RenderWatch() {
            @Override
            public void frames(long done, Shares shares) {
                if (done == 9) {
                    cancel.ask();
                }
            }
        };
        Path file = folder.resolve("stopped.mp4");
        assertThat(proof.make(file, RATE, Optional.empty(), machine, watch, cancel))
                .isEqualTo(9);
        assertThat(read(file)).hasSize(9);
        assertThatThrownBy(() -> proof.make(file, RATE, Optional.empty(), machine, watch, cancel))
                .isInstanceOf(Cancel.Stopped.class);
    }

    // --- comparisons ---

    @Test
    void theEdgeWandersBetweenSourceAndTreated() {
        Path proofFile = folder.resolve("proof.mp4");
        var proof = new Proof(
                clip,
                recipe("enlarge factor=2 kernel=lanczos3").on(clip.material()),
                new Region(0, 0, 128, 96),
                new FrameRange(0, 30));
        var sound = Optional.<ProofEncoding.Sound>empty();
        proof.make(proofFile, RATE, sound, machine, RenderWatch.SILENT, new Cancel());
        Clip proved = indexed(proofFile);
        var captions = new BufferedImage(128, 20, BufferedImage.TYPE_INT_RGB);
        captions.setRGB(3, 5, 0xffffff);
        var wipe = new Comparison(proved, Comparison.Look.WIPE, captions);
        assertThat(wipe.edge(0)).isEqualTo(64);
        assertThat(wipe.edge(1)).isEqualTo((int) Math.round(128 * 0.92));
        assertThat(wipe.edge(3)).isEqualTo((int) Math.round(128 * 0.08));
        Path file = folder.resolve("wipe.mp4");
        wipe.make(file, 30, RATE, false, machine, RenderWatch.SILENT, new Cancel());
        var pictures = read(file);
        var both = read(proofFile);
        assertThat(pictures).hasSize(30);
        assertThat(pictures.getFirst().format().height()).isEqualTo(96 + 20);
        assertThat(pictures.getFirst().plane(0).at(3, 5)).isGreaterThan(0.6f);
        for (int n : new int[] {0, 10, 29}) {
            int edge = wipe.edge(n / 25.0);
            Plane shown = pictures.get(n).plane(0).window(new Region(0, 20, 128, 96));
            Region left = new Region(0, 0, edge - 6, 96);
            Region right = new Region(edge + 8, 0, 128 - edge - 8, 96);
            assertThat(Psnr.of(half(both.get(n), 0).window(left), shown.window(left), 0))
                    .isGreaterThan(38);
            assertThat(Psnr.of(half(both.get(n), 1).window(right), shown.window(right), 0))
                    .isGreaterThan(38);
        }
        var pair = new Comparison(proved, Comparison.Look.PAIR, null);
        Path beside = folder.resolve("pair.mp4");
        pair.make(beside, 30, RATE, false, machine, RenderWatch.SILENT, new Cancel());
        Frame two = read(beside).getFirst();
        assertThat(two.format().width()).isEqualTo(Comparison.width(Comparison.Look.PAIR, 128));
        assertThat(Psnr.of(half(both.getFirst(), 1), two.plane(0).window(new Region(128, 0, 128, 96)), 2))
                .isGreaterThan(38);
    }

    @Test
    void whatIsNoProofIsRefused() {
        Clip odd = indexed(TestClips.moving(folder, "odd.mp4", 64, 50, "25", 3, "-pix_fmt yuv420p -c:v libx264"));
        assertThatThrownBy(() -> new Comparison(odd, Comparison.Look.WIPE, null))
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("not a proof");
    }
}
