package awlsmith.core.condition;

/**
 * One thing that may be wrong with a clip, measured.
 *
 * @param id fixed name
 * @param label on the screen
 * @param value measured
 * @param unit of the value
 * @param severity 0 for nothing, 1 for as bad as it gets; below {@link #NOTICED} nobody would notice (levels are common
 *     practice, no source)
 * @param words what was found, in a phrase
 * @param method how it was measured, and after whom
 */
public record Finding(
        String id, String label, double value, String unit, double severity, String words, String method) {
    public static final double NOTICED = 0.25;

    public Finding {
        severity = Double.isNaN(severity) ? 0 : Math.clamp(severity, 0, 1);
    }

    /** Whether it is more than a sound clip has. */
    public boolean isNoticed() {
        return severity >= NOTICED;
    }
}
