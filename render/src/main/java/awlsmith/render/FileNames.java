package awlsmith.render;

import awlsmith.core.picture.Format;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Tags;
import awlsmith.media.MediaException;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What files that are sent out are called: by a pattern with words in braces, or as somebody typed it. */
public final class FileNames {
    /** Clip, take and size tell apart what one clip is sent out as. */
    public static final String USUAL = "{clip} {take} {size}";

    private static final int LONGEST = 150;
    private static final int LONGEST_CLIP = 120;
    /** What some file system does not take in a name. */
    private static final String FORBIDDEN = "/\\:*?\"<>|";

    private static final List<String> WORDS =
            List.of("clip", "take", "size", "lines", "rate", "codec", "depth", "date", "number");

    private static final Pattern ENDING = Pattern.compile("\\.[A-Za-z0-9]{2,4}$");
    private static final Pattern WORD = Pattern.compile("\\{([^{}]*)}");

    private FileNames() {}

    /**
     * What words stand for.
     *
     * @param made format of the pictures; @param rate frames a second
     * @param number in its batch, from 1
     */
    public record Facts(
            String clip, String take, Format made, double rate, Deliverable deliverable, LocalDate today, int number) {
        private Map<String, String> words() {
            var words = new LinkedHashMap<String, String>();
            String clean = clip.replaceAll("[^\\p{L}\\p{N} ._-]", "_")
                    .transform(name -> ENDING.matcher(name).replaceAll(""))
                    .replaceAll("^\\.", "_");
            words.put("clip", clean.length() > LONGEST_CLIP ? clean.substring(0, LONGEST_CLIP) : clean);
            words.put("take", take.replaceAll("[^\\p{L}\\p{N} ._-]", "_"));
            words.put("size", made.width() + "x" + made.height());
            words.put("lines", Integer.toString(made.height()));
            double whole = Math.rint(rate * 100) / 100;
            words.put("rate", whole == Math.rint(whole) ? Long.toString((long) whole) : Double.toString(whole));
            words.put("codec", deliverable.codec().label().replace(".", ""));
            words.put("depth", Integer.toString(made.depth()));
            words.put("date", today.toString());
            words.put("number", String.format(Locale.ROOT, "%03d", number));
            return words;
        }
    }

    /**
     * @param pattern with words in braces
     * @param taken names that are there already: a number tells the new one apart
     * @throws MediaException when a word is unknown, or nothing that can be a name comes of it
     */
    public static String of(String pattern, Facts facts, Set<String> taken) {
        String name = filled(pattern, facts.words());
        String ending = "." + facts.deliverable().container().ending();
        return free(checked(name, ending), ending, taken);
    }

    private static String filled(String pattern, Map<String, String> words) {
        var text = new StringBuilder();
        Matcher found = WORD.matcher(pattern);
        while (found.find()) {
            String value = Optional.ofNullable(words.get(found.group(1))).orElseThrow(() -> unknown(found.group(1)));
            found.appendReplacement(text, Matcher.quoteReplacement(value));
        }
        found.appendTail(text);
        return text.toString();
    }

    /**
     * What a file says of itself, with the same words in braces.
     *
     * @throws MediaException when a word is unknown
     */
    public static Tags told(Tags tags, Facts facts) {
        Map<String, String> words = facts.words();
        // no name of a file: nothing is forbidden in it
        words.put("clip", ENDING.matcher(facts.clip()).replaceAll(""));
        var told = new LinkedHashMap<String, String>();
        tags.values().forEach((key, pattern) -> told.put(key, filled(pattern, words)));
        return new Tags(told);
    }

    /**
     * Looks at a pattern before there is anything to be named by it.
     *
     * @throws MediaException as {@link #of} does
     */
    public static void check(String pattern) {
        checkWords(pattern);
        checked(WORD.matcher(pattern).replaceAll("x"), "");
    }

    /**
     * Looks at what files are to say of themselves before there is any.
     *
     * @throws MediaException when a word is unknown
     */
    public static void check(Tags tags) {
        tags.values().values().forEach(FileNames::checkWords);
    }

    private static void checkWords(String pattern) {
        Matcher found = WORD.matcher(pattern);
        while (found.find()) {
            if (!WORDS.contains(found.group(1))) {
                throw unknown(found.group(1));
            }
        }
    }

    private static MediaException unknown(String word) {
        return new MediaException(
                "{" + word + "} means nothing in a name; there are: {" + String.join("}, {", WORDS) + "}");
    }

    /**
     * A name that no other file has.
     *
     * @param plain without its ending; @param ending with its dot
     * @param taken names of the others, in small letters
     */
    public static String free(String plain, String ending, Set<String> taken) {
        String full = plain + ending;
        for (int n = 2; taken.contains(full.toLowerCase(Locale.ROOT)); n++) {
            full = plain + " " + n + ending;
        }
        return full;
    }

    /**
     * A name without its ending, as somebody typed it.
     *
     * @param ending with its dot
     * @throws MediaException when it cannot be one
     */
    public static String checked(String name, String ending) {
        String plain = name.strip();
        if (plain.toLowerCase(Locale.ROOT).endsWith(ending.toLowerCase(Locale.ROOT))) {
            plain = plain.substring(0, plain.length() - ending.length()).strip();
        }
        if (plain.isEmpty() || plain.length() > LONGEST) {
            throw new MediaException("a file name has 1 to " + LONGEST + " letters before its ending");
        }
        if (plain.chars().anyMatch(c -> c < ' ' || FORBIDDEN.indexOf(c) >= 0) || plain.startsWith(".")) {
            throw new MediaException("a file name cannot begin with a dot or hold any of " + FORBIDDEN);
        }
        return plain;
    }
}
