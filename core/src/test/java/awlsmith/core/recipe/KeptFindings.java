package awlsmith.core.recipe;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Findings kept as long as a test lasts, in their open form. */
public final class KeptFindings implements Analyses.Store {
    private final Map<String, Map<?, ?>> trees = new HashMap<>();

    @Override
    public Optional<Map<?, ?>> find(String key) {
        return Optional.ofNullable(trees.get(key));
    }

    @Override
    public void keep(String key, Map<String, Object> tree) {
        trees.put(key, tree);
    }

    public int count() {
        return trees.size();
    }

    /** Puts another tree in place of each. */
    public void replaceAll(Map<?, ?> tree) {
        trees.replaceAll((key, kept) -> tree);
    }
}
