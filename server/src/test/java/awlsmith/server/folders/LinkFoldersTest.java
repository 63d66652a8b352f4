package awlsmith.server.folders;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import awlsmith.server.RunningServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

@ExtendWith(RunningServer.class)
class LinkFoldersTest {
    private static String words(RunningServer server, String path, String body) {
        return server.post(path, body).json().path("detail").asString();
    }

    @Test
    void footageIsUsedWhereItLiesAndNeverTouched(RunningServer server) throws IOException {
        Path allowed = Files.createDirectories(server.home().resolve("allowed/reel 1"));
        // the helper that makes it cannot write where a name has a space
        Path made = TestClips.moving(server.home(), "landing.mp4", 160, 96, "25", 30, "-pix_fmt yuv420p -c:v libx264");
        Path file = Files.move(made, allowed.resolve("landing.mp4"));
        byte[] before = Files.readAllBytes(file);
        var listing = server.get("/api/folders/0?path=reel%201").json();
        assertThat(listing.path("entries").toString()).contains("landing.mp4").contains("reel 1/landing.mp4");

        String link = "{\"path\":\"reel 1/landing.mp4\"}";
        var clip = server.post("/api/folders/0/clips", link).json();
        assertThat(clip.path("linked").asBoolean()).isTrue();
        String id = clip.path("id").asString();
        server.until("/api/clips/" + id, c -> c.path("state").asString().equals("READY"));
        assertThat(words(server, "/api/folders/0/clips", link)).contains("on the shelf already");

        // gone from under our feet: a sentence, and all is well once it is back
        Path away = file.resolveSibling("away.mp4");
        Files.move(file, away);
        assertThat(words(server, "/api/clips/" + id + "/stills", "{\"frame\":3,\"reduce\":1,\"viewer\":\"t\"}"))
                .contains("gone from its place");
        Files.move(away, file);
        assertThat(server.post("/api/clips/" + id + "/stills", "{\"frame\":3,\"reduce\":1,\"viewer\":\"t\"}")
                        .status())
                .isEqualTo(200);

        assertThat(server.delete("/api/clips/" + id).status()).isEqualTo(204);
        assertThat(Files.readAllBytes(file)).isEqualTo(before);
    }

    /** A recording that goes on while it is taken in: what there is can be worked on, and a sentence tells that it is not all. */
    @Test
    void aFileThatGrowsWhileItIsReadIsToldOf(RunningServer server) throws Exception {
        Path allowed = Files.createDirectories(server.home().resolve("allowed"));
        Path made = TestClips.moving(server.home(), "live.ts", 160, 96, "25", 40, "-pix_fmt yuv420p -c:v mpeg2video");
        byte[] all = Files.readAllBytes(made);
        Path file = allowed.resolve("live.ts");
        // whole packets of 188 bytes, ISO/IEC 13818-1
        int at = all.length / 188 * 2 / 3 * 188;
        Files.write(file, Arrays.copyOf(all, at));
        var stop = new AtomicBoolean();
        Thread recorder = Thread.ofPlatform().start(() -> {
            for (int i = at; i < all.length && !stop.get(); i += 188) {
                try {
                    Files.write(file, Arrays.copyOfRange(all, i, i + 188), StandardOpenOption.APPEND);
                    Thread.sleep(20);
                } catch (IOException | InterruptedException e) {
                    throw new IllegalStateException(e);
                }
            }
        });
        try {
            var clip = server.post("/api/folders/0/clips", "{\"path\":\"live.ts\"}")
                    .json();
            String id = clip.path("id").asString();
            server.until("/api/clips/" + id, c -> c.path("state").asString().equals("READY"));
            var ready = server.get("/api/clips/" + id).json();
            assertThat(ready.path("problem").asString())
                    .contains("grew while it was read")
                    .contains("link it again");
            assertThat(ready.path("frames").asInt()).isPositive();
            assertThat(server.post("/api/clips/" + id + "/stills", "{\"frame\":3,\"reduce\":1,\"viewer\":\"t\"}")
                            .status())
                    .isEqualTo(200);
            assertThat(server.delete("/api/clips/" + id).status()).isEqualTo(204);
        } finally {
            stop.set(true);
            recorder.join();
        }
    }

    @Test
    void nothingOutsideIsReached(RunningServer server) throws IOException {
        Path allowed = Files.createDirectories(server.home().resolve("allowed"));
        Path secret = Files.writeString(server.home().resolve("secret.txt"), "secret");
        Path way = allowed.resolve("way-out");
        if (!Files.exists(way)) {
            Files.createSymbolicLink(way, secret.getParent());
        }
        for (String path : new String[] {"..", "../secret.txt", "way-out", "way-out/secret.txt", "/etc", "a\u0000b"}) {
            var answer = server.get(
                    "/api/folders/0?path=" + java.net.URLEncoder.encode(path, java.nio.charset.StandardCharsets.UTF_8));
            assertThat(answer.status()).as(path).isEqualTo(404);
        }
        assertThat(server.post("/api/folders/0/clips", "{\"path\":\"../secret.txt\"}")
                        .status())
                .isEqualTo(404);
        assertThat(server.get("/api/folders/7").status()).isEqualTo(404);
    }
}
