package awlsmith.core.model;

import java.util.List;
import java.util.Optional;

/** Where models come from. Found by {@link java.util.ServiceLoader}, so that this module knows no runtime for nets. */
public interface ModelSource {
    /** Of every model that it has. */
    List<ModelCard> cards();

    /**
     * Makes a model ready; quick when it is ready already.
     *
     * @throws ModelUnavailable when its file is missing or damaged, or there is too little memory
     */
    NetRunner open(ModelCard card, NetForm form);

    /** The quickest form on this machine's cores. */
    NetForm quickest();

    /** Whether this machine runs a form, on cores with the same pixels as others do. */
    boolean runs(NetForm form);

    /** Why nets cannot run on a graphics processor here, in a sentence; empty where they can. May take a second when first asked. */
    Optional<String> noGraphics();

    /** Gets ready what its models run in. */
    void begin();

    /** A checksum of all its models' numbers. */
    String fingerprint();
}
