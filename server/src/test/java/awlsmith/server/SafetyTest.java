package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import tools.jackson.databind.JsonNode;

/** What is sent or put in the way with bad intent. */
@ExtendWith(RunningServer.class)
class SafetyTest {
    private static String coded(String text) {
        return Base64.getEncoder().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }

    private static HttpResponse<byte[]> send(RunningServer server, HttpRequest.Builder request) throws Exception {
        return server.http()
                .send(request.header("Tus-Resumable", "1.0.0").build(), HttpResponse.BodyHandlers.ofByteArray());
    }

    private static HttpResponse<byte[]> sendPictures(RunningServer server, byte[] tar) throws Exception {
        var created = send(
                server,
                server.request("/api/uploads")
                        .header("Upload-Length", "" + tar.length)
                        .header("Upload-Metadata", "filename " + coded("x.tar") + ",rate " + coded("25"))
                        .POST(HttpRequest.BodyPublishers.noBody()));
        String at = created.headers().firstValue("Location").orElseThrow();
        return send(
                server,
                server.request(at.substring(at.indexOf("/api/")))
                        .header("Upload-Offset", "0")
                        .header("Content-Type", "application/offset+octet-stream")
                        .method("PATCH", HttpRequest.BodyPublishers.ofByteArray(tar)));
    }

    /** A header as GNU tar writes it for a file with holes: 4 TB of zeros in 512 bytes (GNU tar manual, "Sparse Formats"). */
    private static void sparse(ByteArrayOutputStream tar, String name, long real) {
        byte[] head = new byte[512];
        put(head, 0, name);
        put(head, 100, "0000644\0");
        put(head, 108, "0000000\0");
        put(head, 116, "0000000\0");
        put(head, 124, "00000000000\0");
        put(head, 136, "00000000000\0");
        head[156] = 'S';
        put(head, 257, "ustar  \0");
        put(head, 386, "00000000000\0");
        put(head, 398, "00000000000\0");
        put(head, 483, "%011o\0".formatted(Math.min(real, 077777777777L)));
        java.util.Arrays.fill(head, 148, 156, (byte) ' ');
        int sum = 0;
        for (byte b : head) {
            sum += b & 255;
        }
        put(head, 148, "%06o\0 ".formatted(sum));
        tar.writeBytes(head);
    }

    private static void put(byte[] head, int at, String text) {
        byte[] bytes = text.getBytes(StandardCharsets.US_ASCII);
        System.arraycopy(bytes, 0, head, at, bytes.length);
    }

    @Test
    void anArchiveOfHolesIsRefused(RunningServer server) throws Exception {
        var tar = new ByteArrayOutputStream();
        for (int n = 1; n <= 3; n++) {
            sparse(tar, "hole" + n + ".png", 8L << 30);
        }
        tar.writeBytes(new byte[1024]);
        var answer = sendPictures(server, tar.toByteArray());
        assertThat(answer.statusCode()).isEqualTo(422);
        assertThat(new String(answer.body(), StandardCharsets.UTF_8)).contains("one series of pictures");
    }

    @Test
    void aTransferWithoutALengthIsRefused(RunningServer server) throws Exception {
        var answer = send(
                server,
                server.request("/api/uploads")
                        .header("Upload-Defer-Length", "1")
                        .header("Upload-Metadata", "filename " + coded("endless.mp4"))
                        .POST(HttpRequest.BodyPublishers.noBody()));
        assertThat(answer.statusCode()).isEqualTo(422);
        assertThat(new String(answer.body(), StandardCharsets.UTF_8)).contains("length must be announced");
    }

    /** 16000x16000 pixels in a small file: more than this process has; it says so, and goes on answering. */
    @Test
    void aPictureLargerThanTheMemoryIsASentence(RunningServer server) throws Exception {
        var image = new BufferedImage(16000, 16000, BufferedImage.TYPE_BYTE_BINARY);
        var png = new ByteArrayOutputStream();
        ImageIO.write(image, "png", png);
        JsonNode added = server.upload("wall.png", png.toByteArray()).json();
        String id = added.path("id").asString();
        JsonNode clip = server.until(
                "/api/clips/" + id, c -> !c.path("state").asString().equals("READING"));
        boolean told = clip.path("problem").asString("").contains("memory");
        if (clip.path("state").asString().equals("READY")) {
            var stills = new java.util.ArrayList<CompletableFuture<RunningServer.Answer>>();
            for (int i = 0; i < 3; i++) {
                int window = i;
                stills.add(
                        CompletableFuture.supplyAsync(() -> server.send(server.request("/api/clips/" + id + "/stills")
                                .header("Content-Type", "application/json")
                                .header("X-Page", "wall-" + window)
                                .POST(HttpRequest.BodyPublishers.ofString(
                                        "{\"frame\":0,\"reduce\":16,\"viewer\":\"v\",\"recipe\":null}")))));
            }
            for (var still : stills) {
                RunningServer.Answer answer = still.get(80, TimeUnit.SECONDS);
                assertThat(answer.status())
                        .as(answer.text()
                                .substring(0, Math.min(300, answer.text().length())))
                        .isIn(200, 507);
                told |= answer.status() == 507 && answer.text().contains("memory");
            }
        }
        // on a machine with so much memory it is simply shown
        long heap = Runtime.getRuntime().maxMemory();
        assertThat(told).isEqualTo(heap < 6_000_000_000L);
        assertThat(server.get("/api/session").status()).isEqualTo(200);
        server.until("/api/clips/" + id, c -> {
            String state = c.path("examination").path("state").asString("");
            return state.isEmpty() || state.equals("DONE") || state.equals("FAILED");
        });
        server.delete("/api/clips/" + id);
    }

    /** A linked file becomes a link to another outside: it is not served any more, neither open nor anew. */
    @Test
    void aLinkedFileThatTurnsIntoALinkIsNotServed(RunningServer server) throws Exception {
        Path allowed = Files.createDirectories(server.home().resolve("allowed"));
        Path file = TestClips.moving(allowed, "linked-away.mp4", 64, 48, "25", 10, "-pix_fmt yuv420p -c:v libx264");
        Path secret = TestClips.moving(server.home(), "secret.mp4", 64, 48, "25", 10, "-pix_fmt yuv420p -c:v libx264");
        JsonNode added = server.post("/api/folders/0/clips", "{\"path\":\"linked-away.mp4\"}")
                .json();
        String id = added.path("id").asString();
        server.until("/api/clips/" + id, c -> c.path("state").asString().equals("READY"));
        String still = "{\"frame\":%d,\"reduce\":1,\"viewer\":\"v\"}";
        assertThat(server.post("/api/clips/" + id + "/stills", still.formatted(0))
                        .status())
                .isEqualTo(200);
        Files.delete(file);
        Files.createSymbolicLink(file, secret);
        var open = server.post("/api/clips/" + id + "/stills", still.formatted(9));
        assertThat(open.status()).isEqualTo(409);
        assertThat(open.text()).contains("leads to a place that may not be read");
        server.restart();
        assertThat(server.post("/api/clips/" + id + "/stills", still.formatted(9))
                        .status())
                .isEqualTo(409);
        assertThat(server.post("/api/clips/" + id + "/repair", "").status()).isIn(201, 409);
        Files.delete(file);
        server.delete("/api/clips/" + id);
    }

    /** Signing out ends the stream of events; a new password ends every session begun before it. */
    @Test
    void sessionsEndWithSigningOutAndWithANewPassword(RunningServer server) throws Exception {
        var guest = server.guest();
        Path password = server.home().resolve("password");
        Files.writeString(password, new BCryptPasswordEncoder(4).encode("a boat upon the water"));
        try {
            assertThat(guest.signIn("a boat upon the water")).isEqualTo(200);
            assertThat(guest.get("/api/clips")).isEqualTo(200);
            CompletableFuture<Integer> stream = guest.stream("/api/events");
            assertThat(guest.signOut()).isEqualTo(204);
            assertThat(stream.get(10, TimeUnit.SECONDS)).isEqualTo(200);
            assertThat(guest.get("/api/clips")).isEqualTo(401);
            assertThat(guest.signIn("a boat upon the water")).isEqualTo(200);
            Files.writeString(password, new BCryptPasswordEncoder(4).encode("another boat on it"));
            assertThat(guest.get("/api/clips")).isEqualTo(401);
            assertThat(guest.signIn("a boat upon the water")).isEqualTo(422);
        } finally {
            Files.delete(password);
            // the shared session of the other tests carries the mark of no password again
            assertThat(server.get("/api/clips").status()).isEqualTo(200);
        }
    }

    /** Pages that are closed while they load leave nothing in the log. */
    @Test
    void aPageThatIsClosedWhileItLoadsLeavesNoTrace(RunningServer server) throws Exception {
        String page = server.get("/").text();
        var script = java.util.regex.Pattern.compile("/assets/[^\"]+\\.js").matcher(page);
        assertThat(script.find()).isTrue();
        Path log = server.home().resolve("awlsmith.log");
        long before = Files.exists(log) ? Files.size(log) : 0;
        for (int i = 0; i < 30; i++) {
            try (var socket = new java.net.Socket()) {
                socket.setReceiveBufferSize(1024);
                // closing sends a reset, as a page's closing does
                socket.setSoLinger(true, 0);
                socket.connect(new java.net.InetSocketAddress("127.0.0.1", server.port()));
                String what = i % 2 == 0 ? script.group() : "/api/session";
                socket.getOutputStream()
                        .write(("GET " + what + " HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
                                .getBytes(StandardCharsets.US_ASCII));
                socket.getInputStream().read();
            }
        }
        // one more answer, behind all of them
        assertThat(server.get("/api/session").status()).isEqualTo(200);
        if (Files.exists(log)) {
            byte[] all = Files.readAllBytes(log);
            String since = new String(all, (int) before, (int) (all.length - before), StandardCharsets.UTF_8);
            assertThat(since).doesNotContain("Exception").doesNotContain("unexpected");
        }
    }
}
