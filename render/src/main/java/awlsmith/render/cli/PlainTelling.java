package awlsmith.render.cli;

import awlsmith.core.plan.RenderPlan;
import awlsmith.core.plan.Taking;
import awlsmith.render.RenderRequest;
import awlsmith.render.RenderWatch;
import awlsmith.render.Renderer;
import java.io.PrintStream;
import java.nio.file.Path;
import java.util.Locale;

/** For people: lines on standard error, that of progress rewritten in place. */
final class PlainTelling implements Telling {
    private static final long TELL_EVERY_NANOS = 300_000_000L;

    private final PrintStream err;

    PlainTelling(PrintStream err) {
        this.err = err;
    }

    @Override
    public void note(String sentence) {
        err.println("note: " + sentence);
    }

    @Override
    public void begins(RenderRequest request, RenderPlan plan) {
        if (request.deliverable().taking() == Taking.SOUND) {
            err.printf(Locale.ROOT, "%.2f s of sound%n", plan.seconds());
            return;
        }
        err.printf(
                Locale.ROOT,
                "%dx%d to %dx%d, %.2f s, about %d frames, %s%n",
                request.clip().format().width(),
                request.clip().format().height(),
                plan.output().width(),
                plan.output().height(),
                plan.seconds(),
                plan.frames(),
                request.deliverable().codec().label());
    }

    @Override
    public void made(Path out, Renderer.Result result) {
        result.soundNote().ifPresent(this::note);
        var video = result.facts().info().video();
        err.printf(
                Locale.ROOT,
                "%s: %dx%d, %d frames, %.1f MB, read back and right%n",
                out.getFileName(),
                video.format().width(),
                video.format().height(),
                result.facts().frames(),
                out.toFile().length() / 1e6);
    }

    @Override
    public void sounded(Path out, Renderer.Sounded made) {
        made.soundNote().ifPresent(this::note);
        err.printf(
                Locale.ROOT,
                "%s: %d sound track%s, %.1f s, %.1f MB, read back and right%n",
                out.getFileName(),
                made.facts().tracks().size(),
                made.facts().tracks().size() == 1 ? "" : "s",
                made.facts().seconds().getFirst().toDouble(),
                made.facts().bytes() / 1e6);
    }

    @Override
    public void failed(Path in, String sentence) {
        err.println("awlsmith: " + in.getFileName() + ": " + sentence);
    }

    @Override
    public RenderWatch watch(long expected) {
        return new RenderWatch() {
            private final long start = System.nanoTime();
            private long told;

            @Override
            public synchronized void frames(long done, Shares shares) {
                long now = System.nanoTime();
                if (now - told < TELL_EVERY_NANOS && done < expected) {
                    return;
                }
                told = now;
                double seconds = (now - start) / 1e9;
                double rate = done / seconds;
                double left = expected > done ? (expected - done) / rate : 0;
                double all = shares.decode() + shares.treat() + shares.encode();
                err.printf(
                        Locale.ROOT,
                        "\rframe %d of %d, %.1f a second, %.0f s left, decode %.0f %% treat %.0f %% encode %.0f %%   ",
                        done,
                        Math.max(done, expected),
                        rate,
                        left,
                        100 * shares.decode() / all,
                        100 * shares.treat() / all,
                        100 * shares.encode() / all);
                if (done >= expected) {
                    err.println();
                }
            }

            @Override
            public synchronized void ending(String doing, long frames) {
                long now = System.nanoTime();
                if (frames > 0 && now - told > TELL_EVERY_NANOS) {
                    told = now;
                    err.printf("\r%s, frame %d   ", doing, frames);
                }
            }
        };
    }
}
