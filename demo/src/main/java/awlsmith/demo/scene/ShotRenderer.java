package awlsmith.demo.scene;

import awlsmith.core.colour.LumaChroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Work;
import java.util.function.IntPredicate;

/** Turns moments of a shot into clean frames in 4:4:4. */
public final class ShotRenderer {
    private final Shot shot;
    private final Format format;
    private final PlanePool pool;
    private final Work work;

    /** @param format 4:4:4 with a known matrix; its sample aspect ratio is honoured */
    public ShotRenderer(Shot shot, Format format, PlanePool pool, Work work) {
        this.shot = shot;
        this.format = format;
        this.pool = pool;
        this.work = work;
    }

    public Frame frame(long number, Rational time) {
        return frame(number, time, y -> true);
    }

    /** Only some rows are looked at; each of the others repeats the one above, or the first one looked at. */
    public Frame frame(long number, Rational time, IntPredicate looked) {
        Frame out = Frame.blank(format, format.whole(), number, time, pool);
        double at = time.toDouble();
        World world = shot.world(at);
        var matrix = LumaChroma.of(format.colour().matrixFor(format.height()));
        double perRow = shot.rolling() / format.height();
        work.bands(format.height(), 8, (from, to) -> {
            var caster = new Caster();
            float[] row = new float[3 * format.width()];
            boolean filled = false;
            for (int y = from; y < to; y++) {
                if (filled && !looked.test(y)) {
                    write(row, out, y, matrix);
                    continue;
                }
                filled = true;
                double moment = at + y * perRow;
                caster.row(
                        world,
                        shot.camera(moment),
                        moment,
                        y,
                        format.width(),
                        format.height(),
                        1 / format.sar().toDouble(),
                        row);
                write(row, out, y, matrix);
            }
        });
        return out;
    }

    private static void write(float[] row, Frame out, int y, LumaChroma matrix) {
        for (int x = 0; x < out.format().width(); x++) {
            double r = tone(row[3 * x]);
            double g = tone(row[3 * x + 1]);
            double b = tone(row[3 * x + 2]);
            double luma = matrix.luma(r, g, b);
            out.plane(0).set(x, y, (float) luma);
            out.plane(1).set(x, y, (float) matrix.cb(luma, b));
            out.plane(2).set(x, y, (float) matrix.cr(luma, r));
        }
    }

    /** Highlights roll off instead of clipping. */
    private static double tone(double v) {
        if (v < 0.8) {
            return v;
        }
        double over = (v - 0.8) / 0.2;
        return 0.8 + 0.2 * over / (1 + over);
    }
}
