package awlsmith.server.machine;

import awlsmith.server.problem.Refusal;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.regex.Pattern;

/** Cores by their numbers, as Linux writes them: 0-3,6 (cpuset(7), "List format"). */
final class CoreList {
    private static final Pattern SPAN = Pattern.compile("(\\d{1,5})(?:-(\\d{1,5}))?");

    private CoreList() {}

    /** @throws Refusal where it is no such list */
    static BitSet parse(String list) {
        var cores = new BitSet();
        for (String part : list.split(",", -1)) {
            var span = SPAN.matcher(part);
            if (!span.matches()) {
                throw wrong(list);
            }
            int from = Integer.parseInt(span.group(1));
            int to = span.group(2) == null ? from : Integer.parseInt(span.group(2));
            if (to < from) {
                throw wrong(list);
            }
            cores.set(from, to + 1);
        }
        return cores;
    }

    private static Refusal wrong(String list) {
        return new Refusal(Refusal.Kind.INVALID, "\"" + list + "\" is no list of cores; write them as 0-3,6");
    }

    static String write(BitSet cores) {
        List<String> spans = new ArrayList<>();
        for (int from = cores.nextSetBit(0); from >= 0; from = cores.nextSetBit(cores.nextClearBit(from))) {
            int to = cores.nextClearBit(from) - 1;
            spans.add(from == to ? Integer.toString(from) : from + "-" + to);
        }
        return String.join(",", spans);
    }
}
