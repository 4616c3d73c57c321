package leveltally.core.imports;

import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.money.Money;
import leveltally.core.terms.Terms;
import org.jspecify.annotations.Nullable;

/**
 * One account line of an invoice or credit as a file has it, with what the line says of the whole document.
 *
 * @param vendor the vendor's number
 * @param terms the document's own; null for the vendor's
 * @param dueDate the document's own; null for what the terms make of its date
 * @param amount of this line; below zero for an allowance or a correction
 * @param notDiscountable what earns no discount, marked on this line
 */
public record InvoiceRow(
        String vendor,
        String reference,
        boolean credit,
        LocalDate invoiceDate,
        LocalDate ledgerDate,
        @Nullable Terms terms,
        @Nullable LocalDate dueDate,
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

        /** Whether the company has an account in this currency. */
        boolean paysIn(Currency currency);

        /** An account by its code, open or closed; null when there is none. */
        @Nullable
        LedgerAccount account(String code);

        /** True when something can be posted on this day. */
        boolean open(LocalDate ledgerDate);
    }

    /** A row, or why it is none. */
    public record Read(@Nullable InvoiceRow row, List<Finding> findings) {}

    /** The vendor, what it is and its reference: no two documents share it, and all rows of one do. */
    public String identity() {
        return identity(credit ? "credit" : "invoice", vendor, reference);
    }

    /** The identity of a row that may be unreadable otherwise; empty where it names no document. */
    public static String identity(Map<String, String> cells) {
        Cells in = new Cells(cells);
        String vendor = in.raw("vendor");
        String reference = in.raw("reference");
        String kind = in.raw("kind").equalsIgnoreCase("credit") ? "credit" : "invoice";
        return vendor.isEmpty() || reference.isEmpty() ? "" : identity(kind, vendor, reference);
    }

    private static String identity(String kind, String vendor, String reference) {
        return kind + " " + vendor + " " + reference.toLowerCase(Locale.ROOT);
    }

    public static Read read(Map<String, String> cells, Known known, Reading how) {
        Cells in = new Cells(cells);
        String vendor = in.text("vendor", 12, true);
        Currency currency = known.vendor(vendor);
        if (currency == null && !vendor.isEmpty()) {
            in.wrong(
                    "vendor",
                    "there is no vendor " + vendor + "; bring the vendor in first, or name the one it was merged into");
        }
        Currency reckoned = currency(in, currency == null ? Currency.getInstance("USD") : currency, known);
        String reference = in.text("reference", 40, true);
        boolean credit = in.oneOf("kind", List.of("invoice", "credit")).equals("credit");
        LocalDate dated = in.day("invoice_date", true).orElse(null);
        LocalDate ledger = ledgerDate(in, dated, known, how);
        Terms terms =
                in.raw("terms").isEmpty() ? null : in.read("terms", Terms::read).orElse(null);
        LocalDate due = in.day("due_date", false).orElse(null);
        if (due != null && dated != null && due.isBefore(dated)) {
            in.wrong("due_date", "lies before the invoice date");
        }
        Money amount = in.read("amount", text -> Money.parse(text, reckoned, how.mark()))
                .orElse(null);
        AccountId account = account(in, known, how, ledger);
        Money apart = in.raw("not_discountable").isEmpty()
                ? Money.zero(reckoned)
                : in.read("not_discountable", text -> Money.parse(text, reckoned, how.mark()))
                        .orElse(Money.zero(reckoned));
        if (apart.isNegative()) {
            in.wrong("not_discountable", "cannot be below zero");
        }
        boolean own = in.oneOf("own_check", List.of("no", "yes")).equals("yes");
        LocalDate usable = in.day("usable_from", false).orElse(null);
        if (usable != null && !credit) {
            in.wrong("usable_from", "belongs to credits only; leave it empty for an invoice");
        }
        String job = in.text("job", 20, false);
        if (!in.findings().isEmpty()) {
            return new Read(null, in.findings());
        }
        return new Read(
                new InvoiceRow(
                        vendor, reference, credit, dated, ledger, terms, due, amount, account, job, apart, own, usable),
                List.of());
    }

    /** The document's own, or the vendor's usual one. */
    private static Currency currency(Cells in, Currency usual, Known known) {
        String named = in.raw("currency").toUpperCase(Locale.ROOT);
        if (named.isEmpty() || named.equals(usual.getCurrencyCode())) {
            return usual;
        }
        Optional<Currency> own = Currency.getAvailableCurrencies().stream()
                .filter(one -> one.getCurrencyCode().equals(named))
                .filter(known::paysIn)
                .findFirst();
        if (own.isEmpty()) {
            in.wrong("currency", "the company has no bank account in " + named);
        }
        return own.orElse(usual);
    }

    private static @Nullable LocalDate ledgerDate(Cells in, @Nullable LocalDate dated, Known known, Reading how) {
        LocalDate own = in.day("ledger_date", false).orElse(dated);
        if (own == null || known.open(own)) {
            return own;
        }
        LocalDate instead = how.ledgerDate();
        if (instead != null && known.open(instead)) {
            return instead;
        }
        in.wrong(
                in.raw("ledger_date").isEmpty() ? "invoice_date" : "ledger_date",
                "the period of " + own
                        + " is locked or not there; give a ledger date in an open one, or choose one for "
                        + "the whole file");
        return own;
    }

    private static @Nullable AccountId account(Cells in, Known known, Reading how, @Nullable LocalDate ledgerDate) {
        String code = in.raw("account");
        LedgerAccount account = known.account(code);
        if (account == null) {
            account = known.account(how.account());
        }
        if (account == null) {
            in.wrong(
                    "account",
                    (code.isEmpty() ? "is empty" : "there is no ledger account " + code)
                            + "; name one, or choose one for the whole file");
            return null;
        }
        if (ledgerDate != null && !account.isOpenOn(ledgerDate)) {
            in.wrong("account", "account " + account.inWords() + " is closed on " + ledgerDate + "; name another one");
        }
        return account.id();
    }
}
