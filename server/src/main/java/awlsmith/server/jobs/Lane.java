package awlsmith.server.jobs;

/** Jobs of one lane wait for each other; those of different ones run beside each other and give way by themselves. */
public enum Lane {
    /** Taking in. */
    READ(2),
    /** Examining and small pictures. */
    LOOK(1),
    /** What somebody waits for: proofs, and looks through clips. */
    PROOF(1),
    /** A render keeps every core busy by itself: two at once would only make both late. */
    RENDER(1);

    private final int width;

    Lane(int width) {
        this.width = width;
    }

    /** Jobs at once. */
    int width() {
        return width;
    }

    static int all() {
        int sum = 0;
        for (Lane lane : values()) {
            sum += lane.width;
        }
        return sum;
    }
}
