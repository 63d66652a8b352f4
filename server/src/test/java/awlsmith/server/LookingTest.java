package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import awlsmith.core.measure.Psnr;
import awlsmith.core.picture.Plane;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.Region;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.Prober;
import awlsmith.media.TestClips;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Takes, pins, comparing and proofs over HTTP. */
@ExtendWith(RunningServer.class)
class LookingTest {
    @TempDir
    Path folder;

    private static String recipe(double factor, String kernel) {
        return "{\"awlsmith\":1,\"steps\":[{\"step\":\"enlarge\",\"settings\":{\"factor\":" + factor + ",\"kernel\":\""
                + kernel + "\"}}]}";
    }

    private static final String DOUBLE = recipe(2, "lanczos3");

    private static void refused(RunningServer.Answer answer, int status, String words) {
        assertThat(answer.status()).as(answer.text()).isEqualTo(status);
        assertThat(answer.json().path("detail").asString()).contains(words);
    }

    private static String change(String recipe, int version) {
        return "{\"recipe\":" + recipe + ",\"version\":" + version + "}";
    }

    // --- takes ---

    @Test
    void takesAreCopiedNamedJudgedAndRemoved(RunningServer server) {
        String clip = server.clip("takes.mp4", 96, 64, 5).path("id").asString();
        String takes = "/api/clips/" + clip + "/takes";
        String first = server.get(takes).json().get(0).path("id").asString();
        JsonNode made = server.post(
                        takes,
                        "{\"takes\":[{\"recipe\":" + DOUBLE + "},{\"name\":\"soft\",\"recipe\":" + recipe(2, "bilinear")
                                + "},{\"recipe\":" + DOUBLE + "}],\"like\":\"" + first + "\"}")
                .json();
        assertThat(made).extracting(take -> take.path("name").asString()).containsExactly("B", "soft", "C");
        assertThat(server.get(takes).json())
                .extracting(take -> take.path("name").asString())
                .containsExactly("A", "B", "soft", "C");
        String soft = made.get(1).path("id").asString();
        JsonNode judged = server.send(server.request("/api/takes/" + soft)
                        .header("Content-Type", "application/json")
                        .method(
                                "PATCH",
                                java.net.http.HttpRequest.BodyPublishers.ofString(
                                        "{\"name\":\"softer\",\"verdict\":\"DISCARDED\"}")))
                .json();
        assertThat(judged.path("name").asString()).isEqualTo("softer");
        assertThat(judged.path("verdict").asString()).isEqualTo("DISCARDED");
        // a discarded one is no longer counted on the shelf
        assertThat(server.get("/api/clips/" + clip).json().path("takes").asInt())
                .isEqualTo(3);
        for (JsonNode take : server.get(takes).json()) {
            if (!take.path("name").asString().equals("A")) {
                assertThat(server.delete("/api/takes/" + take.path("id").asString())
                                .status())
                        .isEqualTo(204);
            }
        }
        refused(server.delete("/api/takes/" + first), 409, "the clip's only take");
        refused(server.post(takes, "{\"takes\":[]}"), 422, "no recipe");
        refused(server.post(takes, "{\"takes\":[{\"name\":\" \",\"recipe\":" + DOUBLE + "}]}"), 422, "1 to 60 letters");
    }

    /** Undo reaches back across a restart; what is changed after an undo replaces what was undone. */
    @Test
    void changesAreTakenBackAndMadeAgain(RunningServer server) {
        String clip = server.clip("undo.mp4", 96, 64, 5).path("id").asString();
        JsonNode take = server.get("/api/clips/" + clip + "/takes").json().get(0);
        String id = "/api/takes/" + take.path("id").asString();
        assertThat(take.path("undos").asInt()).isZero();
        for (int n = 0; n < 3; n++) {
            take = server.put(id, change(recipe(2 + n, "lanczos3"), n)).json();
        }
        assertThat(take.path("undos").asInt()).isEqualTo(3);
        take = server.post(id + "/undo", "{\"version\":3}").json();
        assertThat(factor(take)).isEqualTo(3);
        refused(server.post(id + "/undo", "{\"version\":3}"), 409, "changed in another window");
        take = server.post(id + "/undo", "{\"version\":4}").json();
        assertThat(factor(take)).isEqualTo(2);
        take = server.post(id + "/redo", "{\"version\":5}").json();
        assertThat(factor(take)).isEqualTo(3);
        assertThat(take.path("redos").asInt()).isEqualTo(1);
        take = server.put(id, change(recipe(1.5, "lanczos3"), 6)).json();
        assertThat(take.path("redos").asInt()).isZero();
        assertThat(take.path("undos").asInt()).isEqualTo(3);
        for (int n = 0; n < 4; n++) {
            take = server.post(id + "/undo", "{\"version\":" + (7 + n) + "}").json();
        }
        assertThat(take.path("undos").asInt())
                .as("the first state is as far as it goes")
                .isZero();
    }

    private static double factor(JsonNode take) {
        return take.path("recipe")
                .path("steps")
                .get(0)
                .path("settings")
                .path("factor")
                .asDouble();
    }

    @Test
    void recipesAreKeptUnderAName(RunningServer server) {
        JsonNode saved = server.post("/api/recipes", "{\"name\":\" winches \",\"recipe\":" + DOUBLE + "}")
                .json();
        assertThat(saved.path("name").asString()).isEqualTo("winches");
        JsonNode again = server.post("/api/recipes", "{\"name\":\"winches\",\"recipe\":" + recipe(3, "lanczos3") + "}")
                .json();
        assertThat(again.path("id")).as("the same name gets the new recipe").isEqualTo(saved.path("id"));
        assertThat(server.get("/api/recipes").json()).hasSize(1);
        assertThat(factor(server.get("/api/recipes").json().get(0))).isEqualTo(3);
        refused(server.post("/api/recipes", "{\"name\":\"\",\"recipe\":" + DOUBLE + "}"), 422, "1 to 60 letters");
        String one = "/api/recipes/" + saved.path("id").asString();
        assertThat(server.delete(one).status()).isEqualTo(204);
        refused(server.delete(one), 404, "not here any more");
    }

    // --- pins ---

    @Test
    void pinsAreDroppedMovedAndTakenAway(RunningServer server) {
        String clip = server.clip("pins.mp4", 96, 64, 5).path("id").asString();
        String pins = "/api/clips/" + clip + "/pins";
        JsonNode pin = server.post(pins, "{\"frame\":2,\"x\":10.5,\"y\":8,\"width\":40,\"height\":20}")
                .json();
        assertThat(pin.path("name").asString()).isEqualTo("place 1");
        String one = "/api/pins/" + pin.path("id").asString();
        var patch = server.request(one)
                .header("Content-Type", "application/json")
                .method("PATCH", java.net.http.HttpRequest.BodyPublishers.ofString("{\"name\":\"wheel\",\"x\":-4}"));
        JsonNode moved = server.send(patch).json();
        assertThat(moved.path("name").asString()).isEqualTo("wheel");
        assertThat(moved.path("x").asDouble()).isEqualTo(-4);
        assertThat(moved.path("width").asDouble()).isEqualTo(40);
        assertThat(server.get(pins).json()).hasSize(1);
        refused(server.post(pins, "{\"frame\":5,\"x\":0,\"y\":0,\"width\":9,\"height\":9}"), 422, "frames 0..4");
        refused(server.post(pins, "{\"frame\":0,\"x\":0,\"y\":0,\"width\":1,\"height\":9}"), 422, "at least 4 pixels");
        assertThat(server.delete(one).status()).isEqualTo(204);
        refused(server.delete(one), 404, "not here any more");
    }

    // --- comparing ---

    private static String seen(String recipe, String place) {
        return "{\"recipe\":" + recipe + ",\"frame\":1," + place + "}";
    }

    private static final String ALL = "\"x\":0,\"y\":0,\"width\":160,\"height\":120";

    @Test
    void everyStepTellsWhatItDid(RunningServer server) {
        String clip = server.clip("figures.mp4", 160, 120, 5).path("id").asString();
        String path = "/api/clips/" + clip + "/compare/steps";
        JsonNode figures = server.post(path, seen(DOUBLE, ALL)).json();
        assertThat(figures.path("steps")).hasSize(1);
        double before = figures.path("source").path("edges").asDouble();
        assertThat(before).isPositive();
        JsonNode soft = server.post(path, seen(recipe(2, "bilinear"), ALL)).json();
        assertThat(soft.path("steps").get(0).path("edges").asDouble())
                .as("bilinear is softer than Lanczos")
                .isGreaterThan(figures.path("steps").get(0).path("edges").asDouble());
        String cropped = "{\"awlsmith\":1,\"steps\":[{\"step\":\"crop\",\"settings\":{\"left\":80,\"width\":80}},"
                + "{\"step\":\"enlarge\",\"on\":false,\"settings\":{\"factor\":2}}]}";
        JsonNode half = server.post(path, seen(cropped, "\"x\":0,\"y\":0,\"width\":64,\"height\":64"))
                .json();
        assertThat(half.path("steps").get(0))
                .as("a step that is off changes nothing")
                .isEqualTo(half.path("steps").get(1));
        String little = "{\"awlsmith\":1,\"steps\":[{\"step\":\"crop\",\"settings\":{\"width\":16,\"height\":16}}]}";
        JsonNode few = server.post(path, seen(little, ALL)).json();
        assertThat(few.path("steps").get(0).path("edges").isNumber())
                .as("too few edges are none")
                .isFalse();
    }

    @Test
    void thePixelUnderThePointerIsToldOnBothSides(RunningServer server) throws IOException {
        Path file = folder.resolve("grey.mp4");
        TestClips.ffmpeg(
                "-f lavfi -i color=c=0x808080:s=96x64:r=25 -frames:v 4 -pix_fmt yuv420p -c:v libx264 -qp 0 " + file);
        JsonNode added = server.upload("grey.mp4", Files.readAllBytes(file)).json();
        String clip = added.path("id").asString();
        server.until("/api/clips/" + clip, c -> c.path("state").asString().equals("READY"));
        JsonNode both = server.post(
                        "/api/clips/" + clip + "/compare/pixel",
                        seen(DOUBLE, "\"x\":40.5,\"y\":20.5,\"width\":1,\"height\":1"))
                .json();
        assertThat(both).hasSize(2);
        assertThat(both.get(1).path("x").asInt()).isEqualTo(81);
        for (JsonNode side : both) {
            // grey 128 of R'G'B' is Y 126 (BT.601-7 section 2.5.3: 16 + 219 x 128 / 255)
            assertThat(side.path("codes").get(0).asInt()).isCloseTo(126, within(1));
            assertThat(side.path("codes").get(1).asInt()).isCloseTo(128, within(1));
            assertThat(side.path("rgb").get(0).asInt()).isCloseTo(128, within(1));
            assertThat(side.path("excursion").asBoolean()).isFalse();
            assertThat(side.path("patch")).hasSize(9 * 9 * 3);
        }
        JsonNode corner = server.post(
                        "/api/clips/" + clip + "/compare/pixel",
                        seen(DOUBLE, "\"x\":-5,\"y\":9999,\"width\":1,\"height\":1"))
                .json();
        assertThat(corner)
                .as("outside of the picture only the nearest source pixel is told")
                .hasSize(1);
        assertThat(corner.get(0).path("y").asInt()).isEqualTo(63);
    }

    @Test
    void scopesCountEveryVisibleSample(RunningServer server) {
        String clip = server.clip("scopes.mp4", 160, 120, 5).path("id").asString();
        JsonNode both = server.post("/api/clips/" + clip + "/compare/scopes", seen(DOUBLE, ALL))
                .json();
        assertThat(sum(both.get(0).path("histogram"))).isEqualTo(160 * 120);
        assertThat(sum(both.get(1).path("histogram"))).isEqualTo(320 * 240);
        assertThat(both.get(1).path("columns").asInt()).isEqualTo(320);
        refused(
                server.post(
                        "/api/clips/" + clip + "/compare/scopes",
                        seen(DOUBLE, "\"x\":500,\"y\":0,\"width\":10,\"height\":10")),
                422,
                "in sight");
    }

    private static int sum(JsonNode numbers) {
        int sum = 0;
        for (JsonNode n : numbers) {
            sum += n.asInt();
        }
        return sum;
    }

    /** Against the very file that was spoilt: the gentler the treatment, the nearer to the truth. */
    @Test
    void takesAreMeasuredAlsoAgainstTheTruth(RunningServer server) throws IOException {
        String truth = made(server, "truth.mp4", "");
        String source = made(server, "small.mp4", "-vf scale=96:64:flags=area");
        String path = "/api/clips/" + source + "/compare/take";
        String body = "{\"recipe\":%s,\"frames\":[1,3],\"viewer\":\"A\"}";
        JsonNode alone = server.post(path, body.formatted(DOUBLE)).json();
        assertThat(alone.path("against").isMissingNode()
                        || alone.path("against").isNull())
                .isTrue();
        assertThat(alone.path("flicker").isNumber()).isTrue();
        assertThat(server.put("/api/clips/" + source + "/reference", "{\"clip\":\"" + truth + "\"}")
                        .json()
                        .path("hasReference")
                        .asBoolean())
                .isTrue();
        double sharp = against(server.post(path, body.formatted(DOUBLE)));
        double soft = against(server.post(path, body.formatted(recipe(2, "bilinear"))));
        assertThat(sharp).isGreaterThan(soft).isBetween(10.0, 60.0);
        String still = "{\"frame\":1,\"reduce\":1,\"viewer\":\"v\",\"reference\":true}";
        assertThat(server.post("/api/clips/" + source + "/stills", still).bytes())
                .as("the reference's own pixels")
                .isEqualTo(server.post(
                                "/api/clips/" + truth + "/stills",
                                still.replace("\"reference\":true", "\"reference\":false"))
                        .bytes());
        refused(
                server.put("/api/clips/" + source + "/reference", "{\"clip\":\"" + source + "\"}"),
                422,
                "its own reference");
        refused(server.put("/api/clips/" + truth + "/reference", "{\"known\":true}"), 409, "never had a reference");
        server.put("/api/clips/" + source + "/reference", "{}");
        assertThat(server.get("/api/clips/" + source)
                        .json()
                        .path("hadReference")
                        .asBoolean())
                .isTrue();
        assertThat(server.put("/api/clips/" + source + "/reference", "{\"known\":true}")
                        .json()
                        .path("hasReference")
                        .asBoolean())
                .isTrue();
        server.put("/api/clips/" + source + "/reference", "{}");
        assertThat(server.get("/api/clips/" + source)
                        .json()
                        .path("hasReference")
                        .asBoolean())
                .isFalse();
    }

    private String made(RunningServer server, String name, String filter) throws IOException {
        Path file = folder.resolve(name);
        TestClips.ffmpeg("-f lavfi -i testsrc2=s=192x128:r=25 -frames:v 5 " + filter
                + " -pix_fmt yuv420p -c:v libx264 -qp 4 " + file);
        String id =
                server.upload(name, Files.readAllBytes(file)).json().path("id").asString();
        server.until("/api/clips/" + id, c -> c.path("state").asString().equals("READY"));
        return id;
    }

    private static double against(RunningServer.Answer answer) {
        assertThat(answer.status()).as(answer.text()).isEqualTo(200);
        return answer.json().path("against").path("psnr").asDouble();
    }

    @Test
    void tellingPlacesLieInThePicture(RunningServer server) {
        String clip = server.clip("places.mp4", 320, 240, 5).path("id").asString();
        JsonNode places = server.post(
                        "/api/clips/" + clip + "/compare/places", "{\"recipe\":" + DOUBLE + ",\"frame\":2}")
                .json();
        assertThat(places).isNotEmpty();
        for (JsonNode place : places) {
            assertThat(place.path("x").asInt()).isBetween(0, 320);
            assertThat(place.path("y").asInt()).isBetween(0, 240);
            assertThat(place.path("why").asString()).isNotEmpty();
        }
        // of the source alone, which costs no treatment: where most detail is
        JsonNode plain = server.post(
                        "/api/clips/" + clip + "/compare/places",
                        "{\"recipe\":{\"awlsmith\":1,\"steps\":[]},\"frame\":2}")
                .json();
        assertThat(plain.get(0).path("why").asString()).isEqualTo("most detail");
        assertThat(plain.get(0).path("amount").asDouble()).isGreaterThan(5);
    }

    /** Over a slow line a first look comes as JPEG, a fraction of the size; the exact still is the same as ever. */
    @Test
    void aQuickStillIsSmallerAndNearlyTheSame(RunningServer server) throws IOException {
        String clip = server.clip("line.mp4", 320, 240, 5).path("id").asString();
        String path = "/api/clips/" + clip + "/stills";
        String exact = "{\"frame\":2,\"reduce\":1,\"viewer\":\"v\",\"recipe\":" + DOUBLE + "}";
        byte[] png = server.post(path, exact).bytes();
        byte[] jpeg = server.post(path, exact.replace("\"frame\"", "\"quick\":true,\"frame\""))
                .bytes();
        assertThat(jpeg.length).isLessThan(png.length / 2);
        var a = picture(png);
        var b = picture(jpeg);
        assertThat(b.getWidth()).isEqualTo(640).isEqualTo(a.getWidth());
        double off = 0;
        for (int y = 0; y < 480; y += 3) {
            for (int x = 0; x < 640; x += 3) {
                off += Math.abs((a.getRGB(x, y) >> 8 & 255) - (b.getRGB(x, y) >> 8 & 255)) / (160.0 * 214);
            }
        }
        assertThat(off).isLessThan(6);
        assertThat(server.post(path, exact).bytes()).isEqualTo(png);
    }

    /** Steps that are not being changed are computed once; what is seen is the same to the pixel, also beside what was asked for before. */
    @Test
    void whatIsHeldOfTheFirstStepsChangesNoPixel(RunningServer server) throws IOException {
        String clip = server.clip("held.mp4", 320, 240, 5).path("id").asString();
        String ask = "{\"frame\":2,\"reduce\":1,\"viewer\":\"v\",\"held\":%d,\"part\":{\"x\":%d,\"y\":%d,\"width\":%d,"
                + "\"height\":80},\"recipe\":{\"awlsmith\":1,\"steps\":[{\"step\":\"sharpen\",\"settings\":{}},"
                + "{\"step\":\"enlarge\",\"settings\":{\"factor\":2,\"kernel\":\"%s\"}}]}}";
        String path = "/api/clips/" + clip + "/stills";
        server.post(path, ask.formatted(1, 100, 60, 80, "lanczos3"));
        for (int x : new int[] {100, 150, 400}) {
            var held = picture(
                    server.post(path, ask.formatted(1, x, 60, 80, "mitchell")).bytes());
            // one column more, so that the picture sent before does not answer
            var whole = picture(
                    server.post(path, ask.formatted(0, x, 60, 82, "mitchell")).bytes());
            assertThat(held.getWidth()).isEqualTo(80);
            for (int y = 0; y < 80; y++) {
                assertThat(held.getRGB(0, y, 80, 1, null, 0, 80)).isEqualTo(whole.getRGB(0, y, 80, 1, null, 0, 80));
            }
        }
        // more than there are steps, and what sees the clip by another way too
        String odd = ask.formatted(9, 0, 0, 80, "mitchell").replace("\"sharpen\"", "\"original\"");
        assertThat(server.post(path, odd).status()).isEqualTo(200);
        // another part, so that the picture sent before does not answer
        String none = odd.replace("\"held\":9", "\"held\":-1").replace("\"x\":0", "\"x\":2");
        assertThat(server.post(path, none).status()).isEqualTo(200);
    }

    private static java.awt.image.BufferedImage picture(byte[] png) throws IOException {
        return javax.imageio.ImageIO.read(new java.io.ByteArrayInputStream(png));
    }

    // --- proofs ---

    private static String order(String recipe, int from, int end) {
        return "{\"takeName\":\"A\",\"recipe\":" + recipe + ",\"from\":" + from + ",\"end\":" + end
                + ",\"x\":20,\"y\":11,\"width\":120,\"height\":80}";
    }

    private static JsonNode proof(RunningServer server, String clip, String id) {
        for (JsonNode proof : server.get("/api/clips/" + clip + "/proofs").json()) {
            if (proof.path("id").asString().equals(id)) {
                return proof;
            }
        }
        return null;
    }

    private static JsonNode ended(RunningServer server, String clip, String id) {
        server.until("/api/clips/" + clip + "/proofs", all -> {
            var state = proof(server, clip, id).path("state").asString();
            return !state.equals("WAITING") && !state.equals("RUNNING");
        });
        return proof(server, clip, id);
    }

    @Test
    void aProofHoldsBothSidesAndSound(RunningServer server) throws IOException {
        String clip = server.clip("proof.mp4", 96, 64, 30).path("id").asString();
        JsonNode ordered = server.post("/api/clips/" + clip + "/proofs", order(DOUBLE, 5, 25))
                .json();
        String id = ordered.path("id").asString();
        JsonNode done = ended(server, clip, id);
        assertThat(done.path("state").asString()).as(done.toString()).isEqualTo("DONE");
        assertThat(done.path("framesDone").asInt()).isEqualTo(20);
        assertThat(done.path("rate").asDouble()).isCloseTo(25, within(1e-6));
        // as a page reads it: piece by piece
        var bytes = new java.io.ByteArrayOutputStream();
        while (true) {
            var piece = server.get("/api/proofs/" + id + "/bytes?from=" + bytes.size());
            if (piece.status() == 204) {
                break;
            }
            bytes.write(piece.bytes());
        }
        Path file = folder.resolve("proof.mp4");
        Files.write(file, bytes.toByteArray());
        var info = Prober.probe(file);
        assertThat(info.video().format().width()).isEqualTo(done.path("width").asInt());
        assertThat(info.video().format().height())
                .isEqualTo(2 * done.path("height").asInt());
        assertThat(info.sounds()).hasSize(1);
        assertThat(server.get("/api/proofs/" + id + "/video").bytes()).isEqualTo(bytes.toByteArray());
        compared(server, clip, id);
        assertThat(server.delete("/api/proofs/" + id).status()).isEqualTo(204);
        assertThat(server.get("/api/proofs/" + id + "/bytes?from=0").status()).isEqualTo(404);
    }

    private void compared(RunningServer server, String clip, String id) throws IOException {
        refused(server.get("/api/proofs/" + id + "/comparison"), 409, "no finished comparison");
        String letter = java.util.Base64.getEncoder().encodeToString("no picture".getBytes());
        refused(
                server.post("/api/proofs/" + id + "/comparison", "{\"look\":\"pair\",\"captions\":\"" + letter + "\"}"),
                422,
                "must be a PNG as wide as the comparison");
        server.post("/api/proofs/" + id + "/comparison", "{\"look\":\"pair\"}");
        server.until(
                "/api/clips/" + clip + "/proofs",
                all -> proof(server, clip, id).path("comparison").path("ready").asBoolean());
        Path file = folder.resolve("pair.mp4");
        Files.write(file, server.get("/api/proofs/" + id + "/comparison").bytes());
        var info = Prober.probe(file);
        assertThat(info.video().format().width())
                .isEqualTo(2 * proof(server, clip, id).path("width").asInt());
        assertThat(info.sounds()).hasSize(1);
    }

    private static Plane luma(Path file, int frame) {
        var info = Prober.probe(file);
        var clip = new Clip(info, Optional.of(Indexer.index(info, n -> {}, new Cancel())));
        try (var frames =
                clip.open(new FrameRange(frame, frame + 1), clip.format().whole(), new PlanePool(0), new Cancel())) {
            return frames.next().orElseThrow().plane(0);
        }
    }

    /** The second take's picture must be below and the first's above, where a proof has the source. */
    @Test
    void twoProofsOfOnePlaceAreLaidBesideEachOther(RunningServer server) throws IOException {
        String clip = server.clip("beside.mp4", 96, 64, 20).path("id").asString();
        var ids = new ArrayList<String>();
        for (String kernel : List.of("bilinear", "lanczos3")) {
            ids.add(server.post("/api/clips/" + clip + "/proofs", order(recipe(2, kernel), 5, 15))
                    .json()
                    .path("id")
                    .asString());
        }
        refused(
                server.post("/api/proofs/" + ids.get(1) + "/against", "{\"other\":\"" + ids.get(1) + "\"}"),
                409,
                "must be made first");
        ids.forEach(id -> ended(server, clip, id));
        String ask = "{\"other\":\"" + ids.get(0) + "\"}";
        JsonNode made =
                server.post("/api/proofs/" + ids.get(1) + "/against", ask).json();
        String id = made.path("id").asString();
        assertThat(ended(server, clip, id).path("state").asString()).isEqualTo("DONE");
        assertThat(made.path("frames").asInt()).isEqualTo(10);
        assertThat(made.path("against").path("proof").asString()).isEqualTo(ids.get(0));
        var planes = new ArrayList<Plane>();
        for (String one : List.of(ids.get(0), ids.get(1), id)) {
            Path file = folder.resolve(one + ".mp4");
            Files.write(file, server.get("/api/proofs/" + one + "/video").bytes());
            planes.add(luma(file, 4));
        }
        int height = planes.get(0).height() / 2;
        var top = new Region(0, 0, planes.get(0).width(), height);
        var bottom = new Region(0, height, planes.get(0).width(), height);
        Plane both = planes.get(2);
        assertThat(Psnr.of(both.window(top), planes.get(0).window(bottom), 0)).isGreaterThan(44);
        assertThat(Psnr.of(both.window(bottom), planes.get(1).window(bottom), 0))
                .isGreaterThan(44);
        assertThat(Psnr.of(both.window(top), both.window(bottom), 0)).isLessThan(40);
        assertThat(server.post("/api/proofs/" + ids.get(1) + "/against", ask)
                        .json()
                        .path("id")
                        .asString())
                .as("asked for again")
                .isEqualTo(id);
        String elsewhere = server.post("/api/clips/" + clip + "/proofs", order(DOUBLE, 6, 12))
                .json()
                .path("id")
                .asString();
        ended(server, clip, elsewhere);
        refused(
                server.post("/api/proofs/" + ids.get(1) + "/against", "{\"other\":\"" + elsewhere + "\"}"),
                422,
                "different places, moments or rates");
        String larger = server.post("/api/clips/" + clip + "/proofs", order(recipe(3, "lanczos3"), 5, 15))
                .json()
                .path("id")
                .asString();
        ended(server, clip, larger);
        refused(
                server.post("/api/proofs/" + ids.get(1) + "/against", "{\"other\":\"" + larger + "\"}"),
                422,
                "different sizes, 192x128 and 288x192");
    }

    @Test
    void aStoppedProofKeepsWhatIsThere(RunningServer server) {
        String clip = server.clip("long.mp4", 160, 120, 240).path("id").asString();
        String slow = recipe(4, "lanczos3");
        var ids = new ArrayList<String>();
        for (int n = 0; n < 2; n++) {
            ids.add(server.post("/api/clips/" + clip + "/proofs", order(slow, 0, 240))
                    .json()
                    .path("id")
                    .asString());
        }
        server.post("/api/proofs/" + ids.get(1) + "/stop", "");
        server.until(
                "/api/clips/" + clip + "/proofs",
                all -> proof(server, clip, ids.get(0)).path("framesDone").asInt() > 5);
        server.post("/api/proofs/" + ids.get(0) + "/stop", "");
        JsonNode stopped = ended(server, clip, ids.get(0));
        assertThat(stopped.path("framesDone").asInt()).isBetween(5, 240);
        assertThat(server.get("/api/proofs/" + ids.get(0) + "/video").bytes().length)
                .isPositive();
        JsonNode never = ended(server, clip, ids.get(1));
        assertThat(never.path("state").asString()).isEqualTo("STOPPED");
        assertThat(never.path("framesDone").asInt()).isZero();
        assertThat(server.delete("/api/clips/" + clip).status()).isEqualTo(204);
    }

    @Test
    void proofsThatCannotBeAreRefusedInASentence(RunningServer server) {
        String clip = server.clip("refused.mp4", 96, 64, 600).path("id").asString();
        String path = "/api/clips/" + clip + "/proofs";
        refused(server.post(path, order(DOUBLE, 0, 600)), 422, "at most 20 s long, this span has 24.0 s");
        refused(server.post(path, order(DOUBLE, 9, 9)), 422, "holds nothing");
        refused(server.post(path, order(recipe(99, "lanczos3"), 0, 5)), 422, "factor");
    }
}
