package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.resample.Kernel;
import awlsmith.trainer.pictures.Photographs;
import java.util.List;
import java.util.SplittableRandom;

/** Only smaller: reduced by each of a few kernels, rounded to eight bits as footage is. */
public record Reduced(List<Kernel> kernels) implements PairMaker {
    @Override
    public String words() {
        return "reduced by "
                + String.join(", ", kernels.stream().map(Kernel::id).toList());
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        return kernels.stream()
                .map(kernel -> new Pair(
                        eightBits(Photographs.resized(sharp, sharp.width() / factor, sharp.height() / factor, kernel)),
                        sharp,
                        factor))
                .toList();
    }

    /** Rounded to the 220 steps that eight-bit video has from black to white (ITU-R BT.709-6, item 4.6). */
    static Plane eightBits(Plane p) {
        float[] data = p.data();
        for (int i = 0; i < data.length; i++) {
            data[i] = Math.round(Math.clamp(data[i], 0, 1) * 219) / 219f;
        }
        return p;
    }
}
