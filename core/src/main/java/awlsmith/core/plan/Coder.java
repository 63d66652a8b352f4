package awlsmith.core.plan;

import java.util.Locale;

/** What codes pictures: the processor, or a circuit of the graphics hardware by one of the ways there are to it. */
public enum Coder {
    CORES("cores", "the same bits every time, and the smallest files"),
    NVENC("NVENC", "on Nvidia's graphics hardware: several times as quick, larger at the same look"),
    QSV("Quick Sync", "on Intel's graphics hardware: several times as quick, larger at the same look"),
    VAAPI("VA-API", "on graphics hardware that Linux knows by it: several times as quick, larger at the same look");

    private final String label;
    private final String effect;

    Coder(String label, String effect) {
        this.label = label;
        this.effect = effect;
    }

    /** Name in orders and on the command line. */
    public String id() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Name on the screen. */
    public String label() {
        return label;
    }

    /** What to expect of it, in a few words (common practice, no source). */
    public String effect() {
        return effect;
    }

    static Coder of(String id) {
        return valueOf(id.toUpperCase(Locale.ROOT));
    }
}
