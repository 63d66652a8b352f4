package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.resample.Kernel;
import awlsmith.footage.Codec;
import awlsmith.footage.Pictures;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;

/**
 * What usually happens to footage on its way: a soft lens, reduction, grain, haloes of an over-eager sharpener, a lossy
 * codec. Pictures move, and things before them, so that the codec predicts from frame to frame as it does in footage. All
 * strengths are drawn anew for each scene.
 *
 * @param frames that the net is shown, odd
 */
public record Worn(int frames) implements PairMaker {
    private static final Scene.Size SIZE = new Scene.Size(512, 384, 300_000);

    private static final List<Kernel> KERNELS =
            List.of(Kernel.CATMULL_ROM, Kernel.CATMULL_ROM, Kernel.AREA, Kernel.BILINEAR, Kernel.LANCZOS3);

    @Override
    public String words() {
        return Scene.WORDS + "; half of them blurred by"
                + " up to 1 sample, reduced by a drawn kernel; a third with grain of standard deviation 1 to 10 of 255, the weak more often, a sixth with"
                + " haloes; through H.264 at CRF 18 to 34 (three in four) or MPEG-2 at quantiser 2 to 9, one in ten through"
                + " none";
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        return SIZE.scenes(sharp, 4 * factor, random, truth -> scene(truth, factor, random));
    }

    private List<Pair> scene(List<Plane> truth, int factor, SplittableRandom random) {
        double blurX = random.nextBoolean() ? random.nextDouble() : 0;
        double blurY = random.nextDouble() < 0.7 ? blurX : blurX * random.nextDouble();
        Kernel kernel = KERNELS.get(random.nextInt(KERNELS.size()));
        double grain = random.nextDouble() < 0.35 ? Math.pow(10, random.nextDouble()) / 255 : 0;
        double clump = random.nextDouble() < 0.3 ? 0.6 : 0;
        boolean brighter = random.nextBoolean();
        double halo = random.nextDouble() < 0.16 ? 0.3 + 1.2 * random.nextDouble() : 0;
        String encoder = encoder(random);
        var worn = new ArrayList<Plane>();
        for (Plane clean : truth) {
            Plane small = Pictures.resized(
                    Blur.gaussian(clean, blurX, blurY), clean.width() / factor, clean.height() / factor, kernel);
            if (halo > 0) {
                small = sharpened(small, halo);
            }
            if (grain > 0) {
                add(small, grain, clump, brighter, random);
            }
            worn.add(small);
        }
        List<Plane> coded =
                encoder.isEmpty() ? worn.stream().map(Pictures::eightBits).toList() : Codec.through(worn, encoder);
        return Around.enlarging(coded, truth, frames, factor, random);
    }

    private static String encoder(SplittableRandom random) {
        double which = random.nextDouble();
        if (which < 0.1) {
            return "";
        }
        if (which < 0.85) {
            return "libx264 -preset medium -crf " + (18 + random.nextInt(17));
        }
        return "mpeg2video -g 12 -bf 2 -q:v " + (2 + random.nextInt(8));
    }

    /** Unsharp masking, as cameras and tape decks do it. */
    private static Plane sharpened(Plane in, double amount) {
        Plane soft = Blur.gaussian(in, 1, 1);
        Plane out = Plane.of(in.width(), in.height());
        for (int i = 0; i < out.data().length; i++) {
            out.data()[i] = (float) (in.data()[i] + amount * (in.data()[i] - soft.data()[i]));
        }
        return out;
    }

    /** @param brighter grain that grows with the square root of the light, as photons bring it */
    private static void add(Plane to, double sigma, double clump, boolean brighter, SplittableRandom random) {
        Plane grain = Plane.of(to.width(), to.height());
        for (int i = 0; i < grain.data().length; i++) {
            grain.data()[i] = (float) random.nextGaussian();
        }
        double gain = 1;
        if (clump > 0) {
            grain = Blur.gaussian(grain, clump, clump);
            // a bell of this width leaves 1 / (2 sqrt(pi) clump) of the deviation
            gain = 2 * Math.sqrt(Math.PI) * clump;
        }
        for (int i = 0; i < grain.data().length; i++) {
            double light = brighter ? Math.sqrt(2 * Math.clamp(to.data()[i], 0.02f, 1)) : 1;
            to.data()[i] += (float) (grain.data()[i] * sigma * gain * light);
        }
    }
}
