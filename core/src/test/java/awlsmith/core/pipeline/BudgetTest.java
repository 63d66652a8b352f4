package awlsmith.core.pipeline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.SplittableRandom;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class BudgetTest {
    @Test
    void whatNeverFitsIsRefusedWithTheFigures() {
        var budget = new Budget(100_000_000);
        assertThatThrownBy(() -> budget.take(150_000_000, 1, new Cancel()))
                .isInstanceOf(Budget.Exceeded.class)
                .hasMessageContaining("150 MB")
                .hasMessageContaining("100 MB are allowed");
        assertThatThrownBy(() -> budget.takeBehind(90_000_000, new Cancel())).hasMessageContaining("80 MB are allowed");
        assertThat(budget.held()).isZero();
    }

    @Test
    void backgroundWorkLeavesRoomForThoseWhoLook() {
        var budget = new Budget(100);
        try (var render = budget.takeBehind(80, new Cancel())) {
            budget.take(20, 1, new Cancel()).close();
            assertThatThrownBy(() -> budget.take(30, 0, new Cancel())).hasMessageContaining("try again in a moment");
            assertThat(render).isNotNull();
        }
        var grant = budget.take(100, 0, new Cancel());
        grant.close();
        grant.close();
        assertThat(budget.held()).isZero();
    }

    @Test
    void whoWaitsIsServedOrStopped() {
        var budget = new Budget(10);
        var first = budget.take(10, 0, new Cancel());
        var waiting = CompletableFuture.supplyAsync(() -> budget.takeBehind(8, new Cancel()));
        assertThat(waiting).isNotDone();
        first.close();
        waiting.join().close();
        var again = budget.take(10, 0, new Cancel());
        var cancel = new Cancel();
        var stopped =
                CompletableFuture.runAsync(() -> budget.takeBehind(8, cancel).close());
        cancel.ask();
        assertThatThrownBy(stopped::join).hasCauseInstanceOf(Cancel.Stopped.class);
        again.close();
        assertThat(budget.held()).isZero();
    }

    @Test
    void aShareOfItHoldsAtOnceAndForThoseWhoWait() {
        var budget = new Budget(100);
        var held = budget.take(60, 0, new Cancel());
        var tooMuch = CompletableFuture.runAsync(
                () -> budget.takeBehind(60, new Cancel()).close());
        var fits = CompletableFuture.runAsync(
                () -> budget.takeBehind(30, new Cancel()).close());
        budget.lend(0.5);
        assertThat(budget.limit()).isEqualTo(50);
        assertThat(budget.background()).isEqualTo(40);
        assertThatThrownBy(tooMuch::join).hasCauseInstanceOf(Budget.Exceeded.class);
        held.close();
        fits.join();
        budget.lend(1);
        budget.take(100, 0, new Cancel()).close();
        assertThat(budget.whole()).isEqualTo(100);
        assertThatThrownBy(() -> budget.lend(0)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void neverMoreIsHeldThanThereIs() {
        var budget = new Budget(1000);
        var now = new AtomicLong();
        var most = new AtomicLong();
        IntStream.range(0, 400).parallel().forEach(i -> {
            var random = new SplittableRandom(i);
            long bytes = 1 + random.nextInt(600);
            try (var grant =
                    i % 2 == 0 ? budget.take(bytes, 60, new Cancel()) : budget.takeBehind(bytes, new Cancel())) {
                most.accumulateAndGet(now.addAndGet(bytes), Math::max);
                Thread.onSpinWait();
                now.addAndGet(-bytes);
                assertThat(grant).isNotNull();
            }
        });
        assertThat(most.get()).isLessThanOrEqualTo(1000);
        assertThat(budget.held()).isZero();
    }
}
