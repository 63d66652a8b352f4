package awlsmith.server.proofs;

import awlsmith.core.picture.Rational;
import awlsmith.core.pipeline.Cancel;
import awlsmith.core.recipe.Recipe;
import awlsmith.media.Clip;
import awlsmith.media.Indexer;
import awlsmith.media.MediaException;
import awlsmith.media.MediaInfo;
import awlsmith.media.Prober;
import awlsmith.render.Comparison;
import awlsmith.server.storage.MediaFolder;
import awlsmith.server.treatments.Treatments;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Where proofs and what was made of them lie. */
@Component
class ProofFiles {
    private final MediaFolder media;
    private final Treatments treatments;

    ProofFiles(MediaFolder media, Treatments treatments) {
        this.treatments = treatments;
        this.media = media;
    }

    static String word(Comparison.Look look) {
        return look.name().toLowerCase(Locale.ROOT);
    }

    private Path file(UUID clip, String name) {
        return media.clip(clip).resolve("proofs").resolve(name);
    }

    Path of(ProofView proof) {
        return file(proof.clipId(), proof.id() + ".mp4");
    }

    /** @param look wipe or pair */
    Path comparison(ProofView proof, String look) {
        return file(proof.clipId(), proof.id() + "-" + look + ".mp4");
    }

    /** The captions of a comparison that is to be made, beside where it will lie: so they are known after a restart. */
    Path captions(ProofView proof, Comparison.Look look) {
        return file(proof.clipId(), proof.id() + "-" + word(look) + ".asked");
    }

    /** Frames a second of the proof's file. */
    Rational rate(Clip clip, ProofView proof) {
        Rational speed = treatments
                .of(proof.clipId(), clip, Recipe.fromTree(proof.recipe()))
                .chain()
                .speed();
        Rational span = clip.time(proof.endFrame()).minus(clip.time(proof.fromFrame()));
        return Rational.of(proof.frames()).times(speed).dividedBy(span);
    }

    /** A finished one, to pull frames from. */
    Clip open(UUID clip, UUID proof, Cancel cancel) {
        Path file = file(clip, proof + ".mp4");
        if (!Files.exists(file)) {
            throw new MediaException("one of the two proofs was thrown away; prove again");
        }
        MediaInfo info = Prober.probe(file);
        return new Clip(info, Optional.of(Indexer.index(info, n -> {}, cancel)));
    }
}
