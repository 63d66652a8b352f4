package awlsmith.demo;

import awlsmith.core.motion.Flow;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.demo.scene.Noise;

/**
 * What a program leaves that made a clip of a single picture: surfaces like wax, in the place of their texture another one in every frame,
 * edges that will not keep still. How it comes about is common practice, no source; the amounts are invented.
 */
final class Generated {
    private static final int REACH = 3;
    /** Difference of luma up to which two samples are of one surface. */
    private static final float SURFACE = 0.09f;
    /** Of what the surfaces lost. */
    private static final float SWIMMING = 1.1f;

    /** Luma, of the texture that surfaces bear which never had any. */
    private static final float EVERYWHERE = 0.03f;

    private static final double BENT = 0.45;
    /** Radians a frame; after half a circle all is its opposite. */
    private static final double TURN = 0.55;

    private static final int BAND = 16;

    private final Noise one = new Noise(41);
    private final Noise other = new Noise(42);
    private final Noise across = new Noise(43);
    private final Noise down = new Noise(44);

    void spoil(Plane plane, long frame, Work work) {
        Plane clean = copy(plane);
        Plane calm = Plane.of(plane.width(), plane.height());
        Plane made = Plane.of(plane.width(), plane.height());
        double cos = Math.cos(TURN * frame);
        double sin = Math.sin(TURN * frame);
        work.bands(plane.height(), BAND, (from, end) -> calm(clean, calm, from, end));
        work.bands(plane.height(), BAND, (from, end) -> texture(clean, calm, made, cos, sin, from, end));
        work.bands(plane.height(), BAND, (from, end) -> bend(made, plane, cos, sin, from, end));
    }

    private void texture(Plane clean, Plane calm, Plane made, double cos, double sin, int from, int end) {
        for (int y = from; y < end; y++) {
            for (int x = 0; x < made.width(); x++) {
                double texture =
                        cos * one.octaves(x * 0.33, y * 0.33, 2, 0.7) + sin * other.octaves(x * 0.33, y * 0.33, 2, 0.7);
                made.set(x, y, (float) (calm.at(x, y) + (SWIMMING * lost(clean, calm, x, y) + EVERYWHERE) * texture));
            }
        }
    }

    private void bend(Plane made, Plane to, double cos, double sin, int from, int end) {
        for (int y = from; y < end; y++) {
            for (int x = 0; x < to.width(); x++) {
                double u = x + BENT * (cos * across.at(x * 0.21, y * 0.21) + sin * across.at(x * 0.21 + 90, y * 0.21));
                double v = y + BENT * (cos * down.at(x * 0.21, y * 0.21) + sin * down.at(x * 0.21 + 90, y * 0.21));
                to.set(x, y, Flow.sample(made, (float) u, (float) v));
            }
        }
    }

    private static Plane copy(Plane plane) {
        return new Plane(plane.packed(), 0, plane.width(), plane.height(), plane.width());
    }

    /** The mean of what is near and nearly as light. */
    private static void calm(Plane in, Plane out, int from, int end) {
        for (int y = from; y < end; y++) {
            for (int x = 0; x < in.width(); x++) {
                Region around = new Region(x, y, 1, 1).grown(REACH, in.width(), in.height());
                float here = in.at(x, y);
                float sum = 0;
                float weights = 0;
                for (int v = around.y(); v < around.y() + around.height(); v++) {
                    for (int u = around.x(); u < around.x() + around.width(); u++) {
                        float d = (in.at(u, v) - here) / SURFACE;
                        float weight = Math.max(0, 1 - d * d);
                        sum += weight * in.at(u, v);
                        weights += weight;
                    }
                }
                out.set(x, y, sum / weights);
            }
        }
    }

    /** How strong the texture is that the surface around a sample lost. */
    private static float lost(Plane clean, Plane calm, int x, int y) {
        Region around = new Region(x, y, 1, 1).grown(1, clean.width(), clean.height());
        float sum = 0;
        for (int v = around.y(); v < around.y() + around.height(); v++) {
            for (int u = around.x(); u < around.x() + around.width(); u++) {
                sum += Math.abs(clean.at(u, v) - calm.at(u, v));
            }
        }
        return sum / (around.width() * around.height());
    }
}
