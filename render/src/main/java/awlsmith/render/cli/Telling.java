package awlsmith.render.cli;

import awlsmith.core.plan.RenderPlan;
import awlsmith.render.RenderRequest;
import awlsmith.render.RenderWatch;
import awlsmith.render.Renderer;
import java.nio.file.Path;

/** Hears how a command gets on, and tells it to whoever started it. */
interface Telling {
    void note(String sentence);

    void begins(RenderRequest request, RenderPlan plan);

    /** @param expected frames */
    RenderWatch watch(long expected);

    void made(Path file, Renderer.Result result);

    void sounded(Path file, Renderer.Sounded made);

    /** @param in that nothing was made of */
    void failed(Path in, String sentence);
}
