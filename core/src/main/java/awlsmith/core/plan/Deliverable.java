package awlsmith.core.plan;

import awlsmith.core.picture.Chroma;
import awlsmith.core.picture.ColourTags;
import awlsmith.core.picture.Format;
import awlsmith.core.picture.Siting;
import awlsmith.core.pipeline.FrameRange;
import awlsmith.core.recipe.Problem;
import awlsmith.core.recipe.RecipeException;
import awlsmith.core.recipe.Settings;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What a file to send out must be.
 *
 * @param codec of the picture
 * @param settings of the codec, as it describes them
 * @param container that it stands in, with all that goes along
 * @param sound what becomes of the source's
 * @param tags what it says of itself, before what the source says
 * @param subtitles what becomes of the source's
 */
public record Deliverable(
        Codec codec, Settings settings, Container container, Sound sound, Tags tags, Subtitles subtitles) {
    public Deliverable {
        if (!codec.containers().contains(container)) {
            throw new RecipeException(Problem.at(
                    "container",
                    codec.label() + " cannot stand in " + container.label() + "; it goes into "
                            + String.join(
                                    ", ",
                                    codec.containers().stream()
                                            .map(Container::label)
                                            .toList())));
        }
        if (!container.holds(sound)) {
            // where none can go along, what is to become of it is no question
            sound = container.holdsSound() ? sound : Sound.NONE;
        }
        if (!container.holds(sound)) {
            throw new RecipeException(Problem.at(
                    "sound",
                    "sound cannot stand in " + container.label() + " as " + sound.label() + "; "
                            + container.usualSound().label() + " can"));
        }
    }

    /** In the codec's usual container; see {@link #of(String, Map, Optional, Sound)}. */
    public static Deliverable of(String codec, Map<String, ?> values, boolean sound) {
        return of(codec, values, Optional.empty(), sound ? Sound.KEPT : Sound.NONE);
    }

    /**
     * @param values of the codec's settings, as they were written; a bit rate or a size alone says that it is to go by that
     * @param container the codec's usual one where it is empty
     * @throws RecipeException naming every wrong key and value with what is allowed
     */
    public static Deliverable of(String codec, Map<String, ?> values, Optional<Container> container, Sound sound) {
        Codec known = Codecs.find(codec)
                .orElseThrow(() -> new RecipeException(Problem.at(
                        "codec",
                        "there is no codec called '" + codec + "'; there are: "
                                + String.join(
                                        ", ",
                                        Codecs.all().stream().map(Codec::id).toList()))));
        return new Deliverable(
                known,
                Settings.read(known.label(), known.params(), ruled(known, values)),
                container.orElse(known.containers().getFirst()),
                sound,
                Tags.NONE,
                Subtitles.ATTACHED);
    }

    private static Map<String, ?> ruled(Codec codec, Map<String, ?> values) {
        boolean hasRule = codec.params().stream().anyMatch(param -> param.key().equals(LongGop.BY));
        String rule = values.get("size") != null ? "size" : values.get("bitrate") != null ? "bitrate" : null;
        if (!hasRule || rule == null || values.get(LongGop.BY) != null) {
            return values;
        }
        var with = new LinkedHashMap<String, Object>(values);
        with.put(LongGop.BY, rule);
        return with;
    }

    /** With nothing set, and with sound. */
    public static Deliverable usual(Codec codec) {
        return of(codec.id(), Map.of(), true);
    }

    /** The same without sound. */
    public Deliverable withoutSound() {
        return with(Sound.NONE);
    }

    public Deliverable with(Sound other) {
        return new Deliverable(codec, settings, container, other, tags, subtitles);
    }

    public Deliverable with(Tags others) {
        return new Deliverable(codec, settings, container, sound, others, subtitles);
    }

    public Deliverable with(Subtitles other) {
        return new Deliverable(codec, settings, container, sound, tags, other);
    }

    /** The same at a rate factor, whatever it went by before. */
    public Deliverable atQuality(int rateFactor) {
        return new Deliverable(codec, codec.atQuality(settings, rateFactor), container, sound, tags, subtitles);
    }

    /** The same in another container; sound that cannot stand there goes as it is usual there. */
    public Deliverable in(Container other) {
        return new Deliverable(
                codec, settings, other, other.holds(sound) ? sound : other.usualSound(), tags, subtitles);
    }

    /** What codes its pictures. */
    public Coder coder() {
        return codec.coder(settings);
    }

    /** Whether the source's sound goes along, in whatever form. */
    public boolean hasSound() {
        return sound != Sound.NONE;
    }

    /** Its open form: {@code {"codec": "h264", "settings": {"quality": 17}, "container": "mp4", "sound": "kept"}}. */
    public Map<String, Object> toTree() {
        var tree = new LinkedHashMap<String, Object>();
        tree.put("codec", codec.id());
        tree.put("settings", settings.tree());
        tree.put("container", container.ending());
        tree.put("sound", sound.id());
        if (!tags.isEmpty()) {
            tree.put("tags", tags.values());
        }
        if (subtitles != Subtitles.ATTACHED) {
            tree.put("subtitles", subtitles.id());
        }
        return tree;
    }

    /**
     * Also from the form of before, in which quality, depth and GOP stood beside the codec's name in capitals and depth 0 was that of the
     * source, and from that in which sound was true or false.
     *
     * @throws RecipeException when it is none
     */
    public static Deliverable fromTree(Map<?, ?> tree) {
        var values = new LinkedHashMap<String, Object>();
        if (tree.get("settings") instanceof Map<?, ?> given) {
            given.forEach((key, value) -> values.put(String.valueOf(key), value));
        }
        String codec = String.valueOf(tree.get("codec"));
        if (!tree.containsKey("settings")) {
            codec = codec.toLowerCase(java.util.Locale.ROOT);
            Codec known = Codecs.find(codec).orElse(Codecs.H264);
            known.params().forEach(param -> {
                Object value = tree.get(param.key());
                boolean asTheSource =
                        param.key().equals("depth") && Integer.valueOf(0).equals(value);
                if (value != null && !asTheSource) {
                    values.put(param.key(), value);
                }
            });
        }
        Object sound = tree.get("sound");
        Optional<Container> container =
                Optional.ofNullable(tree.get("container")).map(ending -> container(ending));
        return of(
                        codec,
                        values,
                        container,
                        sound instanceof String id
                                ? Sound.byId(id)
                                : Boolean.TRUE.equals(sound) ? Sound.KEPT : Sound.NONE)
                .with(tags(tree.get("tags")))
                .with(tree.get("subtitles") instanceof String id ? Subtitles.byId(id) : Subtitles.ATTACHED);
    }

    private static Tags tags(Object given) {
        if (!(given instanceof Map<?, ?> map)) {
            return Tags.NONE;
        }
        var values = new LinkedHashMap<String, String>();
        map.forEach((key, value) -> values.put(String.valueOf(key), value == null ? "" : String.valueOf(value)));
        return new Tags(values);
    }

    private static Container container(Object ending) {
        return Container.byEnding(String.valueOf(ending))
                .orElseThrow(() ->
                        new RecipeException(Problem.at("container", "there is no container called '" + ending + "'")));
    }

    /**
     * The format of the pictures in the file. Depth stays as far as the codec holds it, and so do fields. Chroma goes where files can tell
     * it. Missing colour tags are filled in with what the source was taken for, because an enlarged picture would otherwise be
     * guessed differently from its source.
     *
     * @param treated format behind the last step
     * @param sourceHeight lines of the source, which decide what untagged colour means
     */
    public Format fileFormat(Format treated, int sourceHeight) {
        Format plain = codec.format(treated, settings);
        ColourTags tags = resolved(treated.colour(), treated.chroma(), plain.chroma(), sourceHeight);
        return plain.withColour(codec.colour(tags, settings));
    }

    /** Which of the treated frames go into it. */
    public Taking taking() {
        return codec.taking(container);
    }

    /** See {@link Codec#picks}. */
    public List<Long> picks(FrameRange made) {
        return codec.picks(settings, made);
    }

    /** See {@link Codec#isCodedInParts}. */
    public boolean isCodedInParts() {
        return codec.isCodedInParts(settings);
    }

    /** The value of one of the codec's settings, as it is written; its own choice where none was given. */
    public String setting(String key) {
        Object given = settings.given().get(key);
        return String.valueOf(
                given != null
                        ? given
                        : codec.params().stream()
                                .filter(param -> param.key().equals(key))
                                .findFirst()
                                .orElseThrow()
                                .fallback());
    }

    /** Most frames from one key frame to the next. */
    public int gop() {
        return codec.gop(settings);
    }

    /** Files and their readers agree on these three places only (Matroska names no others; players know few). */
    static Siting told(Format treated, Chroma chroma) {
        if (!treated.chroma().isSubsampled() || !chroma.isSubsampled()) {
            return Siting.LEFT;
        }
        for (Siting known : new Siting[] {treated.siting(), Siting.LEFT, Siting.CENTRE, Siting.TOP_LEFT}) {
            boolean named = known.equals(Siting.LEFT) || known.equals(Siting.CENTRE) || known.equals(Siting.TOP_LEFT);
            if (named && known.isSame(treated.siting(), treated.chroma())) {
                return known;
            }
        }
        return Siting.LEFT;
    }

    private static ColourTags resolved(ColourTags tags, Chroma treated, Chroma file, int sourceHeight) {
        boolean toLuma = treated == Chroma.RGB && file != Chroma.RGB;
        if (treated == Chroma.RGB && !toLuma) {
            return tags;
        }
        var matrix = tags.matrix();
        if (toLuma || matrix == ColourTags.Matrix.RGB) {
            matrix = sourceHeight <= 576 ? ColourTags.Matrix.SMPTE170M : ColourTags.Matrix.BT709;
        } else if (matrix == ColourTags.Matrix.UNSPECIFIED) {
            matrix = tags.matrixFor(sourceHeight);
        }
        var range = toLuma ? ColourTags.Range.LIMITED : tags.rangeFor(treated);
        return new ColourTags(matrix, range, tags.transfer(), tags.primaries());
    }
}
