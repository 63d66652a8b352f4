package awlsmith.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import awlsmith.media.TestClips;
import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/**
 * The server is killed, closed, robbed of its database and of its disk in the middle of everything it does; afterwards everything is
 * finished and right. The usual tests try two of them once; {@code ./awlsmith campaign} all, as often as it is told.
 */
class KillsIT {
    private static final int ROUNDS = Integer.getInteger("awlsmith.kills", 0);
    private static final boolean ALL = ROUNDS > 0;
    private static final int FRAMES = 250;
    private static final String DELIVERABLE = "{\"codec\":\"h264\",\"settings\":{\"quality\":20},\"sound\":true}";
    private static final String RECIPE =
            "{\"awlsmith\":1,\"steps\":[{\"step\":\"enlarge\",\"settings\":{\"factor\":2,\"kernel\":\"lanczos3\"}}]}";

    @TempDir
    Path folder;

    private final SplittableRandom random = new SplittableRandom(Long.getLong("awlsmith.kills.seed", 1));
    private ServerProcess server;
    private Visitor visitor;

    private void start() throws Exception {
        BrowserIT.emptyDatabase();
        begin(folder.resolve("home"));
    }

    private void begin(Path home) throws IOException {
        int port;
        try (var socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        server = new ServerProcess(home, port).quick();
        visitor = new Visitor();
        visitor.enter(server.start());
    }

    @AfterEach
    void stop() {
        if (server != null) {
            server.close();
        }
    }

    /** Everything takes long; without being asked for more, some of it is tried once. */
    private static void demandMore(boolean isUsual) {
        assumeTrue(isUsual || ALL, "only with -Dawlsmith.kills=1 and more");
    }

    private void end(String way) {
        if (way.equals("KILL")) {
            server.kill();
        } else {
            server.close();
        }
        visitor.comeBack(server.start());
    }

    private Path footage() {
        return TestClips.moving(
                folder, "pier.mp4", 320, 240, "25", FRAMES, "-pix_fmt yuv420p -c:v libx264 -preset ultrafast -g 50");
    }

    private JsonNode ready(String id) {
        return visitor.until(
                "/api/clips/" + id, clip -> !clip.path("state").asString().equals("READING"));
    }

    private String takenIn() {
        String id = visitor.uploaded(footage()).path("id").asString();
        assertThat(ready(id).path("state").asString()).isEqualTo("READY");
        return id;
    }

    private void pause(int most) {
        LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(random.nextInt(most)));
    }

    private static JsonNode byId(JsonNode list, String id) {
        for (JsonNode one : list) {
            if (one.path("id").asString().equals(id)) {
                return one;
            }
        }
        return null;
    }

    @ParameterizedTest
    @CsvSource({"KILL", "TERM"})
    void whileTakingIn(String way) throws Exception {
        demandMore(way.equals("TERM"));
        start();
        for (int round = 0; round < Math.max(1, ROUNDS); round++) {
            String id = visitor.uploaded(footage()).path("id").asString();
            pause(1200);
            end(way);
            JsonNode clip = ready(id);
            assertThat(clip.path("state").asString()).as(clip.toString()).isEqualTo("READY");
            assertThat(clip.path("frames").asInt()).isEqualTo(FRAMES);
        }
    }

    @ParameterizedTest
    @CsvSource({"KILL", "TERM"})
    void whileExamining(String way) throws Exception {
        demandMore(false);
        start();
        String id = takenIn();
        for (int round = 0; round < Math.max(1, ROUNDS); round++) {
            visitor.until(
                    "/api/clips/" + id,
                    clip -> !clip.path("examination").path("state").asString("").equals("WAITING"));
            pause(1000);
            end(way);
            JsonNode clip = visitor.until("/api/clips/" + id, one -> {
                String state = one.path("examination").path("state").asString("");
                return state.equals("DONE") || state.equals("FAILED");
            });
            assertThat(clip.path("examination").path("state").asString())
                    .as(clip.toString())
                    .isEqualTo("DONE");
            visitor.post("/api/clips/" + id + "/examination", "");
        }
    }

    @ParameterizedTest
    @CsvSource({"KILL", "TERM"})
    void inAProof(String way) throws Exception {
        demandMore(false);
        start();
        String id = takenIn();
        for (int round = 0; round < Math.max(1, ROUNDS); round++) {
            String proof = visitor.post(
                            "/api/clips/" + id + "/proofs",
                            "{\"takeName\":\"A\",\"recipe\":" + RECIPE
                                    + ",\"from\":50,\"end\":200,\"x\":0,\"y\":0,\"width\":640,\"height\":480}")
                    .path("id")
                    .asString();
            visitor.until(
                    "/api/clips/" + id + "/proofs",
                    all -> byId(all, proof).path("framesDone").asInt() > 1);
            pause(500);
            end(way);
            JsonNode made = byId(
                    visitor.until("/api/clips/" + id + "/proofs", all -> {
                        String state = byId(all, proof).path("state").asString();
                        return !state.equals("WAITING") && !state.equals("RUNNING");
                    }),
                    proof);
            assertThat(made.path("state").asString()).as(made.toString()).isEqualTo("DONE");
            assertThat(made.path("framesDone").asInt()).isEqualTo(150);
        }
    }

    private String ordered(String clip) {
        JsonNode take = visitor.json("/api/clips/" + clip + "/takes").get(0);
        return visitor.post(
                        "/api/renders",
                        "{\"takeId\":\"" + take.path("id").asString() + "\",\"wholeClip\":true,\"deliverable\":"
                                + DELIVERABLE + "}")
                .path("id")
                .asString();
    }

    private JsonNode rendered(String render) {
        return byId(
                visitor.until("/api/renders", all -> {
                    JsonNode one = byId(all, render);
                    return one != null
                            && (one.path("state").asString().equals("DONE")
                                    || one.path("state").asString().equals("FAILED"));
                }),
                render);
    }

    private void assertWhole(JsonNode render) {
        assertThat(render.path("state").asString()).as(render.toString()).isEqualTo("DONE");
        assertThat(render.path("result").path("frames").asInt()).isEqualTo(FRAMES);
        assertThat(render.path("result").path("errors").asInt()).isZero();
    }

    @ParameterizedTest
    @CsvSource({"KILL", "TERM"})
    void inARender(String way) throws Exception {
        // WholePathIT kills a server in a render
        demandMore(false);
        start();
        String id = takenIn();
        for (int round = 0; round < Math.max(1, ROUNDS); round++) {
            String render = ordered(id);
            visitor.until(
                    "/api/renders", all -> byId(all, render).path("framesDone").asInt() > 30);
            pause(1500);
            end(way);
            assertWhole(rendered(render));
        }
    }

    /** The database stands still, as behind a cut line, longer than anything waits for it; then it answers again. */
    @Test
    void withoutADatabaseForAWhile() throws Exception {
        demandMore(false);
        start();
        String id = takenIn();
        long database = databaseProcess();
        for (int round = 0; round < Math.max(1, ROUNDS); round++) {
            String render = ordered(id);
            visitor.until(
                    "/api/renders", all -> byId(all, render).path("framesDone").asInt() > 30);
            signal("STOP", database);
            try {
                LockSupport.parkNanos(TimeUnit.SECONDS.toNanos(Long.getLong("awlsmith.kills.pause", 12)));
            } finally {
                signal("CONT", database);
            }
            assertWhole(rendered(render));
        }
    }

    /** Of the database that the tests use. */
    static long databaseProcess() throws SQLException, IOException {
        try (var db = DriverManager.getConnection(
                        System.getenv("SPRING_DATASOURCE_URL"),
                        "awlsmith",
                        System.getenv("SPRING_DATASOURCE_PASSWORD"));
                var statement = db.createStatement();
                var row = statement.executeQuery("select @@pid_file")) {
            row.next();
            return Long.parseLong(Files.readString(Path.of(row.getString(1))).strip());
        }
    }

    private static void signal(String name, long process) throws IOException, InterruptedException {
        assertThat(new ProcessBuilder("kill", "-" + name, Long.toString(process))
                        .start()
                        .waitFor())
                .isZero();
    }

    /** A disk of 48 MB that something else fills in the middle of a render: a sentence, the finished parts kept, and on from there. */
    @Test
    void withAFullDisk() throws Exception {
        demandMore(false);
        start();
        Path small = Files.createDirectories(folder.resolve("small"));
        boolean mounted = new ProcessBuilder("mount", "-t", "tmpfs", "-o", "size=48m", "tmpfs", small.toString())
                        .start()
                        .waitFor()
                == 0;
        assumeTrue(mounted, "only root can make a disk of its own");
        server.close();
        try {
            BrowserIT.emptyDatabase();
            begin(small.resolve("home"));
            String id = takenIn();
            visitor.until(
                    "/api/clips/" + id,
                    clip -> clip.path("examination").path("state").asString("").equals("DONE"));
            String render = ordered(id);
            visitor.until(
                    "/api/renders", all -> byId(all, render).path("framesDone").asInt() > 40);
            Path filler = small.resolve("filler");
            fill(filler);
            JsonNode failed = rendered(render);
            assertThat(failed.path("state").asString()).as(failed.toString()).isEqualTo("FAILED");
            assertThat(failed.path("problem").asString()).contains("disk");
            Files.delete(filler);
            visitor.post("/api/renders/" + render + "/retry", "");
            assertWhole(rendered(render));
        } finally {
            server.close();
            new ProcessBuilder("umount", "-l", small.toString()).start().waitFor();
        }
    }

    private static void fill(Path file) {
        byte[] piece = new byte[1 << 16];
        try (var out = Files.newOutputStream(file)) {
            for (int i = 0; i < 2000; i++) {
                out.write(piece);
            }
        } catch (IOException e) {
            // full, as it should be
        }
    }
}
