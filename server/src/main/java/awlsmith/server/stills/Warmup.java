package awlsmith.server.stills;

import awlsmith.core.colour.ScreenPicture;
import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Rational;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.render.Machine;
import awlsmith.render.Png;
import java.util.List;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Runs the way of a still a few times over an empty picture after the start, so that the first real one does not wait for
 * the JVM to load and compile it.
 */
@Component
class Warmup {
    private static final int ROUNDS = 40;

    private final Machine machine;
    private final Cancel cancel = new Cancel();

    Warmup(Machine machine) {
        this.machine = machine;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        Thread.ofPlatform()
                .name("warm-up")
                .daemon()
                .priority(Thread.MIN_PRIORITY)
                .start(this::run);
    }

    @EventListener(ContextClosedEvent.class)
    void stop() {
        cancel.ask();
    }

    private void run() {
        var format = new Format(320, 240, Chroma.S420, Siting.LEFT, 8, ColourTags.UNKNOWN, Rational.ONE);
        var chain = new Recipe(List.of(Step.parse("enlarge factor=2"))).chain(format);
        var stage = chain.stages().getFirst();
        var pool = new PlanePool(1 << 24);
        var layout = new RawLayout(format);
        byte[] raw = new byte[layout.frameBytes()];
        var work = machine.work(cancel);
        try {
            for (int i = 0; i < ROUNDS; i++) {
                Frame in = Frame.blank(format, format.whole(), 0, Rational.ZERO, pool);
                layout.unpack(raw, in);
                layout.pack(in, raw);
                Frame out = stage.treat(distance -> in, stage.output().whole(), pool, work);
                Png.encode(ScreenPicture.of(out, stage.output().whole(), 1, pool, work));
                in.release(pool);
                out.release(pool);
            }
        } catch (Cancel.Stopped e) {
            // the server is going down again
        }
    }
}
