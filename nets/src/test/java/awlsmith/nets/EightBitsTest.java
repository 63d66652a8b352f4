package awlsmith.nets;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.model.ModelCard;
import awlsmith.core.model.NetForm;
import awlsmith.core.model.NetRunner;
import awlsmith.core.picture.Plane;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

class EightBitsTest {
    /** A form with other sums than elsewhere is not run where it would be. */
    @Test
    void theFormFollowsTheProcessor() {
        System.setProperty("awlsmith.eight-bits", "off");
        assertThat(new ShippedModels().quickest()).isEqualTo(NetForm.FLOAT);
        assertThat(new ShippedModels().runs(NetForm.EIGHT_BITS)).isFalse();
        assertThat(new ShippedModels().runs(NetForm.FLOAT)).isTrue();
        System.setProperty("awlsmith.eight-bits", "on");
        assertThat(new ShippedModels().quickest()).isEqualTo(NetForm.EIGHT_BITS);
    }

    @AfterEach
    void clear() {
        System.clearProperty("awlsmith.eight-bits");
    }

    /** The names of the instructions as Linux tells them (arch/x86/include/asm/cpufeatures.h). */
    @Test
    void aProcessorThatMultipliesBytesIsRecognised() {
        assertThat(EightBits.isNamed("flags\t\t: fpu avx2 avx512_vnni sse\n")).isTrue();
        assertThat(EightBits.isNamed("model: x\nflags\t: avx_vnni\n")).isTrue();
        assertThat(EightBits.isNamed("flags\t: avx2 avx512vl\n")).isFalse();
        assertThat(EightBits.isNamed("Features\t: fp asimd\n")).isFalse();
        assertThat(EightBits.isNamed("")).isFalse();
    }

    /** Where a net ships in eight bits too, both forms give nearly the same: what differs is far below what can be seen. */
    @Test
    void bothFormsGiveNearlyTheSamePicture() {
        ModelCard card = new ShippedModels()
                .cards().stream()
                        .filter(one -> one.id().equals("photographic") && one.mode() == ModelCard.Mode.QUALITY)
                        .findFirst()
                        .orElseThrow();
        Plane whole = correction(NetForm.FLOAT, card);
        Plane quick = correction(NetForm.EIGHT_BITS, card);
        double error = 0;
        double all = 0;
        for (int i = 0; i < whole.data().length; i++) {
            double d = whole.data()[i] - quick.data()[i];
            error += d * d / whole.data().length;
            all += whole.data()[i] * whole.data()[i] / whole.data().length;
        }
        assertThat(255 * Math.sqrt(error)).isBetween(0.001, 0.8);
        assertThat(Math.sqrt(error)).isLessThan(0.25 * Math.sqrt(all));
    }

    private static Plane correction(NetForm form, ModelCard card) {
        NetRunner net = new ShippedModels().open(card, form);
        Plane in = Plane.of(64, 48);
        for (int y = 0; y < 48; y++) {
            for (int x = 0; x < 64; x++) {
                in.set(x, y, (float) (0.5 + (x / 9 % 2 == 0 ? 0.2 : -0.2) + 0.1 * Math.sin(y * 0.7)));
            }
        }
        Plane out = Plane.of(128, 96);
        net.run(card.told() ? List.of(in, Plane.of(64, 48)) : List.of(in), out);
        return out;
    }
}
