package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.render.Engine;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Other machines, here other processes, that make parts of a render: the same file comes of it, whatever becomes of them. */
@ExtendWith(RunningServer.class)
class WorkersTest {
    private static final String WATCH = "{\"codec\":\"h264\",\"settings\":{},\"sound\":\"kept\"}";
    private static final String KEEP = "{\"codec\":\"ffv1\",\"settings\":{},\"sound\":\"kept\"}";

    @TempDir
    Path folder;

    private final List<Process> running = new ArrayList<>();

    @AfterEach
    void end(RunningServer server) {
        running.forEach(Process::destroyForcibly);
        server.get("/api/clips")
                .json()
                .forEach(clip -> server.delete("/api/clips/" + clip.path("id").asString()));
        server.get("/api/workers")
                .json()
                .forEach(one -> server.delete("/api/workers/" + one.path("id").asString()));
    }

    private static String token(RunningServer server, String name) {
        var answer = server.post("/api/workers", "{\"name\":\"" + name + "\"}");
        assertThat(answer.status()).isEqualTo(201);
        return answer.json().path("token").asString();
    }

    private Process worker(RunningServer server, String name, String token, String... more) throws IOException {
        var command = new ArrayList<>(List.of(
                ProcessHandle.current().info().command().orElseThrow(),
                "-Xmx600m",
                "--add-modules",
                "jdk.incubator.vector",
                "--enable-native-access=ALL-UNNAMED",
                "-cp",
                System.getProperty("java.class.path"),
                "awlsmith.render.cli.Main",
                "worker",
                "--server",
                "http://127.0.0.1:" + server.port(),
                "--home",
                folder.resolve(name).toString(),
                "--threads",
                "1"));
        command.addAll(List.of(more));
        var builder = new ProcessBuilder(command);
        builder.environment().put("AWLSMITH_TOKEN", token);
        builder.redirectErrorStream(true)
                .redirectOutput(folder.resolve(name + ".log").toFile());
        Process process = builder.start();
        running.add(process);
        return process;
    }

    private static String sum(RunningServer server, String id) {
        return server.get("/api/renders/" + id + "/report")
                .json()
                .path("sha256")
                .asString();
    }

    private static boolean isDone(JsonNode all, List<String> ids) {
        int done = 0;
        for (JsonNode one : all) {
            boolean isOurs = ids.contains(one.path("id").asString());
            assertThat(one.path("state").asString()).as(one.toString()).isNotEqualTo("FAILED");
            done += isOurs && one.path("state").asString().equals("DONE") ? 1 : 0;
        }
        return done == ids.size();
    }

    private static List<String> ordered(RunningServer server, String take) {
        var ids = new ArrayList<String>();
        var answer = server.post(
                "/api/batches",
                "{\"takes\":[{\"takeId\":\"" + take + "\",\"wholeClip\":true}],\"deliverables\":[" + WATCH + "," + KEEP
                        + "]}");
        assertThat(answer.status()).as(answer.text()).isEqualTo(201);
        answer.json().forEach(one -> ids.add(one.path("id").asString()));
        return ids;
    }

    /** One is killed in the midst of it, one goes on to the end; both files are those that this machine makes alone, bit for bit. */
    @Test
    void twoMachinesHelpAndOneOfThemDies(RunningServer server) throws Exception {
        JsonNode clip = server.clip("many.mp4", 160, 120, 400);
        String take = server.get("/api/clips/" + clip.path("id").asString() + "/takes")
                .json()
                .get(0)
                .path("id")
                .asString();
        Process dies = worker(server, "dies", token(server, "dies"));
        // it sees the server's folder: nothing is fetched
        worker(
                server,
                "stays",
                token(server, "stays"),
                "--media",
                server.home().resolve("media").toString());
        List<String> shared = ordered(server, take);
        server.until("/api/workers", all -> {
            assertThat(isDone(server.get("/api/renders").json(), shared))
                    .as(log("dies"))
                    .isFalse();
            return segments(all, "dies") > 0;
        });
        dies.destroyForcibly().waitFor(10, TimeUnit.SECONDS);
        server.until("/api/renders", all -> isDone(all, shared));
        JsonNode workers = server.get("/api/workers").json();
        assertThat(segments(workers, "stays")).as(log("stays")).isPositive();
        assertThat(folder.resolve("stays").toFile().list((home, name) -> name.startsWith("source-")))
                .isEmpty();
        running.forEach(Process::destroyForcibly);
        List<String> alone = ordered(server, take);
        server.until("/api/renders", all -> isDone(all, alone));
        for (int n = 0; n < 2; n++) {
            assertThat(sum(server, shared.get(n))).isEqualTo(sum(server, alone.get(n)));
        }
    }

    /** What a first render put into the store another machine fetches from there, and from the server where the store is ill. */
    @Test
    void theSourceComesFromTheStore(RunningServer server) throws Exception {
        JsonNode clip = server.clip("stored.mp4", 160, 120, 300);
        String id = clip.path("id").asString();
        String take = server.get("/api/clips/" + id + "/takes")
                .json()
                .get(0)
                .path("id")
                .asString();
        List<String> first = ordered(server, take);
        server.until("/api/renders", all -> isDone(all, first));
        server.until(
                "/api/workers",
                all -> server.store().objects().keySet().stream().anyMatch(name -> name.contains(id)));
        int before = server.store().fetched();
        worker(server, "fetches", token(server, "fetches"));
        List<String> second = ordered(server, take);
        server.until("/api/renders", all -> isDone(all, second));
        JsonNode workers = server.get("/api/workers").json();
        assertThat(segments(workers, "fetches")).as(log("fetches")).isPositive();
        assertThat(server.store().fetched()).isGreaterThan(before);
        server.delete("/api/clips/" + id);
        server.until(
                "/api/workers",
                all -> server.store().objects().keySet().stream().noneMatch(name -> name.contains(id)));
    }

    private static long segments(JsonNode workers, String name) {
        for (JsonNode one : workers) {
            if (one.path("name").asString().equals(name)) {
                return one.path("segments").asLong();
            }
        }
        return -1;
    }

    private String log(String name) {
        try {
            return Files.readString(folder.resolve(name + ".log"));
        } catch (IOException e) {
            return "no log: " + e.getMessage();
        }
    }

    @Test
    void aTokenThatWasTakenBackOrNeverMadeIsRefusedWithASentence(RunningServer server) throws Exception {
        String token = token(server, "gone");
        JsonNode one = server.get("/api/workers").json().get(0);
        server.delete("/api/workers/" + one.path("id").asString());
        for (String wrong : new String[] {token, "guessed"}) {
            Process process = worker(server, "gone-" + wrong.length(), wrong);
            assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
            assertThat(process.exitValue()).isEqualTo(1);
            assertThat(log("gone-" + wrong.length())).contains("was taken back; make another on the page Dispatch");
        }
    }

    @Test
    void twoOnOneMachineWantAFolderEach(RunningServer server) throws Exception {
        String token = token(server, "one");
        Process first = worker(server, "one", token);
        Path lock = folder.resolve("one/lock");
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
        while (!Files.exists(lock) && System.nanoTime() < end) {
            Thread.onSpinWait();
        }
        Process second = worker(server, "one", token);
        assertThat(second.waitFor(60, TimeUnit.SECONDS)).isTrue();
        assertThat(second.exitValue()).isEqualTo(1);
        assertThat(log("one")).contains("another worker has the folder", "--home");
        assertThat(first.isAlive()).isTrue();
    }

    private static RunningServer.Answer asked(
            RunningServer server, String method, String path, String token, String body) {
        return server.send(HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + server.port() + "/api/work" + path))
                .header("Authorization", "Bearer " + token)
                .header("Content-Type", method.equals("PUT") ? "application/octet-stream" : "application/json")
                .method(method, HttpRequest.BodyPublishers.ofString(body)));
    }

    @Test
    void aMachineThatDoesNotRunTheNetsOfTheRenderWaitsForAnother(RunningServer server) {
        JsonNode clip = server.clip("nets.mp4", 160, 120, 400);
        String take = server.get("/api/clips/" + clip.path("id").asString() + "/takes")
                .json()
                .get(0)
                .path("id")
                .asString();
        String token = token(server, "plain");
        List<String> ids = ordered(server, take);
        server.until("/api/renders", all -> {
            for (JsonNode one : all) {
                if (one.path("framesDone").asInt() > 0) {
                    return true;
                }
            }
            return false;
        });
        String asks = "{\"engine\":\"" + Engine.fingerprint() + "\",\"forms\":";
        assertThat(asked(server, "POST", "/ask", token, asks + "[]}").status()).isEqualTo(204);
        var lent = asked(server, "POST", "/ask", token, asks + "[\"FLOAT\",\"EIGHT_BITS\"]}");
        assertThat(lent.status()).as(lent.text()).isEqualTo(200);
        asked(server, "POST", "/" + lent.json().path("lease").asString() + "/back", token, "x");
        ids.forEach(id -> server.delete("/api/renders/" + id));
    }

    /** Other versions, parts that are not lent, numbers of files that are none, a clip that is not at work: each gets a sentence. */
    @Test
    void whatDoesNotFitIsRefused(RunningServer server) {
        String token = token(server, "odd");
        var other = asked(server, "POST", "/ask", token, "{\"engine\":\"0.0.1\"}");
        assertThat(other.status()).isEqualTo(409);
        assertThat(other.json().path("detail").asString()).contains("other versions", "0.0.1");
        String lease = UUID.randomUUID().toString();
        for (String[] wrong : new String[][] {
            {"POST", "/" + lease + "/beat"},
            {"POST", "/" + lease + "/done"},
            {"PUT", "/" + lease + "/0"},
            {"PUT", "/" + lease + "/-1"},
            {"GET", "/sources/" + UUID.randomUUID()}
        }) {
            assertThat(asked(server, wrong[0], wrong[1], token, "x").status())
                    .as(wrong[1])
                    .isEqualTo(409);
        }
        assertThat(asked(server, "POST", "/ask", "none", "{\"engine\":\"\"}").status())
                .isEqualTo(403);
        assertThat(server.post("/api/workers", "{\"name\":\"\"}").status()).isEqualTo(422);
    }
}
