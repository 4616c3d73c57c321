package leveltally.server.checks;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.checks.RegisterLine;
import leveltally.core.checks.Standing;
import leveltally.core.payments.StopOrder;
import leveltally.server.company.Companies;
import leveltally.server.frame.CsvLists;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads the register: every number of a series, with its state. */
@Component
class RegisterRows {
    private static final int PAGE = 200;

    static final String ROW = """
            SELECT n.id, n.number, n.payment_id, n.state, n.explanation, n.state_date, p.payee, p.amount_minor, p.currency,
              p.check_date, p.batch_id, b.name AS batch_name,
              (SELECT x.number FROM check_number x WHERE x.live_payment_id = n.payment_id) AS live_number,
              s.asked_on AS stop_asked, s.confirmed_on AS stop_confirmed, s.reference AS stop_reference,
              s.expires_on AS stop_expires
            FROM check_register n
            LEFT JOIN payment p ON p.id = n.payment_id
            LEFT JOIN standing_stop s ON s.payment_id = p.id
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
        return jdbc.sql("""
                        SELECT id, way_name AS name, account_name AS account, bank_account_id AS bank_account
                        FROM series_of_account ORDER BY place
                        """).query(SeriesView.class).list();
    }

    /** @param after the number of the row that the page comes after; null for the first */
    @Transactional(readOnly = true)
    RegisterView page(RegisterAsked asked, @Nullable Long after, LocalDate today) {
        NumberSeries of = series.get(asked.id());
        int staleDays = companies.staleDays();
        String currency = jdbc.sql("SELECT currency FROM series_of_account WHERE id = :series")
                .param("series", asked.series())
                .query(String.class)
                .single();
        List<RegisterView.StateTotal> states = states(asked, currency);
        List<RegisterView.NumberView> rows = jdbc.sql(ROW + where(asked, after) + " LIMIT :limit")
                .params(params(asked, after))
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

    private List<RegisterView.StateTotal> states(RegisterAsked asked, String currency) {
        return jdbc.sql("""
                        SELECT n.state, COUNT(*) AS numbers,
                          COALESCE(SUM(CASE WHEN n.state <> :spoiled THEN p.amount_minor END), 0) AS amount_minor
                        FROM check_register n LEFT JOIN payment p ON p.id = n.payment_id
                        WHERE n.series_id = :series GROUP BY n.state
                        """)
                .param("series", asked.series())
                .param("spoiled", leveltally.core.checks.NumberState.SPOILED.name())
                .query((r, n) -> {
                    Standing state = standing(r.getString("state"));
                    return new RegisterView.StateTotal(
                            state.name(),
                            state.words(),
                            r.getInt("numbers"),
                            MoneyView.of(r.getLong("amount_minor"), currency).text());
                })
                .list();
    }

    /** The numbers of a list in its order; those after one of them where a page is asked for. */
    private static String where(RegisterAsked asked, @Nullable Long after) {
        String value = asked.by().value();
        String beyond = asked.isDescending() ? "<" : ">";
        String page = after == null ? "" : """
                         AND (%s, n.number) %s (SELECT %s, n.number FROM check_register n
                          LEFT JOIN payment p ON p.id = n.payment_id
                          WHERE n.series_id = :series AND n.number = :after)
                        """.formatted(value, beyond, value);
        return " WHERE n.series_id = :series AND (:state IS NULL OR n.state = :state)" + page + " ORDER BY "
                + asked.by().order(asked.isDescending());
    }

    private static Map<String, Object> params(RegisterAsked asked, @Nullable Long after) {
        Map<String, Object> params = new HashMap<>();
        params.put("series", asked.series());
        params.put("state", asked.standing().map(Standing::name).orElse(null));
        params.put("after", after);
        return params;
    }

    /** The same numbers, all of them. */
    ResponseEntity<Resource> csv(RegisterAsked asked) {
        return lists.of("register.csv", """
                SELECT n.number, LOWER(n.state) AS state, n.state_date, COALESCE(p.payee, '') AS payee, p.check_date,
                  p.amount_minor, a.currency, n.explanation, p.batch_id AS batch
                FROM check_register n JOIN series_of_account a ON a.id = n.series_id
                LEFT JOIN payment p ON p.id = n.payment_id
                """ + where(asked, null), params(asked, null));
    }

    static Standing standing(String name) {
        return Standing.named(name).orElseThrow();
    }

    private static @Nullable StopOrder stop(ResultSet r) throws SQLException {
        LocalDate asked = r.getObject("stop_asked", LocalDate.class);
        return asked == null
                ? null
                : new StopOrder(
                        asked,
                        r.getObject("stop_confirmed", LocalDate.class),
                        r.getString("stop_reference"),
                        r.getObject("stop_expires", LocalDate.class));
    }

    static RegisterView.NumberView view(ResultSet r, LocalDate today, int staleDays) throws SQLException {
        Standing state = standing(r.getString("state"));
        RegisterLine line = new RegisterLine(
                state,
                r.getObject("check_date", LocalDate.class),
                r.getObject("state_date", LocalDate.class),
                r.getString("explanation"),
                r.getObject("live_number", Long.class),
                stop(r));
        String payee = r.getString("payee");
        return new RegisterView.NumberView(
                r.getLong("id"),
                r.getLong("number"),
                payee == null || !line.pays() ? null : r.getLong("payment_id"),
                state.name(),
                state.words(),
                payee == null ? "" : payee,
                payee == null || !line.pays() ? null : MoneyView.of(r.getLong("amount_minor"), r.getString("currency")),
                line.checkDate(),
                line.stateDate(),
                line.then(today, staleDays),
                line.needsALook(today, staleDays),
                r.getObject("batch_id", Long.class),
                r.getString("batch_name"));
    }
}
