package awlsmith.benchmarks;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Locale;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class FiguresTest {
    @Test
    void runsAreCountedAndSorted() {
        var runs = new AtomicInteger();
        double[] seconds = Figures.seconds(5, runs::incrementAndGet);
        assertThat(runs).hasValue(5);
        assertThat(seconds).hasSize(5).isSorted();
        assertThat(Figures.median(new double[] {1, 2, 9})).isEqualTo(2);
    }

    @Test
    void figuresHaveAPointWhereverTheMachineStands() {
        Locale before = Locale.getDefault();
        try {
            Locale.setDefault(Locale.GERMANY);
            assertThat(Figures.text("%.2f", 1.5)).isEqualTo("1.50");
        } finally {
            Locale.setDefault(before);
        }
    }
}
