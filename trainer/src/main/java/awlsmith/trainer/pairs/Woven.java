package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.footage.Pictures;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/**
 * Fields of a picture that moves: a background, and often something before it that goes its own way, each at a speed, turning
 * and growing, some as a hand shakes. Six fields, a sixtieth or fiftieth of a second apart, become three woven frames.
 */
public record Woven() implements PairMaker {
    private static final int WIDE = 224;
    private static final int HIGH = 352;
    private static final int FIELDS = 6;
    private static final int NOW = 2;
    /** One scene for so many samples of the clean picture. */
    private static final double AREA = 110_000;

    @Override
    public String words() {
        return "scenes of six fields: three in ten still, the rest at 0.05 to 14 samples a field, some turning, growing or shaken;"
                + " before two in three a piece of the same picture goes its own way; half with grain of standard deviation up to"
                + " 5 of 255, one in seven changing its light, one in twelve cut within; rounded to eight bits";
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        var pairs = new ArrayList<Pair>();
        long scenes = Math.max(1, Math.round((double) sharp.width() * sharp.height() / AREA));
        for (int i = 0; i < scenes; i++) {
            pairs.add(scene(sharp, random));
        }
        return pairs;
    }

    private static Pair scene(Plane sharp, SplittableRandom random) {
        var back = new Layer(sharp, WIDE, HIGH, FIELDS, NOW, Layer.Sampling.FREE, random, true);
        var cutTo = new Layer(sharp, WIDE, HIGH, FIELDS, NOW, Layer.Sampling.FREE, random, true);
        int cut = random.nextInt(12) == 0 ? 1 + random.nextInt(FIELDS - 1) : FIELDS;
        Layer front = random.nextInt(3) < 2
                ? new Layer(sharp, WIDE, HIGH, FIELDS, NOW, Layer.Sampling.FREE, random, false)
                : null;
        double grain = random.nextBoolean() ? 5.0 / 255 * Math.pow(random.nextDouble(), 2) : 0;
        double fade = random.nextInt(7) == 0 ? 0.06 * (random.nextDouble() - 0.5) : 0;
        int parity = random.nextInt(2);
        List<Plane> whole = new ArrayList<>();
        for (int n = 0; n < FIELDS; n++) {
            whole.add(Layer.picture(
                    n < cut == NOW < cut ? back : cutTo, front, WIDE, HIGH, n - NOW, 1 + fade * (n - NOW)));
        }
        var frames = new ArrayList<Plane>();
        for (int n = 0; n < FIELDS; n += 2) {
            Plane frame = Plane.of(WIDE, HIGH);
            for (int y = 0; y < HIGH; y++) {
                Plane from = whole.get(y % 2 == parity ? n : n + 1);
                System.arraycopy(from.data(), from.row(y), frame.data(), frame.row(y), WIDE);
            }
            for (int i = 0; grain > 0 && i < frame.data().length; i++) {
                frame.data()[i] += (float) (grain * random.nextGaussian());
            }
            frames.add(Pictures.eightBits(frame));
        }
        return new Weaving(frames.get(0), frames.get(1), frames.get(2), parity, whole.get(NOW));
    }
}
