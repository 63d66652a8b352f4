package awlsmith.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class DroppedTest {
    /** Frames that show nothing, at these times in frames of 1/25 s. */
    private static List<FrameNote> at(double... times) {
        var notes = new ArrayList<FrameNote>();
        for (double time : times) {
            notes.add(new FrameNote(0.5, time / 25, FrameNote.NO_CHANGE, FrameNote.NO_SHIFT));
        }
        return notes;
    }

    @Test
    void aHoleInTheTimesIsSoManyFrames() {
        var found = Dropped.among(at(0, 1, 2, 3, 4, 7, 8, 9, 10, 11, 12, 13), List.of());
        assertThat(found).containsExactly(new Dropped(5, 2, true));
    }

    /** A recording of a screen keeps each picture as long as nothing changes: it has lost none. */
    @Test
    void framesThatLastAsTheyLikeAreNotMissing() {
        assertThat(Dropped.among(at(0, 1, 5, 6, 7, 11, 12, 20, 21, 22), List.of()))
                .isEmpty();
    }

    @Test
    void aFrameOrNoneIsNoTrouble() {
        assertThat(Dropped.among(at(0), List.of())).isEmpty();
        assertThat(Dropped.among(List.of(), List.of())).isEmpty();
    }
}
