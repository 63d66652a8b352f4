package awlsmith.trainer.pairs;

import awlsmith.core.picture.Plane;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import awlsmith.footage.Pictures;
import awlsmith.trainer.net.NetShape;
import java.util.List;

/** A degraded small picture and the truth it came from. The rival is Lanczos with three lobes. */
public final class Enlarging implements Pair {
    private final List<Plane> shown;
    private final Plane small;
    private final Plane sharp;
    private final PlaneResampler plain;

    /**
     * @param small luma 0..1, width x height
     * @param sharp luma 0..1, factor times as wide and high
     */
    public Enlarging(Plane small, Plane sharp, int factor) {
        this(List.of(small), sharp, factor);
    }

    /**
     * @param shown the small picture and its neighbours as {@link awlsmith.core.upscale.FramesAround} lays them over it, luma 0..1
     * @param sharp luma 0..1, factor times as wide and high
     */
    public Enlarging(List<Plane> shown, Plane sharp, int factor) {
        Plane small = shown.getFirst();
        if (sharp.width() != small.width() * factor || sharp.height() != small.height() * factor) {
            throw new IllegalArgumentException("a pair of " + small.width() + "x" + small.height() + " and "
                    + sharp.width() + "x" + sharp.height() + " is not " + factor + " times");
        }
        this.shown = List.copyOf(shown);
        this.small = small;
        this.sharp = sharp;
        plain = new PlaneResampler(
                TapTable.forAxis(NetShape.BASE, small.width(), sharp.width(), 1, 0),
                TapTable.forAxis(NetShape.BASE, small.height(), sharp.height(), 1, 0));
    }

    public Plane small() {
        return small;
    }

    @Override
    public List<Plane> shown() {
        return shown;
    }

    @Override
    public boolean turns() {
        return true;
    }

    @Override
    public Plane rival() {
        return Pictures.resized(small, sharp.width(), sharp.height(), Kernel.LANCZOS3);
    }

    @Override
    public Plane sharp() {
        return sharp;
    }

    @Override
    public Plane plain(Region part) {
        int factor = sharp.width() / small.width();
        Plane out = Plane.of(part.width() * factor, part.height() * factor);
        plain.resample(small, 0, 0, out, part.x() * factor, part.y() * factor, Work.alone());
        return out;
    }
}
