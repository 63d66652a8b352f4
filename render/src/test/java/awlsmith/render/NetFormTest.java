package awlsmith.render;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.core.model.NetForm;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.Step;
import awlsmith.media.Clip;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Isolated;

/** Alone, as it says of the whole process that eight-bit nets are quick here. */
@Isolated
class NetFormTest {
    @TempDir
    Path folder;

    private RenderRequest request(String name, NetForm form) throws IOException {
        Path source = folder.resolve("clip.mp4");
        if (!Files.exists(source)) {
            TestClips.moving(folder, "clip.mp4", 90, 60, "25", 10, "-pix_fmt yuv420p -c:v libx264 -g 20 -bf 2");
        }
        Clip clip = RendererTest.indexed(source);
        Path scratch = Files.createDirectories(folder.resolve("scratch-" + name));
        return new RenderRequest(
                        clip,
                        new Recipe(List.of(Step.parse("enlarge factor=2 model=photographic mode=quality"))),
                        new FrameRange(0, 6),
                        Deliverable.usual(Codecs.FFV1),
                        folder.resolve(name),
                        scratch,
                        3)
                .with(form);
    }

    private static void render(RenderRequest request) {
        try (var machine = Machine.of(2)) {
            new Renderer(request, machine, RenderWatch.SILENT, new Cancel()).render();
        }
    }

    /** Nets in floating point give other pixels than in eight bits: a render that began with one ends with it. */
    @Test
    void aRenderEndsWithTheFormOfNetsItBeganWith() throws IOException {
        System.setProperty("awlsmith.eight-bits", "on");
        try {
            var eight = request("eight.mkv", NetForm.EIGHT_BITS);
            render(eight);
            var floats = request("float.mkv", NetForm.FLOAT);
            render(floats);
            assertThat(RendererTest.codes(floats.out()).getLast())
                    .isNotEqualTo(RendererTest.codes(eight.out()).getLast());
            // broken off behind the first part, then asked for on another kind of processor
            Files.delete(eight.scratch().resolve("segment-000001.nut"));
            List<byte[]> whole = RendererTest.codes(eight.out());
            Files.delete(eight.out());
            render(eight.with(NetForm.FLOAT));
            List<byte[]> resumed = RendererTest.codes(eight.out());
            for (int i = 0; i < 6; i++) {
                assertThat(resumed.get(i)).as("frame %d", i).isEqualTo(whole.get(i));
            }
            assertThat(TestClips.ffprobe("-show_entries format_tags=COMMENT -of csv=p=0 " + eight.out()))
                    .contains("nets in eight bits")
                    .contains("photographic");
            // and once more where those nets do not run at all: what is there is of no use, and that is said
            Files.delete(eight.scratch().resolve("segment-000001.nut"));
            Files.delete(eight.out());
            System.setProperty("awlsmith.eight-bits", "off");
            try (var machine = Machine.of(2)) {
                var anew = new Renderer(eight.with(NetForm.FLOAT), machine, RenderWatch.SILENT, new Cancel());
                anew.render();
                assertThat(anew.begunAnew().orElseThrow())
                        .contains("begun with nets in eight bits", "made anew in floating point");
            }
            assertThat(RendererTest.codes(eight.out()).getLast())
                    .isEqualTo(RendererTest.codes(floats.out()).getLast());
        } finally {
            System.clearProperty("awlsmith.eight-bits");
        }
    }
}
