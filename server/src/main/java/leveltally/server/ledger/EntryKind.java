package leveltally.server.ledger;

/** What wrote an entry. */
public enum EntryKind {
    OPENING,
    INVOICE,
    PAYMENT,
    VOID,
    OFFSET,
    CANCELLATION,
    REFUND
}
