package leveltally.server.checks;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.checks.RegisterLine;
import leveltally.core.checks.Standing;
import leveltally.core.payments.StopOrder;
import leveltally.server.company.Companies;
import leveltally.server.frame.CsvLists;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Patience;
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

    /** @param from the numbers, as {@code check_register n} */
    static String row(String from) {
        return """
            SELECT n.id, n.number, CONCAT(q.prefix, n.number) AS name, w.state = 'WRITTEN' AS by_hand, n.series_id, n.payment_id, n.state, n.explanation, n.state_date, p.payee, p.amount_minor, p.currency,
              p.check_date, p.batch_id, b.name AS batch_name,
              (SELECT x.number FROM check_number x WHERE x.live_payment_id = n.payment_id) AS live_number,
              s.asked_on AS stop_asked, s.confirmed_on AS stop_confirmed, s.reference AS stop_reference,
              s.expires_on AS stop_expires
            FROM %s
            JOIN check_number w ON w.id = n.id JOIN number_series q ON q.id = n.series_id
            LEFT JOIN payment p ON p.id = n.payment_id
            LEFT JOIN standing_stop s ON s.payment_id = p.id
            LEFT JOIN batch b ON b.id = p.batch_id
            """.formatted(from);
    }

    private final JdbcClient jdbc;
    private final Patience patience;
    private final Series series;
    private final Companies companies;
    private final CsvLists lists;

    RegisterRows(JdbcClient jdbc, Series series, Companies companies, CsvLists lists, Patience patience) {
        this.patience = patience;
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

    /** @param after the id of the number that the page comes after; null for the first */
    @Transactional(readOnly = true)
    RegisterView page(RegisterAsked asked, @Nullable Long after, LocalDate today) {
        NumberSeries of = asked.id().map(series::get).orElse(null);
        int staleDays = companies.staleDays();
        String currency = currency(asked);
        RegisterFilter filter = filter(asked, currency, today);
        Map<String, Object> params = new HashMap<>(filter.params());
        params.put("after", after);
        params.put("limit", PAGE);
        List<RegisterView.NumberView> rows = jdbc.sql(
                        // the page is found first, by an index alone: what stands beside its numbers is looked up for
                        // them only
                        row("(SELECT n.id FROM " + filter.from() + filter.where() + beyond(asked, after) + order(asked)
                                        + " LIMIT :limit) hit STRAIGHT_JOIN check_register n ON n.id = hit.id")
                                + order(asked))
                .params(params)
                .query((r, n) -> view(r, today, staleDays))
                .list();
        return new RegisterView(
                currency,
                of == null ? null : of.range().first(),
                of == null ? null : of.nextNumber() - 1,
                rows,
                rows.size() < PAGE ? null : rows.get(rows.size() - 1).id());
    }

    private String currency(RegisterAsked asked) {
        return jdbc.sql(
                        "SELECT currency FROM series_of_account WHERE :series IS NULL OR id = :series ORDER BY place LIMIT 1")
                .param("series", asked.series())
                .query(String.class)
                .optional()
                .orElseThrow(
                        () -> Refusal.notFound("no-series", "There is no such series of numbers. Choose one shown."));
    }

    private RegisterFilter filter(RegisterAsked asked, String currency, LocalDate today) {
        return RegisterFilter.of(asked, Currency.getInstance(currency), today, this::holding);
    }

    private List<Long> holding(List<RegisterWord> words) {
        Map<String, Object> params = new HashMap<>();
        words.forEach(word -> word.into(params));
        return jdbc.sql(words.stream().map(RegisterWord::counting).collect(Collectors.joining("), (", "SELECT (", ")")))
                .params(params)
                .param("most", RegisterFilter.MOST_LED + 1)
                .query((r, n) -> {
                    List<Long> held = new ArrayList<>();
                    for (int i = 1; i <= words.size(); i++) {
                        held.add(r.getLong(i));
                    }
                    return held;
                })
                .single();
    }

    /** How many there are of each state, and what they come to, currency by currency: asked for apart, as it reads them all. */
    @Transactional(readOnly = true)
    RegisterTotals totals(RegisterAsked asked, LocalDate today) {
        patience.forWholeTables();
        List<RegisterTotals.StateTotal> states = states(filter(asked, currency(asked), today));
        return new RegisterTotals(
                states.stream().mapToInt(RegisterTotals.StateTotal::count).sum(), states);
    }

    private List<RegisterTotals.StateTotal> states(RegisterFilter filter) {
        return jdbc.sql("SELECT n.state, p.currency, COUNT(*) AS numbers,"
                        + " COALESCE(SUM(CASE WHEN n.state <> :spoiled THEN p.amount_minor END), 0) AS amount_minor"
                        + " FROM " + filter.from() + filter.where() + " GROUP BY n.state, p.currency")
                .params(filter.params())
                .param("spoiled", leveltally.core.checks.NumberState.SPOILED.name())
                .query((r, n) -> {
                    Standing state = standing(r.getString("state"));
                    String currency = r.getString("currency");
                    return new RegisterTotals.StateTotal(
                            state.name(),
                            state.words(),
                            r.getInt("numbers"),
                            currency == null ? null : MoneyView.of(r.getLong("amount_minor"), currency));
                })
                .list();
    }

    private static String beyond(RegisterAsked asked, @Nullable Long after) {
        if (after == null) {
            return "";
        }
        String value = asked.by().value();
        return """
                 AND (%s, n.number, n.id) %s (SELECT %s, n.number, n.id FROM check_register n
                  LEFT JOIN payment p ON p.id = n.payment_id WHERE n.id = :after)
                """.formatted(value, asked.isDescending() ? "<" : ">", value);
    }

    private static String order(RegisterAsked asked) {
        return " ORDER BY " + asked.by().order(asked.isDescending());
    }

    /** The same numbers, all of them. */
    ResponseEntity<Resource> csv(RegisterAsked asked, LocalDate today) {
        RegisterFilter filter = filter(asked, currency(asked), today);
        return lists.of(
                "register.csv",
                """
                SELECT CONCAT(a.prefix, n.number) AS number, a.account_name AS account, LOWER(n.state) AS state, n.state_date, COALESCE(p.payee, '') AS payee,
                  p.check_date, p.amount_minor, a.currency, n.explanation, p.batch_id AS batch, IF(w.state = 'WRITTEN', 'written by hand', '') AS kind
                FROM\s""" + filter.from()
                        + " JOIN series_of_account a ON a.id = n.series_id JOIN check_number w ON w.id = n.id"
                        + filter.where() + order(asked),
                filter.params());
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
                r.getString("name"),
                r.getBoolean("by_hand"),
                r.getLong("series_id"),
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
