package awlsmith.server.machine;

import awlsmith.core.model.Models;
import awlsmith.render.Machine;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** What the work runs on. */
@RestController
class MachineController {
    private final Machine machine;

    MachineController(Machine machine) {
        this.machine = machine;
    }

    /**
     * @param cores used at once
     * @param memoryBytes one render may hold
     * @param nets what nets run on, in a few words, or why they cannot
     */
    record MachineView(int cores, long memoryBytes, String nets) {}

    @GetMapping("/api/machine")
    MachineView machine() {
        return new MachineView(machine.threads(), machine.memoryLimit(), Models.processor());
    }
}
