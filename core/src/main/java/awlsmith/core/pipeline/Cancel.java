package awlsmith.core.pipeline;

/** A wish to stop, shared by everything that works on one task. */
public final class Cancel {
    /** Thrown out of work that was asked to stop; nothing is wrong. */
    public static final class Stopped extends RuntimeException {
        public Stopped() {
            super("stopped as asked", null, false, false);
        }
    }

    private volatile boolean asked;

    /** Asks all who look to stop; cannot be taken back. */
    public void ask() {
        asked = true;
    }

    /** Whether someone wishes it to stop. */
    public boolean isAsked() {
        return asked;
    }

    /** Throws {@link Stopped} once stopping was asked for. */
    public void check() {
        if (asked) {
            throw new Stopped();
        }
    }
}
