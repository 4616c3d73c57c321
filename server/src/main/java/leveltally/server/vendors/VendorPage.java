package leveltally.server.vendors;

import java.sql.ResultSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.money.Money;
import leveltally.core.vendors.ReportableTotals;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** What a vendor's page shows beside its account. */
@Component
class VendorPage {
    private final JdbcClient jdbc;
    private final Vendors vendors;

    VendorPage(JdbcClient jdbc, Vendors vendors) {
        this.jdbc = jdbc;
        this.vendors = vendors;
    }

    @Transactional(readOnly = true)
    VendorView of(VendorId id) {
        Vendor vendor = vendors.get(id);
        List<MoneyView> open = new ArrayList<>();
        List<MoneyView> credits = new ArrayList<>();
        List<MoneyView> ahead = new ArrayList<>();
        List<MoneyView> reserved = new ArrayList<>();
        jdbc.sql("""
                        SELECT i.currency, SUM(CASE WHEN i.kind = 'INVOICE' THEN i.open_minor ELSE 0 END) AS open,
                          SUM(CASE WHEN i.kind = 'CREDIT' THEN i.open_minor ELSE 0 END) AS credits,
                          SUM(CASE WHEN i.kind = 'PREPAYMENT' THEN i.open_minor ELSE 0 END) AS ahead,
                          SUM(CASE WHEN i.kind = 'INVOICE' AND r.invoice_id IS NOT NULL THEN i.open_minor ELSE 0 END) AS reserved
                        FROM invoice i LEFT JOIN reservation r ON r.invoice_id = i.id
                        WHERE i.vendor_id = :vendor AND i.is_open = 1 GROUP BY i.currency
                        """).param("vendor", id.value()).query((ResultSet r) -> {
            String currency = r.getString("currency");
            add(open, r.getLong("open"), currency);
            add(credits, r.getLong("credits"), currency);
            add(ahead, r.getLong("ahead"), currency);
            add(reserved, r.getLong("reserved"), currency);
        });
        String held = vendor.holdReason();
        return new VendorView(
                id.value(),
                vendor.number(),
                vendor.name(),
                vendor.group(),
                vendor.priority(),
                vendor.method().words(),
                vendor.currency().getCurrencyCode(),
                vendor.terms().inWords(),
                held == null ? "" : held,
                vendor.oneTime(),
                addresses(id),
                open,
                credits,
                ahead,
                reserved,
                paid(id),
                offsets(id),
                mergedInto(id));
    }

    private List<VendorView.AddressView> addresses(VendorId id) {
        return jdbc.sql("""
                        SELECT id, payee, address, postal_code, bank_mask, in_force FROM remit_to
                        WHERE vendor_id = :vendor ORDER BY id
                        """)
                .param("vendor", id.value())
                .query((r, n) -> new VendorView.AddressView(
                        r.getLong("id"),
                        r.getString("payee"),
                        List.of(r.getString("address").split("\n")),
                        r.getString("postal_code"),
                        r.getString("bank_mask"),
                        r.getBoolean("in_force")))
                .list();
    }

    private List<VendorView.PaidYear> paid(VendorId id) {
        List<ReportableTotals.Paid> paid = jdbc.sql("""
                        SELECT x.paid_in, CASE WHEN x.replaced OR x.falls THEN x.paid_in ELSE x.undone_in END AS undone_in,
                          COUNT(*) AS payments, SUM(x.amount_minor) AS amount_minor, x.currency
                        FROM reported_payment x WHERE x.vendor_id = :vendor
                        GROUP BY x.paid_in, CASE WHEN x.replaced OR x.falls THEN x.paid_in ELSE x.undone_in END, x.currency
                        """)
                .param("vendor", id.value())
                .query((r, n) -> new ReportableTotals.Paid(
                        r.getInt("paid_in"),
                        r.getObject("undone_in", Integer.class),
                        r.getInt("payments"),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"))))
                .list();
        return ReportableTotals.of(paid).years().stream()
                .map(year -> new VendorView.PaidYear(
                        year.year(), year.count(), MoneyView.of(year.cash()), year.changedLater()))
                .toList();
    }

    private List<VendorView.OffsetView> offsets(VendorId id) {
        return jdbc.sql("""
                        SELECT id, reference, ledger_date, amount_minor, currency, undone_at FROM credit_offset
                        WHERE vendor_id = :vendor ORDER BY id DESC LIMIT 20
                        """)
                .param("vendor", id.value())
                .query((r, n) -> new VendorView.OffsetView(
                        r.getLong("id"),
                        r.getString("reference"),
                        r.getObject("ledger_date", LocalDate.class),
                        MoneyView.of(r.getLong("amount_minor"), r.getString("currency")),
                        r.getTimestamp("undone_at") != null))
                .list();
    }

    private VendorView.@Nullable MergedInto mergedInto(VendorId id) {
        return jdbc.sql("""
                        SELECT k.id, k.number, k.name FROM vendor g JOIN vendor k ON k.id = g.merged_into_id
                        WHERE g.id = :vendor
                        """)
                .param("vendor", id.value())
                .query(VendorView.MergedInto.class)
                .optional()
                .orElse(null);
    }

    private static void add(List<MoneyView> to, long minor, String currency) {
        if (minor != 0) {
            to.add(MoneyView.of(minor, currency));
        }
    }
}
