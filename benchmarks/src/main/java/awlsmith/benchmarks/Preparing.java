package awlsmith.benchmarks;

import awlsmith.core.condition.Examiner;
import awlsmith.core.condition.Judge;
import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.footage.PackageCache;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.Prober;
import awlsmith.render.Machine;
import awlsmith.render.RenderRequest;
import awlsmith.render.RenderWatch;
import awlsmith.render.Renderer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/** How fast clips are examined, and how well fields become frames beside FFmpeg's filters, on the same files. */
public final class Preparing {
    private static final int BORDER = 8;
    private static final int FIELDS = 64;
    /** The first and last fields lack neighbours whichever way they are treated. */
    private static final int LEFT_OUT = 4;

    private static final String EXAMPLES = "opencv-doc/examples/data/";
    private static final List<String> FILTERS = List.of("bwdif=mode=send_field", "yadif=mode=send_field", "w3fdif");

    private final List<String> report = new ArrayList<>();
    private final Machine machine = Machine.whole();
    private final Path scratch;

    private Preparing(Path scratch) {
        this.scratch = scratch;
    }

    /** Arguments: the report's file, a folder to keep fetched packages in, the folder of the demo footage. */
    public static void main(String[] arguments) throws IOException {
        Path scratch = Files.createTempDirectory("awlsmith-preparing");
        var preparing = new Preparing(scratch);
        var packages = new PackageCache(Path.of(arguments[1]));
        Path demo = Path.of(arguments[2]);
        try {
            preparing.all(packages, demo);
        } finally {
            preparing.machine.close();
            try (var files = Files.list(scratch)) {
                for (Path file : files.toList()) {
                    Files.delete(file);
                }
            }
            Files.delete(scratch);
        }
        Files.writeString(Path.of(arguments[0]), String.join("\n", preparing.report) + "\n");
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    private void all(PackageCache packages, Path demo) throws IOException {
        say("# Examining and deinterlacing");
        say("");
        say("Made by `./awlsmith measure --preparing`; do not edit.");
        say("");
        say("## Examining");
        say("");
        say(
                "Frames a second on all cores, the decoder's among them, and as a multiple of the clip's own rate; the second of two runs.");
        say("");
        say("| clip | size | frames/s | times real time | most wrong |");
        say("|---|---|---|---|---|");
        examine("tape crossing", demo.resolve("tape-crossing.mpg"));
        examine("deck walk", demo.resolve("deck-walk.mp4"));
        examine("vtest.avi", packages.file("opencv-doc", EXAMPLES + "vtest.avi"));
        say("");
        say("## Deinterlacing to field rate");
        say("");
        say(
                "PSNR-Y in dB against the whole frames that the fields were taken from (upper lines of every even frame, lower ones of"
                        + " every odd one), " + FIELDS + " fields, an edge of " + BORDER + " pixels left out.");
        say("");
        say("| clip | quality | fast | bwdif | yadif | w3fdif | quality - bwdif |");
        say("|---|---|---|---|---|---|---|");
        deinterlace("Megamind.avi", packages.file("opencv-doc", EXAMPLES + "Megamind.avi"));
        deinterlace("vtest.avi", packages.file("opencv-doc", EXAMPLES + "vtest.avi"));
        deinterlace("tree.avi", packages.file("opencv-doc", EXAMPLES + "tree.avi"));
        deinterlace("deck walk, truth", demo.resolve("truth").resolve("deck-walk.mp4"));
        say("");
        say("## What FFmpeg's idet takes the result for");
        say("");
        say(
                "What idet (several frames looked at) calls the frames before and behind our deinterlacing to whole frames; of some it"
                        + " does not know.");
        say("");
        say("| clip | before | behind |");
        say("|---|---|---|");
        detected("tape crossing", demo.resolve("tape-crossing.mpg"));
        woven("vtest.avi", packages.file("opencv-doc", EXAMPLES + "vtest.avi"));
    }

    private static Clip indexed(Path file) {
        var info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
    }

    private void examine(String name, Path file) {
        Clip clip = indexed(file);
        int frames = clip.index().orElseThrow().count();
        double rate = frames / clip.time(frames).toDouble();
        Judge judge = null;
        double seconds = 0;
        for (int run = 0; run < 2; run++) {
            long begun = System.nanoTime();
            judge = new Judge(
                    new Examiner(clip, rate, new PlanePool(1L << 27)).examine(machine.work(new Cancel()), n -> {}));
            seconds = (System.nanoTime() - begun) / 1e9;
        }
        say(Figures.text(
                "| %s | %dx%d | %.0f | %.1f | %s |",
                name,
                clip.format().width(),
                clip.format().height(),
                frames / seconds,
                frames / seconds / rate,
                judge.condition().worst().map(finding -> finding.words()).orElse("nothing")));
    }

    private void deinterlace(String name, Path file) {
        Path truth = scratch.resolve("truth.mkv");
        Path woven = scratch.resolve("woven.mkv");
        Command.ffmpeg("-i " + file + " -an -vf format=yuv420p -frames:v " + FIELDS
                + " -fps_mode passthrough -c:v ffv1 " + truth);
        Command.ffmpeg("-i " + truth + " -vf tinterlace=mode=interleave_top -c:v ffv1 " + woven);
        List<Plane> wanted = luma(indexed(truth), List.of());
        Map<String, Double> scores = new LinkedHashMap<>();
        Clip clip = indexed(woven);
        for (String mode : List.of("quality", "fast")) {
            var recipe = new Recipe(List.of(Step.parse("deinterlace order=top rate=fields mode=" + mode)));
            scores.put(
                    mode, score(wanted, luma(clip, recipe.chain(clip.format()).stages())));
        }
        for (String filter : FILTERS) {
            Path out = scratch.resolve("out.mkv");
            Command.ffmpeg("-i " + woven + " -vf setfield=tff," + filter + " -c:v ffv1 " + out);
            scores.put(filter, score(wanted, luma(indexed(out), List.of())));
        }
        var values = scores.values().toArray(Double[]::new);
        say(Figures.text(
                "| %s | %.2f | %.2f | %.2f | %.2f | %.2f | %+.2f |",
                name, values[0], values[1], values[2], values[3], values[4], values[0] - values[2]));
    }

    private void woven(String name, Path file) throws IOException {
        Path woven = scratch.resolve("woven.mkv");
        Command.ffmpeg("-i " + file + " -an -vf format=yuv420p,tinterlace=mode=interleave_top -frames:v " + FIELDS
                + " -c:v ffv1 -field_order tt -top 1 " + woven);
        detected(name, woven);
    }

    private void detected(String name, Path file) throws IOException {
        Path out = scratch.resolve("whole.mkv");
        Path segments = Files.createDirectories(scratch.resolve("segments"));
        Clip clip = indexed(file);
        int frames = Math.min(FIELDS, clip.index().orElseThrow().count());
        var recipe = new Recipe(List.of(Step.parse("deinterlace order=top rate=frames")));
        var request = new RenderRequest(
                clip, recipe, new FrameRange(0, frames), Deliverable.usual(Codecs.FFV1), out, segments, 2 * FIELDS);
        new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        say("| " + name + " | " + whole(file, frames) + " | " + whole(out, frames) + " |");
        try (var files = Files.list(segments)) {
            for (Path one : files.toList()) {
                Files.delete(one);
            }
        }
        Files.delete(segments);
    }

    /** How many of a file's frames idet calls progressive and interlaced. */
    private static String whole(Path file, int frames) {
        String told = Command.run(List.of(
                "ffmpeg",
                "-hide_banner",
                "-nostdin",
                "-nostats",
                "-i",
                file.toString(),
                "-an",
                "-frames:v",
                "" + frames,
                "-vf",
                "idet",
                "-f",
                "null",
                "-"));
        var counts = Pattern.compile(
                        "Multi frame detection:\\s*TFF:\\s*(\\d+)\\s*BFF:\\s*(\\d+)\\s*Progressive:\\s*(\\d+)")
                .matcher(told);
        if (!counts.find()) {
            throw new IllegalStateException("idet told nothing: " + told);
        }
        int fields = Integer.parseInt(counts.group(1)) + Integer.parseInt(counts.group(2));
        return counts.group(3) + " whole, " + fields + " of fields, of " + frames;
    }

    private List<Plane> luma(Clip clip, List<awlsmith.core.pipeline.Stage> stages) {
        var planes = new ArrayList<Plane>();
        var chain = new Chain(clip.format(), stages);
        try (var stream = chain.open(
                clip, FrameRange.all(), clip.format().whole(), new PlanePool(0), machine.work(new Cancel()))) {
            for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                planes.add(frame.get().plane(0));
            }
        }
        return planes;
    }

    private static double score(List<Plane> wanted, List<Plane> got) {
        int end = Math.min(wanted.size(), got.size()) - LEFT_OUT;
        double sum = 0;
        for (int n = LEFT_OUT; n < end; n++) {
            sum += Psnr.of(got.get(n), wanted.get(n), BORDER);
        }
        return sum / (end - LEFT_OUT);
    }
}
