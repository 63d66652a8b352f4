package awlsmith.benchmarks;

import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.core.recipe.Treatment;
import awlsmith.footage.PackageCache;
import awlsmith.media.Clip;
import awlsmith.media.Encoding;
import awlsmith.media.Indexer;
import awlsmith.media.Prober;
import awlsmith.render.Machine;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;

/** How well noise of known strength is taken out, beside FFmpeg's filters, each at the best of several settings, on the same files. */
public final class Cleaning {
    private static final int FRAMES = 16;
    private static final int BORDER = 8;
    /** The first and last frames have fewer neighbours. */
    private static final int LEFT_OUT = 3;
    /** Of the slowest filters. */
    private static final int FEW = LEFT_OUT + 2;

    /** Its strength goes no further. */
    private static final double NLMEANS_MOST = 30;

    private static final String EXAMPLES = "opencv-doc/examples/data/";

    private final List<String> report = new ArrayList<>();
    private final Machine machine = Machine.whole();
    private final Path scratch;

    private Cleaning(Path scratch) {
        this.scratch = scratch;
    }

    /** What noise is like. */
    private enum Kind {
        WHITE,
        COARSE,
        CODED
    }

    /** A filter of FFmpeg's with the settings that are tried, where S is the noise's strength of 255. */
    private record Peer(String name, List<String> settings, int frames) {}

    private static final List<Peer> PEERS = List.of(
            new Peer("nlmeans", List.of("nlmeans=s=S*0.5", "nlmeans=s=S*0.8", "nlmeans=s=S*1.2"), FEW),
            new Peer("hqdn3d", List.of("hqdn3d=S*0.3", "hqdn3d=S*0.6", "hqdn3d=S*1"), FRAMES),
            new Peer("fftdnoiz", List.of("fftdnoiz=sigma=S*0.7", "fftdnoiz=sigma=S*1", "fftdnoiz=sigma=S*1.5"), FRAMES),
            new Peer("owdenoise", List.of("owdenoise=ls=S*0.5", "owdenoise=ls=S*1"), FEW),
            new Peer(
                    "vaguedenoiser",
                    List.of(
                            "vaguedenoiser=threshold=S*0.5",
                            "vaguedenoiser=threshold=S*1",
                            "vaguedenoiser=threshold=S*2"),
                    FRAMES),
            new Peer(
                    "atadenoise",
                    List.of("atadenoise=0a=S*0.004:0b=S*0.02", "atadenoise=0a=S*0.01:0b=S*0.05"),
                    FRAMES));

    /** Arguments: the report's file, a folder to keep fetched packages in, the folder of the demo footage. */
    public static void main(String[] arguments) throws IOException {
        Path scratch = Files.createTempDirectory("awlsmith-cleaning");
        var cleaning = new Cleaning(scratch);
        try {
            cleaning.all(new PackageCache(Path.of(arguments[1])), Path.of(arguments[2]));
        } finally {
            cleaning.machine.close();
            try (var files = Files.list(scratch)) {
                for (Path file : files.toList()) {
                    Files.delete(file);
                }
            }
            Files.delete(scratch);
        }
        Files.writeString(Path.of(arguments[0]), String.join("\n", cleaning.report) + "\n");
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    private void all(PackageCache packages, Path demo) throws IOException {
        say("# Cleaning");
        say("");
        say("Made by `./awlsmith measure --cleaning`; do not edit.");
        say("");
        say(
                "PSNR-Y in dB against the truth, " + FRAMES + " frames no wider than 640, the first and last "
                        + LEFT_OUT
                        + " and an edge of " + BORDER + " pixels left out (of nlmeans and owdenoise " + FEW
                        + " frames). Noise is added to luma with the deviation told, of 255, and half of it to colour; coarse: means of 2x2, twice;"
                        + " coded: white and then H.264 at CRF 20. Ours measures the noise itself, all settings as they are; FFmpeg's filters are told"
                        + " it, at the best of two or three settings each; bm3d took nothing out at the settings tried and is left out. Behind each the frames a second, on all cores.");
        say("");
        say("| clip | noise | noisy | denoise | "
                + String.join(" | ", PEERS.stream().map(Peer::name).toList()) + " | denoise - best |");
        say("|---|---|---|---|" + "---|".repeat(PEERS.size()) + "---|");
        record Source(String name, Path file) {}
        var sources = List.of(
                new Source("vtest.avi", packages.file("opencv-doc", EXAMPLES + "vtest.avi")),
                new Source("Megamind.avi", packages.file("opencv-doc", EXAMPLES + "Megamind.avi")),
                new Source("deck walk, truth", demo.resolve("truth").resolve("deck-walk.mp4")));
        for (Source source : sources) {
            Path truth = scratch.resolve("truth.mkv");
            Command.ffmpeg("-i " + source.file() + " -an -vf scale='min(640,iw)':-2,format=yuv420p -frames:v " + FRAMES
                    + " -fps_mode passthrough -c:v ffv1 " + truth);
            row(source.name(), truth, 17.5, Kind.WHITE);
            row(source.name(), truth, 10, Kind.COARSE);
            row(source.name(), truth, 10, Kind.CODED);
        }
    }

    private void row(String name, Path truth, double sigma, Kind kind) {
        Path noisy = scratch.resolve("noisy.mkv");
        addNoise(truth, noisy, sigma, kind);
        List<Plane> wanted = luma(indexed(truth).format(), indexed(truth), Optional.empty());
        double before = score(wanted, luma(indexed(noisy).format(), indexed(noisy), Optional.empty()));
        Clip clip = indexed(noisy);
        Treatment treatment = Analyses.complete(
                new Recipe(List.of(Step.parse("denoise"))).on(clip.material()),
                clip,
                Analyses.Store.NONE,
                machine.planes(),
                machine.work(new Cancel()),
                (doing, frames) -> {});
        double ours = 0;
        double rate = 0;
        for (int run = 0; run < 2; run++) {
            long begun = System.nanoTime();
            ours = score(wanted, luma(clip.format(), clip, Optional.of(treatment)));
            rate = FRAMES / ((System.nanoTime() - begun) / 1e9);
        }
        var line = new StringBuilder(Figures.text(
                "| %s | %s %.4g | %.2f | %.2f (%.1f/s) |",
                name, kind.name().toLowerCase(Locale.ROOT), sigma, before, ours, rate));
        double best = 0;
        for (Peer peer : PEERS) {
            double most = 0;
            double speed = 0;
            for (String setting : peer.settings()) {
                Path out = scratch.resolve("out.mkv");
                long begun = System.nanoTime();
                Command.ffmpeg("-i " + noisy + " -vf " + told(setting, sigma) + ",format=yuv420p -frames:v "
                        + peer.frames() + " -c:v ffv1 " + out);
                double seconds = (System.nanoTime() - begun) / 1e9;
                double score = score(wanted, luma(indexed(out).format(), indexed(out), Optional.empty()));
                if (score > most) {
                    most = score;
                    speed = peer.frames() / seconds;
                }
            }
            line.append(Figures.text(" %.2f (%.1f/s) |", most, speed));
            best = Math.max(best, most);
        }
        say(line + Figures.text(" %+.2f |", ours - best));
    }

    /** A setting with S*k worked out. */
    private static String told(String setting, double sigma) {
        var parts = setting.split("S\\*", -1);
        var text = new StringBuilder(parts[0]);
        for (int i = 1; i < parts.length; i++) {
            int end = 0;
            while (end < parts[i].length() && "0123456789.".indexOf(parts[i].charAt(end)) >= 0) {
                end++;
            }
            double value = sigma * Double.parseDouble(parts[i].substring(0, end));
            text.append(Figures.text("%.4f", setting.startsWith("nlmeans") ? Math.min(value, NLMEANS_MOST) : value))
                    .append(parts[i].substring(end));
        }
        return text.toString();
    }

    private static Clip indexed(Path file) {
        var info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    private void addNoise(Path truth, Path out, double sigma, Kind kind) {
        Clip clip = indexed(truth);
        Format format = clip.format();
        var layout = new RawLayout(format);
        byte[] raw = new byte[layout.frameBytes()];
        Path plain = kind == Kind.CODED ? scratch.resolve("plain.mkv") : out;
        try (var frames = clip.open(FrameRange.all(), format.whole(), new PlanePool(0), new Cancel());
                var encoding = new Encoding(
                        plain,
                        format,
                        Optional.of(Rational.of(25)),
                        Deliverable.usual(Codecs.FFV1),
                        machine.threads())) {
            for (Optional<Frame> frame = frames.next(); frame.isPresent(); frame = frames.next()) {
                for (int p = 0; p < 3; p++) {
                    Plane plane = frame.get().plane(p);
                    float[] noise = noise(plane, kind, 31 * frame.get().number() + p);
                    // of 255 steps, where luma has 219 from black to white
                    float scale = (float) (sigma / 219 * (p == 0 ? 1 : 0.5));
                    for (int i = 0; i < noise.length; i++) {
                        plane.data()[i] += scale * noise[i];
                    }
                }
                layout.pack(frame.get(), raw);
                encoding.write(raw, Rational.ZERO);
            }
            encoding.finish(new Cancel());
        }
        if (kind == Kind.CODED) {
            Command.ffmpeg("-i " + plain + " -c:v libx264 -crf 20 -pix_fmt yuv420p " + out);
        }
    }

    private static float[] noise(Plane plane, Kind kind, long seed) {
        var random = new Random(seed);
        float[] x = new float[plane.width() * plane.height()];
        for (int i = 0; i < x.length; i++) {
            x[i] = (float) random.nextGaussian();
        }
        for (int i = 0; i < (kind == Kind.COARSE ? 2 : 0); i++) {
            x = blurred(x, plane.width());
        }
        if (kind == Kind.COARSE) {
            double sum = 0;
            for (float v : x) {
                sum += v * v;
            }
            float scale = (float) (1 / Math.sqrt(sum / x.length));
            for (int i = 0; i < x.length; i++) {
                x[i] *= scale;
            }
        }
        return x;
    }

    private static float[] blurred(float[] x, int width) {
        float[] out = new float[x.length];
        for (int i = 0; i < x.length; i++) {
            int right = i % width + 1 < width ? 1 : 0;
            int below = i + width < x.length ? width : 0;
            out[i] = (x[i] + x[i + right] + x[i + below] + x[i + right + below]) / 4;
        }
        return out;
    }

    private List<Plane> luma(Format format, Clip clip, Optional<Treatment> treatment) {
        var planes = new ArrayList<Plane>();
        var pool = machine.planes();
        try (var stream = treatment.isPresent()
                ? treatment.get().chain().open(clip, FrameRange.all(), format.whole(), pool, machine.work(new Cancel()))
                : clip.open(FrameRange.all(), format.whole(), pool, new Cancel())) {
            for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                Plane light = frame.get().plane(0);
                planes.add(new Plane(light.packed(), 0, light.width(), light.height(), light.width()));
                frame.get().release(pool);
            }
        }
        return planes;
    }

    private static double score(List<Plane> wanted, List<Plane> got) {
        int from = Math.min(LEFT_OUT, got.size() - 1);
        int end = Math.max(from + 1, Math.min(wanted.size(), got.size()) - (got.size() < FRAMES ? 0 : LEFT_OUT));
        double sum = 0;
        for (int n = from; n < end; n++) {
            sum += Psnr.of(got.get(n), wanted.get(n), BORDER);
        }
        return sum / (end - from);
    }
}
