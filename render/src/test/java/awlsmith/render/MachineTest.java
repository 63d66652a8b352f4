package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class MachineTest {
    @Test
    void cachesTakeTheirShareOfASmallHeapAndNoMoreThanTheyNeedOfALargeOne() {
        long heap = Runtime.getRuntime().maxMemory();
        assertThat(Machine.forCache(1000, 0.5)).isEqualTo(1000);
        assertThat(Machine.forCache(Long.MAX_VALUE, 0.1)).isBetween(heap / 11, heap / 9);
    }
}
