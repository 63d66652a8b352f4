package awlsmith.server.dispatch;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doCallRealMethod;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import awlsmith.core.pipeline.Cancel;
import awlsmith.server.stills.Stills;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;

class RenderPaceTest {
    private final Stills stills = mock(Stills.class);

    @Test
    void givesWayWhileAStillIsMadeAndNoLonger() {
        when(stills.isBusy()).thenReturn(true, true, false);
        doCallRealMethod().when(stills).awaitUrgent(any());
        new RenderPace(stills, () -> 1, new Cancel()).run();
        verify(stills, times(3)).isBusy();
    }

    @Test
    void restsAsLongAsItWorkedWhereHalfOfTheTimeIsItsOwn() {
        var pace = new RenderPace(stills, () -> 0.5, new Cancel());
        long begun = System.nanoTime();
        LockSupport.parkNanos(60_000_000);
        double worked = (System.nanoTime() - begun) / 1e9;
        pace.run();
        // it measures its work by itself, from a moment earlier on
        assertThat(pace.restedSeconds()).isGreaterThanOrEqualTo(worked);
    }

    @Test
    void restsNotAtAllWhereTheWholeTimeIsItsOwn() {
        var asked = new AtomicInteger();
        var pace = new RenderPace(
                stills,
                () -> {
                    asked.incrementAndGet();
                    return 1;
                },
                new Cancel());
        pace.run();
        assertThat(asked).hasValue(1);
    }

    @Test
    void goesOnWhenNobodyWorksAnyMore() {
        var asked = new AtomicInteger();
        new RenderPace(stills, () -> asked.incrementAndGet() < 5 ? 0 : 1, new Cancel()).run();
        assertThat(asked).hasValue(5);
    }

    @Test
    void canBeStoppedWhileItWaits() {
        var cancel = new Cancel();
        var pace = new RenderPace(
                stills,
                () -> {
                    cancel.ask();
                    return 0;
                },
                cancel);
        assertThatThrownBy(pace::run).isInstanceOf(Cancel.Stopped.class);
    }
}
