package awlsmith.server.proofs;

import awlsmith.media.Clip;
import awlsmith.render.Comparison;
import awlsmith.render.Machine;
import awlsmith.render.RenderWatch;
import awlsmith.server.clips.Clips;
import awlsmith.server.events.EventHub;
import awlsmith.server.jobs.Job;
import awlsmith.server.jobs.JobRun;
import awlsmith.server.jobs.Jobs;
import awlsmith.server.jobs.Lane;
import awlsmith.server.stills.Stills;
import awlsmith.server.storage.MediaFolder;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import javax.imageio.ImageIO;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Makes moving comparisons of proofs to pass on. What is asked for lies as a file of captions beside where it will be. */
@Component
class Comparisons implements Job {
    private static final String KIND = "comparison";

    private final ProofRepository proofs;
    private final ProofFiles files;
    private final Clips clips;
    private final Stills stills;
    private final Machine machine;
    private final EventHub events;
    private final Jobs jobs;
    /** Those made or being made since the server started, by proof. */
    private final Map<UUID, ProofView.ComparisonView> known = new ConcurrentHashMap<>();

    Comparisons(
            ProofRepository proofs,
            ProofFiles files,
            Clips clips,
            Stills stills,
            Machine machine,
            EventHub events,
            Jobs jobs) {
        this.proofs = proofs;
        this.files = files;
        this.clips = clips;
        this.stills = stills;
        this.machine = machine;
        this.events = events;
        this.jobs = jobs;
    }

    void want(ProofView proof, Comparison.Look look, byte @Nullable [] captions) throws IOException {
        Files.write(files.captions(proof, look), captions == null ? new byte[0] : captions);
        tell(proof, look, 0, false, null);
        jobs.want(KIND, id(proof, look));
    }

    private static String id(ProofView proof, Comparison.Look look) {
        return proof.id() + "/" + ProofFiles.word(look);
    }

    /** How the comparison of a proof stands, if there is one. */
    ProofView.@Nullable ComparisonView of(ProofView proof) {
        ProofView.ComparisonView comparison = known.get(proof.id());
        return comparison != null ? comparison : made(proof);
    }

    /** One that was made before the server started. */
    private ProofView.@Nullable ComparisonView made(ProofView proof) {
        for (Comparison.Look look : Comparison.Look.values()) {
            if (Files.exists(files.comparison(proof, ProofFiles.word(look)))) {
                return new ProofView.ComparisonView(ProofFiles.word(look), proof.framesDone(), true, null);
            }
        }
        return null;
    }

    /** Gives up one that waits or is being made. */
    void stop(ProofView proof) {
        ProofView.ComparisonView now = known.get(proof.id());
        if (now != null && now.ready()) {
            return;
        }
        for (Comparison.Look look : Comparison.Look.values()) {
            MediaFolder.remove(files.captions(proof, look));
            jobs.stop(KIND, id(proof, look));
        }
        known.remove(proof.id());
    }

    /** Forgets all that was made of a proof that is thrown away. */
    void forget(ProofView proof) {
        for (Comparison.Look look : Comparison.Look.values()) {
            MediaFolder.remove(files.captions(proof, look));
            jobs.stop(KIND, id(proof, look));
            jobs.await(KIND, id(proof, look));
            MediaFolder.remove(files.comparison(proof, ProofFiles.word(look)));
            MediaFolder.remove(growing(proof, look));
        }
        known.remove(proof.id());
    }

    private Path growing(ProofView proof, Comparison.Look look) {
        return files.comparison(proof, ProofFiles.word(look) + ".growing");
    }

    private void tell(ProofView proof, Comparison.Look look, int done, boolean ready, @Nullable String problem) {
        known.put(proof.id(), new ProofView.ComparisonView(ProofFiles.word(look), done, ready, problem));
        publish(proof);
    }

    private void publish(ProofView proof) {
        events.publish("proof", proof.with(of(proof)));
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public Lane lane() {
        return Lane.PROOF;
    }

    private record Asked(ProofView proof, Comparison.Look look) {}

    private Optional<Asked> asked(String id) {
        String[] parts = id.split("/");
        return proofs.find(UUID.fromString(parts[0])).map(proof -> {
            var look = "wipe".equals(parts[1]) ? Comparison.Look.WIPE : Comparison.Look.PAIR;
            return new Asked(proof, look);
        });
    }

    @Override
    public void run(String id, JobRun run) throws IOException {
        Optional<Asked> asked = asked(id);
        if (asked.isEmpty()
                || !Files.exists(files.captions(asked.get().proof(), asked.get().look()))) {
            // given up while it waited for its turn
            return;
        }
        ProofView proof = asked.get().proof();
        Comparison.Look look = asked.get().look();
        Path growing = growing(proof, look);
        try {
            byte[] captions = Files.readAllBytes(files.captions(proof, look));
            BufferedImage strip = captions.length == 0 ? null : ImageIO.read(new ByteArrayInputStream(captions));
            Clip clip = files.open(proof.clipId(), proof.id(), run.cancel());
            stills.urgent(() -> {
                new Comparison(clip, look, strip)
                        .make(
                                growing,
                                proof.framesDone(),
                                files.rate(clips.open(proof.clipId()), proof),
                                proof.sound(),
                                machine,
                                new Watch(proof, look, run),
                                run.cancel());
                return null;
            });
            Files.move(growing, files.comparison(proof, ProofFiles.word(look)), StandardCopyOption.REPLACE_EXISTING);
            MediaFolder.remove(files.captions(proof, look));
            tell(proof, look, proof.framesDone(), true, null);
        } finally {
            MediaFolder.remove(growing);
        }
    }

    @Override
    public void stopped(String id, JobRun run) {
        asked(id).ifPresent(asked -> {
            MediaFolder.remove(files.captions(asked.proof(), asked.look()));
            known.remove(asked.proof().id());
            publish(asked.proof());
        });
    }

    @Override
    public void failed(String id, JobRun run, String sentence) {
        asked(id).ifPresent(asked -> {
            MediaFolder.remove(files.captions(asked.proof(), asked.look()));
            tell(asked.proof(), asked.look(), 0, false, sentence);
        });
    }

    @Override
    public String fault() {
        return "the comparison could not be made; the log says what. Try it again";
    }

    private final class Watch implements RenderWatch {
        private final ProofView proof;
        private final Comparison.Look look;
        private final JobRun run;

        Watch(ProofView proof, Comparison.Look look, JobRun run) {
            this.proof = proof;
            this.look = look;
            this.run = run;
        }

        @Override
        public void giveWay() {
            stills.awaitLooking(run.cancel());
        }

        @Override
        public void frames(long done, Shares shares) {
            run.tell(() -> tell(proof, look, (int) done, false, null));
        }
    }
}
