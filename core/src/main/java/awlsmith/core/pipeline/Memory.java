package awlsmith.core.pipeline;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Supplier;

/** What one stage found out of the frames of one stream, as long as it holds them. */
final class Memory {
    private final Map<Key, Object> kept = new HashMap<>();

    private record Key(long frame, String what) {}

    @SuppressWarnings("unchecked")
    synchronized <T> T of(long frame, String what, Supplier<T> make) {
        var key = new Key(frame, what);
        Object known = kept.get(key);
        if (known == null) {
            // what is made may itself be made of things remembered
            known = make.get();
            kept.put(key, known);
        }
        return (T) known;
    }

    /** Of frames before this one nothing is kept. */
    synchronized void forgetBefore(long frame) {
        kept.keySet().removeIf(key -> key.frame() < frame);
    }
}
