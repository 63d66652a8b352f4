package awlsmith.core.steady;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.FreePlaces;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Optional;

/** Lays every frame where it should have been seen, in one resampling. */
public final class SteadyStage implements Stage {
    /** Frames beyond which their common part is not worth looking for. */
    private static final int MANY = 256;
    /** Frames on each side that borders are filled from. */
    private static final int FILLED_FROM = 8;

    private final Format input;
    private final Format output;
    private final int rimX;
    private final int rimY;
    private final SteadyMoves moves;
    private final Edges edges;
    private final double width;
    private final double shape;

    /** What is shown where a frame does not reach. */
    public enum Edges {
        /** Nothing: the picture is cut to what all frames show. */
        CUT,
        /** Nothing: what all frames show is enlarged to fill the picture. */
        FILL,
        BLACK,
        /** The frame, mirrored at its edge. */
        MIRROR,
        /** The frames around, as far as they show it; where none does, as mirrored. */
        NEIGHBOURS
    }

    /**
     * @param rimX luma samples cut off left and right, whole chroma samples; @param rimY likewise above and below; both 0 but where edges are cut
     * @param moves where each steady picture lies in its frame; frames beyond the last stay as they are
     */
    public SteadyStage(Format input, int rimX, int rimY, SteadyMoves moves, Edges edges) {
        Chroma chroma = input.chroma();
        if (rimX % chroma.stepX() != 0 || rimY % chroma.stepY() != 0) {
            throw new IllegalArgumentException("a rim of " + rimX + "x" + rimY + " cuts chroma samples in two");
        }
        this.input = input;
        this.output = input.withSize(input.width() - 2 * rimX, input.height() - 2 * rimY, input.sar());
        this.rimX = rimX;
        this.rimY = rimY;
        this.moves = moves;
        this.edges = edges;
        this.shape = input.sar().toDouble();
        this.width = input.width();
    }

    @Override
    public Format output() {
        return output;
    }

    @Override
    public Placement placement() {
        return new Placement(-rimX, -rimY, input.width(), input.height());
    }

    /** By where the middle lies; what is turned by some tenths of a degree lies a little beside that near the edges. */
    @Override
    public Placement placement(long frame) {
        Warp warp = moves.warp(frame);
        double larger = 1 / warp.zoom();
        return new Placement(
                (0.5 - larger * (0.5 + warp.c())) * width - rimX,
                0.5 * input.height() - larger * (0.5 * input.height() + warp.f() * width * shape) - rimY,
                larger * input.width(),
                larger * input.height());
    }

    @Override
    public boolean isMoving() {
        return moves.count() > 0;
    }

    @Override
    public Optional<Stage> onAlpha(Format plane) {
        return Optional.of(new SteadyStage(plane, rimX, rimY, moves, edges));
    }

    @Override
    public int before() {
        return edges == Edges.NEIGHBOURS && isMoving() ? FILLED_FROM : 0;
    }

    @Override
    public int after() {
        return before();
    }

    /** Whether every frame shows all of the picture. */
    private boolean isWhole() {
        return edges == Edges.CUT || edges == Edges.FILL;
    }

    @Override
    public Region needs(Region wanted) {
        return input.whole();
    }

    @Override
    public Region needs(Region wanted, FrameRange frames) {
        if (frames.isOpen() || frames.count() > MANY || !isWhole()) {
            // mirrored edges and neighbours may be asked for from anywhere near
            return needs(wanted);
        }
        double left = Double.MAX_VALUE;
        double right = -Double.MAX_VALUE;
        double top = Double.MAX_VALUE;
        double bottom = -Double.MAX_VALUE;
        for (long n = frames.from(); n < frames.end(); n++) {
            var from = new Places(n);
            for (double y : new double[] {wanted.y(), wanted.bottom()}) {
                from.at(y);
                for (double x : new double[] {wanted.x(), wanted.right()}) {
                    left = Math.min(left, from.column(x));
                    right = Math.max(right, from.column(x));
                    top = Math.min(top, from.row(x));
                    bottom = Math.max(bottom, from.row(x));
                }
            }
        }
        int margin = 2
                + FreePlaces.REACH
                        * Math.max(input.chroma().stepX(), input.chroma().stepY());
        int x0 = Math.clamp((int) Math.floor(left) - margin, 0, input.width() - 1);
        int y0 = Math.clamp((int) Math.floor(top) - margin, 0, input.height() - 1);
        int x1 = Math.clamp((int) Math.ceil(right) + margin, x0 + 1, input.width());
        int y1 = Math.clamp((int) Math.ceil(bottom) + margin, y0 + 1, input.height());
        return new Region(x0, y0, x1 - x0, y1 - y0).aligned(input.chroma(), input.width(), input.height());
    }

    /** Where luma samples of an output frame come from, in the input's luma samples. */
    private final class Places {
        private final Warp warp;
        private final double[] roll;
        private double acrossAtLeft;
        private double downAtLeft;
        private double depthAtLeft;

        Places(long frame) {
            this(moves.warp(frame), moves.roll(frame));
        }

        Places(Warp warp, double[] roll) {
            this.warp = warp;
            this.roll = roll;
        }

        /** Goes to a row; where its column 0 lies is worked out once. */
        Places at(double row) {
            double y = (row + rimY - (input.height() - 1) / 2.0) / (width * shape);
            double x = (rimX - (input.width() - 1) / 2.0) / width;
            acrossAtLeft = warp.a() * x + warp.b() * y + warp.c();
            downAtLeft = warp.d() * x + warp.e() * y + warp.f();
            depthAtLeft = warp.g() * x + warp.h() * y + 1;
            return this;
        }

        private double depth(double right) {
            return depthAtLeft + warp.g() * right;
        }

        double column(double column) {
            double right = column / width;
            double across = acrossAtLeft + warp.a() * right;
            double down = downAtLeft + warp.d() * right;
            return (input.width() - 1) / 2.0 + width * (across + roll[0] * down) / depth(right);
        }

        double row(double column) {
            double right = column / width;
            double down = downAtLeft + warp.d() * right;
            return (input.height() - 1) / 2.0 + width * shape * (1 + roll[1]) * down / depth(right);
        }

        Places copy() {
            return new Places(warp, roll);
        }

        /** The same places in a frame some way off. */
        Places in(long frame, int off) {
            return new Places(warp.then(moves.between(frame, off)), moves.roll(frame + off));
        }
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame here = in.at(0);
        Frame out = Frame.blank(output, wanted, in.number(), here.time(), pool);
        Sources sources = sources(in);
        for (int p = 0; p < out.planes().size(); p++) {
            int plane = p;
            work.bands(out.plane(p).height(), 16, (from, to) -> {
                work.cancel().check();
                rows(sources, out, plane, wanted, from, to);
            });
        }
        return out;
    }

    /** Frames to be asked in turn, the nearest first. */
    private record Sources(Frame[] frames, Places[] places) {}

    private Sources sources(Neighbours in) {
        Frame here = in.at(0);
        long n = here.number();
        if (before() == 0) {
            return new Sources(new Frame[] {here}, new Places[] {new Places(n)});
        }
        var frames = new ArrayList<Frame>();
        var places = new ArrayList<Places>();
        frames.add(here);
        var own = new Places(n);
        places.add(own);
        for (int k = 1; k <= FILLED_FROM; k++) {
            for (int off : new int[] {k, -k}) {
                // beyond the clip's ends its last frames are given again, and other scenes show something else
                if (moves.isOneScene(n, n + off) && in.at(off).number() == n + off) {
                    frames.add(in.at(off));
                    places.add(own.in(n, off));
                }
            }
        }
        return new Sources(frames.toArray(new Frame[0]), places.toArray(new Places[0]));
    }

    private void rows(Sources sources, Frame out, int p, Region wanted, int from, int to) {
        Chroma chroma = input.chroma();
        int sx = chroma.stepX(p);
        int sy = chroma.stepY(p);
        double across = input.siting().across(sx);
        double down = input.siting().down(sy);
        int planeWidth = chroma.planeWidth(p, input.width());
        int planeHeight = chroma.planeHeight(p, input.height());
        Plane target = out.plane(p);
        Places[] places = Arrays.stream(sources.places).map(Places::copy).toArray(Places[]::new);
        for (int row = from; row < to; row++) {
            double y = (wanted.y() / sy + row) * (double) sy + down;
            for (Places one : places) {
                one.at(y);
            }
            for (int i = 0; i < target.width(); i++) {
                double x = (wanted.x() / sx + i) * (double) sx + across;
                int which = 0;
                double u = (places[0].column(x) - across) / sx;
                double v = (places[0].row(x) - down) / sy;
                if (!isWhole() && !isWithin(u, v, planeWidth, planeHeight)) {
                    if (edges == Edges.BLACK) {
                        target.set(i, row, 0);
                        continue;
                    }
                    for (int k = 1; k < places.length; k++) {
                        double inU = (places[k].column(x) - across) / sx;
                        double inV = (places[k].row(x) - down) / sy;
                        if (isWithin(inU, inV, planeWidth, planeHeight)) {
                            which = k;
                            u = inU;
                            v = inV;
                            break;
                        }
                    }
                    if (which == 0) {
                        u = mirrored(u, planeWidth);
                        v = mirrored(v, planeHeight);
                    }
                }
                Frame frame = sources.frames[which];
                target.set(
                        i,
                        row,
                        FreePlaces.at(
                                frame.plane(p),
                                frame.window().x() / sx,
                                frame.window().y() / sy,
                                u,
                                v));
            }
        }
    }

    private static boolean isWithin(double u, double v, int width, int height) {
        return u >= -0.5 && v >= -0.5 && u <= width - 0.5 && v <= height - 0.5;
    }

    private static double mirrored(double at, int count) {
        double last = count - 1;
        double there = at < 0 ? -at : at > last ? 2 * last - at : at;
        return Math.clamp(there, 0, last);
    }
}
