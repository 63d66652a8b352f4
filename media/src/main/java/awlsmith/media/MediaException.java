package awlsmith.media;

/** Something about a file or its tools went wrong; the message is a sentence for the user: what, why, what to do. */
public final class MediaException extends RuntimeException {
    private final boolean isFromOutside;

    public MediaException(String sentence) {
        this(sentence, false);
    }

    public MediaException(String sentence, Throwable cause) {
        super(sentence, cause);
        isFromOutside = false;
    }

    private MediaException(String sentence, boolean isFromOutside) {
        super(sentence);
        this.isFromOutside = isFromOutside;
    }

    /** A tool was ended by the system or by somebody, neither by itself nor by us. */
    static MediaException fromOutside(String sentence) {
        return new MediaException(sentence, true);
    }

    /** Whether neither the file nor the wish is to blame: the same may well succeed when it is tried again. */
    public boolean isFromOutside() {
        return isFromOutside;
    }
}
