package awlsmith.core.model;

/**
 * In which arithmetic nets run, and where. Their pixels differ by up to a few thousandths of white, so one render keeps to one of them; hashed
 * filters have no forms.
 */
public enum NetForm {
    FLOAT("floating point"),
    /** Those nets that have such a form, the others as they are. */
    EIGHT_BITS("eight bits"),
    /** Sums come in another order than on cores, and on other such processors again in another. */
    GRAPHICS("floating point on the graphics processor");

    private final String words;

    NetForm(String words) {
        this.words = words;
    }

    /** Whether other machines make the same pixels of it, bit for bit. */
    public boolean isSameElsewhere() {
        return this != GRAPHICS;
    }

    /** For people, behind the word "in". */
    public String words() {
        return words;
    }
}
