package leveltally.core.invoices;

/** An invoice, credit or prepayment; its value is the entry number people see. */
public record InvoiceId(long value) {}
