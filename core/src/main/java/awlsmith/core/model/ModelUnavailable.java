package awlsmith.core.model;

/** A model that cannot be used; the message is a sentence that says why and what to do. */
public class ModelUnavailable extends RuntimeException {
    /** @param sentence what is wrong and what to do; @param cause of it */
    public ModelUnavailable(String sentence, Throwable cause) {
        super(sentence, cause);
    }
}
