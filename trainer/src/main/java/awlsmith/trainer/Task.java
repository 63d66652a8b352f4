package awlsmith.trainer;

import awlsmith.core.clean.DenoiseStage;
import awlsmith.core.clean.RepairStage;
import awlsmith.core.fields.FieldsAround;
import awlsmith.core.model.ModelCard;
import awlsmith.core.resample.Kernel;
import awlsmith.footage.Drawings;
import awlsmith.footage.PackageCache;
import awlsmith.footage.PictureSet;
import awlsmith.trainer.pairs.Coded;
import awlsmith.trainer.pairs.Dulled;
import awlsmith.trainer.pairs.Generated;
import awlsmith.trainer.pairs.Noisy;
import awlsmith.trainer.pairs.PairMaker;
import awlsmith.trainer.pairs.Patches;
import awlsmith.trainer.pairs.Reduced;
import awlsmith.trainer.pairs.Softened;
import awlsmith.trainer.pairs.Worn;
import awlsmith.trainer.pairs.Woven;
import awlsmith.trainer.pictures.Photographs;
import java.io.IOException;
import java.util.Arrays;
import java.util.List;

/** What a model learns to undo, and on what. */
enum Task {
    PHOTOGRAPHIC(
            "photographic",
            "Photographic",
            "camera footage that is clean or lightly compressed",
            List.of(new Reduced(List.of(Kernel.CATMULL_ROM, Kernel.CATMULL_ROM, Kernel.AREA)))),
    WORN("worn", "Worn", "camera footage that is noisy, soft or compressed", List.of(new Worn(1))),
    GENERATED(
            "generated",
            "Generated",
            "clips a program made: too smooth, texture that swims, edges that wobble",
            List.of(new Generated(5))),
    DRAWN(
            "drawn",
            "Drawn",
            "drawn films, titles and screens: flat colours and lines",
            List.of(new Reduced(List.of(Kernel.CATMULL_ROM, Kernel.AREA)))),
    FIELDS("fields", "Fields", "woven fields of tape and broadcast", List.of(new Woven())),
    NOISY("noisy", "Noisy", "noise and grain of cameras and film", List.of(new Noisy())),
    CODED("coded", "Coded", "what lossy codecs leave: blocks, rings, loss of detail", List.of(new Coded())),
    DULLED("dulled", "Dulled", "soft footage, worn or not, that keeps its size", List.of(new Dulled()));

    private static final int DRAWN_SHEETS = 90;

    private final String id;
    private final String label;
    private final String purpose;
    private final List<PairMaker> makers;

    Task(String id, String label, String purpose, List<PairMaker> makers) {
        this.id = id;
        this.label = label;
        this.purpose = purpose;
        this.makers = makers;
    }

    static Task byId(String id) {
        return Arrays.stream(values())
                .filter(task -> task.id.equals(id))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("there is no task '" + id + "'; there are "
                        + String.join(
                                ", ", Arrays.stream(values()).map(t -> t.id).toList())));
    }

    PictureSet pictures(PackageCache packages, long seed) throws IOException {
        return this == DRAWN ? Drawings.load(packages, DRAWN_SHEETS, seed) : Photographs.load(packages);
    }

    String id() {
        return id;
    }

    /** What its models do. */
    ModelCard.Job job() {
        return switch (this) {
            case FIELDS -> ModelCard.Job.FIELDS;
            case NOISY -> ModelCard.Job.DENOISE;
            case CODED -> ModelCard.Job.REPAIR;
            case DULLED -> ModelCard.Job.REFINE;
            default -> ModelCard.Job.ENLARGE;
        };
    }

    int factor() {
        return job() == ModelCard.Job.ENLARGE ? 2 : 1;
    }

    /** Planes that its models read. */
    int planes(ModelCard.Mode mode) {
        return switch (this) {
            case FIELDS -> FieldsAround.SEEN;
            case NOISY -> DenoiseStage.SHOWN;
            case CODED -> RepairStage.SHOWN;
            case DULLED -> RepairStage.SHOWN_SOFT;
            default -> frames(mode) + (isTold(mode) ? 1 : 0);
        };
    }

    /** Whether its models can be told how soft the footage is. */
    boolean isTold(ModelCard.Mode mode) {
        return isClean() || this == PHOTOGRAPHIC && mode != ModelCard.Mode.FAST;
    }

    /** Frames that its enlarging models read: where footage is worn, what one frame lost another may still have. */
    int frames(ModelCard.Mode mode) {
        return isClean() || this == GENERATED || this == WORN && mode != ModelCard.Mode.FAST ? 5 : 1;
    }

    /** Share of flat patches it learns from: what takes noise and blocks away must leave clean surfaces clean. */
    double flat() {
        return isClean() ? 1 : Patches.FEW_FLAT;
    }

    /** Whether its models give the picture back at its own size, told what was done to it. */
    private boolean isClean() {
        return this == NOISY || this == CODED || this == DULLED;
    }

    /** What a model's gain is told over. */
    String rival() {
        return switch (this) {
            case FIELDS -> "the rule without a net";
            case NOISY -> "the cleaning without a net";
            case CODED -> "the picture as it was decoded";
            case DULLED -> "the picture as it came";
            default -> "Lanczos";
        };
    }

    /** Name of a model's file, without its ending. */
    String file(ModelCard.Mode mode) {
        String size = job() == ModelCard.Job.ENLARGE ? "-" + factor() + "x" : "";
        return id + size + (mode == ModelCard.Mode.QUALITY ? "" : "-" + mode.id());
    }

    String label() {
        return label;
    }

    String purpose() {
        return purpose;
    }

    List<PairMaker> makers(ModelCard.Mode mode) {
        if (this == WORN && frames(mode) > 1) {
            return List.of(new Worn(frames(mode)));
        }
        return this == PHOTOGRAPHIC && isTold(mode) ? List.of(new Softened()) : makers;
    }
}
