package awlsmith.core.model;

/**
 * In which arithmetic nets run. The two differ by up to a few thousandths of white, so one render keeps to one of them; hashed filters
 * have no forms.
 */
public enum NetForm {
    FLOAT("floating point"),
    /** Those nets that have such a form, the others as they are. */
    EIGHT_BITS("eight bits");

    private final String words;

    NetForm(String words) {
        this.words = words;
    }

    /** For people, behind the word "in". */
    public String words() {
        return words;
    }
}
