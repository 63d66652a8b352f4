package awlsmith.server.uploads;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import awlsmith.server.RunningServer;
import java.io.IOException;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Base64;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;

/** The exchanges that the tus protocol's specification, version 1.0.0, gives for its core and for creation. */
@ExtendWith(RunningServer.class)
class ResumableUploadTest {
    @TempDir
    Path folder;

    private static HttpResponse<byte[]> send(RunningServer server, HttpRequest.Builder request) {
        try {
            return server.http()
                    .send(request.header("Tus-Resumable", "1.0.0").build(), HttpResponse.BodyHandlers.ofByteArray());
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private static HttpResponse<byte[]> create(RunningServer server, String name, long bytes) {
        return send(
                server,
                server.request("/api/uploads")
                        .header("Upload-Length", "" + bytes)
                        .header(
                                "Upload-Metadata",
                                "filename " + Base64.getEncoder().encodeToString(name.getBytes(StandardCharsets.UTF_8)))
                        .POST(HttpRequest.BodyPublishers.noBody()));
    }

    private static HttpResponse<byte[]> patch(RunningServer server, String at, long offset, byte[] bytes) {
        return send(
                server,
                server.request(at)
                        .header("Upload-Offset", "" + offset)
                        .header("Content-Type", "application/offset+octet-stream")
                        .method("PATCH", HttpRequest.BodyPublishers.ofByteArray(bytes)));
    }

    private static String path(HttpResponse<byte[]> created) {
        String location = created.headers().firstValue("Location").orElseThrow();
        return location.substring(location.indexOf("/api/"));
    }

    @Test
    void aTransferGoesOnWhereItBrokeOffEvenAfterARestart(RunningServer server) throws IOException {
        byte[] bytes = Files.readAllBytes(
                TestClips.moving(folder, "w.mp4", 320, 240, "25", 40, "-pix_fmt yuv420p -c:v libx264"));
        int half = bytes.length / 2;
        var created = create(server, "Ferry ÆØ.mp4", bytes.length);
        assertThat(created.statusCode()).isEqualTo(201);
        String at = path(created);
        assertThat(patch(server, at, 0, Arrays.copyOf(bytes, half)).statusCode())
                .isEqualTo(204);

        server.restart();
        var head = send(server, server.request(at).method("HEAD", HttpRequest.BodyPublishers.noBody()));
        assertThat(head.headers().firstValue("Upload-Offset")).contains("" + half);
        assertThat(patch(server, at, 3, new byte[5]).statusCode()).isEqualTo(409);
        var last = patch(server, at, half, Arrays.copyOfRange(bytes, half, bytes.length));
        assertThat(last.statusCode()).isEqualTo(204);

        var clips = server.until("/api/clips", all -> all.toString().contains("Ferry ÆØ.mp4"));
        assertThat(clips.toString()).contains("Ferry ÆØ.mp4");
        // what has arrived is no upload any more
        assertThat(send(server, server.request(at).method("HEAD", HttpRequest.BodyPublishers.noBody()))
                        .statusCode())
                .isEqualTo(404);
    }

    @Test
    void whatIsNoVideoIsRefusedWithASentence(RunningServer server) {
        byte[] letter = "no film\n".repeat(500).getBytes(StandardCharsets.UTF_8);
        String at = path(create(server, "letter.mp4", letter.length));
        var answer = patch(server, at, 0, letter);
        assertThat(answer.statusCode()).isEqualTo(422);
        assertThat(new String(answer.body(), StandardCharsets.UTF_8)).contains("letter.mp4: this is not a video");
        assertThat(create(server, "big.mp4", 9L << 20).statusCode()).isEqualTo(413);
    }
}
