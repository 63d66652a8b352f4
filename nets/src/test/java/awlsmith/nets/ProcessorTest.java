package awlsmith.nets;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import awlsmith.core.model.ModelUnavailable;
import awlsmith.core.model.Models;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class ProcessorTest {
    @AfterEach
    void choose() {
        System.clearProperty(Processor.PROPERTY);
    }

    @Test
    void theCoresAreChosenWhenNothingIs() {
        assertThat(Processor.chosen()).isEqualTo(Processor.CORES);
        assertThat(Models.processor()).isEqualTo("the processor's cores");
    }

    @Test
    void whatThisBuildCannotUseIsASentence() {
        System.setProperty(Processor.PROPERTY, "abacus");
        assertThatThrownBy(Processor::chosen)
                .isInstanceOf(ModelUnavailable.class)
                .hasMessageContaining("'abacus', must be one of cores, graphics");
        System.setProperty(Processor.PROPERTY, "graphics");
        if (Processor.built().contains(Processor.GRAPHICS)) {
            assertThat(Processor.chosen()).isEqualTo(Processor.GRAPHICS);
        } else {
            assertThatThrownBy(Processor::chosen).hasMessageContaining("unset AWLSMITH_PROCESSOR");
            assertThat(Models.processor()).contains("unset AWLSMITH_PROCESSOR");
        }
    }
}
