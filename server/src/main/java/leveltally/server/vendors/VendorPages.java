package leveltally.server.vendors;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.VendorAccount;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** What the vendor pages show: a vendor, its account in time order, its open, reserved and settled entries. */
@Component
class VendorPages {
    static final List<String> COLUMNS = List.of(
            "number", "name", "group", "priority", "method", "currency", "terms", "address", "postal_code", "held");
    private static final int PAGE = 200;

    private final JdbcClient jdbc;
    private final Vendors vendors;

    VendorPages(JdbcClient jdbc, Vendors vendors) {
        this.jdbc = jdbc;
        this.vendors = vendors;
    }

    /** What is listed of an account. */
    enum Show {
        ALL,
        OPEN,
        RESERVED,
        SETTLED,
        CREDITS,
        PAYMENTS
    }

    @Transactional(readOnly = true)
    List<VendorController.ListedVendor> list(String text, @org.jspecify.annotations.Nullable String group, int from) {
        String like = "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
        return jdbc.sql("""
                        SELECT v.id, v.number, v.name, v.vendor_group, v.priority, v.method, COALESCE(v.hold_reason, ''),
                          (SELECT COUNT(*) FROM invoice i WHERE i.vendor_id = v.id AND i.is_open = 1 AND i.kind = 'INVOICE'),
                          (SELECT COALESCE(SUM(i.open_minor), 0) FROM invoice i
                            WHERE i.vendor_id = v.id AND i.is_open = 1 AND i.kind = 'INVOICE' AND i.currency = v.currency),
                          v.currency
                        FROM vendor v
                        WHERE (v.name LIKE :like OR v.number LIKE :like) AND (:group IS NULL OR v.vendor_group = :group)
                          AND v.merged_into_id IS NULL
                        ORDER BY v.name, v.id LIMIT :from, :page
                        """)
                .param("like", like)
                .param("group", group == null || group.isBlank() ? null : group)
                .param("from", from)
                .param("page", PAGE)
                .query((r, n) -> new VendorController.ListedVendor(
                        r.getLong(1),
                        r.getString(2),
                        r.getString(3),
                        r.getString(4),
                        r.getInt(5),
                        leveltally.core.vendors.PaymentMethod.valueOf(r.getString(6))
                                .words(),
                        r.getString(7),
                        r.getInt(8),
                        MoneyView.of(r.getLong(9), r.getString(10))))
                .list();
    }

    /** Every vendor as a row of the columns they are brought in by. */
    Stream<List<String>> all() {
        return jdbc
                .sql("""
                        SELECT v.number, v.name, v.vendor_group, v.priority, v.method, v.currency, v.terms_rule, v.terms_days,
                          v.terms_cut_off_day, v.discount_rate, v.discount_days, t.address, t.postal_code, v.hold_reason
                        FROM vendor v JOIN remit_to t ON t.id = (SELECT MIN(x.id) FROM remit_to x WHERE x.vendor_id = v.id)
                        ORDER BY v.name, v.id
                        """)
                .query((r, n) -> List.of(
                        r.getString(1),
                        r.getString(2),
                        r.getString(3),
                        r.getString(4),
                        leveltally.core.vendors.PaymentMethod.valueOf(r.getString(5))
                                .words(),
                        r.getString(6),
                        new leveltally.core.terms.Terms(
                                        leveltally.core.terms.Terms.Rule.valueOf(r.getString(7)),
                                        r.getInt(8),
                                        r.getObject(9, Integer.class),
                                        r.getBigDecimal(10),
                                        r.getInt(11))
                                .inWords(),
                        r.getString(12).replace("\n", "; "),
                        r.getString(13),
                        r.getString(14) == null ? "" : r.getString(14)))
                .list()
                .stream();
    }

    @Transactional(readOnly = true)
    VendorController.VendorView one(VendorId id) {
        Vendor vendor = vendors.get(id);
        List<VendorController.AddressView> addresses = jdbc.sql(
                        "SELECT id, payee, address, postal_code, bank_mask, in_force FROM remit_to"
                                + " WHERE vendor_id = :vendor ORDER BY id")
                .param("vendor", id.value())
                .query((r, n) -> new VendorController.AddressView(
                        r.getLong(1),
                        r.getString(2),
                        List.of(r.getString(3).split("\n")),
                        r.getString(4),
                        r.getString(5),
                        r.getBoolean(6)))
                .list();
        List<MoneyView> open = new ArrayList<>();
        List<MoneyView> credits = new ArrayList<>();
        List<MoneyView> reserved = new ArrayList<>();
        jdbc.sql("""
                        SELECT i.currency, SUM(CASE WHEN i.kind = 'INVOICE' THEN i.open_minor ELSE 0 END),
                          SUM(CASE WHEN i.kind <> 'INVOICE' THEN i.open_minor ELSE 0 END),
                          SUM(CASE WHEN i.kind = 'INVOICE' AND r.invoice_id IS NOT NULL THEN i.open_minor ELSE 0 END)
                        FROM invoice i LEFT JOIN reservation r ON r.invoice_id = i.id
                        WHERE i.vendor_id = :vendor AND i.is_open = 1 GROUP BY i.currency
                        """).param("vendor", id.value()).query((ResultSet r) -> {
            add(open, r.getLong(2), r.getString(1));
            add(credits, r.getLong(3), r.getString(1));
            add(reserved, r.getLong(4), r.getString(1));
        });
        // cash paid by check date; a void in the same year takes it off, a later one moves nothing silently
        List<VendorController.PaidYear> paid = jdbc.sql("""
                        SELECT YEAR(p.check_date), COUNT(*), SUM(p.amount_minor), p.currency FROM payment p
                        LEFT JOIN journal_entry v ON v.id = p.undone_entry_id
                        WHERE p.vendor_id = :vendor AND p.posted_entry_id IS NOT NULL
                          AND (v.id IS NULL OR YEAR(v.ledger_date) > YEAR(p.check_date))
                        GROUP BY YEAR(p.check_date), p.currency ORDER BY 1 DESC, 4
                        """)
                .param("vendor", id.value())
                .query((r, n) -> new VendorController.PaidYear(
                        r.getInt(1), r.getInt(2), MoneyView.of(r.getLong(3), r.getString(4))))
                .list();
        List<VendorController.OffsetView> offsets = jdbc.sql("""
                        SELECT id, reference, ledger_date, amount_minor, currency, undone_at IS NOT NULL FROM credit_offset
                        WHERE vendor_id = :vendor ORDER BY id DESC LIMIT 20
                        """)
                .param("vendor", id.value())
                .query((r, n) -> new VendorController.OffsetView(
                        r.getLong(1),
                        r.getString(2),
                        r.getObject(3, LocalDate.class),
                        MoneyView.of(r.getLong(4), r.getString(5)),
                        r.getBoolean(6)))
                .list();
        String held = vendor.holdReason();
        return new VendorController.VendorView(
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
                addresses,
                open,
                credits,
                reserved,
                paid,
                offsets,
                mergedInto(id));
    }

    private VendorController.@Nullable MergedInto mergedInto(VendorId id) {
        return jdbc.sql(
                        "SELECT k.id, k.number, k.name FROM vendor g JOIN vendor k ON k.id = g.merged_into_id WHERE g.id = ?")
                .param(id.value())
                .query(VendorController.MergedInto.class)
                .optional()
                .orElse(null);
    }

    private static void add(List<MoneyView> to, long minor, String currency) {
        if (minor != 0) {
            to.add(MoneyView.of(minor, currency));
        }
    }

    @Transactional(readOnly = true)
    List<VendorController.AccountRow> account(VendorId id, Show show) {
        vendors.get(id);
        return switch (show) {
            case ALL -> inTime(id);
            case OPEN -> entries(id, "i.is_open = 1 AND i.kind = 'INVOICE'");
            case RESERVED -> entries(id, "i.is_open = 1 AND r.invoice_id IS NOT NULL");
            case SETTLED -> entries(id, "i.is_open = 0");
            case CREDITS -> entries(id, "i.kind <> 'INVOICE'");
            case PAYMENTS -> payments(id);
        };
    }

    /** Arrivals and settlements by ledger date, with the balance after each, newest first. */
    private List<VendorController.AccountRow> inTime(VendorId id) {
        List<VendorAccount.Movement> movements = new ArrayList<>();
        jdbc.sql("""
                        SELECT ledger_date, id, kind, reference, amount_minor, currency, 0, '' FROM invoice
                        WHERE vendor_id = :vendor
                        UNION ALL
                        SELECT s.ledger_date, i.id, i.kind, i.reference, s.amount_minor, s.currency, 1, CONCAT(s.kind,
                          CASE WHEN s.reverses_id IS NOT NULL THEN ' BACK' ELSE '' END)
                        FROM settlement s JOIN invoice i ON i.id = s.invoice_id WHERE i.vendor_id = :vendor
                        """)
                .param("vendor", id.value())
                .query((r, n) -> movements.add(movement(r)))
                .list();
        movements.sort(Comparator.comparing(VendorAccount.Movement::date)
                .thenComparing(movement -> movement.entry())
                .thenComparing(movement -> movement.words().startsWith("Invoice") ? 0 : 1));
        List<VendorController.AccountRow> rows = new ArrayList<>();
        int place = 0;
        for (VendorAccount.Row row : VendorAccount.of(movements).rows()) {
            VendorAccount.Movement m = row.movement();
            rows.add(new VendorController.AccountRow(
                    "m" + place++,
                    m.date(),
                    m.entry(),
                    "MOVEMENT",
                    m.words(),
                    m.reference(),
                    m.amount().toString(),
                    m.amount().currency().getCurrencyCode(),
                    null,
                    row.balance().toString(),
                    null,
                    "",
                    false,
                    false,
                    false));
        }
        java.util.Collections.reverse(rows);
        return rows;
    }

    private static final Map<String, String> SETTLED = new LinkedHashMap<>();

    static {
        SETTLED.put("CASH", "Paid");
        SETTLED.put("DISCOUNT", "Discount taken");
        SETTLED.put("CREDIT", "Credit used");
        SETTLED.put("PREPAYMENT", "Prepayment matched");
        SETTLED.put("CANCELLATION", "Cancelled");
        SETTLED.put("OPENING", "Settled before we began");
        SETTLED.put("CASH BACK", "Payment voided");
        SETTLED.put("DISCOUNT BACK", "Discount given back");
        SETTLED.put("CREDIT BACK", "Credit given back");
    }

    private static VendorAccount.Movement movement(ResultSet r) throws SQLException {
        boolean settlement = r.getBoolean(7);
        boolean invoice = r.getString(3).equals("INVOICE");
        Money amount = Money.ofMinor(r.getLong(5), r.getString(6));
        String words = settlement
                ? SETTLED.getOrDefault(r.getString(8), r.getString(8))
                : invoice ? "Invoice" : r.getString(3).equals("CREDIT") ? "Credit" : "Prepayment";
        // an invoice raises what is owed and its settlement lowers it; a credit the other way round
        boolean raises = invoice != settlement;
        return new VendorAccount.Movement(
                r.getObject(1, LocalDate.class),
                r.getLong(2),
                words,
                r.getString(4),
                raises ? amount : amount.negated());
    }

    private List<VendorController.AccountRow> entries(VendorId id, String which) {
        return jdbc.sql("""
                        SELECT i.id, i.kind, i.reference, i.invoice_date, i.due_date, i.amount_minor, i.open_minor, i.currency,
                          i.hold_reason, b.name
                        FROM invoice i LEFT JOIN reservation r ON r.invoice_id = i.id LEFT JOIN batch b ON b.id = r.batch_id
                        WHERE i.vendor_id = :vendor AND %s ORDER BY i.due_date DESC, i.id DESC LIMIT 20000
                        """.formatted(which))
                .param("vendor", id.value())
                .query((r, n) -> {
                    boolean open = r.getLong(7) > 0;
                    String held = r.getString(9);
                    String batch = r.getString(10);
                    String state = held != null
                            ? "held: " + held
                            : batch != null ? "in “" + batch + "”" : open ? "open" : "settled";
                    return new VendorController.AccountRow(
                            String.valueOf(r.getLong(1)),
                            r.getObject(4, LocalDate.class),
                            r.getLong(1),
                            r.getString(2),
                            r.getString(2).equals("INVOICE")
                                    ? "Invoice"
                                    : r.getString(2).equals("CREDIT") ? "Credit" : "Prepayment",
                            r.getString(3),
                            MoneyView.of(r.getLong(6), r.getString(8)).text(),
                            r.getString(8),
                            MoneyView.of(r.getLong(7), r.getString(8)).text(),
                            null,
                            r.getObject(5, LocalDate.class),
                            state,
                            !open,
                            held != null,
                            open && held == null && batch == null);
                })
                .list();
    }

    private List<VendorController.AccountRow> payments(VendorId id) {
        return jdbc.sql("""
                        SELECT p.id, p.check_date, p.amount_minor, p.currency, n.number, p.state, p.payee FROM payment p
                        LEFT JOIN check_number n ON n.id = (SELECT MAX(x.id) FROM check_number x WHERE x.payment_id = p.id)
                        WHERE p.vendor_id = :vendor ORDER BY p.check_date DESC, p.id DESC LIMIT 20000
                        """)
                .param("vendor", id.value())
                .query((r, n) -> new VendorController.AccountRow(
                        "p" + r.getLong(1),
                        r.getObject(2, LocalDate.class),
                        r.getLong(1),
                        "PAYMENT",
                        "Check to " + r.getString(7),
                        r.getString(5) == null ? "" : r.getString(5),
                        MoneyView.of(r.getLong(3), r.getString(4)).text(),
                        r.getString(4),
                        null,
                        null,
                        null,
                        PaymentState.valueOf(r.getString(6)).words(),
                        false,
                        false,
                        false))
                .list();
    }
}
