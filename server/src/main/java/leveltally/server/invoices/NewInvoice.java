package leveltally.server.invoices;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import leveltally.core.ledger.AccountId;
import leveltally.core.money.Money;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * An invoice or credit as it arrives.
 *
 * @param usableFrom a credit cannot be used before; null for at once
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
        boolean ownCheck,
        @Nullable LocalDate usableFrom,
        List<Line> lines) {

    /** The plain case: own check and a day from which it is usable are rare. */
    public NewInvoice(
            InvoiceKind kind,
            VendorId vendor,
            String reference,
            LocalDate invoiceDate,
            LocalDate ledgerDate,
            AccountId payables,
            Money notDiscountable,
            List<Line> lines) {
        this(kind, vendor, reference, invoiceDate, ledgerDate, payables, notDiscountable, false, null, lines);
    }

    /** Σ of the lines. */
    public Money amount(Currency currency) {
        return Money.sum(lines.stream().map(Line::amount).toList(), currency);
    }

    /** One account line. */
    public record Line(
            AccountId account, Money amount, @Nullable String job) {
        public Line(AccountId account, Money amount) {
            this(account, amount, null);
        }
    }
}
