package awlsmith.core.recipe;

import awlsmith.core.picture.Frame;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Chain;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.pipeline.FrameSource;
import awlsmith.core.pipeline.FrameStream;
import awlsmith.core.pipeline.Work;
import java.util.Map;
import java.util.Optional;

/** Makes what a treatment's steps wait for. */
public final class Analyses {
    private Analyses() {}

    /** Where what was found is kept, in its open form, by its key. */
    public interface Store {
        /** Keeps nothing. */
        Store NONE = new Store() {
            @Override
            public Optional<Map<?, ?>> find(String key) {
                return Optional.empty();
            }

            @Override
            public void keep(String key, Map<String, Object> tree) {}
        };

        Optional<Map<?, ?>> find(String key);

        void keep(String key, Map<String, Object> tree);
    }

    /** Hears how far it is. */
    @FunctionalInterface
    public interface Watch {
        /** @param doing the analysis' words; @param frames seen so far */
        void seen(String doing, long frames);
    }

    /** The treatment with what the store holds; it may still wait for more. */
    public static Treatment known(Treatment treatment, Store store) {
        Treatment now = treatment;
        boolean more = true;
        while (more) {
            Findings findings = now.material().findings();
            more = false;
            for (Treatment.Missing<?> missing : now.missing()) {
                Optional<?> found = read(missing, store);
                if (found.isPresent()) {
                    findings = findings.with(missing.key(), found.get());
                    more = true;
                }
            }
            now = more ? now.with(findings) : now;
        }
        return now;
    }

    private static <T> Optional<T> read(Treatment.Missing<T> missing, Store store) {
        try {
            return store.find(missing.key()).map(missing.analysis()::fromTree);
        } catch (IllegalArgumentException e) {
            // of another version, or damaged: it is made anew
            return Optional.empty();
        }
    }

    /**
     * Makes all that is missing, one analysis after the other, each of every frame that reaches its step.
     *
     * @throws awlsmith.core.pipeline.Cancel.Stopped when asked to stop; those that are whole are kept
     */
    public static Treatment complete(
            Treatment treatment, FrameSource clip, Store store, PlanePool pool, Work work, Watch watch) {
        Treatment now = known(treatment, store);
        while (!now.missing().isEmpty()) {
            now = first(now, clip, store, pool, work, watch);
        }
        return now;
    }

    /** Makes the first that is missing. */
    public static Treatment first(
            Treatment treatment, FrameSource clip, Store store, PlanePool pool, Work work, Watch watch) {
        Treatment.Missing<?> missing = treatment.missing().getFirst();
        return known(made(treatment, missing, clip, store, pool, work, watch), store);
    }

    private static <T> Treatment made(
            Treatment treatment,
            Treatment.Missing<T> missing,
            FrameSource clip,
            Store store,
            PlanePool pool,
            Work work,
            Watch watch) {
        Treatment before = treatment.prefix(missing.step());
        Chain chain = before.chain();
        Analysis.Fold<T> fold = missing.analysis().begin(before.output(), before.times());
        long seen = 0;
        try (FrameStream stream =
                chain.open(clip, FrameRange.all(), chain.output().whole(), pool, work)) {
            for (Optional<Frame> frame = stream.next(); frame.isPresent(); frame = stream.next()) {
                work.cancel().check();
                fold.see(frame.get(), work);
                frame.get().release(pool);
                watch.seen(missing.analysis().doing(), ++seen);
            }
        }
        T found = fold.found();
        store.keep(missing.key(), missing.analysis().toTree(found));
        return treatment.with(treatment.material().findings().with(missing.key(), found));
    }
}
