package awlsmith.server.machine;

import awlsmith.core.model.Models;
import awlsmith.media.HardwareCoders;
import awlsmith.render.Machine;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What the work runs on, over HTTP. */
@RestController
class MachineController {
    private final Machine machine;
    private final MachineShares shares;
    private final Cores cores;

    MachineController(Machine machine, MachineShares shares, Cores cores) {
        this.machine = machine;
        this.shares = shares;
        this.cores = cores;
    }

    /**
     * @param cores used at once
     * @param memoryBytes one render may hold
     * @param nets what nets run on, in a few words
     * @param graphics whether they are to run on a graphics processor
     * @param noGraphics why they cannot run on a graphics processor here, in a sentence; null where they can
     * @param coding what codes pictures, in a few words
     * @param there the cores it was started on, as 0-3,6; empty where the system does not tell
     * @param mostBytes that all work could hold together
     * @param share of it all that may be used
     */
    record MachineView(
            int cores,
            long memoryBytes,
            String nets,
            boolean graphics,
            @Nullable String noGraphics,
            String coding,
            String there,
            long mostBytes,
            Share share) {}

    /** {@link MachineShare} */
    record Share(
            @Nullable String cores,
            double memory,
            double whileWorking,
            @Nullable Boolean graphics) {}

    @GetMapping("/api/machine")
    MachineView machine() {
        MachineShare share = shares.share();
        return new MachineView(
                Runtime.getRuntime().availableProcessors(),
                machine.memoryLimit(),
                Models.processor(),
                Models.isGraphicsWanted(),
                Models.noGraphics().orElse(null),
                HardwareCoders.words(),
                CoreList.write(cores.allowed()),
                machine.budget().whole(),
                new Share(share.cores(), share.memory(), share.whileWorking(), share.graphics()));
    }

    /** Holds from now on, for what runs too, and over restarts. */
    @PutMapping("/api/machine")
    MachineView share(@RequestBody Share wanted) {
        shares.set(new MachineShare(wanted.cores(), wanted.memory(), wanted.whileWorking(), wanted.graphics()));
        return machine();
    }
}
