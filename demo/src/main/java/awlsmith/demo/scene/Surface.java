package awlsmith.demo.scene;

/**
 * A painted rectangle in the world. Metres; x right, y up, z away from the first camera.
 *
 * <p>A point of it is {@code origin + u * across + v * down}, u and v 0..1; {@code tilesAcross} and {@code tilesDown}
 * say how often a repeating texture fits.
 */
final class Surface {
    private final Texture texture;
    private final double ox;
    private final double oy;
    private final double oz;
    private final double[] across;
    private final double[] down;
    private final double nx;
    private final double ny;
    private final double nz;
    private final double perNormal;
    private final double perAcross;
    private final double perDown;
    private final double tilesAcross;
    private final double tilesDown;
    private final double texelsPerMetre;
    private final float light;
    private final float haze;

    private Surface(
            Texture texture,
            double[] origin,
            double[] across,
            double[] down,
            double tilesAcross,
            double tilesDown,
            double light,
            double haze) {
        this.texture = texture;
        ox = origin[0];
        oy = origin[1];
        oz = origin[2];
        this.across = across;
        this.down = down;
        nx = across[1] * down[2] - across[2] * down[1];
        ny = across[2] * down[0] - across[0] * down[2];
        nz = across[0] * down[1] - across[1] * down[0];
        perNormal = 1 / Math.sqrt(nx * nx + ny * ny + nz * nz);
        perAcross = 1 / dot(across, across);
        perDown = 1 / dot(down, down);
        this.tilesAcross = tilesAcross;
        this.tilesDown = tilesDown;
        texelsPerMetre = Math.max(
                texture.width() * tilesAcross / Math.sqrt(dot(across, across)),
                texture.height() * tilesDown / Math.sqrt(dot(down, down)));
        this.light = (float) light;
        this.haze = (float) haze;
    }

    /** A wall that faces the first camera; x, y is its lower left corner, heights follow the texture's shape. */
    static Surface standing(Texture texture, double x, double y, double z, double width) {
        double height = width * texture.height() / texture.width();
        return of(texture, new double[] {x, y + height, z}, new double[] {width, 0, 0}, new double[] {0, -height, 0});
    }

    static Surface of(Texture texture, double[] origin, double[] across, double[] down) {
        return new Surface(texture, origin, across, down, 1, 1, 1, 0);
    }

    Surface tiled(double timesAcross, double timesDown) {
        return new Surface(texture, new double[] {ox, oy, oz}, across, down, timesAcross, timesDown, light, haze);
    }

    /** Darker or brighter as a whole, and lost in the air's haze by the given share. */
    Surface lit(double newLight, double newHaze) {
        return new Surface(texture, new double[] {ox, oy, oz}, across, down, tilesAcross, tilesDown, newLight, newHaze);
    }

    /** Turned about its middle in its own plane, clockwise in radians. */
    Surface turned(double angle) {
        double c = Math.cos(angle);
        double s = Math.sin(angle);
        double ratio = Math.sqrt(dot(down, down) / dot(across, across));
        double[] a = new double[3];
        double[] d = new double[3];
        double[] o = new double[3];
        double[] from = {ox, oy, oz};
        for (int i = 0; i < 3; i++) {
            a[i] = c * across[i] + s * down[i] / ratio;
            d[i] = c * down[i] - s * across[i] * ratio;
            o[i] = from[i] + (across[i] + down[i] - a[i] - d[i]) / 2;
        }
        return new Surface(texture, o, a, d, tilesAcross, tilesDown, light, haze);
    }

    Surface moved(double dx, double dy, double dz) {
        return new Surface(
                texture, new double[] {ox + dx, oy + dy, oz + dz}, across, down, tilesAcross, tilesDown, light, haze);
    }

    /**
     * Whether a row of rays from one eye can meet this surface at all. Along a row the place hit moves one way only, so
     * the first and the last ray settle it.
     */
    boolean mayMeet(double px, double py, double pz, double[] first, double[] last) {
        double t0 = meets(px, py, pz, first[0], first[1], first[2]);
        double t1 = meets(px, py, pz, last[0], last[1], last[2]);
        if (t0 <= 0 || t1 <= 0) {
            return t0 > 0 || t1 > 0;
        }
        double u0 = share(px, py, pz, first, t0, across, perAcross);
        double u1 = share(px, py, pz, last, t1, across, perAcross);
        double v0 = share(px, py, pz, first, t0, down, perDown);
        double v1 = share(px, py, pz, last, t1, down, perDown);
        return Math.max(u0, u1) >= 0 && Math.min(u0, u1) <= 1 && Math.max(v0, v1) >= 0 && Math.min(v0, v1) <= 1;
    }

    private double share(double px, double py, double pz, double[] d, double t, double[] axis, double per) {
        return ((px + t * d[0] - ox) * axis[0] + (py + t * d[1] - oy) * axis[1] + (pz + t * d[2] - oz) * axis[2]) * per;
    }

    /** Distance along the ray, in lengths of its direction, or a negative number when it is not met. */
    double meets(double px, double py, double pz, double dx, double dy, double dz) {
        double facing = nx * dx + ny * dy + nz * dz;
        if (Math.abs(facing) < 1e-12) {
            return -1;
        }
        return (nx * (ox - px) + ny * (oy - py) + nz * (oz - pz)) / facing;
    }

    /**
     * Lays this surface under what out holds already.
     *
     * @param t from {@link #meets}
     * @param spread metres a ray covers per length of its direction
     * @param hazeColour what distance turns into
     */
    void shade(
            double px,
            double py,
            double pz,
            double dx,
            double dy,
            double dz,
            double t,
            double spread,
            float[] hazeColour,
            float[] out,
            float[] spare) {
        // most rays pass most surfaces by: that is settled before anything costly
        double hx = px + t * dx - ox;
        double hy = py + t * dy - oy;
        double hz = pz + t * dz - oz;
        double u = (hx * across[0] + hy * across[1] + hz * across[2]) * perAcross;
        double v = (hx * down[0] + hy * down[1] + hz * down[2]) * perDown;
        if (u < 0 || u > 1 || v < 0 || v > 1) {
            return;
        }
        // directions have length 1. A slanted floor is blurred by the mean of its short and long footprint
        double slant = Math.abs(nx * dx + ny * dy + nz * dz) * perNormal;
        double footprint = t * spread * texelsPerMetre / Math.sqrt(Math.max(0.03, slant));
        spare[0] = spare[1] = spare[2] = spare[3] = 0;
        texture.add(u * tilesAcross, v * tilesDown, footprint * 0.8, 1, spare);
        float room = 1 - out[3];
        float a = spare[3];
        if (a == 0) {
            return;
        }
        for (int i = 0; i < 3; i++) {
            float c = spare[i] * light;
            out[i] += room * (c + (hazeColour[i] * a - c) * haze);
        }
        out[3] += room * a;
    }

    private static double dot(double[] a, double[] b) {
        return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    }
}
