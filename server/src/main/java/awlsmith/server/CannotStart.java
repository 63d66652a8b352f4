package awlsmith.server;

/** A reason not to start that the person who starts the program can do something about. */
public class CannotStart extends RuntimeException {
    private final String remedy;

    /**
     * @param reason what is wrong, one sentence
     * @param remedy what to do about it
     */
    public CannotStart(String reason, String remedy) {
        super(reason);
        this.remedy = remedy;
    }

    String remedy() {
        return remedy;
    }
}
