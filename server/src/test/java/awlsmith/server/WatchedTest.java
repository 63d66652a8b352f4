package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Folders that are watched, and recipes that many clips get. */
@ExtendWith(RunningServer.class)
class WatchedTest {
    private static final String SAME =
            "{\"how\":\"SAME\",\"recipe\":{\"awlsmith\":1,\"steps\":[{\"step\":\"sharpen\",\"on\":true,\"settings\":{}}]}}";
    private static final String SMALL = "{\"codec\":\"h264\",\"settings\":{},\"container\":\"mp4\",\"sound\":\"none\"}";

    private static void footage(Path file, int frames) {
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=96x64:r=25 -frames:v " + frames
                + " -pix_fmt yuv420p -c:v libx264 -preset ultrafast -f matroska " + file);
    }

    private static RunningServer.Answer watch(RunningServer server, String path, String way) {
        return server.post(
                "/api/watched",
                "{\"root\":0,\"path\":\"" + path + "\",\"way\":" + way + ",\"deliverables\":[" + SMALL
                        + "],\"pattern\":\"{clip} by itself\"}");
    }

    private static JsonNode one(RunningServer server, String id) {
        for (JsonNode each : server.get("/api/watched").json()) {
            if (each.path("id").asString().equals(id)) {
                return each;
            }
        }
        throw new AssertionError("it is not watched");
    }

    private static List<JsonNode> renders(RunningServer server, String name) {
        var found = new ArrayList<JsonNode>();
        server.get("/api/renders").json().forEach(render -> {
            if (render.path("fileName").asString().startsWith(name)) {
                found.add(render);
            }
        });
        return found;
    }

    /** One file grows for a while, one is no video, one is empty, one lies beside; a restart in the midst of it changes nothing. */
    @Test
    void whatComesToRestIsTakenInTreatedAndSentOutOnce(RunningServer server) throws IOException {
        Path folder = Files.createDirectories(server.home().resolve("allowed/inbox"));
        Path aside = server.home().resolve("aside.mkv");
        footage(aside, 30);
        byte[] bytes = Files.readAllBytes(aside);
        JsonNode made = watch(server, "inbox", SAME).json();
        String id = made.path("id").asString();
        assertThat(watch(server, "inbox", SAME).status()).isEqualTo(409);

        Path grows = folder.resolve("grows.mkv");
        Files.write(grows, java.util.Arrays.copyOf(bytes, bytes.length / 2));
        Files.writeString(folder.resolve("words.mkv"), "this is no video at all");
        Files.createFile(folder.resolve("nothing.mkv"));
        Files.writeString(folder.resolve("notes.txt"), "beside the footage");
        Files.writeString(folder.resolve(".hidden.mkv"), "x");
        Files.copy(aside, folder.resolve("it's \"odd\" ü.mkv"));
        server.until("/api/watched", all -> one(server, id).path("arriving").asInt() >= 3);
        Files.write(
                grows, java.util.Arrays.copyOfRange(bytes, bytes.length / 2, bytes.length), StandardOpenOption.APPEND);
        server.until(
                "/api/watched",
                all -> one(server, id).path("taken").asInt()
                                + one(server, id).path("sent").asInt()
                        > 0);
        server.restart();

        server.until(
                "/api/watched",
                all -> one(server, id).path("sent").asInt() == 2
                        && one(server, id).path("failed").asInt() == 2);
        JsonNode failures = one(server, id).path("failures");
        assertThat(failures.get(0).path("file").asString()).isEqualTo("nothing.mkv");
        assertThat(failures.get(0).path("problem").asString()).contains("empty (0 bytes)");
        assertThat(failures.get(1).path("file").asString()).isEqualTo("words.mkv");
        server.until(
                "/api/renders",
                all -> renders(server, "grows by itself").stream()
                        .allMatch(render -> render.path("state").asString().equals("DONE")));
        assertThat(renders(server, "grows by itself")).hasSize(1);
        assertThat(renders(server, "it_s _odd_ ü by itself")).hasSize(1);
        assertThat(renders(server, "grows by itself").getFirst().path("frames").asInt())
                .isEqualTo(30);

        // what failed and comes again as it should be is gone at anew
        Files.copy(aside, folder.resolve("words.mkv"), StandardCopyOption.REPLACE_EXISTING);
        server.until("/api/watched", all -> one(server, id).path("sent").asInt() == 3);
        assertThat(Files.readAllBytes(grows)).isEqualTo(bytes);
        assertThat(server.delete("/api/watched/" + id).status()).isEqualTo(204);
        assertThat(server.delete("/api/watched/" + id).status()).isEqualTo(404);
    }

    @Test
    void aFolderThatRestsTakesNothingAndOneThatIsGoneIsTold(RunningServer server) throws IOException {
        Path folder = Files.createDirectories(server.home().resolve("allowed/rests"));
        String id = watch(server, "rests", "{\"how\":\"SUGGESTED\"}")
                .json()
                .path("id")
                .asString();
        server.post("/api/watched/" + id + "/active", "{\"active\":false}");
        footage(folder.resolve("later.mkv"), 12);
        server.until("/api/watched", all -> !one(server, id).path("active").asBoolean());
        server.post("/api/watched/" + id + "/active", "{\"active\":true}");
        // by its own condition: it must have been examined before it is sent
        server.until("/api/watched", all -> one(server, id).path("sent").asInt() == 1);
        JsonNode clip = clip(server, "later.mkv");
        assertThat(clip.path("examination").path("state").asString()).isEqualTo("DONE");
        Files.move(folder, server.home().resolve("allowed/moved"));
        server.until(
                "/api/watched",
                all -> one(server, id).path("problem").asString("").contains("may be gone"));
        Files.move(server.home().resolve("allowed/moved"), folder);
        server.until("/api/watched", all -> one(server, id).path("problem").isMissingNode());
        server.delete("/api/watched/" + id);
    }

    private static JsonNode clip(RunningServer server, String name) {
        for (JsonNode each : server.get("/api/clips").json()) {
            if (each.path("fileName").asString().equals(name)) {
                return each;
            }
        }
        throw new AssertionError(name + " is not on the shelf");
    }

    @Test
    void whatCannotBeWatchedIsRefused(RunningServer server) throws IOException {
        Files.createDirectories(server.home().resolve("allowed/fine"));
        for (String path : new String[] {"../..", "nowhere", "/etc"}) {
            assertThat(watch(server, path, SAME).status()).as(path).isEqualTo(404);
        }
        assertThat(watch(server, "fine", "{\"how\":\"SAME\"}")
                        .json()
                        .path("detail")
                        .asString())
                .contains("no recipe was given");
        var nothing =
                server.post("/api/watched", "{\"root\":0,\"path\":\"fine\",\"way\":" + SAME + ",\"deliverables\":[]}");
        assertThat(nothing.status()).isEqualTo(422);
        var wrong = server.post(
                "/api/watched",
                "{\"root\":0,\"path\":\"fine\",\"way\":" + SAME + ",\"deliverables\":[" + SMALL
                        + "],\"pattern\":\"{year}\"}");
        assertThat(wrong.json().path("detail").asString()).contains("{year} means nothing");
    }

    private static JsonNode steps(RunningServer server, String clip) {
        return server.get("/api/clips/" + clip + "/takes")
                .json()
                .get(0)
                .path("recipe")
                .path("steps");
    }

    /** What new clips begin with, by each way; what somebody has changed meanwhile stays. */
    @Test
    void newClipsGetWhatIsWished(RunningServer server) {
        assertThat(server.get("/api/first-recipe").json().path("how").asString())
                .isEqualTo("USUAL");
        server.put("/api/first-recipe", SAME);
        String same = server.clip("same.mp4", 96, 64, 10).path("id").asString();
        assertThat(steps(server, same)).hasSize(1);
        assertThat(steps(server, same).get(0).path("step").asString()).isEqualTo("sharpen");

        server.put(
                "/api/first-recipe",
                "{\"how\":\"MEASURED\",\"recipe\":{\"awlsmith\":1,\"steps\":["
                        + "{\"step\":\"crop\",\"on\":true,\"settings\":{\"left\":20}},"
                        + "{\"step\":\"denoise\",\"on\":true,\"settings\":{\"noise\":9}}]}}");
        String measured = server.clip("measured.mp4", 96, 64, 10).path("id").asString();
        JsonNode examined = server.until(
                "/api/clips/" + measured,
                clip -> clip.path("examination").path("state").asString("").equals("DONE"));
        assertThat(examined.path("title").asString()).isEqualTo("measured.mp4");
        server.until("/api/clips/" + measured + "/takes", takes -> {
            JsonNode all = takes.get(0).path("recipe").path("steps");
            // no borders were found in it, and its noise is its own
            return all.size() == 1
                    && all.get(0).path("step").asString().equals("denoise")
                    && all.get(0).path("settings").isEmpty();
        });
        server.put("/api/first-recipe", "{\"how\":\"USUAL\"}");

        var wrong = server.post(
                "/api/takes/alike",
                "{\"clips\":[\"" + same + "\",\"" + measured + "\"],\"way\":{\"how\":\"SUGGESTED\"}}");
        server.until(
                "/api/clips/" + same,
                clip -> clip.path("examination").path("state").asString("").equals("DONE"));
        assertThat(wrong.status()).isEqualTo(200);
        assertThat(server.post(
                                "/api/takes/alike",
                                "{\"clips\":[\"" + same + "\",\"" + measured + "\"],\"way\":" + SAME + "}")
                        .json())
                .isEmpty();
        assertThat(steps(server, measured).get(0).path("step").asString()).isEqualTo("sharpen");
    }
}
