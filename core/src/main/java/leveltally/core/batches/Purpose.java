package leveltally.core.batches;

/** What a batch is for; its payments come from there. Approval, reservation and level are the same for all of them. */
public enum Purpose {
    /** Invoices due, chosen by criteria or by hand. */
    RUN("run"),
    /** One payment instead of another. */
    REISSUE("reissue"),
    /** Payments without an invoice. */
    DIRECT("direct payments"),
    /** Payments that left the house before they were written down: approved after the fact, before posting. */
    OUTSIDE("outside payments");

    private final String words;

    Purpose(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
