package awlsmith.core.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;

class FrameTest {
    private static final Format FORMAT =
            new Format(7, 5, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);

    @Test
    void halfChromaSamplesAtOddEdgesCountAsWhole() {
        Frame frame = Frame.blank(FORMAT, FORMAT.whole(), 0, Rational.ZERO, new PlanePool(0));
        assertThat(frame.plane(1).width()).isEqualTo(4);
        assertThat(frame.plane(1).height()).isEqualTo(3);
    }

    @Test
    void regionsGrowToWholeChromaSamplesInsideThePicture() {
        assertThat(new Region(3, 1, 2, 2).aligned(Chroma.S420, 7, 5)).isEqualTo(new Region(2, 0, 4, 4));
        assertThat(new Region(6, 4, 1, 1).aligned(Chroma.S420, 7, 5)).isEqualTo(new Region(6, 4, 1, 1));
        assertThat(new Region(3, 1, 2, 2).aligned(Chroma.S444, 7, 5)).isEqualTo(new Region(3, 1, 2, 2));
    }

    @Test
    void planesOfTheWrongSizeAreRefused() {
        var planes = List.of(Plane.of(7, 5), Plane.of(3, 3), Plane.of(4, 3));
        assertThatThrownBy(() -> new Frame(FORMAT, FORMAT.whole(), planes, 0, Rational.ZERO))
                .hasMessageContaining("plane 1 is 3x3");
        assertThatThrownBy(() -> new Frame(FORMAT, new Region(1, 0, 2, 2), planes, 0, Rational.ZERO))
                .hasMessageContaining("does not start on a whole chroma sample");
    }

    @Test
    void thePoolLendsTheSameArraysAgainAndKeepsNoMoreThanAllowed() {
        var pool = new PlanePool(4L * 100);
        Plane first = pool.borrow(10, 10);
        pool.giveBack(first);
        assertThat(pool.borrow(10, 10).data()).isSameAs(first.data());
        Plane large = pool.borrow(20, 20);
        pool.giveBack(large);
        assertThat(pool.borrow(20, 20).data()).isNotSameAs(large.data());
    }
}
