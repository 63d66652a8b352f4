package awlsmith.server.jobs;

/** Jobs of one lane wait for each other; those of different ones run beside each other and give way by themselves. */
public enum Lane {
    /** Taking in. */
    READ(2),
    /** Examining and small pictures. */
    LOOK(1),
    /** What somebody waits for: proofs, and looks through clips. */
    PROOF(1),
    /** A render keeps every core busy while it treats: two at once would only make both late. One that is put together lets the next begin. */
    RENDER(1);

    private final int width;

    Lane(int width) {
        this.width = width;
    }

    /** Jobs at once. */
    int width() {
        return width;
    }
}
