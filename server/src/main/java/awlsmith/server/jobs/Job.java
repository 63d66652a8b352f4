package awlsmith.server.jobs;

import java.io.IOException;
import java.util.List;

/**
 * A kind of work in the background. Its rows in the database say what is to be done; the engine sees to it that one process at a time
 * does it, that it can be stopped, that it goes on after a restart and is tried again when the reason was a passing one.
 */
public interface Job {
    /** A short name, unique among jobs. */
    String kind();

    Lane lane();

    /** Ids of what waits, oldest first; empty where no table tells and only the task itself does. */
    default List<String> waiting() {
        return List.of();
    }

    /** Ids of what waits or was begun, which must have a task. */
    default List<String> unfinished() {
        return waiting();
    }

    /**
     * Does it. Safe to run again, from wherever an earlier run was broken off; returns at once when there is nothing to do any more.
     *
     * @throws awlsmith.media.MediaException or {@link awlsmith.server.problem.Refusal} with a sentence when it cannot be done
     * @throws awlsmith.core.pipeline.Cancel.Stopped when stopped
     */
    void run(String id, JobRun run) throws IOException;

    /** Notes that it cannot be done; nothing when the run no longer owns it. */
    void failed(String id, JobRun run, String sentence);

    /** Notes that somebody stopped it, where that is not noted by whoever did. */
    default void stopped(String id, JobRun run) {}

    /** Tells pages how it stands, after every run. */
    default void ended(String id) {}

    /** The sentence for a picture that does not fit into memory. */
    default String tooLittleMemory() {
        return "too little memory for pictures of this size; choose a smaller size, or close other programs";
    }

    /** The sentence for a fault of ours. */
    String fault();
}
