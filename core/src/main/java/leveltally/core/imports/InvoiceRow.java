package leveltally.core.imports;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import leveltally.core.ledger.AccountId;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * One account line of an invoice or credit as a file has it; lines of one invoice follow each other.
 *
 * @param vendor the vendor's number
 * @param amount of this line
 */
public record InvoiceRow(
        String vendor,
        String reference,
        boolean credit,
        LocalDate invoiceDate,
        LocalDate ledgerDate,
        Money amount,
        AccountId account,
        String job,
        Money notDiscountable,
        boolean ownCheck,
        @Nullable LocalDate usableFrom) {

    /** What the rows are checked against. */
    public interface Known {
        /** The currency of a vendor by its number; null when there is none. */
        @Nullable
        Currency vendor(String number);

        /** An account by its code; null when there is none. */
        @Nullable
        AccountId account(String code);

        /** True when something can be posted on this day. */
        boolean open(LocalDate ledgerDate);
    }

    /** A row, or why it is none. */
    public record Read(@Nullable InvoiceRow row, List<Finding> findings) {}

    /** The vendor, what it is and its reference: no two invoices share it. */
    public String identity() {
        return (credit ? "credit " : "invoice ") + vendor + " " + reference.toLowerCase(Locale.ROOT);
    }

    public static Read read(Map<String, String> cells, Known known) {
        Cells in = new Cells(cells);
        String vendor = in.text("vendor", 12, true);
        Currency currency = known.vendor(vendor);
        if (currency == null && !vendor.isEmpty()) {
            in.wrong("vendor", "there is no vendor " + vendor + "; bring the vendor in first");
        }
        Currency reckoned = currency == null ? Currency.getInstance("USD") : currency;
        String reference = in.text("reference", 40, true);
        boolean credit = in.oneOf("kind", List.of("invoice", "credit")).equals("credit");
        LocalDate dated = in.day("invoice_date", true).orElse(null);
        LocalDate ledger = in.day("ledger_date", false).orElse(dated);
        if (ledger != null && !known.open(ledger)) {
            in.wrong(
                    in.raw("ledger_date").isEmpty() ? "invoice_date" : "ledger_date",
                    "the period of " + ledger + " is locked or not there; give a ledger date in an open one");
        }
        Money amount = in.read("amount", text -> Money.parse(text, reckoned)).orElse(null);
        if (amount != null && !amount.isPositive()) {
            in.wrong("amount", "must be above zero; a credit has the kind credit");
        }
        String code = in.text("account", 12, true);
        AccountId account = known.account(code);
        if (account == null && !code.isEmpty()) {
            in.wrong("account", "there is no ledger account " + code);
        }
        Money apart = in.raw("not_discountable").isEmpty()
                ? Money.zero(reckoned)
                : in.read("not_discountable", text -> Money.parse(text, reckoned))
                        .orElse(Money.zero(reckoned));
        if (apart.isNegative()) {
            in.wrong("not_discountable", "cannot be below zero");
        }
        boolean own = in.oneOf("own_check", List.of("no", "yes")).equals("yes");
        LocalDate usable = in.day("usable_from", false).orElse(null);
        String job = in.text("job", 20, false);
        if (!in.findings().isEmpty()) {
            return new Read(null, in.findings());
        }
        return new Read(
                new InvoiceRow(vendor, reference, credit, dated, ledger, amount, account, job, apart, own, usable),
                List.of());
    }
}
