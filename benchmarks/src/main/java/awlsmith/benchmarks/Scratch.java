package awlsmith.benchmarks;

import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.media.Encoding;
import awlsmith.media.Indexer;
import awlsmith.media.Prober;
import awlsmith.render.Machine;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.function.Function;

/** Clips made for a measurement, and what recipes make of them. */
final class Scratch implements AutoCloseable {
    /** Samples at the edges that are not scored. */
    static final int BORDER = 8;

    private final Path folder;
    private final Machine machine = Machine.whole();

    Scratch() throws IOException {
        folder = Files.createTempDirectory("awlsmith-measure");
    }

    Path file(String name) {
        return folder.resolve(name);
    }

    int threads() {
        return machine.threads();
    }

    /** As many frames of a clip as are wanted, at most 640 wide, without loss. */
    Path truth(Path clip, int frames) {
        Path truth = file("truth.mkv");
        Command.ffmpeg("-i " + clip + " -an -vf scale='min(640,iw)':-2,format=yuv420p -frames:v " + frames
                + " -fps_mode passthrough -c:v ffv1 " + truth);
        return truth;
    }

    static Clip indexed(Path file) {
        var info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    /** Luma of every frame. */
    List<Plane> luma(Path file) {
        Clip clip = indexed(file);
        var planes = new ArrayList<Plane>();
        try (var stream = clip.open(FrameRange.all(), clip.format().whole(), machine.planes(), new Cancel())) {
            for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                planes.add(kept(frame.get()));
            }
        }
        return planes;
    }

    /** @param frames luma of them; @param rate frames a second, once everything is warm and what the steps wait for is known */
    record Made(List<Plane> frames, double rate) {}

    /** What a recipe makes of a clip, and how quickly. @param steps as on the command line */
    Made made(Path file, String... steps) {
        return made(file, 2, steps);
    }

    /** Luma of what a recipe makes of a clip. */
    List<Plane> treated(Path file, String... steps) {
        return made(file, 1, steps).frames();
    }

    /** Luma of what stages make of a clip, which are made for its format. */
    List<Plane> through(Path file, Function<Format, List<Stage>> stages) {
        Clip clip = indexed(file);
        var chain = new Chain(clip.format(), clip.material().times(), stages.apply(clip.format()));
        var planes = new ArrayList<Plane>();
        try (var stream = chain.open(
                clip, FrameRange.all(), chain.output().whole(), machine.planes(), machine.work(new Cancel()))) {
            for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                planes.add(kept(frame.get()));
            }
        }
        return planes;
    }

    private Made made(Path file, int runs, String... steps) {
        Clip clip = indexed(file);
        Treatment treatment = Analyses.complete(
                new Recipe(Arrays.stream(steps).map(Step::parse).toList()).on(clip.material()),
                clip,
                Analyses.Store.NONE,
                machine.planes(),
                machine.work(new Cancel()),
                (doing, frames) -> {});
        double rate = 0;
        var planes = new ArrayList<Plane>();
        for (int run = 0; run < runs; run++) {
            planes.clear();
            long begun = System.nanoTime();
            try (var stream = treatment
                    .chain()
                    .open(
                            clip,
                            FrameRange.all(),
                            treatment.output().whole(),
                            machine.planes(),
                            machine.work(new Cancel()))) {
                for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                    planes.add(kept(frame.get()));
                }
            }
            rate = planes.size() / ((System.nanoTime() - begun) / 1e9);
        }
        return new Made(planes, rate);
    }

    private Plane kept(Frame frame) {
        Plane light = frame.plane(0);
        var copy = new Plane(light.packed(), 0, light.width(), light.height(), light.width());
        frame.release(machine.planes());
        return copy;
    }

    /** The frames of a clip, each changed, without loss. */
    void changed(Path from, Path to, Consumer<Frame> change) {
        Clip clip = indexed(from);
        Format format = clip.format();
        var layout = new RawLayout(format);
        byte[] raw = new byte[layout.frameBytes()];
        try (var frames = clip.open(FrameRange.all(), format.whole(), new PlanePool(0), new Cancel());
                var encoding = new Encoding(
                        to, format, Optional.of(Rational.of(25)), Deliverable.usual(Codecs.FFV1), machine.threads())) {
            for (Optional<Frame> frame = frames.next(); frame.isPresent(); frame = frames.next()) {
                change.accept(frame.get());
                layout.pack(frame.get(), raw);
                encoding.write(raw, Rational.ZERO);
            }
            encoding.finish(new Cancel());
        }
    }

    /** A clip whose frames are made from another's, without loss. @param share of its sides */
    void made(Path from, Path to, double share, BiConsumer<Frame, Frame> make) {
        Clip clip = indexed(from);
        Format format = clip.format();
        Format small = format.withSize(
                (int) (share * format.width()) & ~3, (int) (share * format.height()) & ~3, format.sar());
        var layout = new RawLayout(small);
        byte[] raw = new byte[layout.frameBytes()];
        try (var frames = clip.open(FrameRange.all(), format.whole(), new PlanePool(0), new Cancel());
                var encoding = new Encoding(
                        to, small, Optional.of(Rational.of(25)), Deliverable.usual(Codecs.FFV1), machine.threads())) {
            for (Optional<Frame> frame = frames.next(); frame.isPresent(); frame = frames.next()) {
                Frame whole = frame.get();
                Frame out = Frame.blank(small, small.whole(), whole.number(), whole.time(), new PlanePool(0));
                make.accept(whole, out);
                layout.pack(out, raw);
                encoding.write(raw, Rational.ZERO);
            }
            encoding.finish(new Cancel());
        }
    }

    /** Mean PSNR-Y of the frames from one to another. */
    static double psnr(List<Plane> wanted, List<Plane> got, int from, int to) {
        double sum = 0;
        for (int n = from; n < to; n++) {
            sum += Psnr.of(got.get(n), wanted.get(n), BORDER);
        }
        return sum / (to - from);
    }

    /** How wrongly frames step on from one to the next: the deviation of the error's change, of 255. */
    static double flicker(List<Plane> wanted, List<Plane> got, int from, int to) {
        double sum = 0;
        long count = 0;
        for (int n = from + 1; n < to; n++) {
            float[] a = got.get(n).data();
            float[] b = got.get(n - 1).data();
            float[] c = wanted.get(n).data();
            float[] d = wanted.get(n - 1).data();
            for (int i = 0; i < a.length; i++) {
                double change = (double) a[i] - b[i] - c[i] + d[i];
                sum += change * change;
            }
            count += a.length;
        }
        return 255 * Math.sqrt(sum / count);
    }

    @Override
    public void close() throws IOException {
        machine.close();
        try (var files = Files.list(folder)) {
            for (Path file : files.toList()) {
                Files.delete(file);
            }
        }
        Files.delete(folder);
    }
}
