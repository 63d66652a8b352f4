package awlsmith.core.plan;

import awlsmith.core.picture.Format;
import java.util.Optional;
import java.util.Set;

/**
 * What else to send out in, and why, where a source is worth more than what was chosen keeps. Common practice, no source.
 *
 * @param preset that keeps it; @param why in a sentence
 */
public record Advice(Preset preset, String why) {
    /** What is cut and graded further is not coded in these. */
    private static final Set<String> FOR_LOOKING = Set.of("h264", "h265", "av1", "vp9");

    /**
     * @param source of the clip
     * @param isLog whether it looks like a camera's logarithmic recording
     * @param now what was chosen
     */
    public static Optional<Advice> of(Format source, boolean isLog, Deliverable now) {
        boolean isDeep = source.depth() >= 10;
        if (!isDeep || !FOR_LOOKING.contains(now.codec().id())) {
            return Optional.empty();
        }
        Preset cut = Preset.byId("edit");
        return Optional.of(new Advice(
                cut,
                isLog
                        ? "the clip looks like a camera's logarithmic recording, which is graded later: '" + cut.label()
                                + "' keeps its " + source.depth() + " bits, every picture by itself"
                        : "the clip has " + source.depth() + " bits, which grading needs: '" + cut.label()
                                + "' keeps 10 of every picture, where this is made for looking"));
    }
}
