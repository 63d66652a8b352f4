package awlsmith.server.machine;

import awlsmith.server.problem.Refusal;
import org.jspecify.annotations.Nullable;

/**
 * What of this machine the work may use.
 *
 * @param cores as numbers and spans, "0-3,6"; null for all that it was started on
 * @param memory share of what it may hold at most, above 0 and up to 1
 * @param graphics whether nets run on the graphics processor, all else on the cores beside it; null for what it was started with
 * @param whileWorking share of the time that a render works while somebody is at the screens, 0 (it waits) to 1
 */
record MachineShare(
        @Nullable String cores,
        double memory,
        double whileWorking,
        @Nullable Boolean graphics) {
    static final MachineShare ALL = new MachineShare(null, 1, 1, null);

    private static final double LEAST_MEMORY = 0.05;
    private static final int LONGEST_LIST = 200;

    /** @throws Refusal where it is none */
    MachineShare checked() {
        if (!(memory >= LEAST_MEMORY && memory <= 1)) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "memory is a share from 0.05 to 1 of what may be held at most, not " + memory);
        }
        if (!(whileWorking >= 0 && whileWorking <= 1)) {
            throw new Refusal(
                    Refusal.Kind.INVALID,
                    "while somebody works, renders take a share from 0 to 1 of the time, not " + whileWorking);
        }
        if (cores == null || cores.isBlank()) {
            return new MachineShare(null, memory, whileWorking, graphics);
        }
        String list = cores.replace(" ", "");
        if (list.length() > LONGEST_LIST) {
            throw new Refusal(Refusal.Kind.INVALID, "that list of cores is too long; write spans, such as 0-15");
        }
        CoreList.parse(list);
        return new MachineShare(list, memory, whileWorking, graphics);
    }
}
