package awlsmith.trainer.pairs;

import awlsmith.core.clean.RepairStage;
import awlsmith.core.picture.Plane;
import awlsmith.footage.Codec;
import awlsmith.footage.Pictures;
import java.util.List;
import java.util.SplittableRandom;

/** Moving pictures made soft, grainy and coded, at their own size; what is wanted is the picture sharp and clean. */
public record Dulled() implements PairMaker {
    private static final Scene.Size SIZE = new Scene.Size(352, 288, 200_000);

    private static final double MOST_BLUR = 2;

    @Override
    public String words() {
        return Scene.WORDS + "; three in four blurred by up to " + MOST_BLUR
                + " samples, a third of these not alike both ways; one in four with grain of standard deviation 1 to 5 of 255; three in five"
                + " through H.264 at CRF 17 to 36, three in twenty through MPEG-2 at quantiser 2 to 10, the rest through none; told how soft it"
                + " is two times in three, up to a seventh wrong, and how coarsely the codec rounded as often";
    }

    @Override
    public List<Pair> of(Plane sharp, int factor, SplittableRandom random) {
        return SIZE.scenes(sharp, 16, random, truth -> scene(truth, random));
    }

    private static List<Pair> scene(List<Plane> truth, SplittableRandom random) {
        double across = random.nextInt(4) == 0 ? 0 : MOST_BLUR * random.nextDouble();
        double down = random.nextInt(3) == 0 ? across * (0.4 + 0.6 * random.nextDouble()) : across;
        double grain = random.nextInt(4) == 0 ? Math.pow(5, random.nextDouble()) / 255 : 0;
        List<Plane> dull = truth.stream()
                .map(plane -> Blur.gaussian(plane, across, down))
                .map(plane -> grain == 0 ? plane : Coded.grainy(plane, grain, random))
                .toList();
        String encoder = encoder(random);
        Codec.Coded coded = encoder.isEmpty()
                ? new Codec.Coded(dull.stream().map(Pictures::eightBits).toList(), java.util.OptionalDouble.of(1))
                : Codec.coded(dull, encoder);
        float rounding = coded.step().isPresent() && random.nextInt(3) > 0
                ? RepairStage.told(coded.step().getAsDouble() * Math.exp(0.1 * random.nextGaussian()))
                : RepairStage.UNKNOWN;
        double blur = Math.sqrt((across * across + down * down) / 2);
        float softness = random.nextInt(3) > 0
                ? RepairStage.soft(blur * Math.exp(0.07 * random.nextGaussian()))
                : RepairStage.UNKNOWN;
        return Coded.of(coded.frames(), truth, List.of(rounding, softness), random);
    }

    private static String encoder(SplittableRandom random) {
        double which = random.nextDouble();
        if (which < 0.6) {
            return "libx264 -preset " + (random.nextBoolean() ? "medium" : "veryfast") + " -crf "
                    + (17 + random.nextInt(20)) + Coded.group(random);
        }
        return which < 0.75 ? "mpeg2video -bf 2 -q:v " + (2 + random.nextInt(9)) + Coded.group(random) : "";
    }
}
