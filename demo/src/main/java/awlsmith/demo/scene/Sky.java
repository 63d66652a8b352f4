package awlsmith.demo.scene;

/** A hazy afternoon sky: paler and warmer towards the horizon and the sun, with drifting clouds. */
final class Sky {
    private final Texture clouds;
    private final double[] sun;
    private final double light;

    Sky(double[] sun) {
        this(sun, 1);
    }

    /** @param light 1 by day, little by night, when it turns blue */
    Sky(double[] sun, double light) {
        this.light = light;
        double length = Math.sqrt(sun[0] * sun[0] + sun[1] * sun[1] + sun[2] * sun[2]);
        this.sun = new double[] {sun[0] / length, sun[1] / length, sun[2] / length};
        var noise = new Noise(71);
        int side = 1024;
        clouds = new Canvas(side, side, 1)
                .ink(0xffffff)
                .box(0, 0, side, side)
                .weather((x, y, c) -> {
                    double sum = 0;
                    double strength = 0.5;
                    int period = 4;
                    for (int i = 0; i < 7; i++) {
                        sum += strength * noise.tiled(x / side * period + 3 * i, y / side * period, period);
                        strength *= 0.56;
                        period *= 2;
                    }
                    double cover = Noise.smooth(-0.12, 0.42, sum);
                    double bright = 0.80 + 0.2 * Noise.smooth(-0.1, 0.5, sum) - 0.18 * Noise.smooth(0.3, 0.75, sum);
                    c[0] = bright;
                    c[1] = bright * 0.985;
                    c[2] = bright * 0.96;
                    c[3] = cover;
                })
                .tile();
    }

    double[] sun() {
        return sun;
    }

    double light() {
        return light;
    }

    /** Fills what is left of out with the sky in this direction (of length 1). */
    void fill(double dx, double dy, double dz, double time, double spread, float[] out, float[] spare) {
        float room = 1 - out[3];
        if (room < 0.002f) {
            return;
        }
        double up = Math.max(0.004, dy);
        double rise = Math.sqrt(up) * (1.08 - 0.08 * up);
        double glow = Math.max(0, dx * sun[0] + dy * sun[1] + dz * sun[2]);
        double glow2 = glow * glow;
        double glow6 = glow2 * glow2 * glow2;
        double glow30 = glow6 * glow6 * glow6 * glow6 * glow6;
        double warm = 0.22 * glow6 + 0.25 * glow30 * glow30;
        double r = 0.84 - 0.42 * rise + warm;
        double g = 0.82 - 0.28 * rise + warm * 0.85;
        double b = 0.76 - 0.06 * rise + warm * 0.55;
        if (up < 0.03) {
            // clouds melt into the haze this low
            add(out, room, r, g, b);
            out[3] = 1;
            return;
        }
        spare[0] = spare[1] = spare[2] = spare[3] = 0;
        double far = 1 / (up + 0.06);
        clouds.add(dx * far * 0.16 + time * 0.0011 + 0.3, dz * far * 0.16, spread * far * far * 160, 1, spare);
        double fade = Noise.smooth(0.03, 0.14, up) * 0.85;
        double a = spare[3] * fade;
        add(out, room, r * (1 - a) + spare[0] * fade, g * (1 - a) + spare[1] * fade, b * (1 - a) + spare[2] * fade);
        out[3] = 1;
    }

    private void add(float[] out, float room, double r, double g, double b) {
        double dusk = 1 - light;
        out[0] += room * (float) (r * light * (1 - 0.35 * dusk));
        out[1] += room * (float) (g * light * (1 - 0.15 * dusk));
        out[2] += room * (float) (b * light * (1 + 0.35 * dusk));
    }
}
