package awlsmith.core.model;

import awlsmith.core.resample.Kernel;
import java.util.Map;

/**
 * What is known of a model.
 *
 * @param job what it does
 * @param id of the family, as in recipes: what footage it is for
 * @param mode what it aims at
 * @param label name on the screen
 * @param purpose which footage it is for, in a sentence
 * @param factor times wider and higher it makes a picture
 * @param reach input samples around a sample that its answer depends on
 * @param step samples across and down that it reads as one: parts of a picture it is given begin at multiples of this
 * @param frames of an enlarging model that it reads, odd: the one it enlarges and its neighbours, see {@link awlsmith.core.upscale.FramesAround}
 * @param told whether it can be told how soft footage is, see {@link awlsmith.core.upscale.Softness}; it reads a plane of that after the frames
 * @param base plain enlargement that its correction is added to
 * @param weights how many numbers were learned
 * @param training how and from what it was trained, in sentences by heading, for reading
 */
public record ModelCard(
        Job job,
        String id,
        Mode mode,
        String label,
        String purpose,
        int factor,
        int reach,
        int step,
        int frames,
        boolean told,
        Kernel base,
        long weights,
        Map<String, String> training) {

    /** What a model does. */
    public enum Job {
        /** Corrects a plain enlargement. */
        ENLARGE("enlarge"),
        /** Corrects the lines that a field lacks, see {@link awlsmith.core.fields.FieldsAround#seen}. */
        FIELDS("fields"),
        /** Corrects what was cleaned of noise, see {@link awlsmith.core.clean.DenoiseStage}. */
        DENOISE("denoise"),
        /** Corrects what a lossy codec did, see {@link awlsmith.core.clean.RepairStage}. */
        REPAIR("repair"),
        /** Corrects what is soft and worn at its own size, see {@link awlsmith.core.clean.RepairStage}. */
        REFINE("refine");

        private final String id;

        Job(String id) {
            this.id = id;
        }

        public String id() {
            return id;
        }

        public static Job byId(String id) {
            for (Job job : values()) {
                if (job.id.equals(id)) {
                    return job;
                }
            }
            throw new IllegalArgumentException(
                    "there is no job '" + id + "'; there are enlarge, fields, denoise, repair, refine");
        }
    }

    /** What a model aims at. */
    public enum Mode {
        /** Least error. */
        QUALITY("quality"),
        /** Edges and texture as strong as the truth's, for a little more error; the same computing. */
        CRISP("crisp"),
        /** Texture that could have been there, made up where the picture has lost it. */
        MADE("made"),
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
            throw new IllegalArgumentException("there is no mode '" + id + "'; there are quality, crisp, made, fast");
        }
    }

    public ModelCard {
        training = Map.copyOf(training);
        if (factor < 1 || factor > 4 || reach < 0 || step < 1 || step > 4 || frames < 1 || frames % 2 == 0) {
            throw new IllegalArgumentException("model " + id + " has factor " + factor + ", reach " + reach + ", step "
                    + step + " and " + frames + " frames, must be 1..4, at least 0, 1..4, and odd");
        }
    }
}
