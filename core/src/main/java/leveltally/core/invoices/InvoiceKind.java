package leveltally.core.invoices;

/** What arrives from a vendor. */
public enum InvoiceKind {
    INVOICE("Invoice"),
    CREDIT("Credit"),
    PREPAYMENT("Prepayment");

    private final String words;

    InvoiceKind(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** An invoice raises what is owed to its vendor; the others lower it. */
    public boolean raises() {
        return this == INVOICE;
    }
}
