package leveltally.server.invoices;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.ledger.AccountId;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;

/**
 * An invoice or credit as it arrives.
 *
 * @param notDiscountable part of the amount its discount is not reckoned on, such as freight
 */
public record NewInvoice(
        InvoiceKind kind,
        VendorId vendor,
        String reference,
        LocalDate invoiceDate,
        LocalDate ledgerDate,
        AccountId payables,
        Money notDiscountable,
        List<Line> lines) {

    /** One account line. */
    public record Line(AccountId account, Money amount) {}
}
