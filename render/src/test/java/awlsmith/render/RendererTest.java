package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Work;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.IntPredicate;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RendererTest {
    private static final Deliverable FFV1 = Deliverable.usual(Codecs.FFV1);
    private static final Deliverable H264 = Deliverable.usual(Codecs.H264);
    private static final Recipe DOUBLE = new Recipe(List.of(Step.parse("enlarge factor=2 kernel=lanczos3")));

    @TempDir
    static Path folder;

    private static Machine machine;
    private static Clip clip;

    @BeforeAll
    static void makeClip() {
        machine = Machine.of(2);
        clip = indexed(
                TestClips.moving(folder, "clip.mp4", 90, 60, "25", 60, "-pix_fmt yuv420p -c:v libx264 -g 20 -bf 2"));
    }

    @AfterAll
    static void close() {
        machine.close();
    }

    static Clip indexed(Path file) {
        MediaInfo info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    private static RenderRequest request(
            String name, Clip from, Recipe recipe, FrameRange range, Deliverable deliverable, int segmentFrames)
            throws IOException {
        Path scratch = Files.createDirectories(folder.resolve("scratch-" + name));
        return new RenderRequest(from, recipe, range, deliverable, folder.resolve(name), scratch, segmentFrames);
    }

    private static Renderer.Result render(RenderRequest request) {
        return new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
    }

    /** Code values of every frame, as they lie in the file. */
    static List<byte[]> codes(Path file) {
        Clip back = Clip.streamed(Prober.probe(file));
        var layout = new RawLayout(back.format());
        var codes = new ArrayList<byte[]>();
        try (var stream = back.open(FrameRange.all(), back.format().whole(), new PlanePool(0), new Cancel())) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                byte[] raw = new byte[layout.frameBytes()];
                layout.pack(frame.get(), raw);
                codes.add(raw);
            }
        }
        return codes;
    }

    @Test
    void theFileHoldsTheVeryPixelsThatAStillShows() throws IOException {
        var request = request("still.mkv", clip, DOUBLE, new FrameRange(10, 20), FFV1, 4);
        Renderer.Result result = render(request);
        assertThat(result.facts().frames()).isEqualTo(10);
        assertThat(result.facts().errors()).isZero();
        List<byte[]> made = codes(request.out());
        var chain = DOUBLE.chain(clip.format());
        var layout = new RawLayout(request.fileFormat());
        try (var stream =
                chain.open(clip, FrameRange.single(13), chain.output().whole(), new PlanePool(0), Work.alone())) {
            Frame still = stream.next().orElseThrow();
            byte[] raw = new byte[layout.frameBytes()];
            layout.pack(still, raw);
            assertThat(made.get(3)).isEqualTo(raw);
        }
    }

    /** A render that goes on cuts where it cut before, however quick the machine is now; what is no number any more is measured anew. */
    @Test
    void theSizeOfSegmentsIsMeasuredOnceAndKept() throws IOException {
        var request = request("sized.mkv", clip, DOUBLE, new FrameRange(0, 30), FFV1, 1);
        Path kept = request.scratch().resolve("frames-a-segment");
        int first = SegmentSize.of(request, machine, new Cancel());
        assertThat(first).isBetween(12, 960);
        assertThat(kept).hasContent(Integer.toString(first));
        Files.writeString(kept, "37");
        assertThat(SegmentSize.of(request, machine, new Cancel())).isEqualTo(37);
        for (String broken : List.of("", "0", "many", "99999999")) {
            Files.writeString(kept, broken);
            assertThat(SegmentSize.of(request, machine, new Cancel())).isBetween(12, 960);
        }
        assertThat(request.withSegments(first).segmentFrames()).isEqualTo(first);
    }

    @Test
    void segmentsMakeNoDifference() throws IOException {
        var whole = request("whole.mkv", clip, DOUBLE, new FrameRange(0, 33), FFV1, 1000);
        var parts = request("parts.mkv", clip, DOUBLE, new FrameRange(0, 33), FFV1, 7);
        render(whole);
        render(parts);
        List<byte[]> a = codes(whole.out());
        List<byte[]> b = codes(parts.out());
        assertThat(b).hasSize(33);
        for (int i = 0; i < 33; i++) {
            assertThat(b.get(i)).as("frame %d", i).isEqualTo(a.get(i));
        }
    }

    @Test
    void aRenderThatWasBrokenOffGoesOnBehindItsLastFinishedSegment() throws IOException {
        var request = request("resumed.mp4", clip, DOUBLE, new FrameRange(0, 60), H264, 10);
        var cancel = new Cancel();
        var finished = new CopyOnWriteArrayList<Integer>();
        var breaking = new RenderWatch() {
            @Override
            public void segment(int number, long frames) {
                finished.add(number);
                if (number == 2) {
                    cancel.ask();
                }
            }
        };
        assertThatThrownBy(() -> new Renderer(request, machine, breaking, cancel).render())
                .isInstanceOf(Cancel.Stopped.class);
        assertThat(request.out()).doesNotExist();
        assertThat(finished).startsWith(0, 1, 2);
        Path first = request.scratch().resolve("segment-000000.mp4");
        var written = Files.getLastModifiedTime(first);

        var after = new CopyOnWriteArrayList<Integer>();
        var result = new Renderer(
                        request,
                        machine,
                        new RenderWatch() {
                            @Override
                            public void segment(int number, long frames) {
                                after.add(number);
                            }
                        },
                        new Cancel())
                .render();
        assertThat(after).doesNotContain(0, 1, 2).contains(5);
        assertThat(Files.getLastModifiedTime(first)).isEqualTo(written);
        assertThat(result.facts().frames()).isEqualTo(60);
        assertThat(TestClips.times(request.out())).hasSize(60);
    }

    /** After a power cut a part may have its name and not all of its bytes. */
    @Test
    void aPartThatIsEmptyOrShortIsMadeAgain() throws IOException {
        var request = request("short.mkv", clip, DOUBLE, new FrameRange(0, 20), FFV1, 5);
        render(request);
        List<byte[]> whole = codes(request.out());
        Path second = request.scratch().resolve("segment-000001.nut");
        Path third = request.scratch().resolve("segment-000002.nut");
        byte[] bytes = Files.readAllBytes(second);
        for (byte[] left : new byte[][] {new byte[0], java.util.Arrays.copyOf(bytes, bytes.length / 2)}) {
            Files.write(second, left);
            Files.write(third, new byte[0]);
            Files.delete(request.out());
            var made = new CopyOnWriteArrayList<Integer>();
            new Renderer(
                            request,
                            machine,
                            new RenderWatch() {
                                @Override
                                public void segment(int number, long frames) {
                                    made.add(number);
                                }
                            },
                            new Cancel())
                    .render();
            assertThat(made).doesNotContain(0).contains(1, 2);
            List<byte[]> again = codes(request.out());
            for (int i = 0; i < 20; i++) {
                assertThat(again.get(i)).as("frame %d", i).isEqualTo(whole.get(i));
            }
        }
    }

    @Test
    void partsOfAnotherRequestAreNotMistakenForThisOnes() throws IOException {
        var request = request("mixed.mkv", clip, DOUBLE, new FrameRange(0, 8), FFV1, 4);
        render(request);
        Recipe other = new Recipe(List.of(Step.parse("enlarge factor=2 kernel=area")));
        var changed = new RenderRequest(
                clip, other, request.range(), FFV1, request.out(), request.scratch(), request.segmentFrames());
        List<byte[]> before = codes(request.out());
        render(changed);
        assertThat(codes(request.out()).getFirst()).isNotEqualTo(before.getFirst());
    }

    @Test
    void unevenClipsStayUnevenAndNothingIsLost() throws IOException {
        Path file = folder.resolve("uneven.mkv");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=30:d=2 -vf select='not(eq(mod(n\\,3)\\,1))' -fps_mode vfr "
                + "-c:v ffv1 " + file);
        var request = request("uneven-out.mp4", indexed(file), DOUBLE, new FrameRange(0, 40), H264, 9);
        render(request);
        List<Double> expected = TestClips.times(file);
        List<Double> got = TestClips.times(request.out());
        assertThat(got).hasSize(40);
        for (int i = 0; i < 40; i++) {
            assertThat(got.get(i) - got.getFirst())
                    .isCloseTo(expected.get(i) - expected.getFirst(), org.assertj.core.api.Assertions.within(0.0011));
        }
    }

    @Test
    void oddAndTinyPicturesOfAnyLayoutGoOut() throws IOException {
        for (String pixels : new String[] {"yuv420p", "yuv444p", "gbrp", "gray", "yuv422p10le"}) {
            goesOut(pixels, 37, 21, Recipe.EMPTY);
        }
        goesOut("yuv420p", 1, 1, DOUBLE);
        goesOut("gbrp", 1, 1, Recipe.EMPTY);
        goesOut("gray", 3, 5, DOUBLE);
    }

    private static void goesOut(String pixels, int width, int height, Recipe recipe) throws IOException {
        String name = pixels + width + "x" + height;
        Path file = TestClips.moving(
                folder,
                "in-" + name + ".mkv",
                64,
                64,
                "25",
                3,
                "-vf scale=" + width + ":" + height + ",format=" + pixels + " -c:v ffv1 -level 3 -slices 1");
        var result = render(request("odd-" + name + ".mp4", indexed(file), recipe, new FrameRange(0, 3), H264, 96));
        assertThat(result.facts().frames()).as(name).isEqualTo(3);
        assertThat(result.facts().info().video().format().width() % 2).isZero();
    }

    @Test
    void whatCannotBeDoneIsRefusedBeforeItStarts() throws IOException {
        var small = new Machine(machine.bands(), 2, machine.planes(), new awlsmith.core.pipeline.Budget(10_000));
        var request = request("refused.mp4", clip, DOUBLE, new FrameRange(0, 5), H264, 96);
        assertThatThrownBy(() -> new Renderer(request, small, RenderWatch.SILENT, new Cancel()).render())
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("MB of memory");
        assertThatThrownBy(() -> request("x.mp4", clip, DOUBLE, new FrameRange(0, 5), FFV1, 96))
                .hasMessageContaining("FFV1 cannot stand in .mp4");
        assertThatThrownBy(() -> request("x.txt", clip, DOUBLE, new FrameRange(0, 5), H264, 96))
                .hasMessageContaining("must be one of .mp4, .mov, .mkv");
    }

    /** Kills every FFmpeg that has a word in its arguments whenever a part is finished; every other one by asking it to end. */
    private static RenderWatch killing(String word, IntPredicate when) {
        return new RenderWatch() {
            @Override
            public void segment(int number, long frames) {
                if (when.test(number)) {
                    ProcessHandle.current()
                            .descendants()
                            .filter(child -> child.info().arguments().stream()
                                    .flatMap(Arrays::stream)
                                    .anyMatch(one -> one.endsWith(word)))
                            .forEach(number % 2 == 1 ? ProcessHandle::destroyForcibly : ProcessHandle::destroy);
                }
            }
        };
    }

    /** As where memory runs short at night: it goes on by itself, and the file is the one that nothing disturbed. */
    @Test
    void aDecoderKilledFromOutsideIsBegunAgain() throws IOException {
        Path file = TestClips.moving(
                folder, "long.mp4", 320, 180, "25", 200, "-pix_fmt yuv420p -c:v libx264 -preset ultrafast");
        Clip indexed = indexed(file);
        var quiet = request("quiet.mp4", indexed, DOUBLE, new FrameRange(0, 200), H264, 10);
        render(quiet);
        var request = request("killed.mp4", indexed, DOUBLE, new FrameRange(0, 200), H264, 10);
        var renderer =
                new Renderer(request, machine, killing("long.mp4", number -> number == 1 || number == 8), new Cancel());
        assertThat(renderer.render().facts().frames()).isEqualTo(200);
        assertThat(renderer.disturbed().orElseThrow()).startsWith("FFmpeg was killed from outside");
        assertThat(request.out()).hasSameBinaryContentAs(quiet.out());
    }

    /** One that is killed each time it is begun ends in a sentence, after three more goes; finished parts stay. */
    @Test
    void oneThatIsKilledAgainAndAgainIsASentence() throws Exception {
        Path file = TestClips.moving(
                folder, "always.mp4", 320, 180, "25", 100, "-pix_fmt yuv420p -c:v libx264 -preset ultrafast");
        var request = request("always-out.mp4", indexed(file), DOUBLE, new FrameRange(0, 100), H264, 50);
        var isOver = new AtomicBoolean();
        Thread killer = Thread.ofPlatform().start(() -> {
            RenderWatch all = killing("always.mp4", number -> true);
            while (!isOver.get()) {
                all.segment(0, 0);
            }
        });
        assertThatThrownBy(() -> new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render())
                .isInstanceOf(MediaException.class)
                .hasMessageContaining("was killed while decoding");
        isOver.set(true);
        killer.join();
        assertThat(request.out()).doesNotExist();
        assertThat(render(request).facts().frames()).isEqualTo(100);
    }
}
