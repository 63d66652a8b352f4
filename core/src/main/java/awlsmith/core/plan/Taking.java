package awlsmith.core.plan;

/** Which of a treatment's frames go into a file. */
public enum Taking {
    /** One after another, as they come. */
    ALL,
    /** Some of them, which are made by themselves. */
    FEW,
    /** None: it is of sound. */
    SOUND,
    /** None: the source's own go into it, as they are coded. */
    SOURCE
}
