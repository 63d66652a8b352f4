package awlsmith.core.light;

import awlsmith.core.colour.PointCurve;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.function.DoubleFunction;

/** Curves on the samples of each plane, the same for all or one for each, which may differ from frame to frame. */
public final class CurveStage implements Stage {
    private final Format format;
    private final DoubleFunction<PointCurve[]> curves;
    /** Of frames that all have the same; null where they differ. */
    private final PointCurve[] fixed;

    private CurveStage(Format format, DoubleFunction<PointCurve[]> curves, PointCurve[] fixed) {
        this.format = format;
        this.curves = curves;
        this.fixed = fixed;
    }

    /** @param curves one for all planes, or one for each */
    public static CurveStage of(Format format, PointCurve... curves) {
        return new CurveStage(format, null, curves.clone());
    }

    /** @param curves by the seconds at which a frame is shown */
    public static CurveStage over(Format format, DoubleFunction<PointCurve[]> curves) {
        return new CurveStage(format, curves, null);
    }

    @Override
    public Format output() {
        return format;
    }

    @Override
    public Region needs(Region output) {
        return output;
    }

    @Override
    public Frame treat(Neighbours input, Region wanted, PlanePool pool, Work work) {
        Frame in = input.at(0).cut(wanted);
        Frame out = Frame.blank(format, wanted, in.number(), in.time(), pool);
        PointCurve[] now = fixed != null ? fixed : curves.apply(in.time().toDouble());
        for (int p = 0; p < out.planes().size(); p++) {
            Plane from = in.plane(p);
            Plane to = out.plane(p);
            PointCurve curve = now[Math.min(p, now.length - 1)];
            work.bands(to.height(), 32, (first, end) -> {
                for (int y = first; y < end; y++) {
                    curve.row(from.data(), from.row(y), to.data(), to.row(y), to.width());
                }
            });
        }
        return out;
    }
}
