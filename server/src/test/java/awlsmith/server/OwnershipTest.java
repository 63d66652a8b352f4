package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Instant;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.boot.builder.SpringApplicationBuilder;
import tools.jackson.databind.JsonNode;

/** Who does what, over restarts, other servers, and rows that this version cannot read. */
@ExtendWith(RunningServer.class)
class OwnershipTest {
    private static Connection database() throws SQLException {
        return DriverManager.getConnection(
                System.getenv("SPRING_DATASOURCE_URL"), "awlsmith", System.getenv("SPRING_DATASOURCE_PASSWORD"));
    }

    private static int execute(String sql, Object... values) throws SQLException {
        try (Connection db = database();
                var statement = db.prepareStatement(sql)) {
            for (int i = 0; i < values.length; i++) {
                statement.setObject(i + 1, values[i]);
            }
            return statement.executeUpdate();
        }
    }

    private static String word(String sql, Object value) throws SQLException {
        try (Connection db = database();
                var statement = db.prepareStatement(sql)) {
            statement.setObject(1, value);
            var found = statement.executeQuery();
            return found.next() ? found.getString(1) : null;
        }
    }

    /** A render that another living server does is its own, however often this one starts. */
    @Test
    void whatAnotherLivingServerHoldsIsNotTaken(RunningServer server) throws Exception {
        String clip = server.clip("held.mp4", 64, 48, 20).path("id").asString();
        String render = UUID.randomUUID().toString();
        // its task first: whatever has none gets one within seconds
        execute(
                "insert into scheduled_tasks (task_name, task_instance, execution_time, picked, picked_by, last_heartbeat,"
                        + " version) values ('work', ?, utc_timestamp(6), 1, 'awlsmith-another-1', date_add(utc_timestamp(6),"
                        + " interval 1 hour), 1)",
                "render:" + render);
        execute(
                "insert into render (id, clip_id, take_name, recipe, deliverable, file_name, from_frame, end_frame,"
                        + " whole_clip, width, height, state, created_at, owner, attempt) values (?, ?, 'A',"
                        + " '{\"awlsmith\":1,\"steps\":[]}',"
                        + " '{\"codec\":\"H264\",\"quality\":17,\"depth\":0,\"gop\":48,\"sound\":true}', 'held.mp4', 0, 20, 1,"
                        + " 64, 48, 'RUNNING', utc_timestamp(6), 'another', 3)",
                render,
                clip);
        server.restart();
        JsonNode other = server.clip("other.mp4", 64, 48, 20);
        assertThat(other.path("state").asString()).isEqualTo("READY");
        assertThat(word("select state from render where id = ?", render)).isEqualTo("RUNNING");
        assertThat(word("select owner from render where id = ?", render)).isEqualTo("another");
        assertThat(word("select picked_by from scheduled_tasks where task_instance = ?", "render:" + render))
                .isEqualTo("awlsmith-another-1");
        // its heartbeats have stopped: it is taken over, and the next go counts on
        execute(
                "update scheduled_tasks set last_heartbeat = date_sub(utc_timestamp(6), interval 1 day) where task_instance"
                        + " = ?",
                "render:" + render);
        server.until("/api/renders", all -> {
            for (JsonNode one : all) {
                if (one.path("id").asString().equals(render)) {
                    return one.path("state").asString().equals("DONE");
                }
            }
            return false;
        });
        assertThat(word("select attempt from render where id = ?", render)).isEqualTo("4");
        server.delete("/api/clips/" + clip);
        server.delete("/api/clips/" + other.path("id").asString());
    }

    /** What a killed server was trying or receiving goes with the next start; transfers that may go on stay. */
    @Test
    void whatNoProcessWaitsForIsSwept(RunningServer server) throws Exception {
        Path incoming = server.home().resolve("media/incoming");
        Path tried = Files.createDirectories(incoming.resolve("trial-" + UUID.randomUUID()));
        Files.writeString(tried.resolve("trial-0.nut"), "left");
        Path received = Files.writeString(incoming.resolve(UUID.randomUUID() + ".part"), "left");
        Path young = Files.writeString(incoming.resolve(UUID.randomUUID() + ".part"), "arriving");
        Path goesOn = Files.createDirectories(incoming.resolve("unfinished"));
        for (Path old : new Path[] {tried, received, goesOn}) {
            Files.setLastModifiedTime(old, FileTime.from(Instant.now().minusSeconds(3600)));
        }
        server.restart();
        assertThat(tried).doesNotExist();
        assertThat(received).doesNotExist();
        assertThat(young).exists();
        assertThat(goesOn).exists();
        Files.delete(young);
    }

    @Test
    void aFolderInUseIsRefusedToASecondServer(RunningServer server) {
        assertThatThrownBy(() -> new SpringApplicationBuilder(AwlsmithServer.class)
                        .run("--server.port=0", "--awlsmith.home=" + server.home()))
                .hasStackTraceContaining("Another Awlsmith runs with the data in " + server.home());
        assertThat(server.get("/api/clips").status()).isEqualTo(200);
    }

    /** While one long render runs the others wait, and may change places; their files may be called otherwise. */
    @Test
    void whatWaitsMayGoEarlierAndFilesMayBeNamed(RunningServer server) throws Exception {
        JsonNode clip = server.clip("queue.mp4", 64, 48, 1200);
        String take = server.get("/api/clips/" + clip.path("id").asString() + "/takes")
                .json()
                .get(0)
                .path("id")
                .asString();
        String order = "{\"takeId\":\"" + take
                + "\",\"wholeClip\":true,\"deliverable\":{\"codec\":\"h264\",\"settings\":{},\"sound\":false}}";
        String[] ids = new String[3];
        for (int i = 0; i < ids.length; i++) {
            ids[i] = server.post("/api/renders", order).json().path("id").asString();
        }
        assertThat(server.post("/api/renders/" + ids[2] + "/earlier", "").status())
                .isEqualTo(200);
        JsonNode all = server.get("/api/renders").json();
        long[] places = new long[3];
        for (JsonNode one : all) {
            for (int i = 0; i < ids.length; i++) {
                if (one.path("id").asString().equals(ids[i])) {
                    places[i] = one.path("place").asLong();
                }
            }
        }
        assertThat(places[2]).isLessThan(places[1]);
        var named = server.post("/api/renders/" + ids[1] + "/name", "{\"fileName\":\" For the museum.MP4 \"}");
        assertThat(named.json().path("fileName").asString()).isEqualTo("For the museum.mp4");
        for (String wrong : new String[] {"", "a/b", ".hidden", "x".repeat(200)}) {
            assertThat(server.post("/api/renders/" + ids[1] + "/name", "{\"fileName\":\"" + wrong + "\"}")
                            .status())
                    .as(wrong)
                    .isEqualTo(422);
        }
        for (String id : ids) {
            server.post("/api/renders/" + id + "/cancel", "");
        }
        assertThat(server.post("/api/renders/" + ids[2] + "/earlier", "").status())
                .isEqualTo(409);
        for (String id : ids) {
            server.delete("/api/renders/" + id);
        }
    }

    /** A step of a later version stands in rows of all kinds: each says so, and nothing else is held up. */
    @Test
    void aRecipeThatCannotBeReadBlocksNothing(RunningServer server) throws Exception {
        JsonNode clip = server.clip("later.mp4", 64, 48, 20);
        String id = clip.path("id").asString();
        JsonNode take = server.get("/api/clips/" + id + "/takes").json().get(0);
        String takeId = take.path("id").asString();
        String order = "{\"takeId\":\"" + takeId
                + "\",\"wholeClip\":true,\"deliverable\":{\"codec\":\"h264\",\"settings\":{\"quality\":20},\"sound\":true}}";
        String later = "{\"awlsmith\":1,\"steps\":[{\"step\":\"glisten\",\"settings\":{\"amount\":3}}]}";
        String first = server.post("/api/renders", order).json().path("id").asString();
        server.post("/api/renders/" + first + "/cancel", "");
        execute("update render set recipe = ? where id = ?", later, first);
        server.post("/api/renders/" + first + "/retry", "");
        String second = server.post("/api/renders", order).json().path("id").asString();
        JsonNode all = server.until("/api/renders", list -> {
            boolean failed = false;
            boolean done = false;
            for (JsonNode one : list) {
                failed |= one.path("id").asString().equals(first)
                        && one.path("state").asString().equals("FAILED");
                done |= one.path("id").asString().equals(second)
                        && one.path("state").asString().equals("DONE");
            }
            return failed && done;
        });
        for (JsonNode one : all) {
            if (one.path("id").asString().equals(first)) {
                assertThat(one.path("problem").asString())
                        .contains("cannot be used by this version")
                        .contains("glisten");
            }
        }
        execute("update take set recipe = ? where id = ?", later, takeId);
        server.post("/api/recipes", "{\"name\":\"Later\",\"recipe\":{\"awlsmith\":1,\"steps\":[]}}");
        execute("update saved_recipe set recipe = ? where name = ?", later, "Later");
        JsonNode takes = server.get("/api/clips/" + id + "/takes").json();
        assertThat(takes.get(0).path("unreadable").asString()).contains("glisten");
        assertThat(takes.get(0).path("recipe").toString()).contains("glisten");
        JsonNode saved = server.get("/api/recipes").json();
        assertThat(saved.toString()).contains("cannot be used by this version");
        assertThat(server.post("/api/renders", order).status()).isEqualTo(422);
        for (JsonNode one : saved) {
            server.delete("/api/recipes/" + one.path("id").asString());
        }
        server.delete("/api/clips/" + id);
    }

    /** What no row knows of is put aside, and only when it is not of this moment. */
    @Test
    void orphansInTheMediaFolderArePutAside(RunningServer server) throws Exception {
        String clip = server.clip("kept.mp4", 64, 48, 5).path("id").asString();
        var clips = server.home().resolve("media/clips");
        var old = java.nio.file.Files.createDirectories(
                clips.resolve(UUID.randomUUID().toString()));
        java.nio.file.Files.writeString(old.resolve("source"), "x");
        var young = java.nio.file.Files.createDirectories(
                clips.resolve(UUID.randomUUID().toString()));
        java.nio.file.Files.setLastModifiedTime(
                old,
                java.nio.file.attribute.FileTime.from(java.time.Instant.now().minusSeconds(3600)));
        server.restart();
        assertThat(old).doesNotExist();
        assertThat(server.home()
                        .resolve("media/lost/clips-" + old.getFileName())
                        .resolve("source"))
                .exists();
        assertThat(young).exists();
        assertThat(clips.resolve(clip)).exists();
        java.nio.file.Files.delete(young);
        server.delete("/api/clips/" + clip);
    }
}
