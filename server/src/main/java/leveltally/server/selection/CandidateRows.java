package leveltally.server.selection;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Collection;
import java.util.Currency;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.LedgerDays;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.money.Money;
import leveltally.core.selection.Candidate;
import leveltally.core.selection.CreditCandidate;
import leveltally.core.selection.Criteria;
import leveltally.core.selection.Filters;
import leveltally.core.selection.Payee;
import leveltally.core.terms.Discount;
import leveltally.core.vendors.KnownBank;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reach;
import leveltally.core.vendors.VendorId;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.RowMapper;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads candidates: one statement whatever their number, and cost that follows what qualifies. */
@Component
public class CandidateRows {
    /** More than a person or a printer can take on at once; the memory of the server ends there, too. */
    public static final int MOST = 150_000;

    /** {@code :own} is a batch whose own reservations do not count; 0 for none. */
    public static final String COLUMNS = """
            SELECT i.id, i.reference, i.invoice_date, i.due_date, i.ledger_date, i.currency, i.amount_minor,
              i.open_minor, i.discountable_minor, i.discount_rate, i.discount_date, i.discount_taken_minor,
              i.hold_reason, i.own_check, i.remit_to_id, t.postal_code, t.address <> '' AND t.in_force AS reached_by_mail,
              t.bank_kind, t.in_force,
              v.id AS vendor_id, v.number AS vendor_number, v.name AS vendor_name, v.vendor_group, v.priority, v.method, v.also_by,
              v.hold_reason AS vendor_held, b.name AS batch_name, i.open_since,
              i.at_par_minor, t.payee
            """;

    private static final String FROM = """
            FROM invoice i
            JOIN vendor v ON v.id = i.vendor_id
            JOIN remit_to t ON t.id = i.remit_to_id
            LEFT JOIN reservation r ON r.invoice_id = i.id AND r.batch_id <> :own
            LEFT JOIN batch b ON b.id = r.batch_id
            """;

    private final JdbcClient jdbc;

    CandidateRows(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    /** A statement and its parameters: what the criteria look at, without order. */
    public record Statement(String sql, Map<String, Object> params) {}

    /** Two ranges of two indexes, so that nothing is read that neither asks for. */
    public static Statement statement(Criteria criteria, long own) {
        Map<String, Object> params = new LinkedHashMap<>();
        params.put("own", own);
        params.put("dueBy", criteria.dueBy());
        String narrow = narrow(criteria, params);
        String sql = COLUMNS + FROM + " WHERE i.is_open = 1 AND i.kind = 'INVOICE' AND i.due_date <= :dueBy" + narrow;
        LocalDate next = criteria.nextRun();
        if (next != null) {
            params.put("discountFrom", criteria.checkDate().minusDays(criteria.graceDays()));
            params.put("discountBefore", next.minusDays(criteria.graceDays()));
            sql += " UNION ALL " + COLUMNS + FROM + """
                     WHERE i.is_open = 1 AND i.kind = 'INVOICE' AND i.discount_date >= :discountFrom
                       AND i.discount_date < :discountBefore AND i.due_date > :dueBy
                    """ + narrow;
        }
        return new Statement(sql + " LIMIT " + (MOST + 1), params);
    }

    /** What the filters say that means the same in the database; core looks at every row once more. */
    private static String narrow(Criteria criteria, Map<String, Object> params) {
        Filters filters = criteria.filters();
        StringBuilder sql = new StringBuilder();
        if (!filters.vendors().isEmpty()) {
            sql.append(" AND i.vendor_id IN (:vendors)");
            params.put(
                    "vendors", filters.vendors().stream().map(VendorId::value).toList());
        }
        bound(sql, params, " AND v.vendor_group = :", "vendorGroup", filters.group());
        bound(
                sql,
                params,
                " AND v.priority >= :",
                "priorityFrom",
                filters.priority().from());
        bound(
                sql,
                params,
                " AND v.priority <= :",
                "priorityTo",
                filters.priority().to());
        bound(
                sql,
                params,
                " AND i.invoice_date >= :",
                "datedFrom",
                filters.invoiceDate().from());
        bound(
                sql,
                params,
                " AND i.invoice_date <= :",
                "datedTo",
                filters.invoiceDate().to());
        bound(sql, params, " AND i.id >= :", "entryFrom", filters.entry().from());
        bound(sql, params, " AND i.id <= :", "entryTo", filters.entry().to());
        return sql.toString();
    }

    private static void bound(
            StringBuilder sql, Map<String, Object> params, String condition, String name, @Nullable Object value) {
        if (value != null) {
            sql.append(condition).append(name);
            params.put(name, value);
        }
    }

    /**
     * Open invoices the criteria look at, in no order.
     *
     * @throws Refusal when they are more than anybody could look at
     */
    @Transactional(readOnly = true)
    public List<Candidate> askedFor(Criteria criteria, long own) {
        Statement statement = statement(criteria, own);
        List<Candidate> found = jdbc.sql(statement.sql())
                .params(statement.params())
                .query(mapper())
                .list();
        if (found.size() > MOST) {
            throw Refusal.invalidField(
                    "too-many",
                    "dueBy",
                    "More than 150,000 open invoices are due by then, more than one list or batch can hold. "
                            + "Choose an earlier day, a vendor group or a range.");
        }
        return found.stream().filter(criteria::asksFor).toList();
    }

    /** These invoices, due or not; those unknown, settled or no invoices are missing from the answer. */
    @Transactional(readOnly = true)
    public List<Candidate> named(Collection<InvoiceId> ids, long own) {
        if (ids.isEmpty()) {
            return List.of();
        }
        return jdbc.sql(COLUMNS + FROM + " WHERE i.is_open = 1 AND i.kind = 'INVOICE' AND i.id IN " + listed("entries")
                        + " ORDER BY i.due_date, i.id")
                .param("own", own)
                .param("entries", json(ids.stream().map(InvoiceId::value).toList()))
                .query(mapper())
                .list();
    }

    /** Open invoices whose vendor or reference holds the text, at most fifty, free ones first, earliest due first. */
    @Transactional(readOnly = true)
    public List<Candidate> matching(String text, Currency currency) {
        String like = "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
        return jdbc.sql(COLUMNS + FROM + """
                        WHERE i.is_open = 1 AND i.kind = 'INVOICE' AND i.currency = :currency
                          AND (v.name LIKE :like OR i.reference LIKE :like)
                        ORDER BY r.invoice_id IS NOT NULL, i.due_date, i.id LIMIT 50
                        """)
                .param("own", 0)
                .param("like", like)
                .param("currency", currency.getCurrencyCode())
                .query(mapper())
                .list();
    }

    /** Open credits of these vendors, of every currency. */
    @Transactional(readOnly = true)
    public List<CreditCandidate> credits(Collection<VendorId> vendors, long own) {
        if (vendors.isEmpty()) {
            return List.of();
        }
        return jdbc.sql("""
                        SELECT i.id, i.reference, i.invoice_date, i.ledger_date, i.currency, i.open_minor, i.usable_from,
                          i.vendor_id, i.remit_to_id, i.hold_reason, b.name, i.open_since
                        FROM invoice i
                        LEFT JOIN reservation r ON r.invoice_id = i.id AND r.batch_id <> :own
                        LEFT JOIN batch b ON b.id = r.batch_id
                        WHERE i.is_open = 1 AND i.kind = 'CREDIT' AND i.vendor_id IN
                        """ + listed("vendors"))
                .param("own", own)
                .param(
                        "vendors",
                        json(vendors.stream().map(VendorId::value).distinct().toList()))
                .query((r, n) -> new CreditCandidate(
                        new OpenCredit(
                                new InvoiceId(r.getLong("id")),
                                r.getString("reference"),
                                r.getObject("invoice_date", LocalDate.class),
                                new LedgerDays(
                                        r.getObject("ledger_date", LocalDate.class),
                                        r.getObject("open_since", LocalDate.class)),
                                Money.ofMinor(r.getLong("open_minor"), r.getString("currency")),
                                r.getObject("usable_from", LocalDate.class)),
                        new VendorId(r.getLong("vendor_id")),
                        r.getLong("remit_to_id"),
                        r.getString("hold_reason"),
                        r.getString("name")))
                .list();
    }

    /** A list of numbers as one parameter, however long. */
    private static String listed(String name) {
        return "(SELECT n FROM JSON_TABLE(:" + name + ", '$[*]' COLUMNS (n BIGINT PATH '$')) x)";
    }

    private static String json(List<Long> numbers) {
        return numbers.stream().map(String::valueOf).collect(Collectors.joining(",", "[", "]"));
    }

    /** A mapper for the rows of one statement, whose candidates share what is the same in them. */
    public static RowMapper<Candidate> mapper() {
        Shared shared = new Shared(new HashMap<>(), new HashMap<>(), new HashMap<>(), new HashMap<>());
        return (row, n) -> candidate(row, shared);
    }

    /** What stands in many rows and is held once; where a column stands is found once, not in each of 100,000 rows. */
    private record Shared(
            Map<Long, Payee> payees,
            Map<String, Currency> currencies,
            Map<LocalDate, LocalDate> dates,
            Map<String, Integer> places) {
        int at(ResultSet row, String column) throws SQLException {
            Integer place = places.get(column);
            if (place == null) {
                place = row.findColumn(column);
                places.put(column, place);
            }
            return place;
        }

        @Nullable
        LocalDate date(ResultSet row, String column) throws SQLException {
            LocalDate read = row.getObject(at(row, column), LocalDate.class);
            return read == null ? null : dates.computeIfAbsent(read, same -> same);
        }
    }

    private static Candidate candidate(ResultSet row, Shared shared) throws SQLException {
        Currency currency =
                shared.currencies().computeIfAbsent(row.getString(shared.at(row, "currency")), Currency::getInstance);
        Money amount = Money.ofMinor(row.getLong(shared.at(row, "amount_minor")), currency);
        Money open = Money.ofMinor(row.getLong(shared.at(row, "open_minor")), currency);
        Discount discount = Discount.after(
                Money.ofMinor(row.getLong(shared.at(row, "discountable_minor")), currency),
                row.getBigDecimal(shared.at(row, "discount_rate")),
                shared.date(row, "discount_date"),
                amount.minus(open),
                Money.ofMinor(row.getLong(shared.at(row, "at_par_minor")), currency),
                Money.ofMinor(row.getLong(shared.at(row, "discount_taken_minor")), currency));
        OpenInvoice invoice = new OpenInvoice(
                new InvoiceId(row.getLong(shared.at(row, "id"))),
                row.getString(shared.at(row, "reference")),
                shared.date(row, "invoice_date"),
                shared.date(row, "due_date"),
                new LedgerDays(shared.date(row, "ledger_date"), shared.date(row, "open_since")),
                amount,
                open,
                discount);
        long remitTo = row.getLong(shared.at(row, "remit_to_id"));
        Payee payee = shared.payees().get(remitTo);
        if (payee == null) {
            payee = payee(row, shared, remitTo);
            shared.payees().put(remitTo, payee);
        }
        return new Candidate(
                invoice,
                payee,
                row.getBoolean(shared.at(row, "own_check")),
                row.getString(shared.at(row, "hold_reason")),
                row.getString(shared.at(row, "batch_name")));
    }

    private static Payee payee(ResultSet row, Shared shared, long remitTo) throws SQLException {
        return new Payee(
                new VendorId(row.getLong(shared.at(row, "vendor_id"))),
                row.getString(shared.at(row, "vendor_number")),
                row.getString(shared.at(row, "vendor_name")),
                row.getString(shared.at(row, "vendor_group")),
                row.getInt(shared.at(row, "priority")),
                PaymentMethod.valueOf(row.getString(shared.at(row, "method"))),
                row.getString(shared.at(row, "vendor_held")),
                remitTo,
                row.getString(shared.at(row, "payee")),
                row.getString(shared.at(row, "postal_code")),
                new Reach(
                        row.getBoolean(shared.at(row, "reached_by_mail")),
                        KnownBank.kind(row.getString(shared.at(row, "bank_kind"))),
                        row.getBoolean(shared.at(row, "in_force"))),
                PaymentMethod.named(row.getString(shared.at(row, "also_by"))));
    }
}
