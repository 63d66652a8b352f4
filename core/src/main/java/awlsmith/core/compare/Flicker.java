package awlsmith.core.compare;

import awlsmith.core.picture.Plane;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * How restless a picture is where it should rest: the change from one frame to the next in the blocks that change least in
 * the source. Noise that stays is part of it, and so is a treatment that decides anew in every frame (our own measure, no
 * source).
 */
public final class Flicker {
    private static final int BLOCK = 8;
    /** Share of blocks taken for still. */
    private static final double STILL = 0.3;

    private static final double CODES = 255;

    private Flicker() {}

    private record Block(int x, int y, double change) {}

    /**
     * @param before source luma of one frame; @param after of the next
     * @param treatedBefore luma of the treated picture at the same scale; @param treatedAfter of the next frame
     * @return standard deviation of the change in steps of 255, as that of one frame; NaN for pictures without
     *     one whole block
     */
    public static double of(Plane before, Plane after, Plane treatedBefore, Plane treatedAfter) {
        var blocks = new ArrayList<Block>();
        for (int y = 0; y + BLOCK <= before.height(); y += BLOCK) {
            for (int x = 0; x + BLOCK <= before.width(); x += BLOCK) {
                blocks.add(new Block(x, y, Math.abs(mean(after, x, y) - mean(before, x, y))));
            }
        }
        if (blocks.isEmpty()) {
            return Double.NaN;
        }
        List<Block> still = blocks.stream()
                .sorted(Comparator.comparingDouble(Block::change))
                .limit(Math.max(1, Math.round(blocks.size() * STILL)))
                .toList();
        double sum = 0;
        for (Block block : still) {
            for (int y = block.y(); y < block.y() + BLOCK; y++) {
                for (int x = block.x(); x < block.x() + BLOCK; x++) {
                    double d = treatedAfter.at(x, y) - treatedBefore.at(x, y);
                    sum += d * d;
                }
            }
        }
        // the difference of two frames varies twice as much as each
        return CODES * Math.sqrt(sum / ((double) still.size() * BLOCK * BLOCK) / 2);
    }

    private static double mean(Plane luma, int x0, int y0) {
        double sum = 0;
        for (int y = y0; y < y0 + BLOCK; y++) {
            for (int x = x0; x < x0 + BLOCK; x++) {
                sum += luma.at(x, y);
            }
        }
        return sum / (BLOCK * BLOCK);
    }
}
