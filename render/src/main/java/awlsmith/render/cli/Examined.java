package awlsmith.render.cli;

import awlsmith.core.condition.Examiner;
import awlsmith.core.condition.Judge;
import awlsmith.core.condition.Notes;
import awlsmith.core.condition.Suggestion;
import awlsmith.core.picture.PlanePool;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaInfo;
import awlsmith.media.Rounding;
import awlsmith.media.SoundReading;
import awlsmith.render.Machine;
import java.util.Optional;
import java.util.function.LongConsumer;

/**
 * A file that was looked through from end to end.
 *
 * @param rate frames a second, in the mean
 * @param seconds that examining took, beside finding its frames
 */
record Examined(Clip clip, double rate, Judge judge, double seconds) {
    private static final long PLANES = 1L << 28;

    /** @param progress hears how many frames were seen */
    static Examined of(MediaInfo info, int threads, LongConsumer progress, Cancel cancel) {
        Clip clip = new Clip(info, Optional.of(Indexer.index(info, frames -> {}, cancel)));
        int frames = clip.index().orElseThrow().count();
        double rate = frames / Math.max(1e-3, clip.time(frames).toDouble());
        long begun = System.nanoTime();
        Notes notes;
        try (var machine = Machine.of(threads)) {
            notes = new Examiner(clip, rate, new PlanePool(PLANES)).examine(machine.work(cancel), progress);
        }
        double seconds = (System.nanoTime() - begun) / 1e9;
        return new Examined(
                clip, rate, new Judge(notes, SoundReading.check(info, cancel), Rounding.step(info, cancel)), seconds);
    }

    Suggestion suggestion() {
        return Suggestion.of(judge.condition(), clip.format(), clip.info().model(rate));
    }
}
