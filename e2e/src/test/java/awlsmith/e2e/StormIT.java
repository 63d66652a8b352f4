package awlsmith.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import awlsmith.media.TestClips;
import java.io.IOException;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/**
 * Two files of one treatment, made with the help of another machine, while everything that takes part is killed (SIGKILL) at random moments: the
 * server, an FFmpeg of its, the other machine, the database. Nobody lends a hand but to start again what was killed; what comes out equals,
 * bit for bit, what an undisturbed render gave, and whatever stands under its final name is whole. The usual tests kill each of them once but the
 * database, which others use at the same time; {@code ./awlsmith campaign storm=N} all, N times.
 */
class StormIT {
    private static final int KILLS = Integer.getInteger("awlsmith.storm", Victim.DATABASE.ordinal());
    /** Of more parts where more is killed. */
    private static final int FRAMES = KILLS > Victim.values().length ? 240 : 120;

    private enum Victim {
        SERVER,
        FFMPEG,
        MACHINE,
        DATABASE
    }

    @TempDir
    Path folder;

    private final SplittableRandom random = new SplittableRandom(Long.getLong("awlsmith.kills.seed", 1));
    private final Visitor visitor = new Visitor();
    private ServerProcess server;
    private int port;
    private String token;
    private Process machine;

    @AfterEach
    void stop() {
        if (machine != null) {
            machine.destroyForcibly();
        }
        if (server != null) {
            server.close();
        }
    }

    @Test
    void killedAtAnyMomentItComesOutTheSame() throws Exception {
        BrowserIT.emptyDatabase();
        try (var socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        server = new ServerProcess(folder.resolve("home"), port).quick();
        visitor.enter(server.start());
        String clip = visitor.uploaded(TestClips.moving(
                        folder, "storm.mp4", 256, 192, "25", FRAMES, "-pix_fmt yuv420p -c:v libx264 -preset ultrafast"))
                .path("id")
                .asString();
        visitor.until("/api/clips/" + clip, one -> one.path("state").asString().equals("READY"));
        String take =
                visitor.json("/api/clips/" + clip + "/takes").get(0).path("id").asString();
        Map<String, String> right = sums(settled(ordered(take)));
        assertThat(right).hasSize(2);

        token = visitor.post("/api/workers", "{\"name\":\"beside\"}")
                .path("token")
                .asString();
        startMachine();
        var killed = new TreeMap<Victim, Integer>();
        List<String> renders = ordered(take);
        int finished = 0;
        for (int n = 0; n < KILLS; ) {
            if (states(renders).stream().allMatch("DONE"::equals)) {
                assertThat(sums(settled(renders))).isEqualTo(right);
                renders = ordered(take);
                finished++;
            }
            LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(200 + random.nextInt(3000)));
            Victim victim =
                    n < Victim.values().length ? Victim.values()[n] : Victim.values()[weighted(random.nextInt(10))];
            if (isKilled(victim, right)) {
                killed.merge(victim, 1, Integer::sum);
                n++;
            }
        }
        assertThat(sums(settled(renders))).isEqualTo(right);
        System.out.println("killed " + killed + "; " + (finished + 1) + " times two files came out the same");
    }

    /** The server and FFmpeg more often than the others. */
    private static int weighted(int of10) {
        return of10 < 4 ? 0 : of10 < 7 ? 1 : of10 < 9 ? 2 : 3;
    }

    /** Whether there was one to kill: between two parts there may be no FFmpeg. */
    private boolean isKilled(Victim victim, Map<String, String> right) throws Exception {
        switch (victim) {
            case SERVER -> {
                server.kill();
                assertWhole(right);
                visitor.comeBack(server.start());
            }
            case FFMPEG -> {
                List<ProcessHandle> children = server.children().toList();
                if (children.isEmpty()) {
                    return false;
                }
                ProcessHandle one = children.get(random.nextInt(children.size()));
                // as the system does when memory is short, or as one that shuts down
                return random.nextInt(4) == 0 ? one.destroy() : one.destroyForcibly();
            }
            case MACHINE -> {
                machine.destroyForcibly().waitFor();
                startMachine();
            }
            case DATABASE -> {
                ProcessHandle database =
                        ProcessHandle.of(KillsIT.databaseProcess()).orElseThrow();
                List<String> command =
                        new ArrayList<>(Arrays.asList(Files.readString(Path.of("/proc/" + database.pid() + "/cmdline"))
                                .split("\0")));
                // root starts it for somebody else only
                database.info().user().ifPresent(user -> command.add("--user=" + user));
                database.destroyForcibly();
                database.onExit().join();
                assertWhole(right);
                new ProcessBuilder(command)
                        .redirectErrorStream(true)
                        .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                        .start();
            }
        }
        return true;
    }

    private void startMachine() throws IOException {
        List<String> command = ServerProcess.quickJava();
        command.addAll(List.of(
                "awlsmith.render.cli.Main",
                "worker",
                "--server",
                "http://127.0.0.1:" + port,
                "--home",
                folder.resolve("machine").toString(),
                "--threads",
                "1"));
        var builder = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(
                        Path.of("target", "machine.log").toFile()));
        builder.environment().put("AWLSMITH_TOKEN", token);
        machine = builder.start();
    }

    private List<String> ordered(String take) {
        JsonNode made = visitor.post(
                "/api/batches",
                "{\"name\":\"\",\"takes\":[{\"takeId\":\"" + take + "\",\"wholeClip\":true}],\"deliverables\":["
                        + "{\"codec\":\"h264\",\"settings\":{\"quality\":20},\"container\":\"mp4\",\"sound\":\"none\"},"
                        + "{\"codec\":\"ffv1\",\"settings\":{},\"container\":\"mkv\",\"sound\":\"none\"}]}");
        List<String> ids = StreamSupport.stream(made.spliterator(), false)
                .map(one -> one.path("id").asString())
                .toList();
        assertThat(ids).as(made.toString()).hasSize(2);
        return ids;
    }

    private List<String> states(List<String> ids) {
        // the database may just be away
        return Visitor.among(
                        visitor.until(
                                "/api/renders", all -> Visitor.among(all, ids).size() == ids.size()),
                        ids)
                .stream()
                .map(one -> one.path("state").asString())
                .toList();
    }

    /** Once all of them are done, without anybody's help. */
    private List<String> settled(List<String> ids) {
        JsonNode all = visitor.until(
                "/api/renders",
                list -> Visitor.among(list, ids).stream()
                        .allMatch(one -> one.path("state").asString().equals("DONE")
                                || one.path("state").asString().equals("FAILED")));
        for (JsonNode one : Visitor.among(all, ids)) {
            assertThat(one.path("state").asString()).as(one.toString()).isEqualTo("DONE");
        }
        return ids;
    }

    private Map<String, String> sums(List<String> ids) throws Exception {
        var sums = new TreeMap<String, String>();
        for (String id : ids) {
            try (Stream<Path> files =
                    Files.list(folder.resolve("home/media/renders").resolve(id))) {
                for (Path file : files.filter(Files::isRegularFile).toList()) {
                    sums.put(file.getFileName().toString(), sum(file));
                }
            }
        }
        return sums;
    }

    /** Whatever has its final name is whole. */
    private void assertWhole(Map<String, String> right) throws Exception {
        try (Stream<Path> renders = Files.list(folder.resolve("home/media/renders"))) {
            for (Path render : renders.toList()) {
                for (Map.Entry<String, String> one : right.entrySet()) {
                    Path file = render.resolve(one.getKey());
                    if (Files.exists(file)) {
                        assertThat(sum(file)).as(file.toString()).isEqualTo(one.getValue());
                    }
                }
            }
        }
    }

    private static String sum(Path file) throws Exception {
        return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(Files.readAllBytes(file)));
    }
}
