package awlsmith.server.clips;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import awlsmith.server.RunningServer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.List;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Clips whose file is made here: of numbered pictures, and of damaged files. */
@ExtendWith(RunningServer.class)
class MadeClipsTest {
    @TempDir
    Path folder;

    private List<Path> pictures(String name, int... numbers) throws IOException {
        TestClips.ffmpeg(
                "-f lavfi -i testsrc2=s=96x64:r=25 -frames:v 12 -pix_fmt rgb24 " + folder.resolve("all_%02d.png"));
        var chosen = new java.util.ArrayList<Path>();
        for (int n : numbers) {
            chosen.add(Files.copy(
                    folder.resolve("all_%02d.png".formatted(n)), folder.resolve(name + "%04d.png".formatted(n))));
        }
        return chosen;
    }

    private static byte[] tar(List<Path> files) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try (var tar = new TarArchiveOutputStream(bytes)) {
            for (Path file : files) {
                var entry = new TarArchiveEntry(file.getFileName().toString());
                entry.setSize(Files.size(file));
                tar.putArchiveEntry(entry);
                Files.copy(file, tar);
                tar.closeArchiveEntry();
            }
        }
        return bytes.toByteArray();
    }

    private static String coded(String text) {
        return Base64.getEncoder().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }

    private static HttpResponse<byte[]> send(RunningServer server, String name, String rate, byte[] bytes)
            throws Exception {
        var created = server.http()
                .send(
                        server.request("/api/uploads")
                                .header("Tus-Resumable", "1.0.0")
                                .header("Upload-Length", "" + bytes.length)
                                .header("Upload-Metadata", "filename " + coded(name) + ",rate " + coded(rate))
                                .POST(HttpRequest.BodyPublishers.noBody())
                                .build(),
                        HttpResponse.BodyHandlers.ofByteArray());
        String at = created.headers().firstValue("Location").orElseThrow();
        return server.http()
                .send(
                        server.request(at.substring(at.indexOf("/api/")))
                                .header("Tus-Resumable", "1.0.0")
                                .header("Upload-Offset", "0")
                                .header("Content-Type", "application/offset+octet-stream")
                                .method("PATCH", HttpRequest.BodyPublishers.ofByteArray(bytes))
                                .build(),
                        HttpResponse.BodyHandlers.ofByteArray());
    }

    private static JsonNode titled(RunningServer server, String title) {
        for (JsonNode clip : server.get("/api/clips").json()) {
            if (clip.path("title").asString().equals(title)) {
                return clip;
            }
        }
        return null;
    }

    private static JsonNode settled(RunningServer server, String title) {
        server.until("/api/clips", all -> {
            JsonNode clip = titled(server, title);
            return clip != null && !clip.path("state").asString().equals("READING");
        });
        return titled(server, title);
    }

    @Test
    void numberedPicturesArriveAsOneClipAndGapsAreTold(RunningServer server) throws Exception {
        byte[] packed = tar(pictures("quay_", 1, 2, 3, 6, 7));
        assertThat(send(server, "quay.tar", "24000/1001", packed).statusCode()).isEqualTo(204);
        JsonNode clip = settled(server, "quay_ 1-7.png".replace("_", ""));
        assertThat(clip.path("state").asString()).as(clip.toString()).isEqualTo("READY");
        assertThat(clip.path("frames").asInt()).isEqualTo(5);
        assertThat(clip.path("facts").path("rate").asString()).isEqualTo("24000/1001");
        assertThat(clip.path("problem").asString())
                .contains("2 pictures are missing")
                .contains("4, 5");
        assertThat(clip.path("bytes").asLong()).isPositive();
        String id = clip.path("id").asString();
        Path kept = server.home().resolve("media/clips").resolve(id);
        assertThat(kept.resolve("pictures.tar")).doesNotExist();
        assertThat(kept.resolve("pictures")).doesNotExist();
    }

    @Test
    void whatIsNoSeriesIsRefused(RunningServer server) throws Exception {
        List<Path> some = pictures("deck", 1, 2);
        var two = send(server, "deck.tar", "25", tar(some));
        assertThat(two.statusCode()).isEqualTo(422);
        assertThat(new String(two.body(), StandardCharsets.UTF_8)).contains("one series of pictures");
        assertThat(send(server, "x.tar", "25", "no archive".getBytes()).statusCode())
                .isEqualTo(422);
        var fast = send(server, "deck.tar", "100000", tar(pictures("mast", 1, 2, 3)));
        assertThat(new String(fast.body(), StandardCharsets.UTF_8)).contains("is no rate");
    }

    @Test
    void aSeriesInAnAllowedFolderBecomesAClip(RunningServer server) throws Exception {
        Path allowed = Files.createDirectories(server.home().resolve("allowed/reel"));
        for (Path picture : pictures("mole ", 2, 3, 4)) {
            Files.move(picture, allowed.resolve(picture.getFileName()));
        }
        JsonNode series =
                server.get("/api/folders/0?path=reel").json().path("series").get(0);
        assertThat(series.path("title").asString()).isEqualTo("mole 2-4.png");
        assertThat(series.path("count").asInt()).isEqualTo(3);
        server.post(
                "/api/folders/0/series", "{\"path\":\"reel\",\"name\":\"mole \",\"ending\":\"png\",\"rate\":\"18\"}");
        JsonNode clip = settled(server, "mole 2-4.png");
        assertThat(clip.path("state").asString()).as(clip.toString()).isEqualTo("READY");
        assertThat(clip.path("facts").path("rate").asString()).isEqualTo("18");
        assertThat(clip.path("problem").asString("")).isEmpty();
        assertThat(allowed.resolve("mole 0002.png")).exists();
        assertThat(server.post(
                                "/api/folders/0/series",
                                "{\"path\":\"reel\",\"name\":\"gone\",\"ending\":\"png\",\"rate\":\"18\"}")
                        .status())
                .isEqualTo(404);
    }

    @Test
    void aClipPutAsideComesBackWithAllThatWasMade(RunningServer server) {
        String id = server.clip("aside.mp4", 96, 64, 5).path("id").asString();
        String takes = server.get("/api/clips/" + id + "/takes").text();
        assertThat(server.post("/api/clips/" + id + "/aside", "").status()).isEqualTo(204);
        assertThat(titled(server, "aside.mp4")).isNull();
        assertThat(server.get("/api/clips/aside").json())
                .extracting(clip -> clip.path("id").asString())
                .contains(id);
        assertThat(server.post("/api/clips/" + id + "/back", "")
                        .json()
                        .path("id")
                        .asString())
                .isEqualTo(id);
        assertThat(titled(server, "aside.mp4")).isNotNull();
        assertThat(server.get("/api/clips/" + id + "/takes").text()).isEqualTo(takes);
        assertThat(server.get("/api/clips/aside").json())
                .extracting(clip -> clip.path("id").asString())
                .doesNotContain(id);
        server.post("/api/clips/" + id + "/aside", "");
        assertThat(server.delete("/api/clips/" + id).status()).isEqualTo(204);
        assertThat(server.get("/api/clips/" + id).status()).isEqualTo(404);
    }

    /** A file cut off in the middle is mended in the background; one that nothing can be read of ends in a sentence. */
    @Test
    void damagedFilesAreRepairedAndMended(RunningServer server) throws Exception {
        JsonNode whole = server.clip("whole.mp4", 96, 64, 30);
        String id = whole.path("id").asString();
        for (String fill : new String[] {"false", "true"}) {
            JsonNode copy =
                    server.post("/api/clips/" + id + "/repair?fill=" + fill, "").json();
            assertThat(copy.path("state").asString()).isEqualTo("READING");
            JsonNode made = settled(server, copy.path("title").asString());
            assertThat(made.path("frames").asInt()).as(made.toString()).isEqualTo(30);
            assertThat(made.path("facts").path("codec").asString()).isEqualTo(fill.equals("true") ? "FFV1" : "H.264");
        }
        Path file = server.home().resolve("media/clips").resolve(id).resolve("source");
        Files.write(file, new byte[3000]);
        JsonNode copy = server.post("/api/clips/" + id + "/repair", "").json();
        server.until(
                "/api/clips/" + copy.path("id").asString(),
                c -> c.path("state").asString().equals("FAILED"));
        assertThat(server.get("/api/clips/" + copy.path("id").asString())
                        .json()
                        .path("problem")
                        .asString())
                .contains("not a video that can be read");
    }
}
