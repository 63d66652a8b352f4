package awlsmith.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import java.net.ServerSocket;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Every codec in every container comes out of a server that runs with the rights it has in use, where who decodes is somebody else. */
class EveryKindIT {
    @TempDir
    Path folder;

    private final Visitor visitor = new Visitor();
    private ServerProcess server;

    @AfterEach
    void stop() {
        if (server != null) {
            server.close();
        }
    }

    @Test
    void everyKindIsMadeAndReadBack() throws Exception {
        BrowserIT.emptyDatabase();
        int port;
        try (var socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        server = new ServerProcess(folder.resolve("home"), port).quick();
        visitor.enter(server.start());
        Path file = folder.resolve("kinds.mp4");
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=320x192:r=25 -f lavfi -i sine=r=48000:d=1 -frames:v 25 -pix_fmt yuv420p"
                        + " -c:v libx264 -preset ultrafast -g 5 -c:a aac " + file);
        String clip = visitor.uploaded(file).path("id").asString();
        visitor.until("/api/clips/" + clip, one -> one.path("state").asString().equals("READY"));
        JsonNode take = visitor.json("/api/clips/" + clip + "/takes").get(0);
        String id = take.path("id").asString();
        visitor.put(
                "/api/takes/" + id,
                "{\"version\":" + take.path("version").asInt() + ",\"recipe\":{\"awlsmith\":1,\"steps\":[]}}");
        var ordered = new ArrayList<String>();
        for (JsonNode codec : visitor.json("/api/codecs")) {
            var kinds = new ArrayList<String>();
            for (JsonNode container : codec.path("containers")) {
                kinds.add("{\"codec\":\"%s\",\"settings\":{},\"container\":\"%s\",\"sound\":\"%s\"}"
                        .formatted(
                                codec.path("id").asString(),
                                container.path("ending").asString(),
                                container.path("sounds").get(0).path("id").asString()));
            }
            JsonNode made = visitor.post(
                    "/api/batches",
                    "{\"name\":\"\",\"takes\":[{\"takeId\":\"" + id + "\",\"wholeClip\":true}],\"deliverables\":["
                            + String.join(",", kinds) + "]}");
            assertThat(made.size()).as(codec.path("id") + ": " + made).isEqualTo(kinds.size());
            made.forEach(one -> ordered.add(one.path("id").asString()));
        }
        JsonNode all = visitor.until(
                "/api/renders",
                renders -> Visitor.among(renders, ordered).stream()
                        .allMatch(one -> List.of("DONE", "FAILED")
                                .contains(one.path("state").asString())));
        assertThat(Visitor.among(all, ordered))
                .hasSize(ordered.size())
                .allSatisfy(one -> assertThat(one.path("state").asString())
                        .as(one.path("fileName").asString() + ": " + one.path("problem"))
                        .isEqualTo("DONE"));
    }
}
