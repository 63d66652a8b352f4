package awlsmith.demo.scene;

import java.util.List;

/** Follows one ray for each pixel of a row into the world. One thread; scratch inside. */
final class Caster {
    private static final float[] HAZE = {0.80f, 0.80f, 0.77f};
    private static final float[] DEEP = {0.105f, 0.145f, 0.135f};

    /** How much coarser the water shows things than the air does. */
    private static final double MIRROR_BLUR = 5;

    private final float[] spare = new float[4];
    private final float[] mirrored = new float[4];
    private final double[] slope = new double[2];
    private final Noise noise = new Noise(29);

    /**
     * Computes row y of a picture: red, green, blue 0..1 interleaved.
     *
     * @param time of this row, in seconds
     */
    void row(World world, Camera camera, double time, int y, int width, int height, double pixelAspect, float[] out) {
        double cp = Math.cos(camera.pan());
        double sp = Math.sin(camera.pan());
        double ct = Math.cos(camera.tilt());
        double st = Math.sin(camera.tilt());
        double cr = Math.cos(camera.roll());
        double sr = Math.sin(camera.roll());
        double step = 2 * camera.view() / width;
        double vy = (height / 2.0 - y - 0.5) * step / pixelAspect;
        // direction = base + vx * along, in the world's axes
        double baseUp = ct * cr * vy + st;
        double baseAway = ct - st * cr * vy;
        double[] base = {cp * sr * vy + sp * baseAway, baseUp, cp * baseAway - sp * sr * vy};
        double alongAway = st * sr;
        double[] along = {cp * cr + sp * alongAway, -ct * sr, cp * alongAway - sp * cr};
        var inSight = inSight(world.surfaces(), camera, base, along, camera.view());
        float[] colour = new float[4];
        for (int x = 0; x < width; x++) {
            double vx = (x + 0.5 - width / 2.0) * step;
            double dx = base[0] + vx * along[0];
            double dy = base[1] + vx * along[1];
            double dz = base[2] + vx * along[2];
            double shorter = 1 / Math.sqrt(dx * dx + dy * dy + dz * dz);
            colour[0] = colour[1] = colour[2] = colour[3] = 0;
            trace(
                    world,
                    inSight,
                    camera.x(),
                    camera.y(),
                    camera.z(),
                    dx * shorter,
                    dy * shorter,
                    dz * shorter,
                    step,
                    time,
                    colour);
            out[3 * x] = colour[0];
            out[3 * x + 1] = colour[1];
            out[3 * x + 2] = colour[2];
        }
    }

    private static List<Surface> inSight(
            List<Surface> surfaces, Camera camera, double[] base, double[] along, double edge) {
        double[] first = new double[3];
        double[] last = new double[3];
        for (int i = 0; i < 3; i++) {
            first[i] = base[i] - edge * along[i];
            last[i] = base[i] + edge * along[i];
        }
        return surfaces.stream()
                .filter(surface -> surface.mayMeet(camera.x(), camera.y(), camera.z(), first, last))
                .toList();
    }

    private void trace(
            World world,
            List<Surface> inSight,
            double px,
            double py,
            double pz,
            double dx,
            double dy,
            double dz,
            double spread,
            double time,
            float[] out) {
        double toWater = world.water() != null && dy < -1e-6 ? -py / dy : Double.POSITIVE_INFINITY;
        lay(inSight, px, py, pz, dx, dy, dz, spread, toWater, out);
        if (out[3] > 0.996f) {
            return;
        }
        if (toWater < 1e5) {
            water(world, px + toWater * dx, pz + toWater * dz, dx, dy, dz, toWater, spread, time, out);
        } else {
            world.sky().fill(dx, dy, dz, time, spread, out, spare);
        }
    }

    private void lay(
            List<Surface> surfaces,
            double px,
            double py,
            double pz,
            double dx,
            double dy,
            double dz,
            double spread,
            double limit,
            float[] out) {
        for (int i = 0; i < surfaces.size() && out[3] < 0.996f; i++) {
            Surface surface = surfaces.get(i);
            double t = surface.meets(px, py, pz, dx, dy, dz);
            if (t > 0.02 && t < limit) {
                surface.shade(px, py, pz, dx, dy, dz, t, spread, HAZE, out, spare);
            }
        }
    }

    private void water(
            World world,
            double x,
            double z,
            double dx,
            double dy,
            double dz,
            double t,
            double spread,
            double time,
            float[] out) {
        double footprint = t * spread / Math.sqrt(Math.max(0.02, -dy));
        world.water().slope(x, z, time, footprint, slope);
        double ny = 1 / Math.sqrt(1 + slope[0] * slope[0] + slope[1] * slope[1]);
        double nx = -slope[0] * ny;
        double nz = -slope[1] * ny;
        double facing = Math.max(0.0, -(dx * nx + dy * ny + dz * nz));
        double rx = dx + 2 * facing * nx;
        double ry = dy + 2 * facing * ny;
        double rz = dz + 2 * facing * nz;
        if (ry < 0.012) {
            ry = 0.012 + 0.2 * Math.abs(ry);
        }
        double length = Math.sqrt(rx * rx + ry * ry + rz * rz);
        mirrored[0] = mirrored[1] = mirrored[2] = mirrored[3] = 0;
        lay(world.mirrored(), x, 0.001, z, rx / length, ry / length, rz / length, spread * MIRROR_BLUR, 1e9, mirrored);
        world.sky().fill(rx / length, ry / length, rz / length, time, spread * 2 * MIRROR_BLUR, mirrored, spare);
        // Schlick's approximation of Fresnel's law for water
        double clear = 1 - facing;
        double shine = 0.03 + 0.90 * clear * clear * clear * clear;
        double[] sun = world.sky().sun();
        double glint = Math.max(0, (rx * sun[0] + ry * sun[1] + rz * sun[2]) / length);
        double g8 = glint * glint * glint * glint;
        g8 *= g8;
        double g24 = g8 * g8 * g8;
        double day = world.sky().light();
        double spark = day * 0.18 * g24 + (glint > 0.96 ? day * 1.5 * Math.pow(glint, 260) : 0);
        double foam = foam(world.foam(), x, z, time, footprint);
        float room = 1 - out[3];
        for (int i = 0; i < 3; i++) {
            double c = day * DEEP[i] * (1 - shine) + mirrored[i] * shine + spark * (1 - 0.12 * i);
            out[i] += room * (float) (c + (day * (0.80 - 0.02 * i) - c) * foam);
        }
        out[3] = 1;
    }

    private double foam(List<double[]> places, double x, double z, double time, double footprint) {
        double most = 0;
        for (double[] place : places) {
            double ax = (x - place[0]) / place[2];
            double az = (z - place[1]) / place[3];
            if (ax * ax + az * az >= 1) {
                continue;
            }
            double near = 1 - Math.sqrt(ax * ax + az * az);
            double n = noise.octaves(x * 1.9 - time * 1.3, z * 2.6 + time * 0.4, 2, 0.6);
            most = Math.max(most, near * Noise.smooth(0.02 - 0.5 * near, 0.75 - 0.5 * near, n));
        }
        return Math.min(0.85, most);
    }
}
