package awlsmith.server.stills;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import awlsmith.server.clips.Clips;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FrameCacheTest {
    @TempDir
    Path folder;

    private final PlanePool pool = new PlanePool(0);
    private final FrameCache cache = new FrameCache();
    private final UUID id = UUID.randomUUID();
    private Path file;
    private Clip clip;

    @BeforeEach
    void clip() throws Exception {
        file = folder.resolve("clip.mp4");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=64x48:r=25:d=1 -pix_fmt yuv420p -c:v libx264 -g 10 -preset ultrafast " + file);
        var info = Prober.probe(file);
        clip = new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    private Frame cached(long number, Region window) {
        try (var stream = cache.source(id, clip).open(new FrameRange(number, number + 1), window, pool, new Cancel())) {
            return stream.next().orElseThrow();
        }
    }

    private Frame decoded(long number, Region window) {
        try (var stream = clip.open(new FrameRange(number, number + 1), window, pool, new Cancel())) {
            return stream.next().orElseThrow();
        }
    }

    @Test
    void framesAreTheDecodersToTheBitWholeOrInPart() {
        for (Region window : new Region[] {clip.format().whole(), new Region(10, 8, 20, 16)}) {
            for (long n : new long[] {0, 13, 24}) {
                Frame kept = cached(n, window);
                Frame fresh = decoded(n, window);
                assertThat(kept.time()).isEqualTo(fresh.time());
                for (int p = 0; p < 3; p++) {
                    assertThat(kept.plane(p).packed()).isEqualTo(fresh.plane(p).packed());
                }
            }
        }
    }

    /** What was read along needs no file any more; what was forgotten does. */
    @Test
    void theNextFewAreReadAlongAndForgottenWithTheClip() throws Exception {
        Frame first = cached(4, clip.format().whole());
        for (long n = 5; n < 12; n++) {
            cached(n, clip.format().whole());
        }
        Files.delete(file);
        assertThat(cached(4, clip.format().whole()).plane(0).packed())
                .isEqualTo(first.plane(0).packed());
        assertThat(cached(11, clip.format().whole()).number()).isEqualTo(11);
        cache.forget(new Clips.Removing(id));
        assertThatThrownBy(() -> cached(4, clip.format().whole())).isInstanceOf(RuntimeException.class);
    }

    @Test
    void nothingComesAfterTheLastFrameOrACancel() {
        var whole = clip.format().whole();
        try (var stream = cache.source(id, clip).open(new FrameRange(24, 40), whole, pool, new Cancel())) {
            assertThat(stream.next()).isPresent();
            assertThat(stream.next()).isEmpty();
        }
        var cancel = new Cancel();
        try (var stream = cache.source(id, clip).open(new FrameRange(0, 5), whole, pool, cancel)) {
            cancel.ask();
            assertThatThrownBy(stream::next).isInstanceOf(Cancel.Stopped.class);
        }
    }
}
