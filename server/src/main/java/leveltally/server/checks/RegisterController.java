package leveltally.server.checks;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.checks.NumberState;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Standing;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.frame.Csv;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.http.ResponseEntity;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Every number of a series, with its state and history. */
@RestController
@RequestMapping("/api/checks")
@Needs(Deed.READ)
class RegisterController {
    static final int PAGE = 200;
    static final int STALE_AFTER_DAYS = 180;

    private static final String ROW = """
            SELECT n.id, n.number, n.state, n.explanation, n.state_date, p.payee, p.amount_minor, p.currency,
              p.check_date, p.batch_id, b.name AS batch_name,
              (SELECT x.number FROM check_number x WHERE x.live_payment_id = n.payment_id) AS live_number
            FROM check_register n
            LEFT JOIN payment p ON p.id = n.payment_id
            LEFT JOIN batch b ON b.id = p.batch_id
            """;

    private final JdbcClient jdbc;
    private final leveltally.server.frame.CsvLists lists;
    private final Series series;

    RegisterController(JdbcClient jdbc, Series series, leveltally.server.frame.CsvLists lists) {
        this.jdbc = jdbc;
        this.lists = lists;
        this.series = series;
    }

    @Schema(requiredProperties = {"id", "number", "state", "stateWords", "payee", "then", "stale", "stateDate"})
    record NumberView(
            long id,
            long number,
            String state,
            String stateWords,
            String payee,
            @Nullable MoneyView amount,
            @Nullable LocalDate checkDate,
            LocalDate stateDate,
            String then,
            boolean stale,
            @Nullable Long batch,
            @Nullable String batchName) {}

    @Schema(requiredProperties = {"state", "words", "count", "amount"})
    record StateTotal(String state, String words, int count, String amount) {}

    /** {@code next} is the number the following page starts below; absent on the last one. */
    @Schema(requiredProperties = {"currency", "first", "last", "total", "states", "rows"})
    record RegisterView(
            String currency,
            long first,
            long last,
            int total,
            List<StateTotal> states,
            List<NumberView> rows,
            @Nullable Long next) {}

    @Schema(requiredProperties = {"at", "date", "who", "state", "why"})
    record StepView(Instant at, LocalDate date, String who, String state, String why) {}

    @Schema(requiredProperties = {"number", "steps", "invoices", "bank"})
    record HistoryView(NumberView number, List<StepView> steps, List<PaidView> invoices, List<String> bank) {}

    @Schema(requiredProperties = {"line", "reference", "gross", "discount", "cash"})
    record PaidView(long line, String reference, String gross, String discount, String cash) {}

    @Schema(requiredProperties = {"id", "name", "account", "bankAccount"})
    record SeriesView(long id, String name, String account, long bankAccount) {}

    /** The series there are, in the order of their accounts. */
    @GetMapping("/series")
    List<SeriesView> series(Actor by) {
        by.mayDo(Deed.READ);
        return jdbc.sql("SELECT id, way_name, account_name, bank_account_id FROM series_of_account ORDER BY place")
                .query((r, n) -> new SeriesView(r.getLong(1), r.getString(2), r.getString(3), r.getLong(4)))
                .list();
    }

    @GetMapping
    RegisterView register(
            Actor by,
            @RequestParam("series") long id,
            @RequestParam(required = false) @Nullable String state,
            @RequestParam(required = false) Long below) {
        by.mayDo(Deed.READ);
        if (state != null && !state.isEmpty() && Standing.named(state).isEmpty()) {
            throw Refusal.invalidField("no-state", "state", "No check is ever “" + state + "”. Choose a state shown.");
        }
        NumberSeries of = series.get(new SeriesId(id));
        String currency = jdbc.sql("SELECT currency FROM series_of_account WHERE id = ?")
                .param(id)
                .query(String.class)
                .single();
        List<StateTotal> states = jdbc.sql("""
                        SELECT n.state, COUNT(*), COALESCE(SUM(CASE WHEN n.state <> 'SPOILED' THEN p.amount_minor END), 0) FROM check_register n
                        LEFT JOIN payment p ON p.id = n.payment_id WHERE n.series_id = :series GROUP BY n.state
                        """)
                .param("series", id)
                .query((r, n) -> {
                    Standing s = standing(r.getString(1));
                    String amount = MoneyView.of(r.getLong(3), currency).text();
                    return new StateTotal(s.name(), s.words(), r.getInt(2), amount);
                })
                .list();
        List<NumberView> rows = jdbc.sql(ROW + """
                        WHERE n.series_id = :series AND n.number < :below AND (:state IS NULL OR n.state = :state)
                        ORDER BY n.number DESC LIMIT :limit
                        """)
                .param("series", id)
                .param("below", below == null ? Long.MAX_VALUE : below)
                .param("state", state == null || state.isEmpty() ? null : state)
                .param("limit", PAGE)
                .query((r, n) -> view(r, by.today()))
                .list();
        return new RegisterView(
                currency,
                of.firstNumber(),
                of.nextNumber() - 1,
                states.stream().mapToInt(StateTotal::count).sum(),
                states,
                rows,
                rows.size() < PAGE ? null : rows.get(rows.size() - 1).number());
    }

    /** The register of a series as CSV. */
    @GetMapping(value = "/csv", produces = Csv.TYPE)
    ResponseEntity<Resource> csv(Actor by, @RequestParam("series") long id) {
        by.mayDo(Deed.READ);
        return lists.of("register.csv", """
                SELECT n.number, LOWER(n.state) AS state, n.state_date, COALESCE(p.payee, '') AS payee, p.check_date,
                  p.amount_minor, a.currency, n.explanation, p.batch_id AS batch
                FROM check_register n JOIN series_of_account a ON a.id = n.series_id
                LEFT JOIN payment p ON p.id = n.payment_id WHERE n.series_id = :series ORDER BY n.number DESC
                """, java.util.Map.of("series", id));
    }

    @GetMapping("/{id}")
    HistoryView history(Actor by, @PathVariable long id) {
        by.mayDo(Deed.READ);
        NumberView number = jdbc.sql(ROW + " WHERE n.id = :id")
                .param("id", id)
                .query((r, n) -> view(r, by.today()))
                .optional()
                .orElseThrow(() ->
                        Refusal.notFound("no-check", "There is no such check number. Choose one from the register."));
        // the number's life, then that of the payment it carries, which begins with the number
        List<StepView> steps = jdbc.sql("""
                        SELECT x.at, x.business_date, p.name, x.to_state, x.why FROM (
                          SELECT 1 AS life, e.step, e.at, e.business_date, e.person_id, e.to_state, e.why
                          FROM number_event e WHERE e.check_number_id = :id
                          UNION ALL SELECT 2, e.step, e.at, e.business_date, e.person_id, e.to_state, e.why
                          FROM payment_event e JOIN check_number n ON n.live_payment_id = e.payment_id
                          WHERE n.id = :id AND e.step > 1) x
                        JOIN person p ON p.id = x.person_id ORDER BY x.life, x.step
                        """)
                .param("id", id)
                .query((r, n) -> new StepView(
                        r.getTimestamp(1).toInstant(),
                        r.getObject(2, LocalDate.class),
                        r.getString(3),
                        standing(r.getString(4)).words(),
                        r.getString(5)))
                .list();
        List<PaidView> invoices = jdbc.sql("""
                        SELECT l.id, l.reference, CASE WHEN l.kind = 'CREDIT' THEN -l.gross_minor ELSE l.gross_minor END, l.discount_minor, l.cash_minor, l.currency
                        FROM check_number n JOIN payment p ON p.id = n.payment_id
                        JOIN claim_line l ON l.claim_id = p.claim_id WHERE n.id = :id ORDER BY l.invoice_date, l.invoice_id, l.id
                        """)
                .param("id", id)
                .query((r, n) -> new PaidView(
                        r.getLong(1),
                        r.getString(2),
                        MoneyView.of(r.getLong(3), r.getString(6)).text(),
                        r.getLong(4) == 0
                                ? ""
                                : MoneyView.of(r.getLong(4), r.getString(6)).text(),
                        MoneyView.of(r.getLong(5), r.getString(6)).text()))
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

    private static NumberView view(java.sql.ResultSet r, LocalDate today) throws java.sql.SQLException {
        Standing state = standing(r.getString("state"));
        LocalDate checkDate = r.getObject("check_date", LocalDate.class);
        LocalDate stateDate = r.getObject("state_date", LocalDate.class);
        long age = checkDate == null ? 0 : checkDate.until(today, ChronoUnit.DAYS);
        boolean stale = state.is(PaymentState.OUTSTANDING) && age > STALE_AFTER_DAYS;
        long live = r.getLong("live_number");
        String then = switch (state.name()) {
            case "CLEARED" -> "bank, " + leveltally.core.Dates.inWords(stateDate);
            case "SPOILED" -> r.getString("explanation") + (live == 0 ? "" : "; paid by " + live);
            case "OUTSTANDING" -> stale ? age + " days, stale" : "";
            case "TAKEN" -> "not answered yet";
            case "PRINTED" -> "good, not posted yet";
            default -> r.getString("explanation");
        };
        boolean paysNothing = state.is(NumberState.SPOILED) || state.is(NumberState.UNACCOUNTED);
        String payee = r.getString("payee");
        long batch = r.getLong("batch_id");
        return new NumberView(
                r.getLong("id"),
                r.getLong("number"),
                state.name(),
                state.words(),
                payee == null ? "" : payee,
                payee == null || paysNothing ? null : MoneyView.of(r.getLong("amount_minor"), r.getString("currency")),
                checkDate,
                stateDate,
                then,
                stale,
                batch == 0 ? null : batch,
                r.getString("batch_name"));
    }
}
