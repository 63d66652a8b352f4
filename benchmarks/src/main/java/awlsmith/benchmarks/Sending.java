package awlsmith.benchmarks;

import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.Prober;
import awlsmith.render.Folders;
import awlsmith.render.Machine;
import awlsmith.render.RenderRequest;
import awlsmith.render.RenderWatch;
import awlsmith.render.Renderer;
import awlsmith.render.Trial;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** What is told before a render begins, held against what it comes to; and what several files of one treatment cost. */
public final class Sending {
    private static final List<String> CLIPS = List.of(
            "deck-walk.mp4",
            "faded-reel.mkv",
            "lamp-night.mp4",
            "moving-postcard.mp4",
            "regatta.mp4",
            "safety-film.gif",
            "tape-crossing.mpg",
            "winch-inspection.mp4");

    private static final double BUDGET = 8;

    private final List<String> report = new ArrayList<>();
    private final Machine machine = Machine.whole();
    private final Path scratch;
    private int made;

    private Sending(Path scratch) {
        this.scratch = scratch;
    }

    /** Arguments: the report's file, a folder that is not used, the folder of the demo footage. */
    public static void main(String[] arguments) throws IOException {
        Path scratch = Files.createTempDirectory("awlsmith-sending");
        var sending = new Sending(scratch);
        try {
            sending.all(Path.of(arguments[2]));
        } finally {
            sending.machine.close();
            Folders.remove(scratch);
        }
        Files.writeString(Path.of(arguments[0]), String.join("\n", sending.report) + "\n");
    }

    private void say(String line) {
        report.add(line);
        System.err.println(line);
    }

    private static Recipe five(Clip clip) {
        var steps = new ArrayList<Step>();
        if (clip.format().scan().isInterlaced()) {
            steps.add(Step.parse("deinterlace"));
        } else {
            steps.add(Step.parse("levels"));
        }
        steps.add(Step.parse("denoise mode=fast"));
        steps.add(Step.parse("exposure stops=0.2"));
        steps.add(Step.parse("enlarge factor=2 model=photographic mode=fast"));
        steps.add(Step.parse("sharpen"));
        return new Recipe(steps);
    }

    private static Clip clip(Path file) {
        var info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, frames -> {}, new Cancel())));
    }

    private RenderRequest request(Clip clip, Recipe recipe, FrameRange range, Deliverable deliverable) {
        int number = made++;
        return new RenderRequest(
                clip,
                recipe,
                range,
                deliverable,
                scratch.resolve("out-" + number + "." + deliverable.container().ending()),
                scratch.resolve("parts-" + number),
                96);
    }

    private void all(Path demo) throws IOException {
        say("# Sending out");
        say("");
        say("Made by `./awlsmith measure --sending`; do not edit.");
        say("");
        say("## What is told before, and what it comes to");
        say("");
        say(
                "Five steps (deinterlace or levels, denoise, exposure, enlarge twice with the quick net, sharpen) on every demo"
                        + " clip, whole. Told by a trial of about eight seconds; wanted is within 20 %.");
        say("");
        say("| clip | as | frames | tried | size told | size | off | time told | time | off |");
        say("|---|---|--:|--:|--:|--:|--:|--:|--:|--:|");
        for (String name : CLIPS) {
            Clip clip = clip(demo.resolve(name));
            estimate(name, clip, Deliverable.of("h264", Map.of(), true));
            estimate(name, clip, Deliverable.of("prores", Map.of(), true));
        }
        say("");
        say("## One treatment, several files");
        say("");
        say(
                "Seconds from the first frame to the file read back, against the treatment alone (nothing coded), and four files of"
                        + " one treatment (H.264, H.265, ProRes, FFV1) against the H.264 alone; all in one run.");
        say("");
        say("| clip | treated alone | one file | times | four files | times |");
        say("|---|--:|--:|--:|--:|--:|");
        for (String name : List.of("regatta.mp4", "tape-crossing.mpg", "winch-inspection.mp4")) {
            several(name, clip(demo.resolve(name)));
        }
    }

    private void estimate(String name, Clip clip, Deliverable deliverable) throws IOException {
        var whole = new FrameRange(0, clip.index().orElseThrow().count());
        try {
            RenderRequest tried = request(clip, five(clip), whole, deliverable);
            Trial.Found told = Trial.of(tried, machine, BUDGET, new Cancel());
            RenderRequest request = request(clip, five(clip), whole, deliverable);
            long begun = System.nanoTime();
            new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
            double seconds = (System.nanoTime() - begun) / 1e9;
            double bytes = Files.size(request.out());
            say(String.format(
                    Locale.ROOT,
                    "| %s | %s | %d | %d | %.2f MB | %.2f MB | %+.0f %% | %.1f s | %.1f s | %+.0f %% |",
                    name,
                    deliverable.codec().label(),
                    request.outputRange().count(),
                    told.frames(),
                    told.fileBytes() / 1e6,
                    bytes / 1e6,
                    100 * (told.fileBytes() / bytes - 1),
                    told.seconds(),
                    seconds,
                    100 * (told.seconds() / seconds - 1)));
            Files.delete(request.out());
            Folders.remove(request.scratch());
        } catch (MediaException e) {
            say("| " + name + " | " + deliverable.codec().label() + " | " + e.getMessage() + " |");
        }
    }

    private void several(String name, Clip clip) throws IOException {
        var range = new FrameRange(0, Math.min(75, clip.index().orElseThrow().count()));
        Recipe recipe = five(clip);
        double alone = treated(request(clip, recipe, range, Deliverable.of("h264", Map.of(), true)));
        double one = rendered(List.of(request(clip, recipe, range, Deliverable.of("h264", Map.of(), true))));
        var four = new ArrayList<RenderRequest>();
        for (String codec : List.of("h264", "h265", "prores", "ffv1")) {
            four.add(request(clip, recipe, range, Deliverable.of(codec, Map.of(), true)));
        }
        double all = rendered(four);
        say(String.format(
                Locale.ROOT,
                "| %s | %.1f s | %.1f s | %.2f | %.1f s | %.2f |",
                name,
                alone,
                one,
                one / alone,
                all,
                all / one));
    }

    private double treated(RenderRequest request) {
        long begun = System.nanoTime();
        var chain = request.treatment().chain();
        try (var stream = chain.open(
                request.clip(),
                request.outputRange(),
                chain.output().whole(),
                machine.planes(),
                machine.work(new Cancel()))) {
            for (var frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                frame.get().release(machine.planes());
            }
        }
        return (System.nanoTime() - begun) / 1e9;
    }

    private double rendered(List<RenderRequest> requests) throws IOException {
        long begun = System.nanoTime();
        new Renderer(requests, machine, RenderWatch.SILENT, new Cancel()).renderAll((number, made) -> {});
        double seconds = (System.nanoTime() - begun) / 1e9;
        for (RenderRequest one : requests) {
            Files.delete(one.out());
            Folders.remove(one.scratch());
        }
        return seconds;
    }
}
