package awlsmith.core.alpha;

import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.Placement;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Timing;
import awlsmith.core.pipeline.Work;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * A stage that knows nothing of transparency, and beside it what it does to the plane that tells it ({@link Stage#onAlpha}): the two
 * see the same frames and their planes come out together.
 */
public final class WithAlpha implements Stage {
    private final Format input;
    private final Format output;
    private final Stage colour;
    /** Empty where the plane passes as it is. */
    private final Optional<Stage> plane;

    private WithAlpha(Format input, Stage colour) {
        this.input = input;
        this.colour = colour;
        this.output = colour.output().withAlpha(input.alpha());
        this.plane = colour.onAlpha(input.alphaAlone());
        Format made = plane.map(Stage::output).orElse(input.alphaAlone());
        if (made.width() != output.width() || made.height() != output.height()) {
            throw new IllegalStateException(colour + " makes " + output.width() + "x" + output.height()
                    + ", its plane of transparency is " + made.width() + "x" + made.height());
        }
    }

    /**
     * Stages made for opaque pictures, on pictures that may be transparent.
     *
     * @param input of the pictures that reach the first
     */
    public static List<Stage> around(Format input, List<Stage> stages) {
        if (!input.alpha().isThere()) {
            return stages;
        }
        var around = new ArrayList<Stage>();
        Format now = input;
        for (Stage stage : stages) {
            around.add(new WithAlpha(now, stage));
            now = around.getLast().output();
        }
        return around;
    }

    @Override
    public Stage inner() {
        return colour;
    }

    @Override
    public Format output() {
        return output;
    }

    @Override
    public Region needs(Region wanted) {
        return both(
                colour.needs(wanted), plane.map(stage -> stage.needs(wanted)).orElse(colour.needs(wanted)));
    }

    @Override
    public Region needs(Region wanted, awlsmith.core.pipeline.FrameRange frames) {
        Region own = colour.needs(wanted, frames);
        return both(own, plane.map(stage -> stage.needs(wanted, frames)).orElse(own));
    }

    /** The other way carries transparency as this one does. */
    @Override
    public Optional<Chain> beside() {
        return colour.beside();
    }

    private Region both(Region own, Region planes) {
        return own.around(planes).aligned(input.chroma(), input.width(), input.height());
    }

    @Override
    public Frame treat(Neighbours in, Region wanted, PlanePool pool, Work work) {
        Frame treated = colour.treat(new Part(in, true), wanted, pool, work);
        Frame clear = plane.map(stage -> stage.treat(new Part(in, false), wanted, pool, work))
                .orElseGet(() -> alone(in.at(0)).copy(wanted, in.number(), treated.time(), pool));
        var planes = new ArrayList<Plane>(treated.planes());
        planes.addAll(clear.planes());
        return new Frame(output, wanted, planes, treated.number(), treated.time());
    }

    /** The same frames, of which one of the two stages sees its planes. */
    private record Part(Neighbours frames, boolean coloured) implements Neighbours {
        @Override
        public Frame at(int distance) {
            Frame frame = frames.at(distance);
            return coloured ? opaque(frame) : alone(frame);
        }

        @Override
        public Frame beside() {
            Frame frame = frames.beside();
            return coloured ? opaque(frame) : alone(frame);
        }

        @Override
        public <T> T remember(int distance, String what, Supplier<T> make) {
            return frames.remember(distance, coloured ? what : "opacity: " + what, make);
        }

        @Override
        public long number() {
            return frames.number();
        }
    }

    private static Frame opaque(Frame frame) {
        return new Frame(
                frame.format().opaque(),
                frame.window(),
                frame.planes().subList(0, frame.planes().size() - 1),
                frame.number(),
                frame.time());
    }

    private static Frame alone(Frame frame) {
        return new Frame(
                frame.format().alphaAlone(),
                frame.window(),
                List.of(frame.planes().getLast()),
                frame.number(),
                frame.time());
    }

    @Override
    public Placement placement() {
        return colour.placement();
    }

    @Override
    public Placement placement(long frame) {
        return colour.placement(frame);
    }

    @Override
    public boolean isMoving() {
        return colour.isMoving();
    }

    @Override
    public boolean isAligned() {
        return colour.isAligned();
    }

    @Override
    public Rational rate() {
        return colour.rate();
    }

    @Override
    public Rational position(long frame) {
        return colour.position(frame);
    }

    @Override
    public Timing times(Timing times) {
        return colour.times(times);
    }

    @Override
    public Rational speed() {
        return colour.speed();
    }

    @Override
    public long firstFrom(long frame) {
        return colour.firstFrom(frame);
    }

    @Override
    public int before() {
        return Math.max(colour.before(), plane.map(Stage::before).orElse(0));
    }

    @Override
    public int after() {
        return Math.max(colour.after(), plane.map(Stage::after).orElse(0));
    }

    @Override
    public long sharedBytes() {
        return Math.max(colour.sharedBytes(), plane.map(Stage::sharedBytes).orElse(0L));
    }

    @Override
    public long workBytes() {
        return Math.max(colour.workBytes(), plane.map(Stage::workBytes).orElse(0L));
    }
}
