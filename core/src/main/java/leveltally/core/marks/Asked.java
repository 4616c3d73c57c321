package leveltally.core.marks;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;

/** A payment that is asked for, with the whole invoices it pays something of. */
public record Asked(
        VendorId vendor,
        String payee,
        boolean oneTime,
        Money amount,
        LocalDate checkDate,
        List<KnownInvoice> invoices) {
    public Asked {
        invoices = List.copyOf(invoices);
    }
}
