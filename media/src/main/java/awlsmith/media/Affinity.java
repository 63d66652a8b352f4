package awlsmith.media;

import java.io.IOException;
import java.util.concurrent.TimeUnit;

/** The cores that processes run on, changed while they run by util-linux's taskset. */
public final class Affinity {
    private static final int LONGEST_SECONDS = 10;

    private Affinity() {}

    /**
     * From now on this process, with all its threads, and all it has started and will start run on these.
     *
     * @param cores as taskset takes them, 0-3,6
     * @return whether the system lets this process do so; a child that has just ended is no fault
     */
    public static boolean set(String cores) {
        var self = ProcessHandle.current();
        boolean done = set(self, cores);
        if (done) {
            self.descendants().forEach(child -> set(child, cores));
        }
        return done;
    }

    private static boolean set(ProcessHandle process, String cores) {
        try {
            Process taskset = new ProcessBuilder("taskset", "-acp", cores, Long.toString(process.pid()))
                    .redirectErrorStream(true)
                    .start();
            taskset.getInputStream().readAllBytes();
            return taskset.waitFor(LONGEST_SECONDS, TimeUnit.SECONDS) && taskset.exitValue() == 0;
        } catch (IOException e) {
            return false;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }
}
