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
import awlsmith.render.SharedWork;
import awlsmith.render.Trial;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Semaphore;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.LockSupport;

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

    /**
     * Arguments: the report's file, a folder that is not used, the folder of the demo footage; then sections to measure alone (told, several,
     * twenty, first, lending), the others staying as they were measured.
     */
    public static void main(String[] arguments) throws IOException {
        Path scratch = Files.createTempDirectory("awlsmith-sending");
        var sending = new Sending(scratch);
        Path report = Path.of(arguments[0]);
        List<String> wanted = List.of(arguments).subList(3, arguments.length);
        try {
            Files.writeString(report, sending.all(Path.of(arguments[2]), wanted, Sections.of(report)));
        } finally {
            sending.machine.close();
            Folders.remove(scratch);
        }
    }

    /** Parts of a report by their headings. */
    private record Sections(Map<String, String> byTitle) {
        static Sections of(Path report) throws IOException {
            var found = new LinkedHashMap<String, String>();
            if (Files.exists(report)) {
                String[] parts = Files.readString(report).split("(?m)^## ");
                for (int n = 1; n < parts.length; n++) {
                    int end = parts[n].indexOf('\n');
                    found.put(
                            parts[n].substring(0, end), parts[n].substring(end).strip());
                }
            }
            return new Sections(found);
        }
    }

    /** What one section measures. */
    private interface Measuring {
        void run() throws IOException;
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

    private String all(Path demo, List<String> wanted, Sections before) throws IOException {
        var sections = new LinkedHashMap<String, Map.Entry<String, Measuring>>();
        sections.put("told", Map.entry("What is told before, and what it comes to", () -> told(demo)));
        sections.put("several", Map.entry("One treatment, several files", () -> several(demo)));
        sections.put("twenty", Map.entry("Twenty clips, one after another", () -> twenty(demo)));
        sections.put(
                "first",
                Map.entry(
                        "Until the first frame",
                        () -> FirstFrame.measure(
                                        Path.of(System.getProperty("awlsmith.command")),
                                        demo.resolve(CLIPS.getFirst()),
                                        scratch)
                                .forEach(this::say)));
        sections.put("lending", Map.entry("Five thousand parts", this::lending));
        for (String one : wanted) {
            if (!sections.containsKey(one)) {
                throw new IllegalArgumentException(
                        one + " is no section; there are: " + String.join(", ", sections.keySet()));
            }
        }
        var text = new StringBuilder(
                "# Sending out\n\nMade by `./awlsmith measure --sending [SECTION]...`; do not edit.\n");
        for (var section : sections.entrySet()) {
            String title = section.getValue().getKey();
            report.clear();
            if (wanted.isEmpty() || wanted.contains(section.getKey())) {
                section.getValue().getValue().run();
            }
            String made = report.isEmpty()
                    ? before.byTitle().getOrDefault(title, "Not measured yet.")
                    : String.join("\n", report);
            text.append("\n## ").append(title).append("\n\n").append(made).append('\n');
        }
        return text.toString();
    }

    private void told(Path demo) throws IOException {
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
    }

    private void several(Path demo) throws IOException {
        say(
                "Seconds of the treatment alone (nothing coded), of coding alone (its frames from a lossless copy, read back), from the first frame to the"
                        + " file read back, and how many times the slower of the two that is (wanted is 1.15); then four files of one treatment"
                        + " (H.264, H.265, ProRes, FFV1), and how many times the one file they take (wanted is 1.3). All in one run. Bound is what the parts"
                        + " one by one take in all: where they keep every core busy by themselves, nothing is won by doing them at once.");
        say("");
        say(
                "| clip | treated | coded | one file | times the slower | of the bound | cores busy | four files | times one | of the bound | cores busy |");
        say("|---|--:|--:|--:|--:|--:|--:|--:|--:|--:|--:|");
        for (String name : List.of("regatta.mp4", "lamp-night.mp4", "winch-inspection.mp4")) {
            several(name, clip(demo.resolve(name)));
        }
    }

    /** By the kernel's own count for the whole machine, FFmpeg's processes included. */
    private void twenty(Path demo) throws IOException {
        var requests = new ArrayList<RenderRequest>();
        for (int n = 0; n < 20; n++) {
            Clip clip = clip(demo.resolve(CLIPS.get(n % CLIPS.size())));
            var range =
                    new FrameRange(0, Math.min(20, clip.index().orElseThrow().count()));
            requests.add(request(clip, five(clip), range, Deliverable.of("h264", Map.of(), true)));
        }
        long[] before = ticks();
        double seconds = inTurns(requests);
        long[] after = ticks();
        say(String.format(
                Locale.ROOT,
                "The same five steps on twenty clips of at most 20 frames, the demo's again and again, each looked at, treated, coded, put together and read"
                        + " back; the next begins when one is treated, as the server does it: %.0f s, the cores busy for %.0f %% of it (/proc/stat). Wanted are 90 %%.",
                seconds,
                busy(before, after)));
    }

    /** Seconds; one after another, of which one may be put together while the next is treated. */
    private double inTurns(List<RenderRequest> requests) throws IOException {
        long begun = System.nanoTime();
        var treating = new Semaphore(1);
        var ending = new Semaphore(1);
        var all = new ArrayList<CompletableFuture<Void>>();
        for (RenderRequest one : requests) {
            treating.acquireUninterruptibly();
            var hasMadeWay = new AtomicBoolean();
            var watch = new RenderWatch() {
                @Override
                public void ending(String doing, long frames) {
                    if (!hasMadeWay.get() && ending.tryAcquire()) {
                        hasMadeWay.set(true);
                        treating.release();
                    }
                }
            };
            all.add(CompletableFuture.runAsync(
                    () -> {
                        try {
                            new Renderer(one, machine, watch, new Cancel()).render();
                        } finally {
                            (hasMadeWay.get() ? ending : treating).release();
                        }
                    },
                    task -> Thread.ofPlatform().start(task)));
        }
        all.forEach(CompletableFuture::join);
        double seconds = (System.nanoTime() - begun) / 1e9;
        remove(requests);
        return seconds;
    }

    private static void remove(List<RenderRequest> requests) throws IOException {
        for (RenderRequest one : requests) {
            Files.delete(one.out());
            Folders.remove(one.scratch());
        }
    }

    /** Ticks of all cores: busy ones, and all. Source: proc(5), /proc/stat. */
    private static long[] ticks() throws IOException {
        String[] words = Files.readAllLines(Path.of("/proc/stat")).getFirst().split("\\s+");
        long all = 0;
        for (int n = 1; n <= 8; n++) {
            all += Long.parseLong(words[n]);
        }
        // idle, and waiting for disks
        return new long[] {all - Long.parseLong(words[4]) - Long.parseLong(words[5]), all};
    }

    /** What it costs to give parts away, with thousands of them. */
    private void lending() throws IOException {
        int parts = 5000;
        Path file = scratch.resolve("many.mkv");
        Command.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=25 -frames:v " + parts + " -c:v ffv1 " + file);
        Clip clip = clip(file);
        RenderRequest request = new RenderRequest(
                clip,
                new Recipe(List.of()),
                new FrameRange(0, parts),
                Deliverable.of("h264", Map.of(), false),
                scratch.resolve("many.mp4"),
                scratch.resolve("parts-many"),
                1);
        var work = new SharedWork(Duration.ofSeconds(30));
        var cancel = new Cancel();
        var runs = new Thread(() -> {
            try {
                new Renderer(List.of(request), machine, RenderWatch.SILENT, cancel, work)
                        .renderAll((number, made) -> {});
            } catch (Cancel.Stopped | MediaException e) {
                // it was only to have work to give away
            }
        });
        runs.start();
        while (work.lend("first").isEmpty()) {
            LockSupport.parkNanos(1_000_000);
        }
        System.gc();
        long heap = used();
        long begun = System.nanoTime();
        int lent = 1;
        while (work.lend("measured").isPresent()) {
            lent++;
        }
        double each = (System.nanoTime() - begun) / 1e9 / lent;
        System.gc();
        long grown = used() - heap;
        cancel.ask();
        try {
            runs.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        say(String.format(
                Locale.ROOT,
                "Of a render in %d parts %d were given away at once while it ran: %.2f ms each, %.4f %% of a part of ten seconds; %.1f kB of memory for"
                        + " each that is away.",
                parts,
                lent,
                1000 * each,
                10 * each,
                Math.max(0, grown) / 1000.0 / lent));
    }

    private static long used() {
        return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
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
        var range = new FrameRange(0, Math.min(60, clip.index().orElseThrow().count()));
        Recipe recipe = five(clip);
        double treated = treated(request(clip, recipe, range, Deliverable.of("h264", Map.of(), true)));
        RenderRequest lossless = request(clip, recipe, range, Deliverable.of("ffv1", Map.of(), false));
        new Renderer(lossless, machine, RenderWatch.SILENT, new Cancel()).render();
        Clip copy = clip(lossless.out());
        var asIs = new Recipe(List.of());
        var codings = new ArrayList<Double>();
        var four = new ArrayList<RenderRequest>();
        for (String codec : List.of("h264", "h265", "prores", "ffv1")) {
            Deliverable deliverable = Deliverable.of(codec, Map.of(), true);
            codings.add(rendered(List.of(request(copy, asIs, range, deliverable))));
            four.add(request(clip, recipe, range, deliverable));
        }
        Files.delete(lossless.out());
        double coded = codings.getFirst();
        long[] before = ticks();
        double one = rendered(List.of(request(clip, recipe, range, Deliverable.of("h264", Map.of(), true))));
        long[] between = ticks();
        double all = rendered(four);
        long[] after = ticks();
        double whole = codings.stream().mapToDouble(each -> each).sum() + treated;
        say(String.format(
                Locale.ROOT,
                "| %s | %.1f s | %.1f s | %.1f s | %.2f | %.2f | %.0f %% | %.1f s | %.2f | %.2f | %.0f %% |",
                name,
                treated,
                coded,
                one,
                one / Math.max(treated, coded),
                one / (treated + coded),
                busy(before, between),
                all,
                all / one,
                all / whole,
                busy(between, after)));
    }

    private static double busy(long[] before, long[] after) {
        return 100.0 * (after[0] - before[0]) / (after[1] - before[1]);
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
        remove(requests);
        return seconds;
    }
}
