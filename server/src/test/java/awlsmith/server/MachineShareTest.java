package awlsmith.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

/** Cores and memory that are chosen while it runs: held against what the system says of this process. */
@ExtendWith(RunningServer.class)
class MachineShareTest {
    @AfterEach
    void all(RunningServer server) {
        server.put("/api/machine", "{\"memory\":1,\"whileWorking\":1}");
    }

    private static String running() throws IOException {
        try (var lines = Files.lines(Path.of("/proc/self/status"))) {
            return lines.filter(line -> line.startsWith("Cpus_allowed_list:"))
                    .findFirst()
                    .orElseThrow()
                    .substring(18)
                    .strip();
        }
    }

    @Test
    void coresAndMemoryAreTakenAtOnceAndHoldOverARestart(RunningServer server) throws IOException {
        String there = server.get("/api/machine").json().path("there").asString();
        assertThat(there).isEqualTo(running());
        String first = there.split("[,-]")[0];
        var answer = server.put("/api/machine", "{\"cores\":\"" + first + "\",\"memory\":0.5,\"whileWorking\":0.25}");
        assertThat(answer.status()).as(answer.text()).isEqualTo(200);
        assertThat(running()).isEqualTo(first);
        assertThat(answer.json().path("cores").asInt()).isEqualTo(1);
        double most = answer.json().path("mostBytes").asDouble();
        assertThat(answer.json().path("memoryBytes").asDouble()).isBetween(0.39 * most, 0.41 * most);
        server.restart();
        var after = server.get("/api/machine").json();
        assertThat(after.path("share").path("cores").asString()).isEqualTo(first);
        assertThat(after.path("share").path("whileWorking").asDouble()).isEqualTo(0.25);
        assertThat(running()).isEqualTo(first);
    }

    @Test
    void aGraphicsProcessorIsOfferedWhereNetsRunOnOne(RunningServer server) {
        var before = server.get("/api/machine").json();
        var answer = server.put("/api/machine", "{\"memory\":1,\"whileWorking\":1,\"graphics\":true}");
        if (before.path("noGraphics").isNull() || before.path("noGraphics").isMissingNode()) {
            assertThat(answer.json().path("nets").asString()).startsWith("the graphics processor");
        } else {
            assertThat(answer.status()).isEqualTo(422);
            assertThat(answer.json().path("detail").asString())
                    .isEqualTo("nets can only run on the cores: "
                            + before.path("noGraphics").asString());
            assertThat(server.get("/api/machine").json()).isEqualTo(before);
        }
        server.put("/api/machine", "{\"memory\":1,\"whileWorking\":1,\"graphics\":false}");
        assertThat(server.get("/api/machine").json().path("graphics").asBoolean())
                .isFalse();
    }

    @Test
    void whatIsNotThereIsRefused(RunningServer server) throws IOException {
        String before = running();
        for (String wrong : new String[] {
            "{\"cores\":\"9000\",\"memory\":1,\"whileWorking\":1}",
            "{\"cores\":\"0-\",\"memory\":1,\"whileWorking\":1}",
            "{\"memory\":0,\"whileWorking\":1}",
            "{\"memory\":1,\"whileWorking\":1.5}"
        }) {
            var answer = server.put("/api/machine", wrong);
            assertThat(answer.status()).as(wrong).isEqualTo(422);
            assertThat(answer.json().path("detail").asString()).isNotBlank();
        }
        assertThat(running()).isEqualTo(before);
    }
}
