package leveltally.core.printers;

/** How pages reach a printer. */
public enum PrinterKind {
    /** A tray in the database, for trying things out. */
    STAND_IN("for trying things out"),
    /** The pages open in the browser, once, and are printed from there. */
    OWN("pages open in the browser"),
    /** A queue of the printing system. */
    QUEUE("a queue of the printing system");

    private final String words;

    PrinterKind(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
