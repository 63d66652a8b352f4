package awlsmith.benchmarks;

import awlsmith.core.measure.Direction;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.footage.PackageCache;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;

/**
 * How well noise of known strength is taken out, beside FFmpeg's filters, each at the best of several settings, on the same files; then what
 * {@link Repairing} and {@link Ordering} measure.
 */
public final class Cleaning {
    private static final int FRAMES = 16;
    /** The first and last frames have fewer neighbours. */
    private static final int LEFT_OUT = 3;
    /** Frames of the slowest filters. */
    private static final int FEW = LEFT_OUT + 2;
    /** Its strength goes no further. */
    private static final double NLMEANS_MOST = 30;

    private static final String EXAMPLES = "opencv-doc/examples/data/";

    private final List<String> report = new ArrayList<>();
    private final List<String> calm = new ArrayList<>();
    private final Scratch scratch;

    /** A clip without faults. */
    record Source(String name, Path file) {}

    private Cleaning(Scratch scratch) {
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

    /** What the report is made of, each beginning with a heading. */
    private enum Part {
        NOISE("## Noise"),
        COMPRESSION("## Compression"),
        ORDERS("## Orders"),
        TIMES("## Time");

        private final String heading;

        Part(String heading) {
            this.heading = heading;
        }

        /** This part of a report. */
        private String of(String document) {
            int from = this == NOISE ? 0 : document.indexOf(heading);
            int end = this == TIMES ? document.length() : document.indexOf(values()[ordinal() + 1].heading);
            return document.substring(from, end);
        }
    }

    /**
     * Arguments: the report's file, a folder to keep fetched packages in, the folder of the demo footage; names of parts behind them are
     * measured anew alone, and the rest of the report stays.
     */
    public static void main(String[] arguments) throws IOException {
        Path document = Path.of(arguments[0]);
        Set<Part> anew = EnumSet.noneOf(Part.class);
        for (String name : List.of(arguments).subList(3, arguments.length)) {
            anew.add(Part.valueOf(name.toUpperCase(Locale.ROOT)));
        }
        String kept = anew.isEmpty() ? "" : Files.readString(document);
        var made = new StringBuilder();
        try (var scratch = new Scratch()) {
            var packages = new PackageCache(Path.of(arguments[1]));
            Path demo = Path.of(arguments[2]);
            var sources = List.of(
                    new Source("vtest.avi", packages.file("opencv-doc", EXAMPLES + "vtest.avi")),
                    new Source("Megamind.avi", packages.file("opencv-doc", EXAMPLES + "Megamind.avi")),
                    new Source("deck walk, truth", demo.resolve("truth").resolve("deck-walk.mp4")));
            for (Part part : Part.values()) {
                made.append(
                        anew.isEmpty() || anew.contains(part)
                                ? String.join("\n", measured(part, scratch, sources)) + "\n"
                                : part.of(kept));
            }
        }
        Files.writeString(document, made);
    }

    private static List<String> measured(Part part, Scratch scratch, List<Source> sources) {
        return switch (part) {
            case NOISE -> new Cleaning(scratch).noise(sources);
            case COMPRESSION -> new Repairing(scratch).report(sources);
            case ORDERS -> new Ordering(scratch).report(sources);
            case TIMES -> new Paces(scratch).report(sources.getFirst());
        };
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    private List<String> noise(List<Source> sources) {
        say("# Cleaning");
        say("");
        say("Made by `./awlsmith measure --cleaning`; do not edit. PSNR-Y in dB against the truth, without an edge of "
                + Scratch.BORDER + " pixels; clips no wider than 640. Frames a second are those of this run, on "
                + scratch.threads() + " threads: read them against each other.");
        say("");
        say("## Noise");
        say("");
        say(
                FRAMES + " frames, the first and last " + LEFT_OUT + " left out (of nlmeans and owdenoise " + FEW
                        + " frames). Noise is added to luma with the deviation told, of 255, and half of it to colour; coarse: means of 2x2, twice;"
                        + " coded: white and then H.264 at CRF 20. Ours measures the noise itself, all settings as they are; FFmpeg's filters are told"
                        + " it, at the best of two or three settings each; bm3d took nothing out at the settings tried and is left out.");
        say("");
        say("| clip | noise | noisy | denoise | fast | "
                + String.join(" | ", PEERS.stream().map(Peer::name).toList())
                + " | denoise - best | fast - best |");
        say("|---|---|---|---|---|" + "---|".repeat(PEERS.size()) + "---|---|");
        for (Source source : sources) {
            Path truth = scratch.truth(source.file(), FRAMES);
            row(source.name(), truth, 10, Kind.WHITE);
            row(source.name(), truth, 17.5, Kind.WHITE);
            row(source.name(), truth, 30, Kind.WHITE);
            row(source.name(), truth, 10, Kind.COARSE);
            row(source.name(), truth, 10, Kind.CODED);
        }
        say("");
        say(
                "What is left of the noise, in the same runs: how restless it is (deviation of the error's change from frame to frame, of 255), and how"
                        + " much of the fine structure of the quieter half of the picture runs one way, 0 to 1 (white noise: 0.08): strokes and worms"
                        + " would lift it above the truth's own.");
        say("");
        say(
                "| clip | noise | restless: denoise | fast | least of FFmpeg's | one way: truth | denoise | fast | nlmeans |");
        say("|---|---|---|---|---|---|---|---|---|");
        calm.forEach(this::say);
        say("");
        return report;
    }

    private void row(String name, Path truth, double sigma, Kind kind) {
        Path noisy = scratch.file("noisy.mkv");
        addNoise(truth, noisy, sigma, kind);
        List<Plane> wanted = scratch.luma(truth);
        double before = psnr(wanted, scratch.luma(noisy));
        Scratch.Made quality = scratch.made(noisy, "denoise");
        Scratch.Made fast = scratch.made(noisy, "denoise mode=fast");
        double ours = psnr(wanted, quality.frames());
        double quick = psnr(wanted, fast.frames());
        String what = kind.name().toLowerCase(Locale.ROOT);
        var line = new StringBuilder(Figures.text(
                "| %s | %s %.4g | %.2f | %.2f (%.1f/s) | %.2f (%.1f/s) |",
                name, what, sigma, before, ours, quality.rate(), quick, fast.rate()));
        double best = 0;
        double calmest = Double.MAX_VALUE;
        double strokes = 0;
        for (Peer peer : PEERS) {
            double most = 0;
            double speed = 0;
            List<Plane> made = List.of();
            for (String setting : peer.settings()) {
                Path out = scratch.file("out.mkv");
                long begun = System.nanoTime();
                Command.ffmpeg("-i " + noisy + " -vf " + told(setting, sigma) + ",format=yuv420p -frames:v "
                        + peer.frames() + " -c:v ffv1 " + out);
                double seconds = (System.nanoTime() - begun) / 1e9;
                List<Plane> tried = scratch.luma(out);
                double score = psnr(wanted, tried);
                if (score > most) {
                    most = score;
                    speed = peer.frames() / seconds;
                    made = tried;
                }
            }
            line.append(Figures.text(" %.2f (%.1f/s) |", most, speed));
            best = Math.max(best, most);
            int from = LEFT_OUT;
            calmest = Math.min(calmest, Scratch.flicker(wanted, made, from, end(made)));
            strokes = peer.name().equals("nlmeans") ? direction(made, wanted) : strokes;
        }
        say(line + Figures.text(" %+.2f | %+.2f |", ours - best, quick - best));
        calm.add(Figures.text(
                "| %s | %s %.4g | %.2f | %.2f | %.2f | %.3f | %.3f | %.3f | %.3f |",
                name,
                what,
                sigma,
                Scratch.flicker(wanted, quality.frames(), LEFT_OUT, end(wanted)),
                Scratch.flicker(wanted, fast.frames(), LEFT_OUT, end(wanted)),
                calmest,
                direction(wanted, wanted),
                direction(quality.frames(), wanted),
                direction(fast.frames(), wanted),
                strokes));
    }

    private static int end(List<Plane> frames) {
        return frames.size() - (frames.size() < FRAMES ? 0 : LEFT_OUT);
    }

    private static double psnr(List<Plane> wanted, List<Plane> got) {
        return Scratch.psnr(wanted, got, LEFT_OUT, end(got));
    }

    private static double direction(List<Plane> made, List<Plane> truth) {
        return Direction.ofQuiet(made.get(LEFT_OUT), truth.get(LEFT_OUT), Scratch.BORDER);
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

    private void addNoise(Path truth, Path out, double sigma, Kind kind) {
        Path plain = kind == Kind.CODED ? scratch.file("plain.mkv") : out;
        scratch.changed(truth, plain, frame -> add(frame, sigma, kind));
        if (kind == Kind.CODED) {
            Command.ffmpeg("-i " + plain + " -c:v libx264 -crf 20 -pix_fmt yuv420p " + out);
        }
    }

    private static void add(Frame frame, double sigma, Kind kind) {
        for (int p = 0; p < 3; p++) {
            Plane plane = frame.plane(p);
            float[] noise = noise(plane, kind, 31 * frame.number() + p);
            // of 255 steps, where luma has 219 from black to white
            float scale = (float) (sigma / 219 * (p == 0 ? 1 : 0.5));
            for (int i = 0; i < noise.length; i++) {
                plane.data()[i] += scale * noise[i];
            }
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
}
