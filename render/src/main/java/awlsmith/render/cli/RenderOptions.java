package awlsmith.render.cli;

import awlsmith.core.picture.Rational;
import awlsmith.core.plan.Codec;
import awlsmith.core.plan.Codecs;
import awlsmith.core.plan.Container;
import awlsmith.core.plan.Deliverable;
import awlsmith.core.plan.Preset;
import awlsmith.core.plan.Sound;
import awlsmith.core.plan.Subtitles;
import awlsmith.core.plan.Tags;
import awlsmith.core.plan.Taking;
import awlsmith.core.recipe.Param;
import awlsmith.core.recipe.Recipe;
import awlsmith.core.recipe.SideFiles;
import awlsmith.core.recipe.Step;
import awlsmith.render.RecipeJson;
import awlsmith.render.Times;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * What was written behind {@code render}.
 *
 * @param in file to treat
 * @param out file to write
 * @param files that the recipe's steps name
 * @param from in point in seconds from the first frame
 * @param to out point
 * @param threads to use
 * @param overwrite whether an existing file may go
 * @param damaged whether a file that is damaged is rendered as far as it decodes
 * @param also further files of the same treatment, computed once; the codec goes by the ending
 * @param parts folder where finished parts stay, so that the next run goes on behind them
 * @param partFrames output frames to a part
 * @param describe whether only the descriptions of the missing parts are written
 */
record RenderOptions(
        Path in,
        Path out,
        Recipe recipe,
        SideFiles files,
        Optional<Rational> from,
        Optional<Rational> to,
        Deliverable deliverable,
        int threads,
        boolean overwrite,
        boolean damaged,
        List<Path> also,
        Optional<Path> parts,
        int partFrames,
        boolean describe) {

    static final String USAGE = """
            usage: awlsmith render IN OUT [--step 'NAME key=value ...']... [--recipe FILE.json] [--file NAMED-BY-IT]...
                   [--in TIME] [--out-at TIME] [--preset NAME | --codec NAME] [--KEY VALUE of the codec]...
                   [--sound kept|aac|opus|flac|pcm|none | --no-sound] [--subtitles attached|burnt|none]
                   [--tag title|artist|date|copyright|description=WORDS]...
                   [--threads N] [--force] [--damaged]
                   [--also OUT]... [--parts FOLDER [--part-frames N] [--describe]]
            'awlsmith steps' and 'awlsmith codecs' tell what there is and what can be set
            """;

    /** Frames to a part where none are told: some seconds. */
    private static final int USUAL_PART = 250;

    /** The command line makes no sense; the message says why. */
    static final class Misuse extends RuntimeException {
        Misuse(String sentence) {
            super(sentence);
        }
    }

    static RenderOptions parse(List<String> words) {
        var files = new ArrayList<String>();
        var steps = new ArrayList<Step>();
        var local = new LocalFiles();
        Rational from = null;
        Rational to = null;
        String codec = null;
        Preset preset = null;
        var settings = new TreeMap<String, String>();
        int threads = Runtime.getRuntime().availableProcessors();
        Sound sound = null;
        var subtitles = Subtitles.ATTACHED;
        boolean overwrite = false;
        boolean damaged = false;
        var also = new ArrayList<Path>();
        var tags = new TreeMap<String, String>();
        Path parts = null;
        int partFrames = USUAL_PART;
        boolean describe = false;
        for (Iterator<String> rest = words.iterator(); rest.hasNext(); ) {
            String word = rest.next();
            switch (word) {
                case "--step" -> steps.add(Step.parse(local.adopted(value(word, rest))));
                case "--file" -> local.take(value(word, rest));
                case "--recipe" -> steps.addAll(recipe(value(word, rest)).steps());
                case "--in" -> from = time(word, value(word, rest));
                case "--out-at" -> to = time(word, value(word, rest));
                case "--codec" -> codec = value(word, rest);
                case "--preset" -> preset = preset(value(word, rest));
                case "--threads" -> threads = whole(word, value(word, rest), 1, 256);
                case "--no-sound" -> sound = Sound.NONE;
                case "--sound" -> sound = sound(value(word, rest));
                case "--subtitles" -> subtitles = subtitles(value(word, rest));
                case "--tag" -> tag(value(word, rest), tags);
                case "--force" -> overwrite = true;
                case "--damaged" -> damaged = true;
                case "--also" -> also.add(path(value(word, rest)));
                case "--parts" -> parts = path(value(word, rest));
                case "--part-frames" -> partFrames = whole(word, value(word, rest), 1, 1_000_000);
                case "--describe" -> describe = true;
                default -> {
                    if (word.startsWith("--") && isOfACodec(word.substring(2))) {
                        settings.put(word.substring(2), value(word, rest));
                        continue;
                    }
                    if (word.startsWith("--")) {
                        throw new Misuse("there is no option " + word + "\n" + USAGE);
                    }
                    files.add(word);
                }
            }
        }
        if (files.size() != 2) {
            throw new Misuse("render wants a file to treat and a file to write\n" + USAGE);
        }
        if (from != null && to != null && to.compareTo(from) <= 0) {
            throw new Misuse("--out-at lies at or before --in: nothing would be rendered");
        }
        if (describe && !also.isEmpty()) {
            throw new Misuse("--describe is for one file; leave out --also");
        }
        if (describe && parts == null) {
            throw new Misuse("--describe wants --parts FOLDER, where the descriptions go");
        }
        if (describe && subtitles == Subtitles.BURNT) {
            throw new Misuse("subtitles are drawn with the fonts of one machine; leave out --describe");
        }
        Path out = path(files.get(1));
        boolean isWhole =
                usualCodec(out).taking(containerOf(out, usualCodec(out)).orElse(Container.MKV)) == Taking.ALL;
        if (describe && !isWhole) {
            throw new Misuse("--describe is for a film; a picture or sound alone is made in one go");
        }
        try {
            Codec chosen = codec != null ? Codecs.byId(codec) : preset != null ? preset.codec() : usualCodec(out);
            if (preset != null && chosen == preset.codec()) {
                // what is told beside it counts for more
                preset.settings().forEach((key, set) -> settings.putIfAbsent(key, String.valueOf(set)));
            }
            return new RenderOptions(
                    path(files.get(0)),
                    out,
                    new Recipe(steps),
                    local,
                    Optional.ofNullable(from),
                    Optional.ofNullable(to),
                    Deliverable.of(
                                    chosen.id(),
                                    settings,
                                    containerOf(out, chosen),
                                    sound != null ? sound : preset != null ? preset.sound() : Sound.KEPT)
                            .with(new Tags(tags))
                            .with(subtitles),
                    threads,
                    overwrite,
                    damaged,
                    List.copyOf(also),
                    Optional.ofNullable(parts),
                    partFrames,
                    describe);
        } catch (IllegalArgumentException e) {
            throw new Misuse(e.getMessage());
        }
    }

    /** Whether any of the files takes some of the frames, or none: the clip's last one must be known for that. */
    boolean takesNotAll() {
        return deliverable.taking() != Taking.ALL
                || also.stream().anyMatch(file -> deliverableOf(file).taking() != Taking.ALL);
    }

    /** The same for other files. */
    RenderOptions of(Path otherIn, Path otherOut, Recipe otherRecipe) {
        return new RenderOptions(
                otherIn,
                otherOut,
                otherRecipe,
                files,
                from,
                to,
                deliverable,
                threads,
                overwrite,
                damaged,
                also,
                parts,
                partFrames,
                describe);
    }

    /** KEY=WORDS; no words take away what the source says. */
    private static void tag(String given, Map<String, String> tags) {
        int equals = given.indexOf('=');
        if (equals < 1) {
            throw new Misuse("--tag is '" + given + "'; write what the file shall say, such as title='Night crossing'");
        }
        tags.put(given.substring(0, equals), given.substring(equals + 1));
    }

    /** Whether an option has no value behind it. */
    static boolean isAlone(String word) {
        return switch (word) {
            case "--no-sound", "--force", "--damaged", "--describe" -> true;
            default -> false;
        };
    }

    /** What goes into a further file: of the settings given those that its codec has. */
    Deliverable deliverableOf(Path file) {
        Codec codec = usualCodec(file);
        var values = new TreeMap<String, Object>(deliverable.settings().given());
        values.keySet().retainAll(codec.params().stream().map(Param::key).toList());
        Optional<Container> container = containerOf(file, codec);
        boolean fits = container.orElse(codec.containers().getFirst()).holds(deliverable.sound());
        return Deliverable.of(codec.id(), values, container, fits ? deliverable.sound() : Sound.KEPT)
                .with(deliverable.tags())
                .with(deliverable.subtitles());
    }

    /** By the file's ending; what does not go is refused by the request, which knows the file's name. */
    private static Optional<Container> containerOf(Path file, Codec codec) {
        String name = file.toString();
        return Container.byEnding(name.substring(name.lastIndexOf('.') + 1).toLowerCase(java.util.Locale.ROOT))
                .filter(codec.containers()::contains);
    }

    private static Sound sound(String id) {
        try {
            return Sound.byId(id);
        } catch (IllegalArgumentException e) {
            throw new Misuse(e.getMessage());
        }
    }

    private static Subtitles subtitles(String id) {
        try {
            return Subtitles.byId(id);
        } catch (IllegalArgumentException e) {
            throw new Misuse(e.getMessage());
        }
    }

    private static boolean isOfACodec(String key) {
        return Codecs.all().stream()
                .flatMap(codec -> codec.params().stream())
                .anyMatch(param -> param.key().equals(key));
    }

    private static Codec usualCodec(Path out) {
        String name = out.toString();
        return Codecs.usual(name.substring(name.lastIndexOf('.') + 1).toLowerCase(java.util.Locale.ROOT));
    }

    private static Preset preset(String id) {
        try {
            return Preset.byId(id);
        } catch (IllegalArgumentException e) {
            throw new Misuse(e.getMessage());
        }
    }

    private static String value(String option, Iterator<String> rest) {
        if (!rest.hasNext()) {
            throw new Misuse(option + " wants a value behind it");
        }
        return rest.next();
    }

    private static Rational time(String option, String text) {
        try {
            return Times.parse(text);
        } catch (IllegalArgumentException e) {
            throw new Misuse(option + ": " + e.getMessage());
        }
    }

    private static int whole(String option, String text, int min, int max) {
        try {
            int value = Integer.parseInt(text);
            if (value >= min && value <= max) {
                return value;
            }
        } catch (NumberFormatException e) {
            // told below, with the range
        }
        throw new Misuse(option + " is '" + text + "', allowed is " + min + ".." + max);
    }

    private static Recipe recipe(String file) {
        try {
            return RecipeJson.read(Files.readString(path(file)));
        } catch (IOException e) {
            throw new Misuse("the recipe " + file + " cannot be read: " + e.getMessage());
        }
    }

    static Path path(String text) {
        try {
            return Path.of(text);
        } catch (InvalidPathException e) {
            throw new Misuse("'" + text + "' is not a file name");
        }
    }
}
