package leveltally.core.printers;

/** What is known of pages that were given to a printer; never what came out of it. */
public enum Outcome {
    /** It took them. */
    ACCEPTED("took them"),
    /** It did not take them, certainly: nothing was printed. */
    REFUSED("did not take them"),
    /** Nobody can say; only the tray can. */
    NOT_KNOWN("may have taken them");

    private final String words;

    Outcome(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
