package awlsmith.core.upscale;

import awlsmith.core.resample.Kernel;
import java.util.Map;

/**
 * What is known of a model.
 *
 * @param id of the family, as in recipes: what footage it is for
 * @param mode how much computing it takes
 * @param label name on the screen
 * @param purpose which footage it is for, in a sentence
 * @param factor times wider and higher it makes a picture
 * @param reach input samples around a sample that its answer depends on
 * @param base plain enlargement that its correction is added to
 * @param weights how many numbers were learned
 * @param training how and from what it was trained, in sentences by heading, for reading
 */
public record ModelCard(
        String id,
        Mode mode,
        String label,
        String purpose,
        int factor,
        int reach,
        Kernel base,
        long weights,
        Map<String, String> training) {

    /** How much computing a model takes. */
    public enum Mode {
        QUALITY("quality"),
        FAST("fast");

        private final String id;

        Mode(String id) {
            this.id = id;
        }

        public String id() {
            return id;
        }

        public static Mode byId(String id) {
            for (Mode mode : values()) {
                if (mode.id.equals(id)) {
                    return mode;
                }
            }
            throw new IllegalArgumentException("there is no mode '" + id + "'; there are quality, fast");
        }
    }

    public ModelCard {
        training = Map.copyOf(training);
        if (factor < 1 || factor > 4 || reach < 0) {
            throw new IllegalArgumentException(
                    "model " + id + " has factor " + factor + " and reach " + reach + ", must be 1..4 and at least 0");
        }
    }
}
