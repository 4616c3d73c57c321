package leveltally.server.imports;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import leveltally.core.imports.InvoiceRow;
import leveltally.core.imports.VendorRow;
import leveltally.core.people.Actor;
import leveltally.core.vendors.VendorId;
import leveltally.server.invoices.InvoiceKind;
import leveltally.server.invoices.Invoices;
import leveltally.server.invoices.NewInvoice;
import leveltally.server.vendors.Vendor;
import leveltally.server.vendors.Vendors;
import org.springframework.stereotype.Component;

/** Turns checked rows into vendors and posted invoices, by the same deeds as entries by hand. */
@Component
class Arrivals {
    private final Invoices invoices;
    private final Vendors vendors;
    private final ImportLookups lookups;

    Arrivals(Invoices invoices, Vendors vendors, ImportLookups lookups) {
        this.invoices = invoices;
        this.vendors = vendors;
        this.lookups = lookups;
    }

    void vendors(Actor by, List<Map<String, String>> rows, String from) {
        List<Vendors.Arrival> arriving = rows.stream()
                .map(cells -> Objects.requireNonNull(VendorRow.read(cells).row()))
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
        vendors.addAll(by, arriving, from);
    }

    void invoices(Actor by, List<Map<String, String>> rows, String from) {
        ImportLookups.Known known = lookups.known();
        Map<String, Vendor> named =
                vendors.byNumber(rows.stream().map(cells -> cells.get("vendor")).collect(Collectors.toSet()));
        Map<Long, Long> remitTos =
                vendors.usualRemitTos(named.values().stream().map(Vendor::id).toList());
        List<List<InvoiceRow>> groups = new ArrayList<>();
        String last = "";
        for (Map<String, String> cells : rows) {
            known.prepare(cells.getOrDefault("vendor", ""));
            InvoiceRow.Read read = InvoiceRow.read(cells, known);
            InvoiceRow row = read.row();
            if (row == null) {
                // a period locked, or an account gone, between the check and now
                throw new Unreadable("Something changed since the file was checked: "
                        + read.findings().get(0).column() + " "
                        + read.findings().get(0).reason() + ". What came in before stays; check the rest again.");
            }
            if (!row.identity().equals(last)) {
                groups.add(new ArrayList<>());
            }
            groups.get(groups.size() - 1).add(row);
            last = row.identity();
        }
        Map<String, leveltally.core.ledger.AccountId> payables = new java.util.HashMap<>();
        List<Invoices.Arrival> arriving = new ArrayList<>();
        for (List<InvoiceRow> group : groups) {
            InvoiceRow head = group.get(0);
            Vendor vendor = named.get(head.vendor());
            NewInvoice invoice = new NewInvoice(
                    head.credit() ? InvoiceKind.CREDIT : InvoiceKind.INVOICE,
                    vendor.id(),
                    head.reference(),
                    head.invoiceDate(),
                    head.ledgerDate(),
                    payables.computeIfAbsent(
                            vendor.currency().getCurrencyCode(), currency -> invoices.payablesOf(vendor)),
                    head.notDiscountable(),
                    head.ownCheck(),
                    head.usableFrom(),
                    null,
                    null,
                    group.stream()
                            .map(row -> new NewInvoice.Line(
                                    row.account(), row.amount(), row.job().isEmpty() ? null : row.job()))
                            .toList());
            arriving.add(new Invoices.Arrival(
                    invoice, vendor, remitTos.get(vendor.id().value())));
        }
        invoices.enterAll(by, arriving, from);
    }
}
