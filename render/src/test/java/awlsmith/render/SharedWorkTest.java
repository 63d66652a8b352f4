package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Segments of a render that runs are lent and brought; the file is that of a render alone, whatever becomes of those who borrowed. */
class SharedWorkTest {
    private static final int FRAMES = 60;
    private static final int EACH = 5;

    @TempDir
    static Path folder;

    private static Machine machine;
    private static Clip clip;

    @BeforeAll
    static void open() {
        machine = Machine.of(2);
        Path file = folder.resolve("clip.mp4");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=96x64:r=25 -frames:v " + FRAMES + " -pix_fmt yuv420p -c:v libx264 " + file);
        MediaInfo info = Prober.probe(file);
        clip = new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    @AfterAll
    static void close() {
        machine.close();
    }

    private static List<RenderRequest> requests(String name) throws IOException {
        var all = new ArrayList<RenderRequest>();
        for (String codec : List.of("h264", "ffv1")) {
            Deliverable deliverable = Deliverable.of(codec, Map.of(), false);
            all.add(new RenderRequest(
                    clip,
                    new Recipe(List.of(Step.parse("enlarge factor=3 kernel=lanczos3"))),
                    new FrameRange(0, FRAMES),
                    deliverable,
                    folder.resolve(name + "." + deliverable.container().ending()),
                    Files.createDirectories(folder.resolve(name + "-" + codec)),
                    EACH));
        }
        return all;
    }

    private static final AtomicInteger TOLD = new AtomicInteger();

    /** Slow enough that others get something. */
    private static final RenderWatch SLOWLY = new RenderWatch() {
        @Override
        public void segment(int number, long frames) {
            TOLD.addAndGet((int) frames);
        }

        @Override
        public void giveWay() {
            try {
                Thread.sleep(30);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    };

    private static void make(SharedWork work, SharedWork.Offer offer, String name) throws IOException {
        List<Path> made =
                OneSegment.make(offer.orders(), clip, folder.resolve(name), machine, RenderWatch.SILENT, new Cancel());
        for (int n = 0; n < made.size(); n++) {
            Optional<Path> place = work.place(offer.lease(), n);
            if (place.isPresent()) {
                Files.copy(made.get(n), place.get());
                work.arrived(offer.lease(), n, place.get());
            }
        }
    }

    @Test
    void whatOthersBringIsTakenOnceAndWhatTheyLeaveIsMadeHere() throws Exception {
        var alone = requests("alone");
        new Renderer(alone, machine, RenderWatch.SILENT, new Cancel()).renderAll((number, made) -> {});
        var together = requests("together");
        var work = new SharedWork(Duration.ofSeconds(4));
        var isOver = new AtomicBoolean();
        var taken = new AtomicInteger();
        var helper = Thread.ofPlatform().start(() -> {
            try {
                int n = 0;
                while (!isOver.get()) {
                    Optional<SharedWork.Offer> offer = work.lend("helper");
                    if (offer.isEmpty()) {
                        Thread.sleep(5);
                        continue;
                    }
                    // every third is never heard of again, every fourth is given back
                    n++;
                    if (n % 3 == 0) {
                        continue;
                    }
                    if (n % 4 == 0) {
                        work.giveBack(offer.get().lease());
                        continue;
                    }
                    if (n % 5 == 0) {
                        // something that is no part of anything
                        Path place = work.place(offer.get().lease(), 0).orElseThrow();
                        Files.writeString(place, "not what was asked for");
                        work.arrived(offer.get().lease(), 0, place);
                        work.arrived(offer.get().lease(), 1, place);
                        assertThat(work.take(offer.get().lease())).isFalse();
                        continue;
                    }
                    make(work, offer.get(), "helper-" + n);
                    if (work.take(offer.get().lease())) {
                        taken.incrementAndGet();
                        assertThat(work.take(offer.get().lease())).isFalse();
                    }
                }
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        try {
            new Renderer(together, machine, SLOWLY, new Cancel(), work)
                    .renderAll((number, made) -> assertThat(made).isInstanceOf(Renderer.Result.class));
        } finally {
            isOver.set(true);
            helper.join();
        }
        assertThat(taken.get()).isPositive();
        // none was made twice
        assertThat(TOLD.get()).isEqualTo(FRAMES);
        for (int n = 0; n < together.size(); n++) {
            assertThat(together.get(n).out())
                    .hasSameBinaryContentAs(alone.get(n).out());
        }
        // the render has ended: nothing is lent, nothing taken
        assertThat(work.lend("late")).isEmpty();
        assertThat(work.hear("none")).isFalse();
    }

    /** A machine that is far slower, or only says that it lives, does not hold up the end. */
    @Test
    void whatTakesOthersMuchLongerIsMadeHere() throws Exception {
        var requests = requests("slow");
        var work = new SharedWork(Duration.ofHours(1));
        var isOver = new AtomicBoolean();
        var lost = new AtomicInteger();
        var helper = Thread.ofPlatform().start(() -> {
            try {
                Optional<SharedWork.Offer> offer = Optional.empty();
                while (!isOver.get()) {
                    if (offer.isEmpty()) {
                        offer = work.lend("slow");
                    } else if (!work.hear(offer.get().lease())) {
                        lost.incrementAndGet();
                        offer = Optional.empty();
                    }
                    Thread.sleep(10);
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        try {
            new Renderer(requests, machine, SLOWLY, new Cancel(), work)
                    .renderAll((number, made) -> assertThat(made).isInstanceOf(Renderer.Result.class));
        } finally {
            isOver.set(true);
            helper.join();
        }
        assertThat(lost.get()).isPositive();
    }
}
