package leveltally.server.invoices;

/** What took some off an open amount. */
enum SettlementKind {
    CASH,
    DISCOUNT,
    CREDIT,
    PREPAYMENT,
    CANCELLATION,
    OPENING
}
