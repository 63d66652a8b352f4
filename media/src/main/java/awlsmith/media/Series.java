package awlsmith.media;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * Pictures whose names differ in one number alone: the frames of one clip.
 *
 * @param name that they share, without the number
 * @param ending that they share, without its dot, in small letters
 * @param pictures by rising number
 */
public record Series(String name, String ending, List<Picture> pictures) {
    /** Fewer are pictures that happen to be numbered. */
    public static final int LEAST = 3;

    private static final Pattern NUMBERED =
            Pattern.compile("(.*?)(\\d{1,9})\\.(png|jpe?g|tiff?|webp)", Pattern.CASE_INSENSITIVE);

    /** @param file its name */
    public record Picture(String file, int number) {}

    public Series {
        pictures = List.copyOf(pictures);
    }

    /** The series among some names of one folder; what is alone or no picture is in none. */
    public static List<Series> among(List<String> names) {
        record Kind(String name, String ending) {}
        Map<Kind, List<Picture>> kinds = new LinkedHashMap<>();
        for (String file : names) {
            var parts = NUMBERED.matcher(file);
            if (parts.matches()) {
                var kind = new Kind(parts.group(1), parts.group(3).toLowerCase(Locale.ROOT));
                kinds.computeIfAbsent(kind, k -> new ArrayList<>())
                        .add(new Picture(file, Integer.parseInt(parts.group(2))));
            }
        }
        var all = new ArrayList<Series>();
        kinds.forEach((kind, pictures) -> {
            if (pictures.size() >= LEAST) {
                pictures.sort(Comparator.comparingInt(Picture::number).thenComparing(Picture::file));
                all.add(new Series(kind.name(), kind.ending(), pictures));
            }
        });
        return all;
    }

    /** Numbers between the first and the last that no picture has. */
    public List<Integer> missing() {
        var missing = new ArrayList<Integer>();
        for (int i = 1; i < pictures.size(); i++) {
            for (int n = pictures.get(i - 1).number() + 1; n < pictures.get(i).number(); n++) {
                missing.add(n);
            }
        }
        return missing;
    }

    /** Its name as a clip: what the pictures share, and the span of their numbers. */
    public String title() {
        String shared = name.replaceAll("[ _.\\-]+$", "");
        return (shared.isEmpty() ? "Pictures" : shared) + " "
                + pictures.getFirst().number() + "-" + pictures.getLast().number() + "." + ending;
    }
}
