package leveltally.server.imports;

import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import leveltally.core.imports.Finding;
import leveltally.core.imports.InvoiceDocument;
import leveltally.core.imports.InvoiceRow;
import leveltally.core.imports.Reading;
import leveltally.core.imports.VendorRow;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountRole;
import leveltally.core.people.Actor;
import leveltally.core.vendors.VendorId;
import leveltally.server.invoices.Arrival;
import leveltally.server.invoices.Entering;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.ledger.AccountRoles;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.Vendors;
import org.springframework.stereotype.Component;

/** Turns checked rows into vendors and posted invoices, by the same deeds as entries by hand. */
@Component
class Arrivals {
    private final Entering entering;
    private final AccountRoles roles;
    private final Vendors vendors;
    private final ImportLookups lookups;

    Arrivals(Entering entering, AccountRoles roles, Vendors vendors, ImportLookups lookups) {
        this.entering = entering;
        this.roles = roles;
        this.vendors = vendors;
        this.lookups = lookups;
    }

    void vendors(Actor by, List<Map<String, String>> rows, ImportLeases.Job job) {
        ImportLookups.Known known = lookups.known();
        List<Vendors.Arrival> arriving = rows.stream()
                .map(cells -> Objects.requireNonNull(
                        VendorRow.read(cells, known.currencies()).row()))
                .map(row -> new Vendors.Arrival(
                        new Vendor(
                                new VendorId(0),
                                row.number(),
                                row.name(),
                                row.group(),
                                row.priority(),
                                row.method(),
                                row.currency(),
                                row.terms(),
                                null,
                                false),
                        row.remitTo(),
                        row.postalCode()))
                .toList();
        vendors.addAll(by, arriving, "import " + job.id());
    }

    /** @param documents the cells of all rows of each */
    void invoices(Actor by, List<List<Map<String, String>>> documents, ImportLeases.Job job) {
        ImportLookups.Known known = lookups.known();
        Map<String, Vendor> named = vendors.byNumber(
                documents.stream().map(rows -> rows.get(0).get("vendor")).collect(Collectors.toSet()));
        Map<Long, Long> remitTos =
                vendors.usualRemitTos(named.values().stream().map(Vendor::id).toList());
        Map<Currency, AccountId> payables = new HashMap<>();
        List<Arrival> arriving = new ArrayList<>();
        for (List<Map<String, String>> rows : documents) {
            InvoiceDocument document = document(rows, known, job.choices().reading());
            Vendor vendor = named.get(document.head().vendor());
            AccountId owed = payables.computeIfAbsent(
                    document.head().amount().currency(), currency -> roles.of(AccountRole.PAYABLES, currency));
            arriving.add(new Arrival(
                    invoice(document, vendor, owed),
                    vendor,
                    remitTos.get(vendor.id().value())));
        }
        entering.enterAll(by, arriving, "import " + job.id(), job.id());
    }

    private static InvoiceDocument document(List<Map<String, String>> rows, ImportLookups.Known known, Reading how) {
        List<InvoiceRow> read = new ArrayList<>();
        for (Map<String, String> cells : rows) {
            known.prepare(cells.getOrDefault("vendor", ""));
            InvoiceRow.Read one = InvoiceRow.read(cells, known, how);
            if (one.row() == null) {
                throw changed(one.findings().get(0));
            }
            read.add(one.row());
        }
        InvoiceDocument.Read whole = InvoiceDocument.of(read);
        if (whole.document() == null) {
            throw changed(Objects.requireNonNull(whole.finding()));
        }
        return whole.document();
    }

    /** A period locked, or an account gone, between the check and now. */
    private static Unreadable changed(Finding finding) {
        return new Unreadable("Something changed since the file was checked: " + finding.column() + " "
                + finding.reason() + ". What came in before stays; have the rest checked again.");
    }

    private static NewInvoice invoice(InvoiceDocument document, Vendor vendor, AccountId payables) {
        InvoiceRow head = document.head();
        return new NewInvoice(
                head.credit() ? InvoiceKind.CREDIT : InvoiceKind.INVOICE,
                vendor.id(),
                head.reference(),
                head.invoiceDate(),
                head.ledgerDate(),
                payables,
                document.notDiscountable(),
                document.ownCheck(),
                document.usableFrom(),
                document.rows().stream()
                        .map(InvoiceRow::terms)
                        .filter(Objects::nonNull)
                        .findFirst()
                        .orElse(null),
                document.rows().stream()
                        .map(InvoiceRow::dueDate)
                        .filter(Objects::nonNull)
                        .findFirst()
                        .orElse(null),
                document.rows().stream()
                        .map(row -> new NewInvoice.Line(
                                row.account(), row.amount(), row.job().isEmpty() ? null : row.job()))
                        .toList());
    }
}
