package awlsmith.server.stills;

import awlsmith.core.picture.Region;
import awlsmith.core.recipe.Recipe;
import awlsmith.render.Machine;
import awlsmith.server.clips.Clips;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Pictures that were sent lately, packed; going back to one costs nothing. */
@Component
class StillCache {
    private static final long MOST_BYTES = Machine.forCache(96L << 20, 0.03);

    record Key(
            UUID clip,
            Recipe recipe,
            String waits,
            long number,
            int later,
            @Nullable Region part,
            int reduce,
            boolean marked) {}

    private final Map<Key, byte[]> held = new LinkedHashMap<>(64, 0.75f, true);
    private long heldBytes;

    synchronized byte @Nullable [] find(Key key) {
        return held.get(key);
    }

    synchronized void keep(Key key, byte[] png) {
        byte[] before = held.put(key, png);
        heldBytes += png.length - (before == null ? 0 : before.length);
        var oldest = held.entrySet().iterator();
        while (heldBytes > MOST_BYTES && oldest.hasNext()) {
            heldBytes -= oldest.next().getValue().length;
            oldest.remove();
        }
    }

    @EventListener
    synchronized void forget(Clips.Removing event) {
        held.entrySet().removeIf(entry -> {
            boolean goes = entry.getKey().clip().equals(event.id());
            heldBytes -= goes ? entry.getValue().length : 0;
            return goes;
        });
    }
}
