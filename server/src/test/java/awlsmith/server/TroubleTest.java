package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** What goes wrong outside of the application while it works. */
@ExtendWith(RunningServer.class)
class TroubleTest {
    private static final String SLOW =
            "{\"awlsmith\":1,\"steps\":[{\"step\":\"enlarge\",\"settings\":{\"factor\":4,\"kernel\":\"lanczos3\"}}]}";

    private static JsonNode linked(RunningServer server, Path file) {
        String name = file.getFileName().toString();
        JsonNode added = server.post("/api/folders/0/clips", "{\"path\":\"" + name + "\"}")
                .json();
        String id = added.path("id").asString();
        return server.until("/api/clips/" + id, c -> c.path("state").asString().equals("READY"));
    }

    private static Path made(RunningServer server, String name, int frames) throws IOException {
        Path allowed = Files.createDirectories(server.home().resolve("allowed"));
        return TestClips.moving(
                allowed, name, 160, 120, "25", frames, "-pix_fmt yuv420p -c:v libx264 -preset ultrafast");
    }

    private static JsonNode byId(JsonNode list, String id) {
        for (JsonNode one : list) {
            if (one.path("id").asString().equals(id)) {
                return one;
            }
        }
        throw new AssertionError(id + " is not in " + list);
    }

    /** Either it is finished from what was open already, or a sentence says that the file is gone; the finished parts stay. */
    @Test
    void aLinkThatVanishesInTheMiddleOfARenderIsASentence(RunningServer server) throws IOException {
        Path file = made(server, "vanishes.mp4", 160);
        String clip = linked(server, file).path("id").asString();
        JsonNode take = server.get("/api/clips/" + clip + "/takes").json().get(0);
        server.put("/api/takes/" + take.path("id").asString(), "{\"recipe\":" + SLOW + ",\"version\":0}");
        String render = server.post(
                        "/api/renders",
                        "{\"takeId\":\"" + take.path("id").asString()
                                + "\",\"wholeClip\":true,\"deliverable\":{\"codec\":\"h264\",\"settings\":{\"quality\":20},"
                                + "\"sound\":true}}")
                .json()
                .path("id")
                .asString();
        server.until("/api/renders", all -> byId(all, render).path("framesDone").asInt() > 3);
        Files.delete(file);
        JsonNode ended = byId(
                server.until("/api/renders", all -> {
                    String state = byId(all, render).path("state").asString();
                    return state.equals("DONE") || state.equals("FAILED");
                }),
                render);
        if (ended.path("state").asString().equals("FAILED")) {
            assertThat(ended.path("problem").asString())
                    .doesNotContain("Exception")
                    .doesNotContain("fault inside");
        }
        var still = server.post(
                "/api/clips/" + clip + "/stills",
                "{\"frame\":150,\"reduce\":1,\"viewer\":\"t\",\"recipe\":" + SLOW + "}");
        assertThat(still.status()).isEqualTo(409);
        assertThat(still.json().path("detail").asString()).contains("the linked file is gone");
        server.delete("/api/clips/" + clip);
    }

    @Test
    void aProofOfAClipThatIsGoneIsRefusedInASentence(RunningServer server) throws IOException {
        Path file = made(server, "gone.mp4", 20);
        String clip = linked(server, file).path("id").asString();
        Files.delete(file);
        var answer = server.post(
                "/api/clips/" + clip + "/proofs",
                "{\"takeName\":\"A\",\"recipe\":" + SLOW
                        + ",\"from\":0,\"end\":5,\"x\":0,\"y\":0,\"width\":64,\"height\":64}");
        assertThat(answer.status()).isEqualTo(409);
        assertThat(answer.json().path("detail").asString()).contains("the linked file is gone");
        // its takes and pins can be looked at all the same, and it can be taken off the shelf
        assertThat(server.get("/api/clips/" + clip + "/takes").status()).isEqualTo(200);
        assertThat(server.delete("/api/clips/" + clip).status()).isEqualTo(204);
    }

    @Test
    void aFolderOfThousandsIsListedInPart(RunningServer server) throws IOException {
        Path many = Files.createDirectories(server.home().resolve("allowed/many"));
        for (int n = 0; n < 2500; n++) {
            Files.createFile(many.resolve("clip%04d.mp4".formatted(n)));
        }
        JsonNode listing = server.get("/api/folders/0?path=many").json();
        assertThat(listing.path("entries").size()).isBetween(500, 2500);
        assertThat(listing.path("more").asBoolean())
                .isEqualTo(listing.path("entries").size() < 2500);
        var empty = server.post("/api/folders/0/clips", "{\"path\":\"many/clip0007.mp4\"}");
        assertThat(empty.status()).isEqualTo(422);
        assertThat(empty.json().path("detail").asString()).contains("clip0007.mp4");
    }

    @Test
    void whatIsAskedOfNothingIsNotThere(RunningServer server) {
        String nobody = UUID.randomUUID().toString();
        for (String path : new String[] {"/takes", "/pins", "/proofs"}) {
            assertThat(server.get("/api/clips/" + nobody + path).status()).isEqualTo(404);
        }
        assertThat(server.post("/api/proofs/" + nobody + "/stop", "").status()).isEqualTo(404);
        assertThat(server.delete("/api/takes/" + nobody).status()).isEqualTo(404);
    }
}
