package awlsmith.server.problem;

/** Something that was asked for cannot be done; the message says why and what to do, in words for the user. */
public final class Refusal extends RuntimeException {
    /** What sort of refusal, which decides the HTTP status. */
    public enum Kind {
        INVALID,
        NOT_ALLOWED,
        UNKNOWN,
        CONFLICT,
        TOO_LARGE,
        NO_SPACE
    }

    private final Kind kind;

    public Refusal(Kind kind, String sentence) {
        super(sentence);
        this.kind = kind;
    }

    public Kind kind() {
        return kind;
    }

    public static Refusal unknown(String what) {
        return new Refusal(Kind.UNKNOWN, what + " is not here any more; it may have been removed in another window");
    }
}
