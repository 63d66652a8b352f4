package awlsmith.server.models;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyDouble;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.Models;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.render.Machine;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.OptionalDouble;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class ModelSpeedsTest {
    private static final Instant NOW = Instant.parse("2031-05-06T07:08:09Z");
    private final ModelSpeedRepository kept = mock();
    private final Machine machine = Machine.of(1);
    private final ModelSpeeds speeds = new ModelSpeeds(kept, machine, Clock.fixed(NOW, ZoneOffset.UTC));
    private final ModelCard card =
            Models.find("photographic", ModelCard.Mode.FAST).orElseThrow();

    @BeforeEach
    void nothingIsKept() {
        when(kept.find(any(), any())).thenReturn(OptionalDouble.empty());
    }

    @AfterEach
    void close() {
        machine.close();
    }

    private static Chain chain(String step) {
        var format = new Format(400, 300, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        return new Recipe(List.of(Step.parse(step))).chain(format);
    }

    @Test
    void aSpeedIsMeasuredOnceAndKept() {
        assertThat(speeds.ifKnown(card)).isEmpty();
        double speed = speeds.pixelsASecond(card);
        assertThat(speed).isPositive();
        assertThat(speeds.pixelsASecond(card)).isEqualTo(speed);
        assertThat(speeds.ifKnown(card)).hasValue(speed);
        verify(kept, times(1)).keep("photographic", "fast", speed, NOW);
    }

    @Test
    void whatWasMeasuredBeforeIsUsedUntilItIsMeasuredAgain() {
        when(kept.find("photographic", "fast")).thenReturn(OptionalDouble.of(7));
        assertThat(speeds.pixelsASecond(card)).isEqualTo(7);
        verify(kept, never()).keep(any(), any(), anyDouble(), any());
        speeds.measureAgain(card);
        assertThat(speeds.pixelsASecond(card)).isGreaterThan(7);
        verify(kept).keep(eq("photographic"), eq("fast"), anyDouble(), eq(NOW));
    }

    /** Two passes: 400x300 pixels, then 800x600, at 120 000 a second. */
    @Test
    void everyPassOfAModelTakesItsTime() {
        when(kept.find("photographic", "fast")).thenReturn(OptionalDouble.of(120_000));
        assertThat(speeds.secondsAFrame(chain("enlarge factor=2 model=photographic mode=fast")))
                .isEqualTo(1);
        assertThat(speeds.secondsAFrame(chain("enlarge factor=3 model=photographic mode=fast")))
                .isEqualTo(5);
        assertThat(speeds.secondsAFrame(chain("enlarge factor=2"))).isZero();
    }
}
