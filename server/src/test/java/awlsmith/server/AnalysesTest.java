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

/** Steps that have to see the whole clip first. */
@ExtendWith(RunningServer.class)
class AnalysesTest {
    private static final String STEADY =
            "{\"awlsmith\":1,\"steps\":[{\"step\":\"steady\",\"settings\":{\"over\":1,\"rim\":8}}]}";
    private static final String H264 = "{\"codec\":\"h264\",\"settings\":{\"quality\":17},\"sound\":false}";

    @TempDir
    Path folder;

    /** A still picture that shakes by whole samples. */
    private String shaky(RunningServer server, String name, int frames) throws IOException {
        Path file = folder.resolve(name);
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=320x240:r=25,loop=loop=-1:size=1 -frames:v " + frames
                + " -vf crop=256:192:x='32+8*sin(n*2.1)':y='24+6*cos(n*1.7)' -pix_fmt yuv420p -c:v libx264 -crf 10 "
                + file);
        return server.uploaded(name, Files.readAllBytes(file)).path("id").asString();
    }

    private static JsonNode plan(RunningServer server, String clip) {
        return server.post("/api/clips/" + clip + "/plan", "{\"recipe\":" + STEADY + ",\"deliverable\":" + H264 + "}")
                .json();
    }

    private static String placement(RunningServer server, String clip, int frame) {
        return server.post(
                        "/api/clips/" + clip + "/placement",
                        "{\"recipe\":" + STEADY + ",\"frame\":" + frame + ",\"later\":0}")
                .json()
                .toString();
    }

    private static byte[] still(RunningServer server, String clip, int frame) {
        var answer = server.post(
                "/api/clips/" + clip + "/stills",
                "{\"frame\":" + frame + ",\"reduce\":1,\"viewer\":\"t\",\"recipe\":" + STEADY + "}");
        assertThat(answer.status()).isEqualTo(200);
        return answer.bytes();
    }

    @Test
    void aStepTellsWhatItWaitsForAndUsesWhatWasFound(RunningServer server) throws IOException {
        String clip = shaky(server, "hand.mp4", 50);
        JsonNode before = plan(server, clip);
        assertThat(before.path("waiting").get(0).path("step").asInt()).isZero();
        assertThat(before.path("waiting").get(0).path("doing").asString()).isEqualTo("following the camera");
        assertThat(before.path("waiting").get(0).path("look").isObject()).isFalse();
        assertThat(before.path("moving").asBoolean()).isFalse();
        byte[] passedOn = still(server, clip, 7);
        JsonNode asked = server.post("/api/clips/" + clip + "/analyses", "{\"recipe\":" + STEADY + "}")
                .json();
        // asked again it is the same one
        JsonNode again = server.post("/api/clips/" + clip + "/analyses", "{\"recipe\":" + STEADY + "}")
                .json();
        if (again.path("id").isString()) {
            assertThat(again.path("id").asString()).isEqualTo(asked.path("id").asString());
        }
        server.untilPosted(
                "/api/clips/" + clip + "/plan",
                "{\"recipe\":" + STEADY + ",\"deliverable\":" + H264 + "}",
                plan -> plan.path("waiting").isEmpty());
        assertThat(plan(server, clip).path("moving").asBoolean()).isTrue();
        // the camera's way, as it was and as it is shown
        JsonNode curves = plan(server, clip).path("steps").get(0).path("curves");
        assertThat(curves).hasSize(3);
        assertThat(curves.get(0).path("name").asString()).isEqualTo("across");
        assertThat(curves.get(0).path("before")).isNotEqualTo(curves.get(0).path("after"));
        assertThat(placement(server, clip, 7)).isNotEqualTo(placement(server, clip, 8));
        assertThat(still(server, clip, 7)).isNotEqualTo(passedOn);
        assertThat(server.post("/api/clips/" + clip + "/analyses", "{\"recipe\":" + STEADY + "}")
                        .status())
                .isEqualTo(204);
        // it lies on disk: a new start knows it
        String place = placement(server, clip, 7);
        server.restart();
        assertThat(plan(server, clip).path("waiting").isEmpty()).isTrue();
        assertThat(placement(server, clip, 7)).isEqualTo(place);
        // the clip's own figures follow the picture
        var pixel = server.post(
                "/api/clips/" + clip + "/compare/pixel",
                "{\"recipe\":" + STEADY + ",\"frame\":7,\"x\":128,\"y\":96,\"width\":1,\"height\":1}");
        assertThat(pixel.status()).isEqualTo(200);
        assertThat(server.post(
                                "/api/clips/" + clip + "/placement",
                                "{\"recipe\":" + STEADY + ",\"frame\":5000,\"later\":0}")
                        .status())
                .isEqualTo(422);
        server.delete("/api/clips/" + clip);
    }

    @Test
    void whatIsSentOutSeesTheClipByItself(RunningServer server) throws IOException {
        String clip = shaky(server, "sent.mp4", 40);
        JsonNode take = server.get("/api/clips/" + clip + "/takes").json().get(0);
        String id = take.path("id").asString();
        server.put("/api/takes/" + id, "{\"recipe\":" + STEADY + ",\"version\":0}");
        String render = server.post(
                        "/api/renders", "{\"takeId\":\"" + id + "\",\"wholeClip\":true,\"deliverable\":" + H264 + "}")
                .json()
                .path("id")
                .asString();
        JsonNode done = server.until("/api/renders", all -> ended(all, render));
        for (JsonNode one : done) {
            if (one.path("id").asString().equals(render)) {
                assertThat(one.path("state").asString()).as(one.toString()).isEqualTo("DONE");
                assertThat(one.path("result").path("frames").asInt()).isEqualTo(40);
            }
        }
        assertThat(plan(server, clip).path("waiting").isEmpty()).isTrue();
        server.delete("/api/renders/" + render);
        server.delete("/api/clips/" + clip);
    }

    private static boolean ended(JsonNode all, String render) {
        for (JsonNode one : all) {
            if (one.path("id").asString().equals(render)) {
                String state = one.path("state").asString();
                return state.equals("DONE") || state.equals("FAILED");
            }
        }
        return false;
    }

    @Test
    void aLookIsStoppedAndAskedForAgain(RunningServer server) throws IOException {
        String clip = shaky(server, "stopped.mp4", 300);
        JsonNode asked = server.post("/api/clips/" + clip + "/analyses", "{\"recipe\":" + STEADY + "}")
                .json();
        String path = "/api/clips/" + clip + "/analyses/" + asked.path("id").asString();
        assertThat(server.delete(path).json().path("state").asString()).isIn("STOPPED", "DONE");
        assertThat(server.delete("/api/clips/" + clip + "/analyses/" + clip).status())
                .isEqualTo(404);
        JsonNode waiting = plan(server, clip).path("waiting");
        if (!waiting.isEmpty()) {
            assertThat(waiting.get(0).path("look").path("state").asString()).isEqualTo("STOPPED");
            server.post("/api/clips/" + clip + "/analyses", "{\"recipe\":" + STEADY + "}");
        }
        server.untilPosted(
                "/api/clips/" + clip + "/plan",
                "{\"recipe\":" + STEADY + ",\"deliverable\":" + H264 + "}",
                plan -> plan.path("waiting").isEmpty());
        server.delete("/api/clips/" + clip);
    }
}
