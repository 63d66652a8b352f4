package awlsmith.core.condition;

import java.util.List;

/**
 * What was measured along time, one value a frame.
 *
 * @param light mean luma, 0..1
 * @param change mean absolute difference to the frame before, of 255
 * @param noise standard deviation of 255, held between samples
 * @param shake distance of the picture from its steady path, in percent of its width
 * @param combed share of blocks combed, 0..1
 * @param cuts first frames of new scenes
 * @param repeats frames that only repeat the one before
 * @param flashes single frames lighter than both neighbours
 * @param fades out of and into black or white
 * @param dropped where frames are missing
 */
public record Curves(
        float[] light,
        float[] change,
        float[] noise,
        float[] shake,
        float[] combed,
        List<Long> cuts,
        List<Long> repeats,
        List<Long> flashes,
        List<Fade> fades,
        List<Dropped> dropped) {}
