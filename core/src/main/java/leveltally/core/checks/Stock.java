package leveltally.core.checks;

/** The paper that the checks of a series are printed on. */
public enum Stock {
    /** Number and MICR line are on the paper; we print neither. */
    NUMBERED("numbered stock"),
    /** We print both. */
    BLANK("blank stock");

    private final String words;

    Stock(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
