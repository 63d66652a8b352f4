package awlsmith.core.model;

/** A model that cannot be used; the message is a sentence that says why and what to do. */
public class ModelUnavailable extends RuntimeException {
    public ModelUnavailable(String sentence, Throwable cause) {
        super(sentence, cause);
    }
}
