package awlsmith.benchmarks;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.Kernel;
import awlsmith.core.resample.PlaneResampler;
import awlsmith.core.resample.TapTable;
import java.util.Random;
import java.util.concurrent.TimeUnit;
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

/** The hot kernels on one thread, scalar and vector: milliseconds a call. */
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 3, time = 1)
@Fork(1)
@State(Scope.Thread)
public class KernelBenchmark {
    /** Curves measured; the number is taps across and down. */
    @Param({"CATMULL_ROM", "LANCZOS3", "LANCZOS4"})
    Kernel kernel;

    private Plane source;
    private Plane target;
    private PlaneResampler resampler;
    private RawLayout layout;
    private byte[] raw;
    private Frame frame;

    @Setup
    public void prepare() {
        source = Plane.of(960, 540);
        var random = new Random(1);
        for (int i = 0; i < source.data().length; i++) {
            source.data()[i] = random.nextFloat();
        }
        target = Plane.of(1920, 1080);
        resampler = new PlaneResampler(
                TapTable.forAxis(kernel, 960, 1920, 1, 0), TapTable.forAxis(kernel, 540, 1080, 1, 0));
        var format = new Format(1920, 1080, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        layout = new RawLayout(format);
        raw = new byte[layout.frameBytes()];
        random.nextBytes(raw);
        frame = Frame.blank(format, format.whole(), 0, Rational.ZERO, new PlanePool(0));
        layout.unpack(raw, frame);
    }

    /** 960x540 to 1920x1080, one plane. */
    @Benchmark
    public Plane enlarge() {
        resampler.resample(source, 0, 0, target, 0, 0, Work.alone());
        return target;
    }

    /** A 1080p 4:2:0 frame from bytes to floats. */
    @Benchmark
    public Frame unpack() {
        layout.unpack(raw, frame);
        return frame;
    }

    /** The same back, dithered. */
    @Benchmark
    public byte[] pack() {
        layout.pack(frame, raw);
        return raw;
    }
}
