package leveltally.core.checks;

/** The paper that the checks of a series are printed on. */
public enum Stock {
    /** Number and MICR line are on the paper; we print neither. */
    NUMBERED("numbered stock"),
    /** We print both. */
    BLANK("blank stock"),
    /** A check book: somebody writes them by hand, and we print nothing. */
    BY_HAND("written by hand");

    private final String words;

    Stock(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** True where its checks are printed here; the numbers of others come as they were written. */
    public boolean isPrinted() {
        return this != BY_HAND;
    }
}
