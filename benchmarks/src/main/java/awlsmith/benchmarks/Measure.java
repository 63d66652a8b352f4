package awlsmith.benchmarks;

import awlsmith.core.measure.Psnr;
import awlsmith.core.measure.Ssim;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Lanes;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.Work;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;
import awlsmith.demo.scene.DeckWalkShot;
import awlsmith.demo.scene.ShotRenderer;
import awlsmith.media.Clip;
import awlsmith.media.Prober;
import awlsmith.render.Machine;
import awlsmith.render.RenderRequest;
import awlsmith.render.RenderWatch;
import awlsmith.render.Renderer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Measures what the issue of speed and quality names, side by side in one run, and writes the report. */
public final class Measure {
    private static final int RUNS = 5;
    private static final int THREADS = Runtime.getRuntime().availableProcessors();
    private static final ColourTags HD = new ColourTags(
            ColourTags.Matrix.BT709, ColourTags.Range.LIMITED, ColourTags.Transfer.BT709, ColourTags.Primaries.BT709);

    private final Path folder;
    private final Machine machine = Machine.of(THREADS);
    private final List<String> report = new ArrayList<>();

    private Measure(Path folder) {
        this.folder = folder;
    }

    public static void main(String[] arguments) throws IOException {
        Path folder = Files.createTempDirectory("awlsmith-measure");
        var measure = new Measure(folder);
        try {
            measure.all();
        } finally {
            measure.machine.close();
            Command.run(List.of("rm", "-r", folder.toString()));
        }
        Files.writeString(Path.of(arguments[0]), String.join("\n", measure.report) + "\n");
    }

    private void all() throws IOException {
        say("# Speed and quality");
        say("");
        say("Made by `./awlsmith measure`; do not edit. " + THREADS + " threads, " + Lanes.account()
                + ". The machines are noisy: read the ratios, which come from one run each, the median of " + RUNS
                + ".");
        say("");
        enlarging();
        wholeRender();
        memory();
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    // --- the resampler against FFmpeg's ---

    private void enlarging() throws IOException {
        say("## Enlarging by 2, Lanczos 3, 8-bit 4:2:0 in and out");
        say("");
        say(
                "FFmpeg's scaler (`flags=lanczos+accurate_rnd+full_chroma_int`, all threads) reads the same raw frames from memory-held"
                        + " files; the time it takes to read them without scaling is taken off. Ours is unpack, enlarge and pack with dither."
                        + " Quality is luma against the clean scene the small frames were made from, border of 8 left out.");
        say("");
        say(
                "| size | ours, ms a frame | FFmpeg, ms a frame | ours / FFmpeg | PSNR ours | PSNR FFmpeg | SSIM ours | SSIM FFmpeg |");
        say("|---|---|---|---|---|---|---|---|");
        enlarging(640, 360, 60);
        enlarging(1920, 1080, 16);
        say("");
    }

    private void enlarging(int width, int height, int frames) throws IOException {
        Format small = format(width, height);
        Format large = format(2 * width, 2 * height);
        var pool = machine.planes();
        Work work = machine.work(new Cancel());
        var truthFormat = large.withChroma(Chroma.S444);
        Frame clean = new ShotRenderer(new DeckWalkShot(), truthFormat, pool, work).frame(0, Rational.of(2));
        var smallLayout = new RawLayout(small);
        byte[] raw = new byte[smallLayout.frameBytes()];
        Frame reduced = new EnlargeStage(truthFormat, small.withChroma(Chroma.S444), Kernel.AREA)
                .treat(d -> clean, small.whole(), pool, work);
        Frame smallFrame = awlsmith.core.colour.LayoutStages.between(small.withChroma(Chroma.S444), small)
                .getFirst()
                .treat(d -> reduced, small.whole(), pool, work);
        smallLayout.pack(smallFrame, raw);
        Path source = folder.resolve("source.yuv");
        try (var out = Files.newOutputStream(source)) {
            for (int i = 0; i < frames; i++) {
                out.write(raw);
            }
        }
        var stage = new EnlargeStage(small, large, Kernel.LANCZOS3);
        var layout = new RawLayout(large);
        byte[] made = new byte[layout.frameBytes()];
        Runnable ours = () -> {
            for (int i = 0; i < frames; i++) {
                enlarge(smallLayout, raw, stage, layout, made, pool, work);
            }
        };
        String input = "-f rawvideo -pix_fmt yuv420p -s " + width + "x" + height + " -i " + source;
        String scale = " -vf scale=" + 2 * width + ":" + 2 * height + ":flags=lanczos+accurate_rnd+full_chroma_int";
        ours.run();
        double mine = Figures.median(Figures.seconds(RUNS, ours)) / frames;
        double bare = Figures.median(Figures.seconds(RUNS, () -> Command.ffmpeg(input + " -f null -")));
        double scaled = Figures.median(Figures.seconds(RUNS, () -> Command.ffmpeg(input + scale + " -f null -")));
        double theirs = Math.max(0, scaled - bare) / frames;
        Path out = folder.resolve("theirs.yuv");
        Command.ffmpeg(input + scale + " -frames:v 1 -f rawvideo " + out);
        Frame byUs = unpacked(layout, made);
        Frame byThem = unpacked(layout, Files.readAllBytes(out));
        say(Figures.text(
                "| %dx%d to %dx%d | %.2f | %.2f | %.2f | %.3f | %.3f | %.5f | %.5f |",
                width,
                height,
                2 * width,
                2 * height,
                1000 * mine,
                1000 * theirs,
                mine / theirs,
                Psnr.of(byUs.plane(0), clean.plane(0), 8),
                Psnr.of(byThem.plane(0), clean.plane(0), 8),
                Ssim.of(byUs.plane(0), clean.plane(0), 8),
                Ssim.of(byThem.plane(0), clean.plane(0), 8)));
    }

    private void enlarge(
            RawLayout from, byte[] raw, EnlargeStage stage, RawLayout to, byte[] made, PlanePool pool, Work work) {
        Frame in = Frame.blank(from.format(), from.format().whole(), 0, Rational.ZERO, pool);
        for (int p = 0; p < in.planes().size(); p++) {
            int plane = p;
            work.bands(in.plane(p).height(), 64, (a, b) -> from.unpackRows(raw, in, plane, a, b));
        }
        Frame out = stage.treat(d -> in, to.format().whole(), pool, work);
        for (int p = 0; p < out.planes().size(); p++) {
            int plane = p;
            work.bands(out.plane(p).height(), 64, (a, b) -> to.packRows(out, made, plane, a, b));
        }
        in.release(pool);
        out.release(pool);
    }

    private static Frame unpacked(RawLayout layout, byte[] raw) {
        Frame frame = Frame.blank(layout.format(), layout.format().whole(), 0, Rational.ZERO, new PlanePool(0));
        layout.unpack(raw, frame);
        return frame;
    }

    private static Format format(int width, int height) {
        return new Format(width, height, Chroma.S420, Siting.LEFT, 8, HD, Rational.ONE);
    }

    // --- a whole render against its slowest part ---

    private void wholeRender() throws IOException {
        Path clip = folder.resolve("render.mp4");
        Command.ffmpeg(
                "-f lavfi -i mandelbrot=s=640x360:r=25 -frames:v 200 -pix_fmt yuv420p -c:v libx264 -crf 18 " + clip);
        Clip source = Clip.streamed(Prober.probe(clip));
        Recipe recipe = new Recipe(List.of(Step.parse("enlarge factor=2 kernel=lanczos3")));
        double decode = Figures.median(Figures.seconds(3, () -> drain(source, Recipe.EMPTY)));
        double decodeAndTreat = Figures.median(Figures.seconds(3, () -> drain(source, recipe)));
        Path raw = folder.resolve("large.yuv");
        Command.ffmpeg("-i " + clip + " -vf scale=1280:720:flags=lanczos -f rawvideo " + raw);
        double encode = Figures.median(Figures.seconds(
                3,
                () -> Command.ffmpeg("-f rawvideo -pix_fmt yuv420p -s 1280x720 -r 25 -i " + raw
                        + " -c:v libx264 -preset medium -profile:v high -crf 17 -g 48 -threads " + THREADS + " "
                        + folder.resolve("alone.mp4"))));
        double whole = Figures.median(Figures.seconds(3, () -> render(source, recipe)));
        double slowest = Math.max(encode, decodeAndTreat);
        say("## A whole render: 200 frames of 640x360 to 1280x720, H.264 CRF 17");
        say("");
        say(
                "Each part alone may use the whole machine, so on " + THREADS
                        + " cores the parts' processor time adds up; the render cannot be quicker than their sum over the cores.");
        say("");
        say("| part | seconds |");
        say("|---|---|");
        say(Figures.text("| decode alone | %.2f |", decode));
        say(Figures.text("| decode and treat, nothing encoded | %.2f |", decodeAndTreat));
        say(Figures.text("| encode alone, from raw frames | %.2f |", encode));
        say(Figures.text("| whole render, joined and read back | %.2f |", whole));
        say(Figures.text("| whole / slowest part | %.2f |", whole / slowest));
        say("");
    }

    private void drain(Clip source, Recipe recipe) {
        var chain = recipe.chain(source.format());
        try (var stream = chain.open(
                source, FrameRange.all(), chain.output().whole(), machine.planes(), machine.work(new Cancel()))) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frame.get().release(machine.planes());
            }
        }
    }

    private void render(Clip source, Recipe recipe) {
        try {
            Path scratch = Files.createTempDirectory(folder, "scratch");
            var request = new RenderRequest(
                    source,
                    recipe,
                    FrameRange.all(),
                    Deliverable.usual(Codecs.H264),
                    scratch.resolve("whole.mp4"),
                    scratch,
                    Integer.MAX_VALUE);
            new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
    }

    // --- memory over length ---

    private void memory() {
        Path ten = folder.resolve("ten.mp4");
        Command.ffmpeg(
                "-f lavfi -i testsrc2=s=1920x1080:r=25:d=10 -pix_fmt yuv420p -c:v libx264 -preset ultrafast " + ten);
        Path long_ = folder.resolve("long.mp4");
        Command.ffmpeg("-stream_loop 59 -i " + ten + " -c copy " + long_);
        long shortPeak = peak(ten);
        long longPeak = peak(long_);
        say("## Memory: 1080p in, reduced to 480x270, H.264 out");
        say("");
        say("Most memory the process held (VmHWM), FFmpeg's own processes not counted.");
        say("");
        say("| footage | MiB |");
        say("|---|---|");
        say(Figures.text("| 10 s | %d |", shortPeak >> 20));
        say(Figures.text("| 10 min | %d |", longPeak >> 20));
        say(Figures.text("| ratio | %.2f |", (double) longPeak / shortPeak));
        say("");
    }

    private long peak(Path clip) {
        return Command.renderPeak(List.of(
                clip.toString(),
                folder.resolve("memory.mp4").toString(),
                "--force",
                "--step",
                "enlarge factor=0.25 kernel=area",
                "--quality",
                "30"));
    }
}
