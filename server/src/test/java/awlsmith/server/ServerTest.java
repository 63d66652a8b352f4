package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningServer.class)
class ServerTest {
    private static final String DOUBLE =
            "{\"awlsmith\":1,\"steps\":[{\"step\":\"enlarge\",\"settings\":{\"factor\":2,\"kernel\":\"lanczos3\"}}]}";
    private static final String H264 = "{\"codec\":\"h264\",\"settings\":{\"quality\":20},\"sound\":true}";

    @TempDir
    Path folder;

    // --- signing in ---

    @Test
    void nothingIsToldWithoutSigningIn(RunningServer server) throws Exception {
        var stranger = HttpClient.newHttpClient();
        for (String path : new String[] {"/api/clips", "/api/renders", "/api/steps", "/api/events", "/api/openapi"}) {
            var answer = stranger.send(
                    HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + server.port() + path))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            assertThat(answer.statusCode()).as(path).isEqualTo(401);
            assertThat(answer.body()).contains("not signed in");
        }
        var session = stranger.send(
                HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + server.port() + "/api/session"))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        assertThat(session.body()).contains("\"signedIn\":false");
        String policy = session.headers().firstValue("Content-Security-Policy").orElse("");
        assertThat(policy).contains("script-src 'self'").doesNotContain("script-src 'self' 'unsafe-inline'");
    }

    @Test
    void theLinkWorksOnceAndItsCookieIsGuarded(RunningServer server) throws Exception {
        // the shared server's link was used when it signed in, unless it was started anew since
        String token = server.token();
        if (token != null) {
            server.get("/enter?token=" + token);
        }
        var stranger = HttpClient.newHttpClient();
        var used = stranger.send(
                HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + server.port() + "/enter?token=wrong"))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
        assertThat(used.statusCode()).isEqualTo(303);
        assertThat(used.headers().firstValue("Location")).contains("/sign-in?used");
        assertThat(server.token()).isNull();
        assertThat(server.get("/api/session").json().path("signedIn").asBoolean())
                .isTrue();
    }

    @Test
    void changesWantTheTokenOfThePage(RunningServer server) {
        var answer =
                server.send(HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + server.port() + "/api/renders"))
                        .header("Content-Type", "application/json")
                        .POST(HttpRequest.BodyPublishers.ofString("{}")));
        assertThat(answer.status()).isEqualTo(403);
        assertThat(answer.text()).contains("out of date");
    }

    @Test
    void onLoopbackOnlyLoopbacksNamesAreAnswered(RunningServer server) throws IOException {
        try (var socket = new Socket("127.0.0.1", server.port())) {
            socket.getOutputStream()
                    .write("GET /api/session HTTP/1.1\r\nHost: evil.example\r\nConnection: close\r\n\r\n"
                            .getBytes(StandardCharsets.US_ASCII));
            String answer = new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            assertThat(answer).startsWith("HTTP/1.1 421");
        }
    }

    // --- taking in ---

    @Test
    void aFileIsTakenInAndItsFactsAreRead(RunningServer server) {
        JsonNode clip = server.clip("holiday.mp4", 160, 90, 50);
        assertThat(clip.path("state").asString()).isEqualTo("READY");
        assertThat(clip.path("frames").asInt()).isEqualTo(50);
        JsonNode facts = clip.path("facts");
        assertThat(facts.path("width").asInt()).isEqualTo(160);
        assertThat(facts.path("ratePerSecond").asDouble()).isEqualTo(25);
        assertThat(facts.path("seconds").asDouble()).isEqualTo(2);
        assertThat(facts.path("codec").asString()).isEqualTo("H.264");
        assertThat(facts.path("sound").get(0).asString()).isEqualTo("AAC 48 kHz mono");
        String id = clip.path("id").asString();
        for (int i = 0; i < 5; i++) {
            assertThat(server.get("/api/clips/" + id + "/thumbs/" + i).status()).isEqualTo(200);
        }
        assertThat(server.get("/api/clips/" + id + "/thumbs/5").status()).isEqualTo(404);
        assertThat(server.get("/api/clips/" + id + "/takes").json()).hasSize(1);
        assertThat(server.delete("/api/clips/" + id).status()).isEqualTo(204);
        assertThat(server.get("/api/clips/" + id).status()).isEqualTo(404);
        assertThat(server.home().resolve("media/clips/" + id)).doesNotExist();
    }

    @Test
    void badFilesGetASentenceAndLeaveNothing(RunningServer server) throws IOException {
        long before = files(server);
        Path whole = TestClips.moving(folder, "w.mp4", 320, 240, "25", 40, "-pix_fmt yuv420p");
        byte[] bytes = Files.readAllBytes(whole);
        Path sound = folder.resolve("s.mp4");
        TestClips.ffmpeg("-f lavfi -i sine=d=1 " + sound);
        refused(server.upload("empty.mp4", new byte[0]), 422, "empty.mp4 is empty (0 bytes)");
        refused(server.upload("letter.mp4", "no film\n".repeat(500).getBytes()), 422, "not a video that can be read");
        refused(server.upload("cut.mp4", Arrays.copyOf(bytes, bytes.length / 2)), 422, "cut short");
        refused(server.upload("sound.mp4", Files.readAllBytes(sound)), 422, "no picture, only sound");
        refused(server.upload("big.mp4", new byte[9 << 20]), 413, "larger than");
        assertThat(files(server)).isEqualTo(before);
    }

    @Test
    void namesAreOnlyShown(RunningServer server) throws IOException {
        Path file = TestClips.moving(folder, "n.mp4", 64, 64, "25", 3, "-pix_fmt yuv420p");
        for (String[] name : new String[][] {
            {"../../etc/passwd", "passwd"},
            {"a\"b'c\nd.mp4", "a\"b'c d.mp4"},
            {"..", "unnamed"},
            {"<script>alert(1)</script>.mp4", "script>.mp4"}
        }) {
            JsonNode added = server.upload(name[0], Files.readAllBytes(file)).json();
            assertThat(added.path("title").asString()).isEqualTo(name[1]);
            assertThat(server.home().resolve("media/clips/" + added.path("id").asString() + "/source"))
                    .exists();
        }
    }

    private static void refused(RunningServer.Answer answer, int status, String sentence) {
        assertThat(answer.status()).as(answer.text()).isEqualTo(status);
        assertThat(answer.json().path("detail").asString()).contains(sentence);
        assertThat(answer.json().path("type").asString()).startsWith("urn:awlsmith:problem:");
    }

    private static long files(RunningServer server) throws IOException {
        try (Stream<Path> all = Files.walk(server.home().resolve("media"))) {
            // clips of other tests are examined and get small pictures in the background meanwhile
            return all.filter(Files::isRegularFile)
                    .filter(file -> !file.getFileName().toString().matches("(curves|peeks).*"))
                    .count();
        }
    }

    // --- examining ---

    @Test
    void aClipIsExaminedAndCanBeExaminedAgain(RunningServer server) {
        JsonNode done = examined(
                server, server.clip("examined.mp4", 160, 90, 50).path("id").asString());
        JsonNode condition = done.path("examination").path("condition");
        // twenty-three of the picture, one of the codec, four of the sound
        assertThat(condition.path("findings")).hasSize(33);
        assertThat(condition.path("scan").asString()).isEqualTo("progressive");
        JsonNode steps = condition.path("suggestion").path("steps");
        assertThat(steps.get(steps.size() - 1).path("step").asString()).isEqualTo("enlarge");
        String id = done.path("id").asString();
        JsonNode curves =
                server.get("/api/clips/" + id + "/examination/curves?points=10").json();
        assertThat(curves.path("frames").asInt()).isEqualTo(done.path("frames").asInt());
        assertThat(curves.path("light")).hasSize(10);
        assertThat(server.post("/api/clips/" + id + "/examination", "").status())
                .isEqualTo(200);
        server.delete("/api/clips/" + id + "/examination");
        String state = server.get("/api/clips/" + id)
                .json()
                .path("examination")
                .path("state")
                .asString();
        // it may have been quicker than the wish to stop it
        assertThat(state).isIn("STOPPED", "DONE");
        // asked for while the job before may still be ending: it is met all the same
        server.post("/api/clips/" + id + "/examination", "");
        server.post("/api/clips/" + id + "/examination", "");
        assertThat(examined(server, id).path("examination").path("progress").asDouble())
                .isEqualTo(1);
        assertThat(server.post("/api/clips/" + java.util.UUID.randomUUID() + "/examination", "")
                        .status())
                .isEqualTo(404);
    }

    @Test
    void aClipGetsSmallPictures(RunningServer server) {
        String at =
                "/api/clips/" + server.clip("peeks.mp4", 160, 90, 20).path("id").asString() + "/peeks";
        JsonNode peeks = server.until(at, p -> !p.path("coming").asBoolean());
        assertThat(peeks.path("count").asInt()).isEqualTo(20);
        assertThat(peeks.path("width").asInt()).isEqualTo(160);
        var picture = server.get(at + "/19");
        assertThat(picture.status()).isEqualTo(200);
        // every JPEG file begins with this marker, ITU-T T.81 table B.1
        assertThat(picture.bytes()).startsWith(0xFF, 0xD8);
        assertThat(server.get(at + "/20").status()).isEqualTo(404);
        assertThat(server.get("/api/clips/" + java.util.UUID.randomUUID() + "/peeks")
                        .status())
                .isEqualTo(404);
    }

    private static JsonNode examined(RunningServer server, String id) {
        for (int i = 0; i < 600; i++) {
            JsonNode clip = server.get("/api/clips/" + id).json();
            if (clip.path("examination").path("state").asString("").equals("DONE")) {
                return clip;
            }
            java.util.concurrent.locks.LockSupport.parkNanos(100_000_000);
        }
        throw new AssertionError("the clip was not examined within a minute");
    }

    /** A field-rate recipe makes two frames of one; a turned picture is its own base. */
    @Test
    void plansTellRatesAndTheBase(RunningServer server) {
        String clip = server.clip("turned.mp4", 160, 96, 20).path("id").asString();
        String recipe = "{\"awlsmith\":1,\"steps\":[{\"step\":\"deinterlace\",\"settings\":{\"order\":\"top\"}},"
                + "{\"step\":\"turn\",\"settings\":{\"turn\":\"90\"}},"
                + "{\"step\":\"crop\",\"settings\":{\"left\":10,\"width\":80}}]}";
        JsonNode plan = server.post(
                        "/api/clips/" + clip + "/plan", "{\"recipe\":" + recipe + ",\"deliverable\":" + H264 + "}")
                .json();
        int frames = server.get("/api/clips/" + clip).json().path("frames").asInt();
        assertThat(plan.path("frames").asInt()).isEqualTo(2 * frames);
        assertThat(plan.path("base").path("steps").asInt()).isEqualTo(2);
        assertThat(plan.path("placement").path("x").asDouble()).isEqualTo(-10);
        assertThat(plan.path("steps").get(2).path("width").asInt()).isEqualTo(80);
    }

    // --- looking ---

    private static BufferedImage still(RunningServer server, String clip, String rest) throws IOException {
        var answer = server.post("/api/clips/" + clip + "/stills", "{\"viewer\":\"t\"," + rest + "}");
        assertThat(answer.status())
                .as(answer.text().substring(0, Math.min(200, answer.text().length())))
                .isEqualTo(200);
        return ImageIO.read(new ByteArrayInputStream(answer.bytes()));
    }

    @Test
    void aPartOfAStillIsCutFromTheWhole(RunningServer server) throws IOException {
        String clip = server.clip("still.mp4", 96, 64, 30).path("id").asString();
        BufferedImage whole = still(server, clip, "\"frame\":17,\"reduce\":1,\"recipe\":" + DOUBLE);
        assertThat(whole.getWidth()).isEqualTo(192);
        BufferedImage part = still(
                server,
                clip,
                "\"frame\":17,\"reduce\":1,\"part\":{\"x\":50,\"y\":21,\"width\":77,\"height\":40},\"recipe\":"
                        + DOUBLE);
        assertThat(part.getWidth()).isEqualTo(77);
        for (int y = 0; y < 40; y++) {
            for (int x = 0; x < 77; x++) {
                assertThat(part.getRGB(x, y)).isEqualTo(whole.getRGB(50 + x, 21 + y));
            }
        }
        assertThat(still(server, clip, "\"frame\":0,\"reduce\":4").getWidth()).isEqualTo(24);
        refused(
                server.post("/api/clips/" + clip + "/stills", "{\"viewer\":\"t\",\"frame\":30,\"reduce\":1}"),
                422,
                "this clip has frames 0..29");
        var wrong = server.post(
                "/api/clips/" + clip + "/stills",
                "{\"viewer\":\"t\",\"frame\":0,\"reduce\":1,\"recipe\":" + DOUBLE.replace("2", "99") + "}");
        refused(wrong, 422, "allowed is 0.125..8 x");
        assertThat(wrong.json().path("problems").get(0).path("key").asString()).isEqualTo("factor");
    }

    @Test
    void twoWindowsCannotOverwriteEachOther(RunningServer server) {
        String clip = server.clip("takes.mp4", 64, 48, 20).path("id").asString();
        JsonNode take = server.get("/api/clips/" + clip + "/takes").json().get(0);
        String path = "/api/takes/" + take.path("id").asString();
        String change = "{\"version\":0,\"inFrame\":5,\"outFrame\":15,\"recipe\":" + DOUBLE + "}";
        assertThat(server.put(path, change).json().path("version").asInt()).isEqualTo(1);
        refused(server.put(path, change), 409, "changed in another window");
        refused(server.put(path, change.replace("15", "99")), 422, "holds nothing of this clip");
        assertThat(server.get("/api/clips/" + clip + "/takes")
                        .json()
                        .get(0)
                        .path("inFrame")
                        .asInt())
                .isEqualTo(5);
    }

    // --- sending out ---

    private static String take(RunningServer server, String clip) {
        return server.get("/api/clips/" + clip + "/takes")
                .json()
                .get(0)
                .path("id")
                .asString();
    }

    /** The clip's take without a model, so that a slow or busy machine renders it in time. */
    private static String plainTake(RunningServer server, String clip) {
        String take = take(server, clip);
        assertThat(server.put("/api/takes/" + take, "{\"version\":0,\"recipe\":" + DOUBLE + "}")
                        .status())
                .isEqualTo(200);
        return take;
    }

    private static String order(RunningServer server, String take, String deliverable) {
        var answer = server.post(
                "/api/renders",
                "{\"takeId\":\"" + take + "\",\"wholeClip\":false,\"deliverable\":" + deliverable + "}");
        assertThat(answer.status()).as(answer.text()).isEqualTo(201);
        return answer.json().path("id").asString();
    }

    private static JsonNode ended(RunningServer server, String render) {
        return find(server, render, r -> !r.path("state").asString().matches("WAITING|RUNNING"));
    }

    private static JsonNode find(RunningServer server, String render, java.util.function.Predicate<JsonNode> wish) {
        JsonNode all = server.until("/api/renders", list -> {
            for (JsonNode one : list) {
                if (one.path("id").asString().equals(render)) {
                    return wish.test(one);
                }
            }
            return false;
        });
        for (JsonNode one : all) {
            if (one.path("id").asString().equals(render)) {
                return one;
            }
        }
        throw new AssertionError();
    }

    @Test
    void aSpanIsPlannedRenderedReadBackAndFetched(RunningServer server) throws Exception {
        String clip = server.clip("span film.mp4", 96, 64, 60).path("id").asString();
        String take = take(server, clip);
        server.put("/api/takes/" + take, "{\"version\":0,\"inFrame\":10,\"outFrame\":47,\"recipe\":" + DOUBLE + "}");
        JsonNode plan = server.post(
                        "/api/clips/" + clip + "/plan",
                        "{\"inFrame\":10,\"outFrame\":47,\"recipe\":" + DOUBLE + ",\"deliverable\":" + H264 + "}")
                .json();
        assertThat(plan.path("width").asInt()).isEqualTo(192);
        assertThat(plan.path("frames").asInt()).isEqualTo(37);
        assertThat(plan.path("wholeClip").asBoolean()).isFalse();
        String render = order(server, take, H264);
        JsonNode done = ended(server, render);
        assertThat(done.path("state").asString()).as(done.toString()).isEqualTo("DONE");
        JsonNode result = done.path("result");
        assertThat(result.path("frames").asInt()).isEqualTo(37);
        assertThat(result.path("width").asInt()).isEqualTo(192);
        assertThat(result.path("codec").asString()).isEqualTo("H.264 High");
        assertThat(result.path("matrix").asString()).isEqualTo("smpte170m");
        assertThat(result.path("sound").get(0).asString()).isEqualTo("AAC");
        var file = server.http()
                .send(
                        server.request("/api/renders/" + render + "/file").build(),
                        HttpResponse.BodyHandlers.ofByteArray());
        assertThat(file.headers().firstValue("Content-Disposition").orElse("")).contains("attachment");
        Path fetched = folder.resolve("fetched.mp4");
        Files.write(fetched, file.body());
        // ffprobe's word on the file we wrote
        assertThat(TestClips.times(fetched)).hasSize(37);
        assertThat(TestClips.entry(fetched, "color_space")).isEqualTo("smpte170m");
        assertThat(server.delete("/api/renders/" + render).status()).isEqualTo(204);
        assertThat(server.home().resolve("media/renders/" + render)).doesNotExist();
    }

    @Test
    void aRenderTellsItsProgressIsCancelledAndTriedAgain(RunningServer server) throws Exception {
        String clip = server.clip("long.mp4", 320, 240, 200).path("id").asString();
        String render = order(server, plainTake(server, clip), H264);
        // the stream of events carries the render's figures
        var stream = server.http().send(server.request("/api/events").build(), HttpResponse.BodyHandlers.ofLines());
        try (Stream<String> lines = stream.body()) {
            String figures = lines.filter(
                            line -> line.startsWith("data:") && line.contains(render) && line.contains("framesASecond"))
                    .findFirst()
                    .orElseThrow();
            assertThat(figures).contains("secondsLeft").contains("\"state\":\"RUNNING\"");
        }
        assertThat(server.post("/api/renders/" + render + "/cancel", "{}")
                        .json()
                        .path("state")
                        .asString())
                .isEqualTo("CANCELLED");
        refused(server.get("/api/renders/" + render + "/file"), 409, "not finished");
        assertThat(server.post("/api/renders/" + render + "/retry", "{}").status())
                .isEqualTo(200);
        assertThat(ended(server, render).path("state").asString()).isEqualTo("DONE");
        refused(server.post("/api/renders/" + render + "/retry", "{}"), 409, "this one is done");
    }

    @Test
    void aRenderGoesOnFromItsFinishedPartsAfterARestart(RunningServer server) throws IOException {
        String clip = server.clip("restart.mp4", 320, 240, 240).path("id").asString();
        String render = order(server, plainTake(server, clip), H264);
        JsonNode running = find(server, render, r -> r.path("framesDone").asInt() >= 30);
        assertThat(running.path("state").asString()).isEqualTo("RUNNING");
        server.restart();
        Path first = server.home().resolve("media/renders/" + render + "/segments/segment-000000.mp4");
        var written = Files.getLastModifiedTime(first);
        // still signed in: the session is in the database
        assertThat(server.get("/api/session").json().path("signedIn").asBoolean())
                .isTrue();
        find(server, render, r -> r.path("framesDone").asInt() >= 60);
        if (Files.exists(first)) {
            assertThat(Files.getLastModifiedTime(first)).isEqualTo(written);
        }
        JsonNode done = ended(server, render);
        assertThat(done.path("state").asString()).as(done.toString()).isEqualTo("DONE");
        assertThat(done.path("result").path("frames").asInt()).isEqualTo(240);
    }

    @Test
    void aClipWhoseFileIsGoneSaysSo(RunningServer server) throws IOException {
        String clip = server.clip("gone.mp4", 64, 48, 10).path("id").asString();
        String take = take(server, clip);
        Files.delete(server.home().resolve("media/clips/" + clip + "/source"));
        var answer = server.post("/api/clips/" + clip + "/stills", "{\"viewer\":\"t\",\"frame\":1,\"reduce\":1}");
        assertThat(answer.status()).isIn(409, 422);
        assertThat(answer.json().path("detail").asString()).contains("take it in again");
        var order = server.post(
                "/api/renders", "{\"takeId\":\"" + take + "\",\"wholeClip\":true,\"deliverable\":" + H264 + "}");
        assertThat(order.json().path("detail").asString()).contains("take it in again");
    }

    // --- the rest ---

    @Test
    void theMachineAndItsModelsAreTold(RunningServer server) {
        JsonNode machine = server.get("/api/machine").json();
        assertThat(machine.path("cores").asInt()).isEqualTo(Runtime.getRuntime().availableProcessors());
        assertThat(machine.path("nets").asString()).isEqualTo("the processor's cores");
        JsonNode models = server.get("/api/models").json();
        assertThat(models.size()).isGreaterThan(4);
        assertThat(models.get(0).path("training").path("pictures").asString()).contains("Debian");
    }

    /** A frame of another shape: the plan tells where the picture lies in it, and warns of what players refuse. */
    @Test
    void thePlanTellsWhereThePictureLies(RunningServer server) {
        String clip = server.clip("fitted.mp4", 64, 48, 10).path("id").asString();
        String recipe = "{\"awlsmith\":1,\"steps\":[{\"step\":\"enlarge\",\"settings\":"
                + "{\"width\":1280,\"height\":720,\"fit\":\"letterbox\",\"kernel\":\"lanczos3\"}}]}";
        JsonNode plan = server.post(
                        "/api/clips/" + clip + "/plan", "{\"recipe\":" + recipe + ",\"deliverable\":" + H264 + "}")
                .json();
        assertThat(plan.path("width").asInt()).isEqualTo(1280);
        assertThat(plan.path("placement").path("x").asDouble()).isEqualTo(160);
        assertThat(plan.path("placement").path("width").asDouble()).isEqualTo(960);
        JsonNode large = server.post(
                        "/api/clips/" + clip + "/plan",
                        "{\"recipe\":" + recipe.replace("1280", "9600").replace("720", "600") + ",\"deliverable\":"
                                + H264 + "}")
                .json();
        assertThat(large.path("warnings").toString()).contains("9600x600 is beyond 8192");
    }

    @Test
    void stepsDescribeThemselves(RunningServer server) {
        JsonNode steps = server.get("/api/steps").json();
        assertThat(steps.get(0).path("id").asString()).isEqualTo("transparency");
        JsonNode enlarge = steps.valueStream()
                .filter(step -> step.path("id").asString().equals("enlarge"))
                .findFirst()
                .orElseThrow();
        assertThat(enlarge.path("params").get(0).path("max").asDouble()).isEqualTo(8);
    }

    @Test
    void unknownThingsAndNonsenseAreSentences(RunningServer server) {
        refused(server.get("/api/clips/00000000-0000-0000-0000-000000000000"), 404, "not here any more");
        assertThat(server.get("/api/clips/nonsense").status()).isEqualTo(400);
        assertThat(server.post("/api/renders", "{").status()).isEqualTo(400);
        assertThat(server.get("/api/nonsense").status()).isEqualTo(404);
        assertThat(server.get("/bench/anything").text()).contains("<div id=\"app\">");
    }

    @Test
    void theApiDocumentIsTheCommittedOne(RunningServer server) throws IOException {
        Path committed = Path.of("openapi.json");
        String now = pretty(server.get("/api/openapi").json());
        if (Boolean.getBoolean("awlsmith.write-openapi")) {
            Files.writeString(committed, now);
        }
        assertThat(now)
                .as("the API changed: see CONTRIBUTING.md, Change the API")
                .isEqualTo(
                        pretty(tools.jackson.databind.json.JsonMapper.shared().readTree(Files.readString(committed))));
    }

    private static String pretty(JsonNode node) {
        return tools.jackson.databind.json.JsonMapper.shared()
                        .writerWithDefaultPrettyPrinter()
                        .writeValueAsString(node)
                + "\n";
    }
}
