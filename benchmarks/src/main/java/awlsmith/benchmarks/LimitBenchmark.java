package awlsmith.benchmarks;

import awlsmith.core.clean.BandStage;
import awlsmith.core.clean.DenoiseStage;
import awlsmith.core.clean.DitherStage;
import awlsmith.core.clean.GrainStage;
import awlsmith.core.clean.NoiseModel;
import awlsmith.core.detail.DeblurStage;
import awlsmith.core.detail.HaloStage;
import awlsmith.core.detail.PointSpread;
import awlsmith.core.detail.SharpenStage;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import java.util.List;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import jdk.incubator.vector.FloatVector;
import jdk.incubator.vector.VectorSpecies;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.openjdk.jmh.infra.Blackhole;

/** Stages on one plane of a megapixel, on one thread, beside what memory and arithmetic allow; see {@link Limits}. */
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 3, time = 1)
@Fork(1)
@State(Scope.Thread)
public class LimitBenchmark {
    /** A power of two would lay all rows on the same lines of the cache, which pictures rarely do. */
    static final int WIDTH = 1280;

    static final int HEIGHT = 800;
    /** Multiplications with an addition that the limit of arithmetic is measured by, in millions. */
    static final int MILLIONS = 1000;

    private static final VectorSpecies<Float> SPECIES = FloatVector.SPECIES_PREFERRED;

    /** What runs. */
    @Param({
        "copy",
        "arithmetic",
        "denoise fast, one frame",
        "undither",
        "bands",
        "grain",
        "sharpen",
        "deblur, taps alone",
        "haloes"
    })
    String kernel;

    private Format format;
    private Frame frame;
    private Stage stage;
    private Plane out;
    private final PlanePool pool = new PlanePool(64L << 20);

    @Setup
    public void prepare() {
        format = new Format(WIDTH, HEIGHT, Chroma.GREY, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        var random = new SplittableRandom(1);
        Plane plane = Plane.of(WIDTH, HEIGHT);
        for (int i = 0; i < plane.data().length; i++) {
            plane.data()[i] = (float) (0.5 + 0.3 * Math.sin(i * 0.01) + 0.02 * random.nextGaussian());
        }
        out = Plane.of(WIDTH, HEIGHT);
        frame = new Frame(format, format.whole(), List.of(plane), 0, Rational.ZERO);
        stage = switch (kernel) {
            case "denoise fast, one frame" -> new DenoiseStage(format, NoiseModel.even(0.02, 0.01, 1), 0, 1, 1);
            case "undither" -> new DitherStage(format, 0.25, 4);
            case "bands" -> new BandStage(format, 1, 5);
            case "grain" -> new GrainStage(format, GrainStage.film(0.01), 0, 1.6);
            case "sharpen" -> new SharpenStage(format, new SharpenStage.Amounts(1, 1, 0, 1, 0.01, 0, true));
            case "deblur, taps alone" -> new DeblurStage(format, new PointSpread.Bell(1.5, 1.5), 1, 0);
            case "haloes" -> new HaloStage(format, 3);
            default -> null;
        };
    }

    @Benchmark
    public void run(Blackhole hole) {
        if (stage != null) {
            Frame made = stage.treat(distance -> frame, format.whole(), pool, Work.alone());
            hole.consume(made.plane(0).data()[7]);
            made.release(pool);
        } else if (kernel.equals("copy")) {
            for (int y = 0; y < HEIGHT; y++) {
                out.takeRow(y, frame.plane(0), y);
            }
            hole.consume(out.data()[7]);
        } else {
            hole.consume(arithmetic());
        }
    }

    /** Multiplications with additions that wait for nothing but themselves, eight at a time. */
    private float arithmetic() {
        FloatVector by = FloatVector.broadcast(SPECIES, 0.999f);
        FloatVector a = FloatVector.zero(SPECIES);
        FloatVector b = by;
        FloatVector c = by.mul(2);
        FloatVector d = by.mul(3);
        FloatVector e = by.mul(4);
        FloatVector f = by.mul(5);
        FloatVector g = by.mul(6);
        FloatVector h = by.mul(7);
        long times = MILLIONS * 1_000_000L / (8L * SPECIES.length());
        for (long i = 0; i < times; i++) {
            a = a.fma(by, by);
            b = b.fma(by, by);
            c = c.fma(by, by);
            d = d.fma(by, by);
            e = e.fma(by, by);
            f = f.fma(by, by);
            g = g.fma(by, by);
            h = h.fma(by, by);
        }
        return a.add(b).add(c).add(d).add(e).add(f).add(g).add(h).reduceLanes(jdk.incubator.vector.VectorOperators.ADD);
    }
}
