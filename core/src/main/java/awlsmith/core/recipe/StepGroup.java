package awlsmith.core.recipe;

/** What kinds of steps are for, in the order in which one usually works. */
public enum StepGroup {
    PREPARE("prepare"),
    CLEAN("clean"),
    ENLARGE("enlarge"),
    DETAIL("detail"),
    MOTION("motion"),
    COLOUR("colour"),
    FINISH("finish");

    private final String id;

    StepGroup(String id) {
        this.id = id;
    }

    /** Its name, also on the screen. */
    public String id() {
        return id;
    }
}
