package leveltally.server.checks;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.BankFile;
import leveltally.core.batches.ClaimLine;
import leveltally.core.money.Money;
import leveltally.core.payments.StopOrder;
import leveltally.core.printing.Answer;
import leveltally.server.company.Companies;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Everything about one number: its life, what it paid, and what the bank was told of it. */
@Component
class NumberHistory {
    private final JdbcClient jdbc;
    private final Companies companies;

    NumberHistory(JdbcClient jdbc, Companies companies) {
        this.jdbc = jdbc;
        this.companies = companies;
    }

    @Transactional(readOnly = true)
    HistoryView of(long id, LocalDate today) {
        int staleDays = companies.staleDays();
        RegisterView.NumberView number = jdbc.sql(RegisterRows.row("check_register n") + " WHERE n.id = :id")
                .param("id", id)
                .query((r, n) -> RegisterRows.view(r, today, staleDays))
                .optional()
                .orElseThrow(() ->
                        Refusal.notFound("no-check", "There is no such check number. Choose one from the register."));
        return new HistoryView(number, steps(id), paid(id), told(id), stop(id, today), waiting(id), chain(id));
    }

    /** The number's life, then that of the payment it carries, which begins with the number. */
    private List<HistoryView.StepView> steps(long id) {
        return jdbc.sql("""
                        SELECT x.at, x.business_date, p.name, x.to_state, x.why FROM (
                          SELECT 1 AS life, e.step, e.at, e.business_date, e.person_id, e.to_state, e.why
                          FROM number_event e WHERE e.check_number_id = :id
                          UNION ALL SELECT 1, d.serial, d.answered_at, NULL, d.answered_by, d.answer, d.answer_why
                          FROM document d WHERE d.check_number_id = :id AND d.answer = :again
                          UNION ALL SELECT 2, e.step, e.at, e.business_date, e.person_id, e.to_state, e.why
                          FROM payment_event e JOIN check_number n ON n.live_payment_id = e.payment_id
                          WHERE n.id = :id AND e.step > 1) x
                        JOIN person p ON p.id = x.person_id ORDER BY x.life, x.at, x.step
                        """)
                .param("id", id)
                .param("again", Answer.AGAIN.name())
                .query((r, n) -> new HistoryView.StepView(
                        r.getTimestamp("at").toInstant(),
                        r.getObject("business_date", LocalDate.class),
                        r.getString("name"),
                        words(r.getString("to_state")),
                        r.getString("why")))
                .list();
    }

    /** A state that was reached, or what was said of the paper on the way. */
    private static String words(String step) {
        return step.equals(Answer.AGAIN.name())
                ? Answer.AGAIN.words()
                : RegisterRows.standing(step).words();
    }

    private List<HistoryView.PaidView> paid(long id) {
        return jdbc.sql("""
                        SELECT l.id, l.invoice_id, l.reference, l.kind, l.gross_minor, l.discount_minor, l.cash_minor, l.currency
                        FROM check_number n JOIN payment p ON p.id = n.payment_id
                        JOIN claim_line l ON l.claim_id = p.claim_id WHERE n.id = :id ORDER BY l.invoice_date, l.invoice_id, l.id
                        """).param("id", id).query((r, n) -> paid(r)).list();
    }

    private static HistoryView.PaidView paid(ResultSet r) throws SQLException {
        String currency = r.getString("currency");
        Money gross = Money.ofMinor(r.getLong("gross_minor"), currency);
        Money discount = Money.ofMinor(r.getLong("discount_minor"), currency);
        boolean lowers = ClaimLine.Kind.valueOf(r.getString("kind")) == ClaimLine.Kind.CREDIT;
        return new HistoryView.PaidView(
                r.getLong("id"),
                r.getObject("invoice_id", Long.class),
                r.getString("reference"),
                (lowers ? gross.negated() : gross).toString(),
                discount.isZero() ? "" : discount.toString(),
                Money.ofMinor(r.getLong("cash_minor"), currency).toString());
    }

    private HistoryView.@Nullable StopView stop(long id, LocalDate today) {
        return jdbc.sql("""
                        SELECT s.asked_on, s.why, s.confirmed_on, s.reference, s.expires_on FROM check_number n
                        JOIN standing_stop s ON s.payment_id = n.live_payment_id WHERE n.id = :id
                        """)
                .param("id", id)
                .query((r, n) -> {
                    StopOrder stop = new StopOrder(
                            r.getObject("asked_on", LocalDate.class),
                            r.getObject("confirmed_on", LocalDate.class),
                            r.getString("reference"),
                            r.getObject("expires_on", LocalDate.class));
                    return new HistoryView.StopView(
                            stop.askedOn(),
                            r.getString("why"),
                            stop.confirmedOn(),
                            stop.reference(),
                            stop.expiresOn(),
                            stop.inWords(today),
                            stop.needsALook(today));
                })
                .optional()
                .orElse(null);
    }

    /** The payments that replace each other, from the first to the last. */
    private List<HistoryView.ChainView> chain(long id) {
        return jdbc.sql("""
                        WITH RECURSIVE back (id, replaces_id, depth) AS (
                          SELECT p.id, p.replaces_id, 0 FROM check_number n JOIN payment p ON p.id = n.live_payment_id WHERE n.id = :id
                          UNION ALL SELECT p.id, p.replaces_id, b.depth - 1 FROM payment p JOIN back b ON p.id = b.replaces_id),
                        forth (id, depth) AS (
                          SELECT id, depth FROM back WHERE depth = 0
                          UNION ALL SELECT p.id, f.depth + 1 FROM payment p JOIN forth f ON p.replacing_id = f.id)
                        SELECT x.depth, c.id AS check_id, c.number, p.payee, p.state, p.check_date FROM (
                          SELECT id, depth FROM back WHERE depth < 0 UNION ALL SELECT id, depth FROM forth) x
                        JOIN payment p ON p.id = x.id LEFT JOIN check_number c ON c.live_payment_id = p.id
                        WHERE (SELECT COUNT(*) FROM back) + (SELECT COUNT(*) FROM forth) > 2 ORDER BY x.depth
                        """)
                .param("id", id)
                .query((r, n) -> new HistoryView.ChainView(
                        r.getObject("check_id", Long.class),
                        r.getObject("number", Long.class) == null
                                ? "payment to " + r.getString("payee")
                                : "check " + r.getLong("number"),
                        RegisterRows.standing(r.getString("state")).words(),
                        r.getObject("check_date", LocalDate.class),
                        r.getInt("depth") == 0))
                .list();
    }

    private @Nullable Long waiting(long id) {
        return jdbc.sql(
                        "SELECT w.undoing_id FROM check_number n JOIN waiting_undoing w ON w.payment_id = n.live_payment_id"
                                + " WHERE n.id = :id")
                .param("id", id)
                .query(Long.class)
                .optional()
                .orElse(null);
    }

    /** What the bank was told of it, file by file, what waits to be told, and what the bank told of it. */
    private List<String> told(long id) {
        List<String> told = new ArrayList<>(
                jdbc.sql("""
                        SELECT e.kind, f.serial, f.state AS file_state, f.anew, f.answer_note, x.refused_why FROM bank_event e
                        JOIN bank_file_item x ON x.event_id = e.id JOIN bank_file f ON f.id = x.file_id
                        WHERE e.check_number_id = :id ORDER BY f.serial, e.id
                        """).param("id", id).query((r, n) -> inAFile(r)).list());
        told.addAll(jdbc.sql("SELECT e.kind, e.never_reported FROM bank_event e"
                        + " WHERE e.check_number_id = :id AND e.file_id IS NULL ORDER BY e.id")
                .param("id", id)
                .query((r, n) -> {
                    String what = what(r);
                    String never = r.getString("never_reported");
                    return never == null
                            ? what + " waits for the next bank file."
                            : what + " is closed, never reported: " + never + ".";
                })
                .list());
        told.addAll(jdbc.sql("""
                        SELECT m.bank_date, m.amount_minor, m.currency, m.is_open FROM check_number n
                        JOIN series_of_account s ON s.id = n.series_id
                        JOIN bank_movement m ON m.bank_account_id = s.bank_account_id AND m.meant = n.number
                        WHERE n.id = :id AND NOT EXISTS (SELECT 1 FROM bank_match t WHERE t.movement_id = m.id AND t.told_id IS NOT NULL)
                        ORDER BY m.bank_date, m.id
                        """).param("id", id).query((r, n) -> moved(r)).list());
        return told;
    }

    private static String what(ResultSet r) throws SQLException {
        return "The " + BankFile.Item.Kind.valueOf(r.getString("kind")).words();
    }

    private static String inAFile(ResultSet r) throws SQLException {
        String file = "bank file " + r.getLong("serial");
        String refused = r.getString("refused_why");
        if (refused != null) {
            return what(r) + " was refused of " + file + ": " + refused + ".";
        }
        String state = r.getString("file_state").toLowerCase(Locale.ROOT);
        return r.getBoolean("anew")
                ? what(r) + " was told anew by " + file + ", " + state + "."
                : what(r) + " stands in " + file + ", " + state
                        + (r.getString("answer_note").isEmpty() ? "" : " (" + r.getString("answer_note") + ")") + ".";
    }

    private static String moved(ResultSet r) throws SQLException {
        Money amount = Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"));
        boolean back = amount.isPositive();
        return (back ? "The bank took back " + amount : "The bank paid " + amount.negated()) + " on "
                + Dates.inWords(r.getObject("bank_date", LocalDate.class))
                + (r.getObject("is_open") == null ? "." : "; that waits for an answer.");
    }
}
