package awlsmith.core.recipe;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;

/**
 * What was read out of files that steps work with; the last few are kept ready, since a treatment is made anew at every change of a recipe and
 * reading takes tenths of a second.
 *
 * @param <T> what files of this kind are read as
 */
final class ReadFiles<T> {
    private static final int KEPT = 8;

    private final String kind;

    // guarded by itself
    private final Map<String, T> read = new LinkedHashMap<>(KEPT, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, T> eldest) {
            return size() > KEPT;
        }
    };

    /** @param kind what such a file is called in sentences */
    ReadFiles(String kind) {
        this.kind = kind;
    }

    /**
     * @param form tells apart what is read of one file in several ways; empty where there is one
     * @return empty when the file is not here
     * @throws IllegalArgumentException with a sentence when it cannot be used
     */
    Optional<T> find(FileRef file, String form, SideFiles files, Function<byte[], T> reader) {
        String key = file.hash() + form;
        synchronized (read) {
            T known = read.get(key);
            if (known != null) {
                return Optional.of(known);
            }
        }
        Optional<T> made = files.content(file).map(reader);
        made.ifPresent(one -> {
            synchronized (read) {
                read.put(key, one);
            }
        });
        return made;
    }

    /** What is wrong with a step's file. @param found what {@link #find} gives for it */
    List<Problem> check(FileRef file, Supplier<Optional<T>> found) {
        try {
            return found.get().isPresent()
                    ? List.of()
                    : List.of(Problem.at(
                            "file", "the " + kind + " " + file.name() + " is not here any more; add its file again"));
        } catch (IllegalArgumentException e) {
            return List.of(Problem.at("file", file.name() + " cannot be used: " + e.getMessage()));
        }
    }
}
