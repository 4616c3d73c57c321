package leveltally.server.imports;

/** What a file is. */
enum ImportKind {
    VENDORS,
    INVOICES,
    /** UBL 2.1 Invoice and CreditNote documents (OASIS), one in each file. */
    UBL
}
