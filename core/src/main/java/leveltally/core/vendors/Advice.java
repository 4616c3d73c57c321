package leveltally.core.vendors;

/** How a payee learns which entries a payment is for, beyond what the stub of a check has room for. */
public enum Advice {
    /** The lines beyond the stub are printed on plain paper. */
    PAPER("on paper, where the stub is too short"),
    /** All lines are sent as a PDF once the payment is posted, and none beyond the stub are printed. */
    MAIL("as a PDF by mail"),
    BOTH("as a PDF by mail, and on paper where the stub is too short");

    private final String words;

    Advice(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    public boolean isPrinted() {
        return this != MAIL;
    }

    public boolean isMailed() {
        return this != PAPER;
    }
}
