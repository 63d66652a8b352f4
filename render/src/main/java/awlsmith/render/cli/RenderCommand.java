package awlsmith.render.cli;

import awlsmith.core.model.Models;
import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.RenderPlan;
import awlsmith.core.recipe.Analyses;
import awlsmith.core.recipe.Treatment;
import awlsmith.media.Clip;
import awlsmith.media.FrameIndex;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.media.SeekCheck;
import awlsmith.render.Folders;
import awlsmith.render.Machine;
import awlsmith.render.OneSegment;
import awlsmith.render.RenderRequest;
import awlsmith.render.Renderer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** Renders one file, or several of one treatment, from the command line. */
final class RenderCommand {
    /** Frames from one line of a look through the clip to the next. */
    private static final int TELL_EVERY = 250;

    private final RenderOptions options;
    private final Telling telling;
    private final Cancel cancel;

    RenderCommand(RenderOptions options, Telling telling, Cancel cancel) {
        this.options = options;
        this.telling = telling;
        this.cancel = cancel;
    }

    int run() {
        if (!options.recipe().steps().isEmpty()) {
            // beside reading what the file says of itself; where no step has a net it was little in vain
            Models.begin();
        }
        return run(Prober.probe(options.in()));
    }

    /** @param info what the file says of itself */
    int run(MediaInfo info) {
        Path out = options.out().toAbsolutePath();
        try {
            demandPlace(out);
            for (Path also : options.also()) {
                demandPlace(also.toAbsolutePath());
            }
            if (options.parts().isPresent()) {
                Path parts = options.parts().get().toAbsolutePath();
                Files.createDirectories(parts);
                try (Machine machine = Machine.of(options.threads())) {
                    render(info, out, parts, machine);
                }
                return Main.DONE;
            }
            Path scratch = Files.createTempDirectory(out.getParent(), ".awlsmith-render-");
            var hook = new Thread(() -> stop(scratch));
            Runtime.getRuntime().addShutdownHook(hook);
            try (Machine machine = Machine.of(options.threads())) {
                render(info, out, scratch, machine);
            } finally {
                Folders.remove(scratch);
                unhook(hook);
            }
            return Main.DONE;
        } catch (IOException e) {
            throw new MediaException("the folder for unfinished parts cannot be made: " + e.getMessage(), e);
        }
    }

    private void demandPlace(Path out) throws IOException {
        if (Files.exists(out) && !options.overwrite()) {
            throw new MediaException(out.getFileName() + " is there already; --force replaces it");
        }
        if (out.getParent() == null || !Files.isWritable(out.getParent())) {
            throw new MediaException("nothing can be written to the folder of " + out.getFileName());
        }
        if (Files.exists(out) && Files.isSameFile(out, options.in())) {
            throw new MediaException("the source would be overwritten; choose another name");
        }
    }

    private void render(MediaInfo info, Path out, Path scratch, Machine machine) {
        boolean span = options.from().isPresent() || options.to().isPresent();
        boolean known = span
                || options.takesNotAll()
                || options.parts().isPresent()
                || !info.video().steady();
        Clip clip = known ? indexed(info) : Clip.streamed(info);
        try {
            render(clip, out, scratch, machine);
        } catch (Clip.Unsteady e) {
            telling.note("the clip's frames come unevenly (" + e.getMessage() + "); reading all their times first");
            render(indexed(info), out, scratch, machine);
        }
    }

    private Clip indexed(MediaInfo info) {
        FrameIndex index = Indexer.index(info, frames -> {}, cancel);
        if (index.errors() > 0 && !options.damaged()) {
            throw new MediaException("the file is damaged: its decoder complained near frame " + index.damaged()[0]
                    + ", and frames there may be wrong. --damaged renders what there is");
        }
        return new Clip(info, Optional.of(SeekCheck.check(info, index, share -> {}, cancel)));
    }

    private void render(Clip clip, Path out, Path scratch, Machine machine) {
        Treatment treatment = Analyses.complete(
                options.recipe().on(clip.material().with(options.files())),
                clip,
                Analyses.Store.NONE,
                machine.planes(),
                machine.work(cancel),
                this::seen);
        var request = new RenderRequest(
                clip,
                treatment,
                range(clip),
                options.deliverable(),
                out,
                scratch,
                options.parts().isPresent() ? options.partFrames() : Integer.MAX_VALUE,
                options.damaged());
        if (options.describe()) {
            describe(request);
            return;
        }
        RenderPlan plan = request.plan(machine);
        plan.warnings().forEach(telling::note);
        telling.begins(request, plan);
        var requests = new ArrayList<RenderRequest>(List.of(request));
        for (Path also : options.also()) {
            requests.add(new RenderRequest(
                    clip,
                    treatment,
                    request.range(),
                    options.deliverableOf(also),
                    also.toAbsolutePath(),
                    scratch.resolve("also-" + requests.size()),
                    request.segmentFrames(),
                    options.damaged()));
        }
        var renderer = new Renderer(requests, machine, telling.watch(plan.frames()), cancel);
        var made = renderer.renderAll((number, one) -> {});
        renderer.disturbed().ifPresent(telling::note);
        var wrong = new ArrayList<String>();
        for (int i = 0; i < made.size(); i++) {
            Path file = requests.get(i).out();
            switch (made.get(i)) {
                case Renderer.Result result -> telling.made(file, result);
                case Renderer.Sounded sounded -> telling.sounded(file, sounded);
                case Renderer.Failed failed ->
                    wrong.add((made.size() == 1 ? "" : file.getFileName() + ": ") + failed.sentence());
            }
        }
        if (!wrong.isEmpty()) {
            throw new MediaException(String.join("; ", wrong));
        }
    }

    private void describe(RenderRequest request) {
        try {
            var files = OneSegment.describe(request);
            telling.note(files.size() + " parts are to be made: awlsmith segment " + options.in()
                    + " DESCRIPTION, for each of " + request.scratch()
                    + "/segment-*.json, on any machine that has the file; then render without --describe");
        } catch (IOException e) {
            throw new MediaException("the descriptions cannot be written: " + e.getMessage(), e);
        }
    }

    /** What is done before the first frame is made, every now and then. */
    private void seen(String doing, long frames) {
        if (frames % TELL_EVERY == 1) {
            telling.note(doing + ", frame " + frames);
        }
    }

    private FrameRange range(Clip clip) {
        if (clip.index().isEmpty()) {
            return FrameRange.all();
        }
        var index = clip.index().get();
        Rational end = clip.time(index.count());
        long from = options.from().map(at -> frameAt(clip, at, end)).orElse(0L);
        long to = options.to()
                .map(at -> at.compareTo(end) >= 0 ? (long) index.count() : frameAt(clip, at, end))
                .orElse((long) index.count());
        return new FrameRange(from, Math.max(from + 1, to));
    }

    private static long frameAt(Clip clip, Rational at, Rational end) {
        if (at.compareTo(end) >= 0) {
            throw new MediaException(String.format(
                    Locale.ROOT, "the span begins at %.2f s, the clip ends at %.2f s", at.toDouble(), end.toDouble()));
        }
        return clip.times().frameAt(at);
    }

    private void stop(Path scratch) {
        cancel.ask();
        try {
            for (int i = 0; i < 50 && Files.exists(scratch); i++) {
                Thread.sleep(100);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static void unhook(Thread hook) {
        try {
            Runtime.getRuntime().removeShutdownHook(hook);
        } catch (IllegalStateException e) {
            // the program is already ending, the hook runs
        }
    }
}
