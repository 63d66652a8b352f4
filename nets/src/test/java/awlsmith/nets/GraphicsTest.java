package awlsmith.nets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.ModelUnavailable;
import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Nets on a graphics processor, on machines that have none: there the cores go on, and it is told. */
class GraphicsTest {
    @AfterEach
    void cores() {
        Models.useGraphics(false);
    }

    @Test
    void netsRunOnTheCoresWhenNothingIsWanted() {
        assertThat(Models.usual()).isNotEqualTo(NetForm.GRAPHICS);
        assertThat(Models.processor()).isEqualTo("the processor's cores");
    }

    @Test
    void whereThereIsNoneTheCoresGoOnAndItIsTold() {
        String why = Models.noGraphics().orElse(null);
        assumeTrue(why != null, "there is a graphics processor here");
        NetForm form = Models.usual();
        Models.useGraphics(true);
        assertThat(Models.usual()).isEqualTo(form);
        assertThat(Models.runs(NetForm.GRAPHICS)).isFalse();
        assertThat(Models.processor()).isEqualTo("the processor's cores, as " + why);
    }

    /** A render that was begun there is not made here by chance in other arithmetic. */
    @Test
    void aNetAskedForThereIsNoNetOnTheCores() {
        assumeTrue(Models.noGraphics().isPresent(), "there is a graphics processor here");
        ModelCard card = Models.find("photographic", ModelCard.Mode.QUALITY).orElseThrow();
        assertThatThrownBy(() -> Models.open(card, NetForm.GRAPHICS))
                .isInstanceOf(ModelUnavailable.class)
                .hasMessageContaining("let nets run on the cores");
    }

    @Test
    void otherMachinesMakeTheSamePixelsOnCoresAlone() {
        assertThat(NetForm.FLOAT.isSameElsewhere()).isTrue();
        assertThat(NetForm.EIGHT_BITS.isSameElsewhere()).isTrue();
        assertThat(NetForm.GRAPHICS.isSameElsewhere()).isFalse();
    }
}
