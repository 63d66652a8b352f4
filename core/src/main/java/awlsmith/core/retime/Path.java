package awlsmith.core.retime;

/** The way between places that are known at whole moments. */
final class Path {
    private Path() {}

    /**
     * How far beside the straight line from one place to the next the path lies that goes smoothly through both and the places before and after
     * them. Source: E. Catmull and R. Rom, "A class of local interpolating splines", 1974; that frames between are better placed so, X. Xu et al.,
     * "Quadratic video interpolation", NeurIPS 2019 (from memory).
     *
     * @param before what was moved in the step before, @param now in this one, @param after in the next
     * @param share of this step, 0..1
     */
    static float besideStraight(float before, float now, float after, float share) {
        float s = share;
        // places -before, 0, now, now + after
        float squares = -2 * before + 4 * now - (now + after);
        float cubes = before - 3 * now + now + after;
        float path = 0.5f * ((now + before) * s + squares * s * s + cubes * s * s * s);
        return path - s * now;
    }
}
