package awlsmith.core.steady;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import java.util.Optional;

/** Moves every frame by parts of a sample, within a rim that is cut off all round. */
public final class SteadyStage implements Stage {
    private static final Kernel KERNEL = Kernel.LANCZOS3;
    /** Samples that the kernel reaches beyond the one it is at, and one for rounding. */
    private static final int TAPS = 4;
    /** Frames beyond which their common part is not worth looking for. */
    private static final int MANY = 256;

    private final Format input;
    private final Format output;
    private final int rimX;
    private final int rimY;
    private final double[] across;
    private final double[] down;

    /**
     * @param rimX luma samples cut off left and right, whole chroma samples; @param rimY likewise above and below
     * @param across luma samples that the frame of a number is moved to the right, at most the rim; beyond the last none
     * @param down likewise downwards
     */
    public SteadyStage(Format input, int rimX, int rimY, double[] across, double[] down) {
        Chroma chroma = input.chroma();
        if (rimX % chroma.stepX() != 0 || rimY % chroma.stepY() != 0) {
            throw new IllegalArgumentException("a rim of " + rimX + "x" + rimY + " cuts chroma samples in two");
        }
        this.input = input;
        this.output = input.withSize(input.width() - 2 * rimX, input.height() - 2 * rimY, input.sar());
        this.rimX = rimX;
        this.rimY = rimY;
        this.across = across;
        this.down = down;
    }

    @Override
    public Format output() {
        return output;
    }

    private static double move(double[] moves, long frame) {
        return frame < moves.length ? moves[(int) frame] : 0;
    }

    @Override
    public Placement placement() {
        return new Placement(-rimX, -rimY, input.width(), input.height());
    }

    @Override
    public Placement placement(long frame) {
        return new Placement(move(across, frame) - rimX, move(down, frame) - rimY, input.width(), input.height());
    }

    @Override
    public boolean isMoving() {
        return across.length > 0;
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(new SteadyStage(plane, rimX, rimY, across, down));
    }

    @Override
    public Region needs(Region wanted) {
        return around(wanted, -rimX, rimX, -rimY, rimY);
    }

    @Override
    public Region needs(Region wanted, FrameRange frames) {
        if (frames.isOpen() || frames.count() > MANY) {
            return needs(wanted);
        }
        double left = Double.MAX_VALUE;
        double right = -Double.MAX_VALUE;
        double up = Double.MAX_VALUE;
        double low = -Double.MAX_VALUE;
        for (long n = frames.from(); n < frames.end(); n++) {
            left = Math.min(left, move(across, n));
            right = Math.max(right, move(across, n));
            up = Math.min(up, move(down, n));
            low = Math.max(low, move(down, n));
        }
        return around(wanted, left, right, up, low);
    }

    /** Moved to the right, a frame shows what lay further left. */
    private Region around(Region wanted, double left, double right, double up, double low) {
        int margin = TAPS * Math.max(input.chroma().stepX(), input.chroma().stepY());
        int x0 = Math.max(0, (int) Math.floor(wanted.x() + rimX - right) - margin);
        int y0 = Math.max(0, (int) Math.floor(wanted.y() + rimY - low) - margin);
        int x1 = Math.min(input.width(), (int) Math.ceil(wanted.right() + rimX - left) + margin);
        int y1 = Math.min(input.height(), (int) Math.ceil(wanted.bottom() + rimY - up) + margin);
        return new Region(x0, y0, x1 - x0, y1 - y0).aligned(input.chroma(), input.width(), input.height());
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame here = in.at(0);
        Frame out = Frame.blank(output, wanted, in.number(), here.time(), pool);
        Chroma chroma = input.chroma();
        for (int p = 0; p < out.planes().size(); p++) {
            int sx = chroma.stepX(p);
            int sy = chroma.stepY(p);
            var resampler = new PlaneResampler(
                    table(
                            chroma.planeWidth(p, input.width()),
                            chroma.planeWidth(p, output.width()),
                            rimX - move(across, here.number()),
                            sx),
                    table(
                            chroma.planeHeight(p, input.height()),
                            chroma.planeHeight(p, output.height()),
                            rimY - move(down, here.number()),
                            sy));
            resampler.resample(
                    here.plane(p),
                    here.window().x() / sx,
                    here.window().y() / sy,
                    out.plane(p),
                    wanted.x() / sx,
                    wanted.y() / sy,
                    work);
        }
        return out;
    }

    private static TapTable table(int source, int target, double shift, int step) {
        return TapTable.of(KERNEL, source, target, 1, shift / step);
    }
}
