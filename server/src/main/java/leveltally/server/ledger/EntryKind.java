package leveltally.server.ledger;

/** What wrote an entry. */
public enum EntryKind {
    OPENING,
    INVOICE,
    PAYMENT,
    VOID,
    OFFSET,
    CANCELLATION,
    REFUND,
    /** What the bank moved by itself: fees, interest, deposits, transfers. */
    BANK
}
