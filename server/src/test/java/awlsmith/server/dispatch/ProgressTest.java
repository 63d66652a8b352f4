package awlsmith.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doCallRealMethod;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.pipeline.Cancel;
import awlsmith.render.RenderWatch;
import awlsmith.server.stills.Stills;
import java.util.ArrayList;
import org.junit.jupiter.api.Test;

class ProgressTest {
    private final Stills stills = mock(Stills.class);

    @Test
    void tellsFewFiguresAndAlwaysTheLast() {
        var told = new ArrayList<Integer>();
        var figures = new ArrayList<RenderView.Live>();
        var progress = new Progress(
                1000,
                stills,
                new Cancel(),
                (done, live) -> {
                    told.add(done);
                    figures.add(live);
                },
                safe -> {},
                (doing, done) -> {},
                frame -> {});
        for (int n = 1; n <= 1000; n++) {
            progress.frames(n, new RenderWatch.Shares(1, 2, 5));
        }
        assertThat(told.size()).isLessThan(100);
        assertThat(told.getLast()).isEqualTo(1000);
        assertThat(figures.getLast().secondsLeft()).isZero();
        assertThat(figures.getLast().encode()).isEqualTo(0.625);
    }

    @Test
    void framesOnDiskCountFromWhatWasThereBefore() {
        var safe = new ArrayList<Integer>();
        var progress = new Progress(
                100, stills, new Cancel(), (done, live) -> {}, safe::add, (doing, done) -> {}, frame -> {});
        progress.begins(40);
        assertThat(progress.before()).isEqualTo(40);
        progress.segment(4, 10);
        progress.segment(5, 10);
        assertThat(safe).containsExactly(50, 60);
    }

    @Test
    void givesWayWhileAStillIsMadeAndNoLonger() {
        when(stills.isBusy()).thenReturn(true, true, false);
        doCallRealMethod().when(stills).awaitUrgent(any());
        new Progress(1, stills, new Cancel(), (done, live) -> {}, safe -> {}, (doing, done) -> {}, frame -> {})
                .giveWay();
        verify(stills, times(3)).isBusy();
    }

    @Test
    void aPictureIsWantedAtOnceAndThenNotForAWhile() {
        var shown = new ArrayList<ScreenPicture>();
        var progress =
                new Progress(9, stills, new Cancel(), (done, live) -> {}, safe -> {}, (doing, done) -> {}, shown::add);
        assertThat(progress.wantsPicture()).isTrue();
        var picture = new ScreenPicture(1, 1, new byte[3]);
        progress.picture(picture);
        assertThat(shown).containsExactly(picture);
        assertThat(progress.wantsPicture()).isFalse();
    }
}
