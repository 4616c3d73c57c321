package leveltally.core.marks;

import java.time.LocalDate;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * An invoice as it is compared with others; so is a line that pays without one.
 *
 * @param id null for such a line
 * @param line the line that pays without an invoice; 0 for an invoice
 * @param amount the whole amount of the invoice, whatever is still open
 * @param where what became of it, such as “paid by check 41377” or “open”
 */
public record KnownInvoice(
        @Nullable InvoiceId id,
        long line,
        VendorId vendor,
        String payee,
        String reference,
        LocalDate date,
        Money amount,
        String where) {

    /** The same for the same document. */
    public String key() {
        return id == null ? "line " + line : String.valueOf(id.value());
    }

    /** The order in which they came; invoices first. */
    boolean isBefore(KnownInvoice other) {
        return order() != other.order() ? order() < other.order() : place() < other.place();
    }

    private int order() {
        return id == null ? 1 : 0;
    }

    private long place() {
        return id == null ? line : id.value();
    }
}
