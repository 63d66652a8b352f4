package awlsmith.media;

/** Something about a file or its tools went wrong; the message is a sentence for the user: what, why, what to do. */
public final class MediaException extends RuntimeException {
    public MediaException(String sentence) {
        super(sentence);
    }

    public MediaException(String sentence, Throwable cause) {
        super(sentence, cause);
    }
}
