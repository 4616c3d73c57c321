package leveltally.server.checks;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.ClaimLine;
import leveltally.core.checks.RegisterLine;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Standing;
import leveltally.core.money.Money;
import leveltally.server.company.Companies;
import leveltally.server.frame.CsvLists;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads the register: every number of a series, with its state and history. */
@Component
class RegisterRows {
    private static final int PAGE = 200;

    private static final String ROW = """
            SELECT n.id, n.number, n.state, n.explanation, n.state_date, p.payee, p.amount_minor, p.currency,
              p.check_date, p.batch_id, b.name AS batch_name,
              (SELECT x.number FROM check_number x WHERE x.live_payment_id = n.payment_id) AS live_number
            FROM check_register n
            LEFT JOIN payment p ON p.id = n.payment_id
            LEFT JOIN batch b ON b.id = p.batch_id
            """;

    private final JdbcClient jdbc;
    private final Series series;
    private final Companies companies;
    private final CsvLists lists;

    RegisterRows(JdbcClient jdbc, Series series, Companies companies, CsvLists lists) {
        this.jdbc = jdbc;
        this.series = series;
        this.companies = companies;
        this.lists = lists;
    }

    /** The series there are, in the order of their accounts. */
    List<SeriesView> series() {
        return jdbc.sql("SELECT id, way_name, account_name, bank_account_id FROM series_of_account ORDER BY place")
                .query((r, n) -> new SeriesView(r.getLong(1), r.getString(2), r.getString(3), r.getLong(4)))
                .list();
    }

    /**
     * @param state narrows; null does not
     * @param below the number the page starts below; null for the first
     */
    @Transactional(readOnly = true)
    RegisterView page(SeriesId id, @Nullable Standing state, @Nullable Long below, LocalDate today) {
        NumberSeries of = series.get(id);
        int staleDays = companies.staleDays();
        String currency = jdbc.sql("SELECT currency FROM series_of_account WHERE id = ?")
                .param(id.value())
                .query(String.class)
                .single();
        List<RegisterView.StateTotal> states = jdbc.sql("""
                        SELECT n.state, COUNT(*), COALESCE(SUM(CASE WHEN n.state <> 'SPOILED' THEN p.amount_minor END), 0) FROM check_register n
                        LEFT JOIN payment p ON p.id = n.payment_id WHERE n.series_id = :series GROUP BY n.state
                        """)
                .param("series", id.value())
                .query((r, n) -> {
                    Standing s = standing(r.getString(1));
                    String amount = MoneyView.of(r.getLong(3), currency).text();
                    return new RegisterView.StateTotal(s.name(), s.words(), r.getInt(2), amount);
                })
                .list();
        List<RegisterView.NumberView> rows = jdbc.sql(ROW + """
                        WHERE n.series_id = :series AND n.number < :below AND (:state IS NULL OR n.state = :state)
                        ORDER BY n.number DESC LIMIT :limit
                        """)
                .param("series", id.value())
                .param("below", below == null ? Long.MAX_VALUE : below)
                .param("state", state == null ? null : state.name())
                .param("limit", PAGE)
                .query((r, n) -> view(r, today, staleDays))
                .list();
        return new RegisterView(
                currency,
                of.range().first(),
                of.nextNumber() - 1,
                states.stream().mapToInt(RegisterView.StateTotal::count).sum(),
                states,
                rows,
                rows.size() < PAGE ? null : rows.get(rows.size() - 1).number());
    }

    ResponseEntity<Resource> csv(SeriesId id) {
        return lists.of("register.csv", """
                SELECT n.number, LOWER(n.state) AS state, n.state_date, COALESCE(p.payee, '') AS payee, p.check_date,
                  p.amount_minor, a.currency, n.explanation, p.batch_id AS batch
                FROM check_register n JOIN series_of_account a ON a.id = n.series_id
                LEFT JOIN payment p ON p.id = n.payment_id WHERE n.series_id = :series ORDER BY n.number DESC
                """, Map.of("series", id.value()));
    }

    @Transactional(readOnly = true)
    HistoryView history(long id, LocalDate today) {
        int staleDays = companies.staleDays();
        RegisterView.NumberView number = jdbc.sql(ROW + " WHERE n.id = :id")
                .param("id", id)
                .query((r, n) -> view(r, today, staleDays))
                .optional()
                .orElseThrow(() ->
                        Refusal.notFound("no-check", "There is no such check number. Choose one from the register."));
        // the number's life, then that of the payment it carries, which begins with the number
        List<HistoryView.StepView> steps = jdbc.sql("""
                        SELECT x.at, x.business_date, p.name, x.to_state, x.why FROM (
                          SELECT 1 AS life, e.step, e.at, e.business_date, e.person_id, e.to_state, e.why
                          FROM number_event e WHERE e.check_number_id = :id
                          UNION ALL SELECT 2, e.step, e.at, e.business_date, e.person_id, e.to_state, e.why
                          FROM payment_event e JOIN check_number n ON n.live_payment_id = e.payment_id
                          WHERE n.id = :id AND e.step > 1) x
                        JOIN person p ON p.id = x.person_id ORDER BY x.life, x.step
                        """)
                .param("id", id)
                .query((r, n) -> new HistoryView.StepView(
                        r.getTimestamp(1).toInstant(),
                        r.getObject(2, LocalDate.class),
                        r.getString(3),
                        standing(r.getString(4)).words(),
                        r.getString(5)))
                .list();
        List<HistoryView.PaidView> invoices = jdbc.sql("""
                        SELECT l.id, l.reference, l.kind, l.gross_minor, l.discount_minor, l.cash_minor, l.currency
                        FROM check_number n JOIN payment p ON p.id = n.payment_id
                        JOIN claim_line l ON l.claim_id = p.claim_id WHERE n.id = :id ORDER BY l.invoice_date, l.invoice_id, l.id
                        """)
                .param("id", id)
                .query((r, n) -> {
                    String currency = r.getString("currency");
                    Money gross = Money.ofMinor(r.getLong("gross_minor"), currency);
                    Money discount = Money.ofMinor(r.getLong("discount_minor"), currency);
                    boolean lowers = ClaimLine.Kind.valueOf(r.getString("kind")) == ClaimLine.Kind.CREDIT;
                    return new HistoryView.PaidView(
                            r.getLong("id"),
                            r.getString("reference"),
                            (lowers ? gross.negated() : gross).toString(),
                            discount.isZero() ? "" : discount.toString(),
                            Money.ofMinor(r.getLong("cash_minor"), currency).toString());
                })
                .list();
        List<String> bank = jdbc.sql("""
                        SELECT e.kind, f.serial, f.state, e.never_reported FROM bank_event e
                        LEFT JOIN bank_file f ON f.id = e.file_id WHERE e.check_number_id = :id ORDER BY e.id
                        """)
                .param("id", id)
                .query((r, n) -> {
                    String kind = r.getString(1).equals("ISSUE") ? "The issue" : "The void";
                    if (r.getString(4) != null) {
                        return kind + " is closed, never reported: " + r.getString(4) + ".";
                    }
                    return r.getString(3) == null
                            ? kind + " waits for the next bank file."
                            : kind + " stands in bank file " + r.getLong(2) + ", "
                                    + r.getString(3).toLowerCase(java.util.Locale.ROOT) + ".";
                })
                .list();
        return new HistoryView(number, steps, invoices, bank);
    }

    private static Standing standing(String name) {
        return Standing.named(name).orElseThrow();
    }

    private static RegisterView.NumberView view(ResultSet r, LocalDate today, int staleDays) throws SQLException {
        Standing state = standing(r.getString("state"));
        RegisterLine line = new RegisterLine(
                state,
                r.getObject("check_date", LocalDate.class),
                r.getObject("state_date", LocalDate.class),
                r.getString("explanation"),
                r.getObject("live_number", Long.class));
        String payee = r.getString("payee");
        return new RegisterView.NumberView(
                r.getLong("id"),
                r.getLong("number"),
                state.name(),
                state.words(),
                payee == null ? "" : payee,
                payee == null || !line.pays() ? null : MoneyView.of(r.getLong("amount_minor"), r.getString("currency")),
                line.checkDate(),
                line.stateDate(),
                line.then(today, staleDays),
                line.isStale(today, staleDays),
                r.getObject("batch_id", Long.class),
                r.getString("batch_name"));
    }
}
