package leveltally.server.invoices;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.LocalDate;
import java.util.List;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountRole;
import leveltally.core.money.Money;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.VendorId;
import leveltally.server.ledger.AccountRoles;
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

    InvoiceEntries(AccountRoles roles, Vendors vendors, OpenItems openItems) {
        this.openItems = openItems;
        this.roles = roles;
        this.vendors = vendors;
    }

    record LineEntry(
            long account,
            @NotNull @Size(max = 30) String amount,
            @Nullable @Size(max = 20) String job) {}

    /** {@code ledgerDate} null: the invoice date. */
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
            @NotEmpty @Size(max = 500) @Valid List<LineEntry> lines) {}

    NewInvoice of(InvoiceEntry wanted) {
        Vendor of = vendors.get(new VendorId(wanted.vendor()));
        String apart = wanted.notDiscountable();
        LocalDate ledgerDate = wanted.ledgerDate();
        Terms ownTerms = terms(wanted.terms());
        return new NewInvoice(
                wanted.kind(),
                of.id(),
                wanted.reference(),
                wanted.invoiceDate(),
                ledgerDate == null ? wanted.invoiceDate() : ledgerDate,
                roles.of(AccountRole.PAYABLES, of.currency()),
                apart == null || apart.isBlank()
                        ? Money.zero(of.currency())
                        : Money.typed(apart, of.currency(), "notDiscountable"),
                Boolean.TRUE.equals(wanted.ownCheck()),
                wanted.usableFrom(),
                ownTerms,
                wanted.dueDate(),
                wanted.lines().stream()
                        .map(line -> new NewInvoice.Line(
                                new AccountId(line.account()),
                                Money.typed(line.amount(), of.currency(), "lines"),
                                line.job() == null || line.job().isBlank()
                                        ? null
                                        : line.job().strip()))
                        .toList());
    }

    /** What is open of a document. */
    Money open(InvoiceId id) {
        return openItems.open(List.of(id)).get(id).open();
    }

    static @Nullable Terms terms(@Nullable String text) {
        return text == null || text.isBlank() ? null : Terms.typed(text);
    }
}
