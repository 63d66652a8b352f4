package awlsmith.render.cli;

import awlsmith.core.plan.RenderPlan;
import awlsmith.render.RenderRequest;
import awlsmith.render.RenderWatch;
import awlsmith.render.Renderer;
import java.io.PrintStream;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import tools.jackson.databind.json.JsonMapper;

/** For scripts: one JSON object a line on standard output, each with the word that says what it is. */
final class JsonTelling implements Telling {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final long TELL_EVERY_NANOS = 500_000_000L;

    private final PrintStream out;

    JsonTelling(PrintStream out) {
        this.out = out;
    }

    private synchronized void tell(String what, Map<String, Object> values) {
        var line = new LinkedHashMap<String, Object>();
        line.put("tells", what);
        line.putAll(values);
        out.println(JSON.writeValueAsString(line));
        out.flush();
    }

    @Override
    public void note(String sentence) {
        tell("note", Map.of("sentence", sentence));
    }

    @Override
    public void begins(RenderRequest request, RenderPlan plan) {
        var values = new LinkedHashMap<String, Object>();
        values.put("in", request.clip().info().file().toString());
        values.put("out", request.out().toString());
        values.put("width", plan.output().width());
        values.put("height", plan.output().height());
        values.put("frames", plan.frames());
        values.put("codec", request.deliverable().codec().id());
        tell("begins", values);
    }

    @Override
    public RenderWatch watch(long expected) {
        long start = System.nanoTime();
        return new RenderWatch() {
            private long told;

            @Override
            public synchronized void frames(long done, Shares shares) {
                long now = System.nanoTime();
                if (now - told < TELL_EVERY_NANOS && done < expected) {
                    return;
                }
                told = now;
                double rate = done / Math.max(1e-9, (now - start) / 1e9);
                var values = new LinkedHashMap<String, Object>();
                values.put("frame", done);
                values.put("of", Math.max(done, expected));
                values.put("framesASecond", Math.round(rate * 100) / 100.0);
                values.put("secondsLeft", Math.round(Math.max(0, expected - done) / rate));
                tell("progress", values);
            }

            @Override
            public synchronized void ending(String doing, long frames) {
                long now = System.nanoTime();
                if (now - told > TELL_EVERY_NANOS) {
                    told = now;
                    tell("progress", Map.of("doing", doing, "frame", frames));
                }
            }
        };
    }

    @Override
    public void made(Path file, Renderer.Result result) {
        var values = new LinkedHashMap<String, Object>();
        values.put("out", file.toString());
        values.put("bytes", file.toFile().length());
        values.put("frames", result.facts().frames());
        result.soundNote().ifPresent(note -> values.put("note", note));
        tell("made", values);
    }

    @Override
    public void sounded(Path file, Renderer.Sounded made) {
        var values = new LinkedHashMap<String, Object>();
        values.put("out", file.toString());
        values.put("bytes", made.facts().bytes());
        values.put("frames", 0);
        values.put("seconds", made.facts().seconds().getFirst().toDouble());
        made.soundNote().ifPresent(note -> values.put("note", note));
        tell("made", values);
    }

    @Override
    public void failed(Path in, String sentence) {
        tell("failed", Map.of("in", in.toString(), "sentence", sentence));
    }
}
