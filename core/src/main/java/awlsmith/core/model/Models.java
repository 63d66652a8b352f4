package awlsmith.core.model;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.ServiceLoader;

/** The models at hand. */
public final class Models {
    /** System property that wants nets on a graphics processor from the start. */
    private static final String PROPERTY = "awlsmith.processor";

    private static final Map<ModelCard, ModelSource> ALL = load();
    private static volatile boolean graphics = "graphics".equals(System.getProperty(PROPERTY));

    private Models() {}

    private static Map<ModelCard, ModelSource> load() {
        var all = new LinkedHashMap<ModelCard, ModelSource>();
        for (ModelSource source : ServiceLoader.load(ModelSource.class)) {
            source.cards().forEach(card -> all.put(card, source));
        }
        return all;
    }

    /** Cards of all models at hand, whatever their job. */
    public static List<ModelCard> all() {
        return List.copyOf(ALL.keySet());
    }

    /** Those that enlarge. */
    public static List<ModelCard> enlarging() {
        return ALL.keySet().stream()
                .filter(card -> card.job() == ModelCard.Job.ENLARGE)
                .toList();
    }

    /** One card of each family of models that enlarge, its quality mode if it has one. */
    public static List<ModelCard> families() {
        var first = new LinkedHashMap<String, ModelCard>();
        enlarging()
                .forEach(card -> first.merge(card.id(), card, (a, b) -> a.mode().compareTo(b.mode()) <= 0 ? a : b));
        return new ArrayList<>(first.values());
    }

    /** The enlarging model of a family that aims at this; empty when there is none. */
    public static Optional<ModelCard> find(String id, ModelCard.Mode mode) {
        return ALL.keySet().stream()
                .filter(card -> card.id().equals(id) && card.mode() == mode)
                .findFirst();
    }

    /** The quality model that does a job there is one family for; empty when it is not at hand. */
    public static Optional<ModelCard> of(ModelCard.Job job) {
        return ALL.keySet().stream()
                .filter(card -> card.job() == job && card.mode() == ModelCard.Mode.QUALITY)
                .findFirst();
    }

    /** Of all their cards and weights: the same models are the same pixels. */
    public static String fingerprint() {
        return ALL.values().stream()
                .distinct()
                .map(ModelSource::fingerprint)
                .collect(java.util.stream.Collectors.joining("+"));
    }

    /** Gets ready what models run in, which takes a good part of a second, beside: for whoever will want one soon. */
    public static void begin() {
        Thread.ofPlatform()
                .daemon()
                .name("nets-begin")
                .start(() -> ALL.values().stream().distinct().forEach(ModelSource::begin));
    }

    /** Lets nets run on the graphics processor from now on where there is one, or on the cores. What has begun keeps to its form. */
    public static void useGraphics(boolean wanted) {
        graphics = wanted;
    }

    /** Whether nets are to run on a graphics processor, be there one or not. */
    public static boolean isGraphicsWanted() {
        return graphics;
    }

    /** Why nets cannot run on a graphics processor here, in a sentence; empty where they can. */
    public static Optional<String> noGraphics() {
        return ALL.isEmpty()
                ? Optional.of("there are no nets")
                : ALL.values().stream()
                        .distinct()
                        .flatMap(source -> source.noGraphics().stream())
                        .findFirst();
    }

    /** What the models run on, in a few words. */
    public static String processor() {
        return usual() == NetForm.GRAPHICS
                ? "the graphics processor; all else on the cores beside it"
                : "the processor's cores" + (graphics ? ", as " + noGraphics().orElse("") : "");
    }

    /** The form that what begins now is made in: as it is wanted, and the quickest there. */
    public static NetForm usual() {
        return graphics && runs(NetForm.GRAPHICS) ? NetForm.GRAPHICS : quickest();
    }

    /** The quickest form that all of them run in on the cores. */
    private static NetForm quickest() {
        return ALL.values().stream().distinct().allMatch(source -> source.quickest() == NetForm.EIGHT_BITS)
                        && !ALL.isEmpty()
                ? NetForm.EIGHT_BITS
                : NetForm.FLOAT;
    }

    /** Whether this machine runs a form. */
    public static boolean runs(NetForm form) {
        return ALL.values().stream().distinct().allMatch(source -> source.runs(form));
    }

    /** In the form that is usual here. */
    public static NetRunner open(ModelCard card) {
        return open(card, usual());
    }

    /** @throws ModelUnavailable as {@link ModelSource#open} */
    public static NetRunner open(ModelCard card, NetForm form) {
        ModelSource source = ALL.get(card);
        if (source == null) {
            throw new IllegalArgumentException(
                    "no source has the model " + card.id() + " " + card.mode().id());
        }
        return source.open(card, form);
    }
}
