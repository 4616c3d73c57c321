package leveltally.server.invoices;

/** What arrives from a vendor. */
public enum InvoiceKind {
    INVOICE,
    CREDIT,
    PREPAYMENT
}
