package leveltally.core.marks;

import java.time.LocalDate;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;

/**
 * An invoice as it is compared with others.
 *
 * @param amount the whole amount of the invoice, whatever is still open
 * @param where what became of it, such as “paid by check 41377” or “open”
 */
public record KnownInvoice(
        InvoiceId id, VendorId vendor, String payee, String reference, LocalDate date, Money amount, String where) {}
