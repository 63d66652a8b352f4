package awlsmith.server.machine;

import awlsmith.core.model.Models;
import awlsmith.core.model.NetForm;
import awlsmith.render.Machine;
import awlsmith.server.problem.Refusal;
import awlsmith.server.settings.SettingRepository;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Service;

/** What of this machine the work may use, as somebody chose it on the screen; holds over restarts. */
@Service
public class MachineShares {
    private static final Logger LOG = LoggerFactory.getLogger(MachineShares.class);
    private static final String NAME = "machine-share";

    private final SettingRepository settings;
    private final Machine machine;
    private final Cores cores;
    private final Presence presence;
    private volatile MachineShare share = MachineShare.ALL;

    MachineShares(SettingRepository settings, Machine machine, Cores cores, Presence presence) {
        this.settings = settings;
        this.machine = machine;
        this.cores = cores;
        this.presence = presence;
    }

    /** Before any work is begun. A machine that has changed since is used as a whole. */
    @EventListener(ApplicationReadyEvent.class)
    @Order(0)
    void begin() {
        settings.find(NAME, MachineShare.class).ifPresent(kept -> {
            try {
                apply(kept.checked());
            } catch (Refusal e) {
                LOG.warn("what was chosen of this machine does not fit it any more: {}", e.getMessage());
            }
        });
    }

    MachineShare share() {
        return share;
    }

    synchronized MachineShare set(MachineShare wanted) {
        MachineShare checked = wanted.checked();
        if (Boolean.TRUE.equals(checked.graphics())) {
            // only here: where such a processor is gone after a restart, the cores go on and it is told
            Models.noGraphics().ifPresent(why -> {
                throw new Refusal(Refusal.Kind.INVALID, "nets can only run on the cores: " + why);
            });
        }
        apply(checked);
        settings.save(NAME, checked);
        return checked;
    }

    private void apply(MachineShare wanted) {
        if (wanted.cores() != null) {
            cores.use(CoreList.parse(wanted.cores()));
        } else if (share.cores() != null) {
            cores.use(cores.allowed());
        }
        machine.budget().lend(wanted.memory());
        if (wanted.graphics() != null) {
            Models.useGraphics(wanted.graphics());
        }
        share = wanted;
    }

    /** Share of the time that a render works just now, 0..1. */
    public double ofTheTime() {
        return presence.isSomebody() ? share.whileWorking() : 1;
    }

    /** What work runs on, in a few words. @param form of its nets */
    public String words(NetForm form) {
        int all = Runtime.getRuntime().availableProcessors();
        String cores = all == 1 ? "1 core" : all + " cores";
        return form == NetForm.GRAPHICS ? cores + ", nets on the graphics processor" : cores;
    }
}
