package awlsmith.core.condition;

import awlsmith.core.measure.Borders;
import awlsmith.core.picture.Scan;
import java.util.List;
import java.util.Optional;

/**
 * The condition of a clip.
 *
 * @param findings in a fixed order; those of the picture are always there, those of the sound where there is any
 * @param scan how the lines were really taken
 * @param pulldown a cadence by which frames or fields were repeated, if one was found
 * @param borders black beside the picture in every frame
 * @param cuts scenes begin at this many places
 * @param drawn whether it looks like drawings: flat colours with hard edges
 * @param light what of the range is used
 * @param coarse whether its noise is coarser than from pixel to pixel
 * @param bell standard deviation of the bell that edges look blurred by, in samples; NaN where there are too few
 * @param smear a blur of one way, as moved cameras leave it, if there is one
 * @param repeated whether it was enlarged by repeating pixels
 */
public record Condition(
        List<Finding> findings,
        Scan scan,
        Optional<Pulldown> pulldown,
        Borders borders,
        int cuts,
        boolean drawn,
        Light light,
        boolean coarse,
        double bell,
        Optional<Smear> smear,
        boolean repeated) {
    public Condition {
        findings = List.copyOf(findings);
    }

    /**
     * Frames or fields repeated in a rhythm.
     *
     * @param fields true for repeated fields (3:2 on interlaced footage), false for whole frames
     * @param period frames until the rhythm comes again
     * @param phase number of the repeated frame, or of the first of the two combed ones, within a period
     */
    public record Pulldown(boolean fields, int period, int phase) {}

    /**
     * A blur of one way.
     *
     * @param length samples; @param angle degrees, 0 sideways, below 90 rising to the right
     */
    public record Smear(double length, double angle) {}

    /**
     * Where light lies over the whole clip, so that levels set by it crush no scene.
     *
     * @param low luma that nearly nothing of nearly any frame is below; @param high above which
     */
    public record Light(double low, double high) {}

    /** One that is always there, see above. */
    public Finding finding(String id) {
        return findings.stream()
                .filter(one -> one.id().equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no finding is called " + id));
    }

    /** One that is there for some clips alone. */
    public Optional<Finding> ifThere(String id) {
        return findings.stream().filter(one -> one.id().equals(id)).findFirst();
    }

    /** The worst one that anyone would notice. */
    public Optional<Finding> worst() {
        return findings.stream().filter(Finding::isNoticed).max((a, b) -> Double.compare(a.severity(), b.severity()));
    }
}
