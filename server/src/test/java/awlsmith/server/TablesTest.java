package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Files that recipes work with, and pictures that are transparent, from upload to what is shown. */
@ExtendWith(RunningServer.class)
class TablesTest {
    private static final String INVERSE = "LUT_1D_SIZE 2\n1 1 1\n0 0 0\n";
    private static final String H264 = "{\"codec\":\"h264\",\"settings\":{},\"sound\":false}";

    @TempDir
    Path folder;

    private static String recipe(String file) {
        return "{\"awlsmith\":1,\"steps\":[{\"step\":\"table\",\"settings\":{\"file\":\"" + file + "\"}}]}";
    }

    private static RunningServer.Answer plan(RunningServer server, String clip, String recipe) {
        return server.post("/api/clips/" + clip + "/plan", "{\"recipe\":" + recipe + ",\"deliverable\":" + H264 + "}");
    }

    private static byte[] still(RunningServer server, String clip, String recipe) {
        var answer = server.post(
                "/api/clips/" + clip + "/stills",
                "{\"frame\":1,\"reduce\":1,\"viewer\":\"t\",\"recipe\":" + recipe + "}");
        assertThat(answer.status()).isEqualTo(200);
        return answer.bytes();
    }

    @Test
    void aTableIsAddedUsedAndTakenAway(RunningServer server) throws IOException {
        Path file = folder.resolve("grey.mkv");
        TestClips.ffmpeg("-f lavfi -i color=0x303030:s=64x48:r=25 -frames:v 5 -pix_fmt gbrp -c:v ffv1 " + file);
        String clip =
                server.uploaded("grey.mkv", Files.readAllBytes(file)).path("id").asString();
        JsonNode table = server.put("/api/tables?name=..%2F..%2Fwarm+print.cube", INVERSE)
                .json();
        assertThat(table.path("name").asString()).isEqualTo("warm_print.cube");
        // the same again is the same
        assertThat(server.put("/api/tables?name=warm_print.cube", INVERSE).json())
                .isEqualTo(table);
        assertThat(server.get("/api/tables").json()).hasSize(1);
        String with = recipe(table.path("file").asString());
        assertThat(plan(server, clip, with)
                        .json()
                        .path("steps")
                        .get(0)
                        .path("summary")
                        .asString())
                .isEqualTo("warm_print.cube");
        var made = javax.imageio.ImageIO.read(new java.io.ByteArrayInputStream(still(server, clip, with)));
        assertThat(made.getRGB(5, 5) & 0xff).isBetween(0xff - 0x32, 0xff - 0x2e);
        assertThat(server.delete("/api/tables/" + table.path("hash").asString()).status())
                .isEqualTo(204);
        assertThat(server.get("/api/tables").json()).isEmpty();
        assertThat(server.delete("/api/tables/" + table.path("hash").asString()).status())
                .isEqualTo(404);
    }

    private static RunningServer.Answer added(RunningServer server, String name, byte[] content) {
        return server.send(server.request("/api/tables?name=" + name)
                .PUT(java.net.http.HttpRequest.BodyPublishers.ofByteArray(content)));
    }

    @Test
    void aPictureIsLaidOverEveryFrame(RunningServer server) throws IOException {
        Path file = folder.resolve("grey.mkv");
        TestClips.ffmpeg("-f lavfi -i color=0x303030:s=64x48:r=25 -frames:v 5 -pix_fmt gbrp -c:v ffv1 " + file);
        String clip = server.uploaded("under.mkv", Files.readAllBytes(file))
                .path("id")
                .asString();
        var red = new java.awt.image.BufferedImage(20, 10, java.awt.image.BufferedImage.TYPE_INT_ARGB);
        for (int n = 0; n < 200; n++) {
            red.setRGB(n % 20, n / 20, n % 20 < 10 ? 0xffff0000 : 0);
        }
        var png = new java.io.ByteArrayOutputStream();
        javax.imageio.ImageIO.write(red, "png", png);
        JsonNode mark = added(server, "emblem.png", png.toByteArray()).json();
        assertThat(mark.path("name").asString()).isEqualTo("emblem.png");
        String with = "{\"awlsmith\":1,\"steps\":[{\"step\":\"mark\",\"settings\":{\"file\":\""
                + mark.path("file").asString() + "\",\"place\":\"top-left\",\"margin\":0,\"width\":50}}]}";
        String without = "{\"awlsmith\":1,\"steps\":[]}";
        var plain = javax.imageio.ImageIO.read(new java.io.ByteArrayInputStream(still(server, clip, without)));
        var made = javax.imageio.ImageIO.read(new java.io.ByteArrayInputStream(still(server, clip, with)));
        server.delete("/api/tables/" + mark.path("hash").asString());
        assertThat(made.getRGB(5, 5) & 0xffffff).isEqualTo(0xff0000);
        assertThat(made.getRGB(25, 5)).isEqualTo(plain.getRGB(25, 5));
        assertThat(made.getRGB(5, 30)).isEqualTo(plain.getRGB(5, 30));
        byte[] cut = java.util.Arrays.copyOf(png.toByteArray(), 60);
        assertThat(added(server, "cut.png", cut).json().path("detail").asString())
                .contains("damaged or cut short");
        byte[] lies = png.toByteArray();
        lies[18] = 0x70;
        assertThat(added(server, "lies.png", lies).status()).isEqualTo(422);
    }

    @Test
    void whatIsNoTableOrNotHereIsASentence(RunningServer server) throws IOException {
        Path file = folder.resolve("plain.mp4");
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=64x48:r=25 -frames:v 5 -pix_fmt yuv420p " + file);
        String clip = server.uploaded("plain.mp4", Files.readAllBytes(file))
                .path("id")
                .asString();
        var bad = server.put("/api/tables?name=holiday.jpg", "no colours here");
        assertThat(bad.status()).isEqualTo(422);
        assertThat(bad.json().path("detail").asString())
                .contains("holiday.jpg cannot be used: line 1 is no part of a lookup table");
        assertThat(server.put("/api/tables?name=empty.cube", "")
                        .json()
                        .path("detail")
                        .asString())
                .contains("is it a lookup table at all?");
        var missing = plan(server, clip, recipe("gone.cube#" + "0123456789abcdef".repeat(4)));
        assertThat(missing.status()).isEqualTo(422);
        assertThat(missing.json().path("detail").asString()).contains("the table gone.cube is not here any more");
    }

    @Test
    void aTransparentClipSaysSoAndIsShownOverABoard(RunningServer server) throws IOException {
        Path file = folder.resolve("clear.mov");
        TestClips.ffmpeg("-f lavfi -i color=white:s=64x48:r=25,format=rgba,geq=r=255:g=255:b=255:a='if(gt(X,32),255,0)'"
                + " -frames:v 5 -c:v qtrle -pix_fmt argb " + file);
        JsonNode clip = server.uploaded("clear.mov", Files.readAllBytes(file));
        assertThat(clip.path("facts").path("transparent").asBoolean()).isTrue();
        String id = clip.path("id").asString();
        String enlarge = "{\"awlsmith\":1,\"steps\":[{\"step\":\"enlarge\",\"settings\":{\"factor\":2}}]}";
        var shown = javax.imageio.ImageIO.read(new java.io.ByteArrayInputStream(still(server, id, enlarge)));
        assertThat(shown.getRGB(100, 20) & 0xff).isEqualTo(255);
        assertThat(shown.getRGB(2, 2) & 0xff).isEqualTo(112);
        JsonNode plan = plan(server, id, enlarge).json();
        assertThat(plan.path("warnings").toString()).contains("they go out over black");
    }
}
