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

    /** True where the money left before anybody was asked: nothing stops such a payment any more, it is only agreed to. */
    public boolean isAfterTheFact() {
        return this == OUTSIDE;
    }

    /** True where the lines are what criteria and edits made of them; others stand as they were written. */
    public boolean isEdited() {
        return this == RUN;
    }
}
