package awlsmith.server.machine;

import awlsmith.media.Affinity;
import awlsmith.server.problem.Refusal;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.BitSet;
import org.springframework.stereotype.Component;

/** The cores this process, and what it starts, may run on; changed while it runs. */
@Component
class Cores {
    /** Those it was started on; more are not ours to take. */
    private static final BitSet ALLOWED = now();

    /** Empty where the system does not tell. */
    static BitSet now() {
        try (var lines = Files.lines(Path.of("/proc/self/status"))) {
            return lines.filter(line -> line.startsWith("Cpus_allowed_list:"))
                    .findFirst()
                    .map(line ->
                            CoreList.parse(line.substring(line.indexOf(':') + 1).strip()))
                    .orElseGet(BitSet::new);
        } catch (IOException e) {
            return new BitSet();
        }
    }

    BitSet allowed() {
        return (BitSet) ALLOWED.clone();
    }

    /**
     * From now on all threads of this process, and all it has started and will start, run on these.
     *
     * @throws Refusal where some are not there, or the system does not let it
     */
    void use(BitSet cores) {
        if (ALLOWED.isEmpty()) {
            throw new Refusal(Refusal.Kind.CONFLICT, "this system does not tell which cores there are; choose all");
        }
        var wanted = (BitSet) cores.clone();
        wanted.andNot(ALLOWED);
        if (cores.isEmpty() || !wanted.isEmpty()) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "core " + CoreList.write(wanted) + " is not among those it was started on: "
                            + CoreList.write(ALLOWED));
        }
        if (cores.equals(now())) {
            return;
        }
        if (!Affinity.set(CoreList.write(cores)) || !cores.equals(now())) {
            throw new Refusal(
                    Refusal.Kind.CONFLICT,
                    "the system did not let it change its cores; util-linux's taskset does that");
        }
    }
}
