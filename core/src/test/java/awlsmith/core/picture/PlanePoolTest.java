package awlsmith.core.picture;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class PlanePoolTest {
    @Test
    void whatIsGivenBackIsLentAgain() {
        var pool = new PlanePool(10_000);
        Plane plane = pool.borrow(10, 8);
        pool.giveBack(plane);
        assertThat(pool.borrow(8, 10).data()).isSameAs(plane.data());
    }

    /** Sizes that nobody asks for any more make room for those that are in use. */
    @Test
    void oddSizesDoNotFillIt() {
        var pool = new PlanePool(4 * 1000);
        for (int width = 1; width < 60; width++) {
            pool.giveBack(pool.borrow(width, 3));
        }
        Plane wanted = pool.borrow(30, 30);
        pool.giveBack(wanted);
        assertThat(pool.borrow(30, 30).data()).isSameAs(wanted.data());
    }

    @Test
    void whatIsLargerThanAllThatIsKeptIsNotKept() {
        var pool = new PlanePool(100);
        Plane large = pool.borrow(100, 100);
        pool.giveBack(large);
        assertThat(pool.borrow(100, 100).data()).isNotSameAs(large.data());
        var none = new PlanePool(0);
        Plane plane = none.borrow(4, 4);
        none.giveBack(plane);
        assertThat(none.borrow(4, 4).data()).isNotSameAs(plane.data());
    }
}
