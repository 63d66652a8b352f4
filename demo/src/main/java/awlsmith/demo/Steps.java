package awlsmith.demo;

import awlsmith.core.colour.LayoutStages;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Stage;
import awlsmith.core.pipeline.Work;
import awlsmith.core.resample.EnlargeStage;
import awlsmith.core.resample.Kernel;

/** A frame taken through a few stages; what lies between goes back to the pool. */
final class Steps implements AutoCloseable {
    private final PlanePool pool;
    private final Work work;
    private final Frame start;
    private Frame now;

    Steps(Frame start, PlanePool pool, Work work) {
        this.pool = pool;
        this.work = work;
        this.start = start;
        this.now = start;
    }

    Frame now() {
        return now;
    }

    void reduce(Format to, Kernel kernel) {
        step(new EnlargeStage(now.format(), to, kernel));
    }

    /** A frame of its own in the file's layout; the caller releases it. */
    Frame to(Format file) {
        for (var stage : LayoutStages.between(now.format(), file)) {
            step(stage);
        }
        Frame made = now;
        now = start;
        return made;
    }

    private void step(Stage stage) {
        Frame from = now;
        now = stage.treat(distance -> from, stage.output().whole(), pool, work);
        if (from != start) {
            from.release(pool);
        }
    }

    @Override
    public void close() {
        if (now != start) {
            now.release(pool);
        }
    }
}
