package leveltally.server.invoices;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.money.Money;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;

/**
 * An invoice or credit as it arrives.
 *
 * @param usableFrom a credit cannot be used before; null for at once
 * @param terms the document's own; null for the vendor's
 * @param dueDate the document's own; null for what the terms make of its date
 * @param notDiscountable part of the amount its discount is not reckoned on, such as freight, in the document's currency
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
        @Nullable Terms terms,
        @Nullable LocalDate dueDate,
        List<Line> lines) {

    /** The plain case, by the vendor's terms. */
    public NewInvoice(
            InvoiceKind kind,
            VendorId vendor,
            String reference,
            LocalDate invoiceDate,
            LocalDate ledgerDate,
            AccountId payables,
            Money notDiscountable,
            List<Line> lines) {
        this(
                kind,
                vendor,
                reference,
                invoiceDate,
                ledgerDate,
                payables,
                notDiscountable,
                false,
                null,
                null,
                null,
                lines);
    }

    Terms termsOr(Terms usual) {
        return terms == null ? usual : terms;
    }

    /** In which it is owed. */
    public Currency currency() {
        return notDiscountable.currency();
    }

    /** Σ of the lines. */
    public Money amount() {
        return Money.sum(lines.stream().map(Line::amount).toList(), currency());
    }

    /** One account line. */
    public record Line(
            AccountId account, Money amount, @Nullable String job) {
        public Line(AccountId account, Money amount) {
            this(account, amount, null);
        }
    }
}
