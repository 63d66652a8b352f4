package awlsmith.core.recipe;

import awlsmith.core.picture.Format;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.Placement;

/**
 * A treatment as the two pictures that are held against each other: what is shown as the source, which the steps up to the last that
 * turns the picture make, and the treated one.
 *
 * @param base the steps up to the last that turns the picture
 * @param behind the stages behind them
 * @param whole all of it
 */
public record Sides(Treatment base, Chain behind, Treatment whole) {
    /** Parts a treatment where its picture is turned for the last time. */
    public static Sides of(Treatment whole) {
        int turned = whole.turned();
        return new Sides(whole.prefix(turned), whole.behind(turned), whole);
    }

    /** Of the picture shown as the source. */
    public Format source() {
        return base.output();
    }

    /** Of the treated picture. */
    public Format treated() {
        return whole.output();
    }

    /** All stages. */
    public Chain chain() {
        return whole.chain();
    }

    /** Where the source picture lies in the treated one; where geometry moves, at rest. */
    public Placement place() {
        return behind.placement();
    }

    /** Where the source picture lies in a treated frame. */
    public Placement place(long output) {
        return behind.placement(output);
    }
}
