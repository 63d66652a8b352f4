package awlsmith.server.peeks;

import awlsmith.core.picture.PlanePool;
import awlsmith.core.picture.RawLayout;
import awlsmith.core.pipeline.Cancel;
import awlsmith.media.Clip;
import awlsmith.media.MediaException;
import awlsmith.render.Machine;
import awlsmith.render.Peeks;
import awlsmith.server.clips.ClipView;
import awlsmith.server.clips.Clips;
import awlsmith.server.jobs.Job;
import awlsmith.server.jobs.JobRun;
import awlsmith.server.jobs.Jobs;
import awlsmith.server.jobs.Lane;
import awlsmith.server.problem.Refusal;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Makes a clip's small pictures in the background, after it was taken in or when they are missed. */
@Component
public class PeekPictures implements Job {
    private static final String KIND = "peeks";

    private static final Logger LOG = LoggerFactory.getLogger(PeekPictures.class);
    /** Of one picture, well meant. */
    private static final long BYTES = 30_000;

    private final Clips clips;
    private final Stills stills;
    private final MediaFolder media;
    private final Machine machine;
    private final Jobs jobs;
    /** How far those are that are made just now. */
    private final Map<UUID, Double> shares = new ConcurrentHashMap<>();
    /** Those that could not be made are not tried again before the next start. */
    private final Map<UUID, Boolean> hopeless = new ConcurrentHashMap<>();

    PeekPictures(Clips clips, Stills stills, MediaFolder media, Machine machine, Jobs jobs) {
        this.clips = clips;
        this.stills = stills;
        this.media = media;
        this.machine = machine;
        this.jobs = jobs;
    }

    /** In the transaction that makes the clip ready. */
    @EventListener
    void first(Clips.Ready event) {
        jobs.want(KIND, event.id().toString());
    }

    /** What there is; what is missing is asked for. */
    PeeksView view(UUID id) {
        ClipView clip = clips.view(id);
        Optional<Peeks> made = Peeks.in(media.clip(id));
        if (made.isPresent()) {
            return PeeksView.of(made.get());
        }
        if (clip.state() == ClipView.State.READY && !hopeless.containsKey(id)) {
            jobs.want(KIND, id.toString());
        }
        return PeeksView.none(shares.getOrDefault(id, 0.0), !hopeless.containsKey(id));
    }

    byte[] picture(UUID id, int number) throws IOException {
        clips.view(id);
        Peeks peeks = Peeks.in(media.clip(id)).orElseThrow(() -> Refusal.unknown("this picture"));
        if (number < 0 || number >= peeks.count()) {
            throw Refusal.unknown("this picture");
        }
        return peeks.picture(number);
    }

    @EventListener
    void gone(Clips.Removed event) {
        jobs.stop(KIND, event.id().toString());
        jobs.await(KIND, event.id().toString());
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Lane lane() {
        return Lane.LOOK;
    }

    @Override
    public void run(String id, JobRun run) throws IOException {
        UUID clip = UUID.fromString(id);
        Path folder = media.clip(clip);
        if (Peeks.in(folder).isPresent()) {
            return;
        }
        try {
            make(clip, clips.open(clip), folder, run.cancel());
        } catch (NoSuchFileException e) {
            throw new MediaException("the clip's folder is gone", e);
        } finally {
            shares.remove(clip);
        }
    }

    @Override
    public void failed(String id, JobRun run, String sentence) {
        LOG.info("a clip gets no small pictures: {}", sentence);
        hopeless.put(UUID.fromString(id), true);
    }

    @Override
    public String fault() {
        return "of a fault inside Awlsmith";
    }

    private void make(UUID id, Clip clip, Path folder, Cancel cancel) throws IOException {
        int frames = clip.index().orElseThrow().count();
        media.demandSpace(BYTES * Math.min(frames, Peeks.MOST));
        var pool = new PlanePool(1L << 26);
        long bytes = 2 * clip.format().floatBytes() + 2L * new RawLayout(clip.format()).frameBytes();
        try (var _ = machine.budget().takeBehind(bytes, cancel)) {
            peeks(id, clip, folder, frames, pool, cancel);
        }
    }

    private void peeks(UUID id, Clip clip, Path folder, int frames, PlanePool pool, Cancel cancel) throws IOException {
        Peeks.make(
                clip,
                folder,
                done -> {
                    stills.awaitUrgent(cancel);
                    shares.put(id, (double) done / frames);
                },
                pool,
                machine.work(cancel),
                cancel);
    }
}
