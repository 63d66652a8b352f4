package awlsmith.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.render.RenderWatch;
import java.util.ArrayList;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Supplier;
import org.junit.jupiter.api.Test;

class ProgressTest {
    private static final Supplier<Progress.Fared> NOTHING = () -> new Progress.Fared("2 cores", 7);

    @Test
    void tellsFewFiguresAndAlwaysTheLast() {
        var told = new ArrayList<Integer>();
        var figures = new ArrayList<RenderView.Live>();
        var progress = new Progress(
                1000,
                () -> {},
                (done, live) -> {
                    told.add(done);
                    figures.add(live);
                },
                safe -> {},
                (doing, done) -> {},
                frame -> {},
                NOTHING);
        for (int n = 1; n <= 1000; n++) {
            progress.frames(n, new RenderWatch.Shares(1, 2, 5));
        }
        assertThat(told.size()).isLessThan(100);
        assertThat(told.getLast()).isEqualTo(1000);
        assertThat(figures.getLast().secondsLeft()).isZero();
        assertThat(figures.getLast().encode()).isEqualTo(0.625);
        assertThat(figures.getLast().on()).isEqualTo("2 cores");
        assertThat(figures.getLast().elsewhere()).isEqualTo(7);
    }

    @Test
    void framesOnDiskCountFromWhatWasThereBefore() {
        var safe = new ArrayList<Integer>();
        var progress =
                new Progress(100, () -> {}, (done, live) -> {}, safe::add, (doing, done) -> {}, frame -> {}, NOTHING);
        progress.begins(40);
        assertThat(progress.before()).isEqualTo(40);
        progress.segment(4, 10);
        progress.segment(5, 10);
        assertThat(safe).containsExactly(50, 60);
    }

    @Test
    void givesWayBeforeAFrame() {
        var given = new AtomicInteger();
        new Progress(
                        1,
                        given::incrementAndGet,
                        (done, live) -> {},
                        safe -> {},
                        (doing, done) -> {},
                        frame -> {},
                        NOTHING)
                .giveWay();
        assertThat(given).hasValue(1);
    }

    @Test
    void aPictureIsWantedAtOnceAndThenNotForAWhile() {
        var shown = new ArrayList<ScreenPicture>();
        var progress =
                new Progress(9, () -> {}, (done, live) -> {}, safe -> {}, (doing, done) -> {}, shown::add, NOTHING);
        assertThat(progress.wantsPicture()).isTrue();
        var picture = new ScreenPicture(1, 1, new byte[3]);
        progress.picture(picture);
        assertThat(shown).containsExactly(picture);
        assertThat(progress.wantsPicture()).isFalse();
    }
}
