package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.StreamSupport;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Several files at once, later, resting and going on; what is told of them when they are there. */
@ExtendWith(RunningServer.class)
class BatchesTest {
    private static final String WATCH = "{\"codec\":\"h264\",\"settings\":{\"quality\":20},\"sound\":\"kept\"}";
    private static final String KEEP = "{\"codec\":\"ffv1\",\"settings\":{},\"container\":\"mkv\",\"sound\":\"flac\"}";
    private static final String STILLS = "{\"codec\":\"png\",\"settings\":{\"first\":7},\"sound\":\"none\"}";

    private static String take(RunningServer server, JsonNode clip) {
        return server.get("/api/clips/" + clip.path("id").asString() + "/takes")
                .json()
                .get(0)
                .path("id")
                .asString();
    }

    private static String order(List<String> takes, String more, String... deliverables) {
        var targets = takes.stream()
                .map(take -> "{\"takeId\":\"" + take + "\",\"wholeClip\":true}")
                .toList();
        return "{\"takes\":[" + String.join(",", targets) + "],\"deliverables\":[" + String.join(",", deliverables)
                + "]" + more + "}";
    }

    private static List<String> ids(JsonNode renders) {
        var ids = new ArrayList<String>();
        renders.forEach(one -> ids.add(one.path("id").asString()));
        return ids;
    }

    private static JsonNode one(JsonNode all, String id) {
        return StreamSupport.stream(all.spliterator(), false)
                .filter(node -> node.path("id").asString().equals(id))
                .findFirst()
                .orElseThrow();
    }

    private static boolean areAll(JsonNode all, List<String> ids, String state) {
        return ids.stream().allMatch(id -> one(all, id).path("state").asString().equals(state));
    }

    @AfterEach
    void empty(RunningServer server) {
        server.get("/api/clips")
                .json()
                .forEach(clip -> server.delete("/api/clips/" + clip.path("id").asString()));
    }

    /** Two clips, three files each: one treatment each, six right files, a report and a checksum of each. */
    @Test
    void everyTakeGoesOutInEveryForm(RunningServer server) throws Exception {
        var takes = List.of(
                take(server, server.clip("one.mp4", 64, 48, 12)), take(server, server.clip("two.mp4", 64, 48, 15)));
        var answer = server.post(
                "/api/batches",
                order(takes, ",\"pattern\":\"{clip}, {codec} {number}\",\"name\":\"both\"", WATCH, KEEP, STILLS));
        assertThat(answer.status()).as(answer.text()).isEqualTo(201);
        List<String> ids = ids(answer.json());
        assertThat(ids).hasSize(6);
        JsonNode all = server.until("/api/renders", list -> areAll(list, ids, "DONE"));
        var names =
                ids.stream().map(id -> one(all, id).path("fileName").asString()).toList();
        assertThat(names)
                .containsExactly(
                        "one, H264 001.mp4",
                        "one, FFV1 002.mkv",
                        "one, PNG pictures 003.zip",
                        "two, H264 004.mp4",
                        "two, FFV1 005.mkv",
                        "two, PNG pictures 006.zip");
        for (String id : ids) {
            JsonNode render = one(all, id);
            assertThat(render.path("batchName").asString()).isEqualTo("both");
            byte[] file = server.get("/api/renders/" + id + "/file").bytes();
            String sum = HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(file));
            JsonNode report = server.get("/api/renders/" + id + "/report").json();
            assertThat(report.path("sha256").asString()).isEqualTo(sum);
            assertThat(report.path("recipe").path("steps").isArray()).isTrue();
            assertThat(report.path("result").path("frames").asInt())
                    .isEqualTo(render.path("frames").asInt());
            assertThat(server.get("/api/renders/" + id + "/sha256").text())
                    .isEqualTo(sum + "  " + render.path("fileName").asString() + "\n");
            assertThat(server.get("/api/renders/" + id + "/report.html").text())
                    .contains("SHA-256", sum, "decodes to its end");
        }
        try (var zip = new ZipInputStream(new ByteArrayInputStream(
                server.get("/api/renders/" + ids.get(5) + "/file").bytes()))) {
            assertThat(zip.getNextEntry().getName()).isEqualTo("two, PNG pictures 006_000007.png");
        }
        // files of one treatment were made at once: none of a clip was begun anew
        assertThat(one(all, ids.get(0)).path("bundle"))
                .isEqualTo(one(all, ids.get(2)).path("bundle"));
        assertThat(one(all, ids.get(0)).path("bundle"))
                .isNotEqualTo(one(all, ids.get(3)).path("bundle"));
    }

    /** Files go, rows and reports stay; what is kept on the disk is told as it is. */
    @Test
    void filesAreTakenOffTheDiskAndWhatIsKnownOfThemStays(RunningServer server) {
        var takes = List.of(take(server, server.clip("old.mp4", 64, 48, 8)));
        List<String> ids =
                ids(server.post("/api/batches", order(takes, "", WATCH, KEEP)).json());
        assertThat(server.post("/api/renders/" + ids.getFirst() + "/clear", "").status())
                .isEqualTo(409);
        server.until("/api/renders", list -> areAll(list, ids, "DONE"));
        JsonNode before = server.get("/api/storage").json();
        long[] bytes = ids.stream()
                .mapToLong(id -> server.get("/api/renders/" + id + "/file").bytes().length)
                .toArray();
        assertThat(before.path("renders").asLong()).isGreaterThanOrEqualTo(bytes[0] + bytes[1]);
        assertThat(before.path("clips").asLong()).isPositive();
        assertThat(before.path("free").asLong()).isPositive();

        JsonNode cleared =
                server.post("/api/renders/" + ids.get(0) + "/clear", "").json();
        assertThat(cleared.path("clearedAt").asString()).isNotBlank();
        assertThat(cleared.path("state").asString()).isEqualTo("DONE");
        assertThat(server.get("/api/storage").json().path("renders").asLong())
                .isEqualTo(before.path("renders").asLong() - bytes[0]);
        var gone = server.get("/api/renders/" + ids.get(0) + "/file");
        assertThat(gone.status()).isEqualTo(409);
        assertThat(gone.text()).contains("make it again");
        assertThat(server.post("/api/renders/" + ids.get(0) + "/clip", "").status())
                .isEqualTo(409);
        assertThat(server.get("/api/renders/" + ids.get(0) + "/report").status())
                .isEqualTo(200);
        assertThat(server.get("/api/renders/" + ids.get(0) + "/sha256").status())
                .isEqualTo(200);
        assertThat(server.post("/api/renders/" + ids.get(0) + "/clear", "").status())
                .isEqualTo(409);

        for (String wrong : List.of("{\"days\":-1}", "{\"days\":2147483647}", "{}", "{\"days\":null}", "")) {
            // what does not say how old takes nothing away
            assertThat(server.post("/api/storage/clear", wrong).status())
                    .as(wrong)
                    .isBetween(400, 422);
        }
        assertThat(server.post("/api/storage/clear", "{\"days\":1}")
                        .json()
                        .path("files")
                        .asInt())
                .isZero();
        assertThat(server.get("/api/renders/" + ids.get(1) + "/file").status()).isEqualTo(200);
        assertThat(server.post("/api/storage/clear", "{\"days\":0}")
                        .json()
                        .path("files")
                        .asInt())
                .isPositive();
        assertThat(server.get("/api/renders/" + ids.get(1) + "/file").status()).isEqualTo(409);

        // made again it is a file of its own
        String again = server.post("/api/renders/" + ids.get(1) + "/again", "")
                .json()
                .path("id")
                .asString();
        server.until("/api/renders", list -> areAll(list, List.of(again), "DONE"));
        assertThat(server.get("/api/renders/" + again + "/file").bytes()).hasSize((int) bytes[1]);
        server.restart();
        assertThat(one(server.get("/api/renders").json(), ids.get(1))
                        .path("clearedAt")
                        .asString())
                .isNotBlank();
    }

    private static List<String> waiting(RunningServer server, List<String> ids) {
        var all = server.get("/api/renders").json();
        return ids.stream()
                .sorted(Comparator.comparing(id -> one(all, id).path("place").asLong()))
                .toList();
    }

    /** What is made together goes earlier together, past what is made together. */
    @Test
    void filesOfOneTreatmentChangePlacesTogether(RunningServer server) {
        var takes = List.of(
                take(server, server.clip("first.mp4", 64, 48, 5)),
                take(server, server.clip("second.mp4", 64, 48, 5)),
                take(server, server.clip("third.mp4", 64, 48, 5)));
        String tonight = ",\"notBefore\":\"" + Instant.now().plusSeconds(36_000) + "\"";
        List<String> ids = ids(
                server.post("/api/batches", order(takes, tonight, WATCH, KEEP)).json());
        assertThat(waiting(server, ids)).isEqualTo(ids);
        // the later file of the last treatment: its fellow comes along
        assertThat(server.post("/api/renders/" + ids.get(5) + "/earlier", "").status())
                .isEqualTo(200);
        assertThat(waiting(server, ids))
                .containsExactly(ids.get(0), ids.get(1), ids.get(4), ids.get(5), ids.get(2), ids.get(3));
        assertThat(server.post("/api/renders/" + ids.get(4) + "/earlier", "").status())
                .isEqualTo(200);
        assertThat(waiting(server, ids))
                .containsExactly(ids.get(4), ids.get(5), ids.get(0), ids.get(1), ids.get(2), ids.get(3));
        assertThat(server.post("/api/renders/" + ids.get(5) + "/earlier", "").status())
                .isEqualTo(409);
        ids.forEach(id -> server.post("/api/renders/" + id + "/cancel", ""));
    }

    /** A marked span with handles that reach beyond the clip's start, as a film and as files that take few of its frames or none. */
    @Test
    void handlesGoAlongAndWhatTakesFewFramesIsMadeBeside(RunningServer server) {
        JsonNode clip = server.clip("handles.mp4", 64, 48, 60);
        String take = take(server, clip);
        server.put(
                "/api/takes/" + take,
                "{\"version\":0,\"inFrame\":8,\"outFrame\":30,\"recipe\":{\"awlsmith\":1,\"steps\":[]}}");
        String target =
                "{\"takes\":[{\"takeId\":\"" + take + "\",\"wholeClip\":false,\"handles\":%d}],\"deliverables\":["
                        + WATCH + ",{\"codec\":\"sound\",\"settings\":{},\"container\":\"flac\",\"sound\":\"kept\"}"
                        + ",{\"codec\":\"png\",\"settings\":{},\"container\":\"png\",\"sound\":\"none\"}"
                        + ",{\"codec\":\"sheet\",\"settings\":{\"columns\":2,\"rows\":2},\"container\":\"jpg\",\"sound\":\"none\"}]}";
        for (String one : List.of(
                "{\"codec\":\"sheet\",\"settings\":{},\"container\":\"png\",\"sound\":\"none\"}",
                "{\"codec\":\"png\",\"settings\":{},\"container\":\"png\",\"sound\":\"none\"}",
                "{\"codec\":\"sound\",\"settings\":{},\"container\":\"wav\",\"sound\":\"kept\"}",
                "{\"codec\":\"copy\",\"settings\":{},\"container\":\"mkv\",\"sound\":\"kept\"}")) {
            var trial = server.post(
                    "/api/clips/" + clip.path("id").asString() + "/trial",
                    "{\"recipe\":{\"awlsmith\":1,\"steps\":[]},\"deliverable\":" + one + "}");
            assertThat(trial.status()).as(trial.text()).isEqualTo(200);
            assertThat(trial.json().path("seconds").asDouble()).isPositive();
        }
        assertThat(server.post("/api/batches", target.formatted(5000)).status()).isEqualTo(422);
        var answer = server.post("/api/batches", target.formatted(12));
        assertThat(answer.status()).as(answer.text()).isEqualTo(201);
        List<String> ids = ids(answer.json());
        JsonNode all = server.until("/api/renders", list -> areAll(list, ids, "DONE"));
        JsonNode report =
                server.get("/api/renders/" + ids.getFirst() + "/report").json();
        assertThat(report.path("from").asInt()).isZero();
        assertThat(report.path("end").asInt()).isEqualTo(42);
        assertThat(report.path("result").path("frames").asInt()).isEqualTo(42);
        JsonNode sound = one(all, ids.get(1));
        assertThat(sound.path("fileName").asString()).endsWith(".flac");
        assertThat(sound.path("result").path("width").asInt()).isZero();
        assertThat(sound.path("result").path("seconds").asDouble())
                .isEqualTo(one(all, ids.getFirst()).path("spanSeconds").asDouble());
        assertThat(server.get("/api/renders/" + ids.get(1) + "/report.html").text())
                .contains("FLAC")
                .doesNotContain("0x0");
        assertThat(one(all, ids.get(2)).path("result").path("frames").asInt()).isOne();
        assertThat(server.get("/api/renders/" + ids.get(3) + "/file").bytes()).startsWith(0xff, 0xd8);
    }

    @Test
    void clipsAreJoinedAsTheyAre(RunningServer server) {
        String one = server.clip("part 1.mp4", 64, 48, 25).path("id").asString();
        String two = server.clip("part 2.mp4", 64, 48, 30).path("id").asString();
        String other = server.clip("other.mp4", 96, 48, 5).path("id").asString();
        String join = "{\"clips\":[\"%s\",\"%s\"],\"title\":\"Whole\"}";
        var refused = server.post("/api/clips/join", join.formatted(one, other));
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("other.mp4 has 96x48, the first 64x48");
        assertThat(server.post("/api/clips/join", "{\"clips\":[\"" + one + "\"]}")
                        .status())
                .isEqualTo(422);
        var answer = server.post("/api/clips/join", join.formatted(one, two));
        assertThat(answer.status()).as(answer.text()).isEqualTo(201);
        String id = answer.json().path("id").asString();
        JsonNode whole = server.until(
                "/api/clips/" + id, clip -> !clip.path("state").asString().equals("READING"));
        assertThat(whole.path("state").asString()).as(whole.toString()).isEqualTo("READY");
        assertThat(whole.path("title").asString()).isEqualTo("Whole");
        assertThat(whole.path("frames").asInt()).isEqualTo(55);
        assertThat(whole.path("facts").path("sound")).hasSize(1);
        // they stay, and the joined one no longer needs them
        server.delete("/api/clips/" + one);
        assertThat(server.get("/api/clips/" + id + "/thumbs/0").status()).isEqualTo(200);
    }

    @Test
    void aFileGoesBackOnTheShelfOrIsMadeAgainUnderAnotherName(RunningServer server) {
        String take = take(server, server.clip("shelf.mp4", 64, 48, 12));
        String id = ids(server.post("/api/batches", order(List.of(take), "", KEEP))
                        .json())
                .getFirst();
        assertThat(server.post("/api/renders/" + id + "/clip", "").status()).isEqualTo(409);
        server.until("/api/renders", list -> areAll(list, List.of(id), "DONE"));
        JsonNode clip = server.post("/api/renders/" + id + "/clip", "").json();
        JsonNode ready = server.until(
                "/api/clips/" + clip.path("id").asString(),
                one -> one.path("state").asString().equals("READY"));
        assertThat(ready.path("facts").path("width").asInt()).isEqualTo(128);
        JsonNode again = server.post("/api/renders/" + id + "/again", "").json();
        assertThat(again.path("fileName").asString()).isEqualTo("shelf A 128x96 2.mkv");
        server.until(
                "/api/renders", list -> areAll(list, List.of(again.path("id").asString()), "DONE"));
        assertThat(server.get("/api/renders/" + again.path("id").asString() + "/report")
                        .json()
                        .path("sha256"))
                .isEqualTo(server.get("/api/renders/" + id + "/report").json().path("sha256"));
    }

    @Test
    void aBatchBeginsWhenItWasToldToAndRestsOverARestart(RunningServer server) {
        String take = take(server, server.clip("night.mp4", 64, 48, 400));
        String tonight = ",\"notBefore\":\"" + Instant.now().plusSeconds(36_000) + "\"";
        List<String> ids = ids(server.post("/api/batches", order(List.of(take), tonight, WATCH, KEEP))
                .json());
        String id = ids.getFirst();
        server.restart();
        JsonNode held = one(server.get("/api/renders").json(), id);
        assertThat(held.path("state").asString()).isEqualTo("WAITING");
        assertThat(held.path("framesDone").asInt()).isZero();
        // begins now, and is stopped on the way
        assertThat(server.post("/api/renders/" + id + "/resume", "").status()).isEqualTo(200);
        server.until("/api/renders", list -> one(list, id).path("framesDone").asInt() > 0);
        assertThat(server.post("/api/renders/" + id + "/pause", "").status()).isEqualTo(200);
        server.until("/api/renders", list -> areAll(list, ids, "PAUSED"));
        assertThat(server.post("/api/renders/" + id + "/pause", "").status()).isEqualTo(409);
        server.restart();
        assertThat(areAll(server.get("/api/renders").json(), ids, "PAUSED")).isTrue();
        server.post("/api/renders/" + id + "/resume", "");
        JsonNode all = server.until("/api/renders", list -> areAll(list, ids, "DONE"));
        ids.forEach(one ->
                assertThat(one(all, one).path("result").path("frames").asInt()).isEqualTo(400));
    }

    @Test
    void oneThatWaitsGoesBeforeAllOthersWithTheFilesOfItsTreatment(RunningServer server) {
        var takes = List.of(
                take(server, server.clip("a.mp4", 64, 48, 12)),
                take(server, server.clip("b.mp4", 64, 48, 12)),
                take(server, server.clip("c.mp4", 64, 48, 12)));
        String tonight = ",\"notBefore\":\"" + Instant.now().plusSeconds(36_000) + "\"";
        List<String> ids = ids(
                server.post("/api/batches", order(takes, tonight, WATCH, KEEP)).json());
        assertThat(server.post("/api/renders/" + ids.get(5) + "/first", "").status())
                .isEqualTo(200);
        assertThat(inOrder(server, ids))
                .containsExactly(ids.get(4), ids.get(5), ids.get(0), ids.get(1), ids.get(2), ids.get(3));
        server.post("/api/renders/" + ids.get(0) + "/pause", "");
        assertThat(server.post("/api/renders/" + ids.get(0) + "/first", "").status())
                .isEqualTo(409);
        ids.forEach(id -> server.delete("/api/renders/" + id));
    }

    private static List<String> inOrder(RunningServer server, List<String> ids) {
        return StreamSupport.stream(server.get("/api/renders").json().spliterator(), false)
                .filter(one -> ids.contains(one.path("id").asString()))
                .sorted(java.util.Comparator.comparingLong(
                        one -> one.path("place").asLong()))
                .map(one -> one.path("id").asString())
                .toList();
    }

    /** The other file of the treatment goes on by itself. */
    @Test
    void oneOfTwoFilesMayBeGivenUpOrRemovedWhileTheyAreMade(RunningServer server) {
        String take = take(server, server.clip("given.mp4", 64, 48, 400));
        for (int given : new int[] {0, 1}) {
            List<String> ids = ids(server.post("/api/batches", order(List.of(take), "", WATCH, KEEP))
                    .json());
            server.until(
                    "/api/renders",
                    list -> one(list, ids.get(0)).path("framesDone").asInt() > 0);
            server.delete("/api/renders/" + ids.get(given));
            JsonNode all = server.until("/api/renders", list -> areAll(list, List.of(ids.get(1 - given)), "DONE"));
            assertThat(one(all, ids.get(1 - given))
                            .path("result")
                            .path("frames")
                            .asInt())
                    .isEqualTo(400);
            assertThat(ids(all)).doesNotContain(ids.get(given));
        }
    }

    @Test
    void whatCannotBeSentOutIsSaidOfEachClipAndNothingIsBegun(RunningServer server) {
        var takes = List.of(
                take(server, server.clip("small.mp4", 64, 48, 12)), take(server, server.clip("less.mp4", 64, 48, 12)));
        String dnx = "{\"codec\":\"dnxhr\",\"settings\":{},\"sound\":\"none\"}";
        var answer = server.post("/api/batches", order(takes, "", WATCH, dnx));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.json().path("detail").asString())
                .contains("small.mp4: 128x96 is too small for DNxHR", "less.mp4: 128x96");
        assertThat(server.get("/api/renders").json()).isEmpty();
        for (String wrong : new String[] {
            order(List.of(), "", WATCH),
            order(takes, ""),
            order(takes, ",\"pattern\":\"{clip} {author}\"", WATCH),
            order(takes, ",\"pattern\":\"../{clip}\"", WATCH),
            order(takes, "", "{\"codec\":\"h264\",\"settings\":{},\"container\":\"avi\",\"sound\":\"kept\"}"),
            order(takes, "", "{\"codec\":\"h264\",\"settings\":{},\"container\":\"mp4\",\"sound\":\"loud\"}"),
            order(takes, "", "{\"codec\":\"h264\",\"settings\":{\"size\":-1},\"sound\":\"kept\"}"),
            order(takes, "", "{\"codec\":\"h264\",\"settings\":{},\"sound\":\"kept\",\"tags\":{\"mood\":\"x\"}}"),
            order(takes, "", "{\"codec\":\"h264\",\"settings\":{},\"sound\":\"kept\",\"tags\":{\"title\":\"{who}\"}}")
        }) {
            var refused = server.post("/api/batches", wrong);
            assertThat(refused.status()).as(wrong).isEqualTo(422);
            assertThat(refused.json().path("detail").asString()).isNotBlank();
        }
    }

    @Test
    void aSizeThatOneFileCannotHaveDoesNotTakeTheOthersAlong(RunningServer server) {
        String take = take(server, server.clip("mixed.mp4", 96, 72, 50));
        String tiny = "{\"codec\":\"h264\",\"settings\":{\"size\":0.05},\"container\":\"mov\",\"sound\":\"pcm\"}";
        List<String> ids = ids(server.post("/api/batches", order(List.of(take), "", tiny, WATCH))
                .json());
        JsonNode all = server.until(
                "/api/renders",
                list -> areAll(list, ids.subList(0, 1), "FAILED") && areAll(list, ids.subList(1, 2), "DONE"));
        assertThat(one(all, ids.getFirst()).path("problem").asString()).contains("cannot be made as small");
    }

    @Test
    void presetsOfOnesOwnAreKeptAndOneIsTheFirstChoice(RunningServer server) {
        for (String name : new String[] {"Museum", "Festival"}) {
            var saved = server.post(
                    "/api/presets", "{\"name\":\"" + name + "\",\"deliverable\":" + KEEP + ",\"isDefault\":true}");
            assertThat(saved.status()).as(saved.text()).isEqualTo(200);
        }
        JsonNode all = server.get("/api/presets").json();
        var defaults = StreamSupport.stream(all.spliterator(), false)
                .filter(one -> one.path("isDefault").asBoolean())
                .map(one -> one.path("label").asString())
                .toList();
        assertThat(defaults).containsExactly("Festival");
        all.forEach(one -> {
            if (one.hasNonNull("id")) {
                assertThat(one.path("deliverable").path("sound").asString()).isEqualTo("flac");
                assertThat(server.delete("/api/presets/" + one.path("id").asString())
                                .status())
                        .isEqualTo(204);
            }
        });
        assertThat(server.get("/api/presets").json()).hasSize(6);
        assertThat(server.post("/api/presets", "{\"name\":\" \",\"isDefault\":false,\"deliverable\":" + KEEP + "}")
                        .status())
                .isEqualTo(422);
    }

    /** What a trial tells is within what the file comes to; short clips of flat pictures are its hardest case. */
    @Test
    void aTrialTellsAboutHowLargeTheFileWillBe(RunningServer server) {
        JsonNode clip = server.clip("trial.mp4", 320, 240, 100);
        String recipe = "{\"awlsmith\":1,\"steps\":[{\"step\":\"enlarge\",\"settings\":{\"factor\":2}}]}";
        String path = "/api/clips/" + clip.path("id").asString() + "/trial";
        var answer = server.post(path, "{\"recipe\":" + recipe + ",\"deliverable\":" + KEEP + "}");
        assertThat(answer.status()).as(answer.text()).isEqualTo(200);
        String id = ids(server.post("/api/batches", order(List.of(take(server, clip)), "", KEEP))
                        .json())
                .getFirst();
        JsonNode all = server.until("/api/renders", list -> areAll(list, List.of(id), "DONE"));
        double bytes = one(all, id).path("result").path("bytes").asDouble();
        assertThat(answer.json().path("fileBytes").asDouble()).isBetween(0.7 * bytes, 1.3 * bytes);
        assertThat(answer.json().path("seconds").asDouble()).isPositive();
    }
}
