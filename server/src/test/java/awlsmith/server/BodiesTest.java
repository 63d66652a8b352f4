package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpRequest;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Whatever is sent, the answer is a sentence and never a fault of ours. */
@ExtendWith(RunningServer.class)
class BodiesTest {
    private static final List<String> BODIES = List.of(
            "{}",
            "[]",
            "null",
            "",
            "\"x\"",
            "7",
            "{\"recipe\":null}",
            "{\"recipe\":{}}",
            "{\"takes\":[null]}",
            "{\"recipe\":[1]}",
            "{\"recipe\":{\"awlsmith\":1,\"steps\":[null]},\"deliverable\":{},\"frame\":-1,\"frames\":[null]}",
            "{\"deliverable\":{\"codec\":null},\"takeId\":\"none\"}",
            "{\"title\":7,\"name\":[],\"x\":1e999}",
            "{\"frame\":99999999999999999999}",
            "{\"title\":{},\"password\":null,\"clip\":\"\"}",
            "{");

    @Test
    void everyBodyThatMakesNoSenseIsRefusedInASentence(RunningServer server) {
        JsonNode clip = server.clip("bodies.mp4", 64, 48, 5);
        String id = clip.path("id").asString();
        String take = server.get("/api/clips/" + id + "/takes")
                .json()
                .get(0)
                .path("id")
                .asString();
        JsonNode paths = server.get("/api/openapi").json().path("paths");
        var asked = new ArrayList<String>();
        for (Map.Entry<String, JsonNode> path : paths.properties()) {
            for (Map.Entry<String, JsonNode> method : path.getValue().properties()) {
                if (method.getValue().has("requestBody")) {
                    String real = path.getKey()
                            .replace("/clips/{id}", "/clips/" + id)
                            .replace("{clip}", id)
                            .replace("/takes/{id}", "/takes/" + take)
                            .replace("{root}", "0")
                            .replaceAll("\\{[a-z]+}", UUID.randomUUID().toString());
                    asked.add(method.getKey() + " " + real);
                }
            }
        }
        asked.add("post /api/clips/" + id + "/stills");
        asked.add("post /api/session");
        assertThat(asked.size()).isGreaterThan(20);
        for (String one : asked) {
            for (String body : BODIES) {
                String[] words = one.split(" ");
                var answer = server.send(server.request(words[1])
                        .header("Content-Type", "application/json")
                        .method(words[0].toUpperCase(), HttpRequest.BodyPublishers.ofString(body)));
                assertThat(answer.status())
                        .as("%s with %s: %s", one, body, answer.text())
                        .isLessThan(500);
                if (answer.status() >= 400) {
                    assertThat(answer.json().path("detail").asString())
                            .as("%s with %s", one, body)
                            .isNotBlank()
                            .doesNotContain("Exception")
                            .doesNotContain("awlsmith.");
                }
            }
        }
        server.delete("/api/clips/" + id);
    }

    @Test
    void whatIsMissingIsNamed(RunningServer server) {
        String id = server.clip("named.mp4", 64, 48, 5).path("id").asString();
        var answer = server.send(server.request("/api/clips/" + id)
                .header("Content-Type", "application/json")
                .method("PATCH", HttpRequest.BodyPublishers.ofString("{}")));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.json().path("detail").asString()).isEqualTo("\"title\" is missing; it must be given");
        server.delete("/api/clips/" + id);
    }

    /** A second window of the same person asks for the same kind of still: both get theirs. */
    @Test
    void twoWindowsOfOnePersonDoNotStopEachOther(RunningServer server) throws Exception {
        String id = server.clip("windows.mp4", 320, 240, 30).path("id").asString();
        String recipe =
                "{\"awlsmith\":1,\"steps\":[{\"step\":\"enlarge\",\"settings\":{\"factor\":3,\"model\":\"photographic\"}}]}";
        var both = new ArrayList<java.util.concurrent.CompletableFuture<RunningServer.Answer>>();
        for (int i = 0; i < 8; i++) {
            String body = "{\"frame\":" + i * 3 + ",\"reduce\":1,\"viewer\":\"treated\",\"recipe\":" + recipe + "}";
            String page = "window-" + i;
            both.add(java.util.concurrent.CompletableFuture.supplyAsync(
                    () -> server.send(server.request("/api/clips/" + id + "/stills")
                            .header("Content-Type", "application/json")
                            .header("X-Page", page)
                            .POST(HttpRequest.BodyPublishers.ofString(body)))));
        }
        for (var one : both) {
            assertThat(one.get().status()).isEqualTo(200);
        }
        server.delete("/api/clips/" + id);
    }
}
