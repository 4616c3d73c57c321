package leveltally.server.vendors;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import leveltally.core.Dates;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.invoices.SettlementKind;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentState;
import leveltally.core.vendors.VendorAccount;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** A vendor's account in time order, and its entries and payments by themselves. */
@Component
class VendorAccounts {
    private static final int MOST = 20_000;

    private final JdbcClient jdbc;
    private final Vendors vendors;

    VendorAccounts(JdbcClient jdbc, Vendors vendors) {
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
    List<AccountRow> of(VendorId id, Show show) {
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

    /** Arrivals and settlements by ledger date, an arrival before what settles it, with the balance after each; newest first. */
    private List<AccountRow> inTime(VendorId id) {
        List<VendorAccount.Movement> movements = jdbc.sql("""
                        SELECT ledger_date, id AS entry, kind, reference, amount_minor, currency, NULL AS settles,
                          FALSE AS undoes
                        FROM invoice WHERE vendor_id = :vendor
                        UNION ALL
                        SELECT s.ledger_date, i.id, i.kind, i.reference, s.amount_minor, s.currency, s.kind,
                          s.reverses_id IS NOT NULL
                        FROM settlement s JOIN invoice i ON i.id = s.invoice_id WHERE i.vendor_id = :vendor
                        ORDER BY ledger_date, entry, settles IS NOT NULL
                        """)
                .param("vendor", id.value())
                .query((r, n) -> movement(r))
                .list();
        List<AccountRow> rows = new ArrayList<>();
        for (VendorAccount.Row row : VendorAccount.of(movements).rows()) {
            VendorAccount.Movement m = row.movement();
            rows.add(new AccountRow(
                    "m" + rows.size(),
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
        Collections.reverse(rows);
        return rows;
    }

    private static VendorAccount.Movement movement(ResultSet r) throws SQLException {
        InvoiceKind kind = InvoiceKind.valueOf(r.getString("kind"));
        String settles = r.getString("settles");
        Money amount = Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"));
        // what settles an invoice lowers what is owed, what settles a credit raises it
        boolean raises = kind.raises() == (settles == null);
        return new VendorAccount.Movement(
                r.getObject("ledger_date", LocalDate.class),
                r.getLong("entry"),
                settles == null ? kind.words() : SettlementKind.valueOf(settles).words(r.getBoolean("undoes")),
                r.getString("reference"),
                raises ? amount : amount.negated());
    }

    private List<AccountRow> entries(VendorId id, String which) {
        return jdbc.sql("""
                        SELECT i.id, i.kind, i.reference, i.invoice_date, i.due_date, i.amount_minor, i.open_minor, i.currency,
                          i.hold_reason, i.usable_from, b.name AS batch
                        FROM invoice i LEFT JOIN reservation r ON r.invoice_id = i.id LEFT JOIN batch b ON b.id = r.batch_id
                        WHERE i.vendor_id = :vendor AND %s ORDER BY i.due_date DESC, i.id DESC LIMIT :most
                        """.formatted(which))
                .param("vendor", id.value())
                .param("most", MOST)
                .query((r, n) -> entry(r))
                .list();
    }

    private static AccountRow entry(ResultSet r) throws SQLException {
        String currency = r.getString("currency");
        boolean open = r.getLong("open_minor") > 0;
        String held = r.getString("hold_reason");
        String batch = r.getString("batch");
        InvoiceKind kind = InvoiceKind.valueOf(r.getString("kind"));
        return new AccountRow(
                r.getString("id"),
                r.getObject("invoice_date", LocalDate.class),
                r.getLong("id"),
                kind.name(),
                kind.words(),
                r.getString("reference"),
                MoneyView.of(r.getLong("amount_minor"), currency).text(),
                currency,
                MoneyView.of(r.getLong("open_minor"), currency).text(),
                null,
                kind == InvoiceKind.PREPAYMENT ? null : r.getObject("due_date", LocalDate.class),
                held != null
                        ? "held: " + held
                        : batch != null
                                ? "in “" + batch + "”"
                                : open ? usable(r.getObject("usable_from", LocalDate.class)) : "settled",
                !open,
                held != null,
                open && held == null && batch == null);
    }

    private static String usable(@Nullable LocalDate from) {
        return from == null ? "open" : "usable from " + Dates.inWords(from);
    }

    private List<AccountRow> payments(VendorId id) {
        return jdbc.sql("""
                        SELECT p.id, p.check_date, p.amount_minor, p.currency, n.number, p.state, p.payee FROM payment p
                        LEFT JOIN check_number n ON n.id = (SELECT MAX(x.id) FROM check_number x WHERE x.payment_id = p.id)
                        WHERE p.vendor_id = :vendor ORDER BY p.check_date DESC, p.id DESC LIMIT :most
                        """)
                .param("vendor", id.value())
                .param("most", MOST)
                .query((r, n) -> payment(r))
                .list();
    }

    private static AccountRow payment(ResultSet r) throws SQLException {
        String currency = r.getString("currency");
        String number = r.getString("number");
        return new AccountRow(
                "p" + r.getLong("id"),
                r.getObject("check_date", LocalDate.class),
                r.getLong("id"),
                "PAYMENT",
                "Check to " + r.getString("payee"),
                number == null ? "" : number,
                MoneyView.of(r.getLong("amount_minor"), currency).text(),
                currency,
                null,
                null,
                null,
                PaymentState.valueOf(r.getString("state")).words(),
                false,
                false,
                false);
    }
}
