package leveltally.core.invoices;

/** One row that took something off an open amount, or gave it back. */
public record SettlementId(long value) {}
