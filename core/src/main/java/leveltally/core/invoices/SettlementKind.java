package leveltally.core.invoices;

/** What took some off an open amount. */
public enum SettlementKind {
    CASH("Paid", "Payment undone"),
    DISCOUNT("Discount taken", "Discount given back"),
    CREDIT("Credit used", "Credit given back"),
    PREPAYMENT("Prepayment matched", "Prepayment free again"),
    CANCELLATION("Cancelled", "Cancellation taken back"),
    OPENING("Settled before we began", "Settled before we began, taken back");

    private final String words;
    private final String undone;

    SettlementKind(String words, String undone) {
        this.words = words;
        this.undone = undone;
    }

    /** @param back true for the row that undoes another */
    public String words(boolean back) {
        return back ? undone : words;
    }
}
