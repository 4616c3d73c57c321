package leveltally.server.workline;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.checks.Standing;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.money.Money;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.workline.Sought;
import leveltally.server.frame.MoneyView;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * The search over everything. Each question is answered from an index, so that a million invoices cost no more than a
 * thousand; of what an index finds, only the first so many are looked at.
 */
@Component
class Search {
    private static final int MOST_FOUND = 6;
    private static final int MOST_LOOKED_AT = 500;
    private static final String INVOICE = """
            SELECT i.id, i.kind, i.reference, i.amount_minor, i.open_minor, i.currency, v.id AS vendor_id, v.name AS vendor,
              b.id AS batch_id, b.name AS batch
            FROM (%s) hit JOIN invoice i ON i.id = hit.id JOIN vendor v ON v.id = i.vendor_id
            LEFT JOIN reservation r ON r.invoice_id = i.id LEFT JOIN batch b ON b.id = r.batch_id
            ORDER BY i.is_open DESC, i.due_date LIMIT :most
            """;
    private static final String CHECK = """
            SELECT n.id, CONCAT(s.prefix, n.number) AS number, n.state, n.series_id, COALESCE(p.payee, '') AS payee,
              p.amount_minor, p.currency
            FROM check_register n JOIN number_series s ON s.id = n.series_id LEFT JOIN payment p ON p.id = n.payment_id
            """;

    private final JdbcClient jdbc;

    Search(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** Batches, checks, vendors, invoices and payments that fit the text. */
    @Transactional(readOnly = true)
    List<FoundView> holding(String text) {
        Sought sought = Sought.of(text);
        if (sought.isTooShort()) {
            return List.of();
        }
        List<FoundView> found = new ArrayList<>();
        found.addAll(batches(sought));
        if (sought.number().isPresent()) {
            found.addAll(checks(sought, ""));
            found.addAll(entry(sought.number().getAsLong()));
        }
        sought.lettered().ifPresent(check -> found.addAll(checks(check.digits(), check.prefix())));
        found.addAll(elsewhere(sought));
        found.addAll(byFile(sought));
        found.addAll(wired(sought));
        found.addAll(vendors(sought));
        found.addAll(invoices(sought));
        found.addAll(amounts(sought));
        return found.stream().distinct().toList();
    }

    private List<FoundView> batches(Sought sought) {
        return jdbc.sql("SELECT id, name, state FROM batch WHERE name LIKE :within ORDER BY id DESC LIMIT :most")
                .param("within", sought.within())
                .param("most", MOST_FOUND)
                .query((r, n) -> new FoundView(
                        "Batch",
                        r.getString("name"),
                        leveltally.core.batches.BatchState.valueOf(r.getString("state"))
                                .words(),
                        "/batches/" + r.getLong("id")))
                .list();
    }

    /** @param prefix of their series; empty for any */
    private List<FoundView> checks(Sought digits, String prefix) {
        String ranges = digits.numbersBeginningSo().stream()
                .map(range -> "n.number BETWEEN " + range.first() + " AND " + range.last())
                .collect(Collectors.joining(" OR "));
        return ranges.isEmpty()
                ? List.of()
                : jdbc.sql(CHECK + " WHERE (" + ranges + ") AND (:prefix = '' OR s.prefix = :prefix)"
                                + " ORDER BY n.number DESC LIMIT :most")
                        .param("prefix", prefix)
                        .param("most", MOST_FOUND)
                        .query((r, n) -> check(r))
                        .list();
    }

    /** Payments made elsewhere, by the reference the bank or the card's issuer gave. */
    private List<FoundView> elsewhere(Sought sought) {
        return jdbc.sql("SELECT n.number, w.method, p.payee, p.amount_minor, p.currency FROM outside_number n"
                        + " JOIN way_to_pay w ON w.id = n.way_id JOIN payment p ON p.id = n.payment_id"
                        + " WHERE n.number LIKE :beginning ORDER BY p.id DESC LIMIT :most")
                .param("beginning", sought.beginning())
                .param("most", MOST_FOUND)
                .query((r, n) -> new FoundView(
                        "Payment",
                        PaymentMethod.valueOf(r.getString("method")).called(r.getString("number")),
                        r.getString("payee") + ", "
                                + MoneyView.of(r.getLong("amount_minor"), r.getString("currency"))
                                        .text(),
                        "/outside?text=" + URLEncoder.encode(r.getString("number"), StandardCharsets.UTF_8)))
                .list();
    }

    /** Wires ordered from a list, by our reference or the bank's. */
    private List<FoundView> wired(Sought sought) {
        return jdbc.sql(
                        "SELECT COALESCE(w.bank_reference, w.called) AS called, p.payee, p.amount_minor, p.currency, p.batch_id,"
                                + " p.claim_id FROM wire_order w JOIN payment p ON p.id = w.payment_id"
                                + " WHERE w.called LIKE :beginning OR w.bank_reference LIKE :beginning ORDER BY p.id DESC LIMIT :most")
                .param("beginning", sought.beginning())
                .param("most", MOST_FOUND)
                .query((r, n) -> new FoundView(
                        "Payment",
                        PaymentMethod.WIRE.called(r.getString("called")),
                        r.getString("payee") + ", "
                                + MoneyView.of(r.getLong("amount_minor"), r.getString("currency"))
                                        .text(),
                        "/wires/" + r.getLong("batch_id") + "?at=" + r.getLong("claim_id")))
                .list();
    }

    /** Payments that files carry, by their reference. */
    private List<FoundView> byFile(Sought sought) {
        return jdbc.sql(
                        "SELECT i.called, w.method, p.payee, p.amount_minor, p.currency, p.batch_id, p.claim_id FROM electronic_item i"
                                + " JOIN way_to_pay w ON w.id = i.way_id JOIN payment p ON p.id = i.payment_id"
                                + " WHERE i.called LIKE :beginning ORDER BY p.id DESC LIMIT :most")
                .param("beginning", sought.beginning())
                .param("most", MOST_FOUND)
                .query((r, n) -> new FoundView(
                        "Payment",
                        PaymentMethod.valueOf(r.getString("method")).called(r.getString("called")),
                        r.getString("payee") + ", "
                                + MoneyView.of(r.getLong("amount_minor"), r.getString("currency"))
                                        .text(),
                        "/file/" + r.getLong("batch_id") + "?at=" + r.getLong("claim_id")))
                .list();
    }

    private static FoundView check(java.sql.ResultSet r) throws java.sql.SQLException {
        String payee = r.getString("payee");
        String amount = r.getString("currency") == null
                ? ""
                : ", "
                        + MoneyView.of(r.getLong("amount_minor"), r.getString("currency"))
                                .text();
        return new FoundView(
                "Check",
                r.getString("number"),
                Standing.named(r.getString("state")).map(Standing::words).orElse("")
                        + (payee.isEmpty() ? "" : " · " + payee + amount),
                "/register?series=" + r.getLong("series_id") + "&check=" + r.getLong("id"));
    }

    private List<FoundView> entry(long number) {
        return jdbc.sql(INVOICE.formatted("SELECT id FROM invoice WHERE id = :number"))
                .param("number", number)
                .param("most", 1)
                .query((r, n) -> invoice("Entry " + number, r))
                .list();
    }

    private List<FoundView> vendors(Sought sought) {
        return jdbc.sql("SELECT id, name, number FROM vendor WHERE name LIKE :within OR number LIKE :beginning"
                        + " ORDER BY name LIMIT :most")
                .param("within", sought.within())
                .param("beginning", sought.beginning())
                .param("most", MOST_FOUND)
                .query((r, n) -> new FoundView(
                        "Vendor", r.getString("name"), r.getString("number"), "/vendors/" + r.getLong("id")))
                .list();
    }

    /** By the vendor's reference: its beginning, or its end, which is what people read out. */
    private List<FoundView> invoices(Sought sought) {
        return jdbc.sql(INVOICE.formatted(
                        "(SELECT id FROM invoice WHERE reference LIKE :beginning LIMIT " + MOST_LOOKED_AT
                                + ") UNION (SELECT id FROM invoice WHERE reference_backwards LIKE :backwards LIMIT "
                                + MOST_LOOKED_AT + ")"))
                .param("beginning", sought.beginning())
                .param("backwards", sought.backwards())
                .param("most", MOST_FOUND)
                .query((r, n) -> invoice(r.getString("reference"), r))
                .list();
    }

    private static FoundView invoice(String title, java.sql.ResultSet r) throws java.sql.SQLException {
        long open = r.getLong("open_minor");
        String currency = r.getString("currency");
        String batch = r.getString("batch");
        String amount = MoneyView.of(r.getLong("amount_minor"), currency).text();
        return new FoundView(
                InvoiceKind.valueOf(r.getString("kind")).words(),
                title,
                r.getString("vendor") + " · " + amount
                        + (open == r.getLong("amount_minor")
                                ? " open"
                                : open == 0
                                        ? " settled"
                                        : ", open "
                                                + MoneyView.of(open, currency).text())
                        + (batch == null ? "" : " · in " + batch),
                "/invoices/" + r.getLong("id"));
    }

    /** Invoices and payments of exactly this amount, in any currency we pay in. */
    private List<FoundView> amounts(Sought sought) {
        List<FoundView> found = new ArrayList<>();
        List<String> currencies = jdbc.sql("SELECT DISTINCT currency FROM bank_account ORDER BY currency")
                .query(String.class)
                .list();
        for (String code : currencies) {
            Money amount = sought.amountIn(Currency.getInstance(code)).orElse(null);
            if (amount == null) {
                continue;
            }
            Map<String, Object> exactly = Map.of("currency", code, "minor", amount.minor(), "most", MOST_FOUND);
            found.addAll(jdbc.sql(INVOICE.formatted("SELECT id FROM invoice WHERE amount_minor = :minor"
                            + " AND currency = :currency LIMIT " + MOST_LOOKED_AT))
                    .params(exactly)
                    .query((r, n) -> invoice(r.getString("reference"), r))
                    .list());
            found.addAll(jdbc.sql(CHECK + " WHERE p.amount_minor = :minor AND p.currency = :currency"
                            + " ORDER BY n.number DESC LIMIT :most")
                    .params(exactly)
                    .query((r, n) -> check(r))
                    .list());
        }
        return found;
    }
}
