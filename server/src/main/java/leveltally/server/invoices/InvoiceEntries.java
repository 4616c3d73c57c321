package leveltally.server.invoices;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.Currency;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountRole;
import leveltally.core.money.Money;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.VendorId;
import leveltally.server.ledger.AccountRoles;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.Vendors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Documents as they are typed, made into what arrives. */
@Component
class InvoiceEntries {
    private final AccountRoles roles;
    private final Vendors vendors;

    private final OpenItems openItems;
    private final BankAccounts bankAccounts;

    InvoiceEntries(AccountRoles roles, Vendors vendors, OpenItems openItems, BankAccounts bankAccounts) {
        this.bankAccounts = bankAccounts;
        this.openItems = openItems;
        this.roles = roles;
        this.vendors = vendors;
    }

    record LineEntry(
            long account,
            @NotNull @Size(max = 30) String amount,
            @Nullable @Size(max = 20) String job) {}

    /** {@code ledgerDate} null: the invoice date; {@code currency} null: the vendor's usual one. */
    record InvoiceEntry(
            @NotNull InvoiceKind kind,
            long vendor,
            @NotNull @Size(max = 40) String reference,
            @NotNull LocalDate invoiceDate,
            @Nullable LocalDate ledgerDate,
            @Nullable @Size(max = 30) String notDiscountable,
            @Nullable Boolean ownCheck,
            @Nullable LocalDate usableFrom,
            @Nullable @Size(max = 60) String terms,
            @Nullable LocalDate dueDate,
            @Nullable @Size(max = 3) String currency,
            @NotEmpty @Size(max = 500) @Valid List<LineEntry> lines) {}

    NewInvoice of(InvoiceEntry wanted) {
        Vendor of = vendors.get(new VendorId(wanted.vendor()));
        Currency currency = currency(of, wanted.currency());
        String apart = wanted.notDiscountable();
        LocalDate ledgerDate = wanted.ledgerDate();
        Terms ownTerms = terms(wanted.terms());
        return new NewInvoice(
                wanted.kind(),
                of.id(),
                wanted.reference(),
                wanted.invoiceDate(),
                ledgerDate == null ? wanted.invoiceDate() : ledgerDate,
                roles.of(AccountRole.PAYABLES, currency),
                apart == null || apart.isBlank()
                        ? Money.zero(currency)
                        : Money.typed(apart, currency, "notDiscountable"),
                Boolean.TRUE.equals(wanted.ownCheck()),
                wanted.usableFrom(),
                ownTerms,
                wanted.dueDate(),
                wanted.lines().stream()
                        .map(line -> new NewInvoice.Line(
                                new AccountId(line.account()),
                                Money.typed(line.amount(), currency, "lines"),
                                line.job() == null || line.job().isBlank()
                                        ? null
                                        : line.job().strip()))
                        .toList());
    }

    /**
     * The currency of a document: its own, or the vendor's usual one.
     *
     * @throws Refusal when the company has no account in it
     */
    Currency currency(Vendor of, @Nullable String own) {
        if (own == null || own.isBlank()) {
            return of.currency();
        }
        return currencies(of).stream()
                .filter(one -> one.getCurrencyCode().equals(own))
                .findFirst()
                .orElseThrow(() -> Refusal.invalidField(
                        "no-account-of-currency",
                        "currency",
                        "The company has no bank account in " + own + ", so nothing in it can be paid. Have one opened"
                                + " first, or choose another currency."));
    }

    /** Those a document of a vendor may be in, the usual one first. */
    Set<Currency> currencies(Vendor of) {
        Set<Currency> all = new LinkedHashSet<>(List.of(of.currency()));
        all.addAll(bankAccounts.currencies());
        return all;
    }

    /** What is open of a document. */
    Money open(InvoiceId id) {
        return openItems.open(List.of(id)).get(id).open();
    }

    static @Nullable Terms terms(@Nullable String text) {
        return text == null || text.isBlank() ? null : Terms.typed(text);
    }
}
