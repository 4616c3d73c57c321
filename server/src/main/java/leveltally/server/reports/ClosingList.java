package leveltally.server.reports;

import java.time.YearMonth;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.batches.BatchState;
import leveltally.core.ledger.Period;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.server.ledger.Periods;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a month still holds before it is locked: what keeps it from that, and what somebody should have looked at. */
@Service
class ClosingList implements ReportSource {
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("What", 50, false),
            new Report.Head("How many", 12, true),
            new Report.Head("Amount", 20, true),
            new Report.Head("Currency", 10, false));

    private final JdbcClient jdbc;
    private final Periods periods;

    ClosingList(JdbcClient jdbc, Periods periods) {
        this.jdbc = jdbc;
        this.periods = periods;
    }

    @Override
    public String name() {
        return "closing";
    }

    /** @param sql counts as {@code n}, and sums as {@code amount_minor} by {@code currency} where there is an amount; {@code leads} to where they are dealt with */
    private record Question(String what, String leads, String sql) {}

    private static final List<Question> IN_THE_WAY =
            List.of(new Question("payments with a number that are not posted", "/post", """
                    SELECT COUNT(*) AS n, SUM(p.amount_minor) AS amount_minor, p.currency FROM payment p
                    WHERE p.state = :prepared AND p.ledger_date BETWEEN :from AND :to GROUP BY p.currency
                    """));

    private static final List<Question> TO_LOOK_AT = List.of(
            new Question("batches dated in it that are not posted", "/batches", """
                    SELECT COUNT(DISTINCT b.id) AS n, SUM(c.amount_minor) AS amount_minor, c.currency FROM batch b
                    JOIN standing_claim c ON c.batch_id = b.id
                    WHERE b.state IN (:live) AND b.ledger_date BETWEEN :from AND :to GROUP BY c.currency
                    """),
            new Question("sheets without an answer", "/print", """
                    SELECT COUNT(*) AS n, SUM(p.amount_minor) AS amount_minor, p.currency FROM document d
                    JOIN print_run r ON r.id = d.run_id AND r.sent_at IS NOT NULL JOIN payment p ON p.id = d.payment_id
                    WHERE d.kind = 'CHECK' AND d.answer IS NULL AND p.state = :prepared
                      AND p.ledger_date BETWEEN :from AND :to GROUP BY p.currency
                    """),
            new Question("issues and voids the bank was not told of", "/bank", """
                    SELECT COUNT(*) AS n, NULL AS amount_minor, NULL AS currency FROM bank_event e
                    WHERE e.file_id IS NULL AND e.never_reported IS NULL AND e.event_date BETWEEN :from AND :to
                    """),
            new Question(
                    "checks dated in it that the bank has not paid",
                    "/register?series=all&state=OUTSTANDING&from={from}&to={to}",
                    """
                    SELECT COUNT(*) AS n, SUM(p.amount_minor) AS amount_minor, p.currency FROM payment p
                    WHERE p.state IN (:waiting) AND p.ledger_date BETWEEN :from AND :to GROUP BY p.currency
                    """),
            new Question("payments whose undoing waits for a second person", "/approval", """
                    SELECT COUNT(*) AS n, SUM(p.amount_minor) AS amount_minor, p.currency FROM waiting_undoing w
                    JOIN payment p ON p.id = w.payment_id WHERE p.ledger_date BETWEEN :from AND :to GROUP BY p.currency
                    """),
            new Question("stops the bank has not confirmed", "/register?series=all&state=STOPPED", """
                    SELECT COUNT(*) AS n, SUM(p.amount_minor) AS amount_minor, p.currency FROM standing_stop s
                    JOIN payment p ON p.id = s.payment_id WHERE s.confirmed_on IS NULL AND s.asked_on <= :to GROUP BY p.currency
                    """),
            new Question("entries the general ledger has not got", "/ledger?view=hand-over", """
                    SELECT COUNT(DISTINCT e.id) AS n, SUM(l.debit_minor) AS amount_minor, l.currency FROM waiting_entry w
                    JOIN journal_entry e ON e.id = w.entry_id JOIN journal_line l ON l.entry_id = e.id
                    WHERE e.ledger_date BETWEEN :from AND :to GROUP BY l.currency
                    """),
            new Question("held documents dated in it", "/due", """
                    SELECT COUNT(*) AS n, SUM(i.open_minor) AS amount_minor, i.currency FROM invoice i
                    WHERE i.hold_reason IS NOT NULL AND i.is_open = 1 AND i.ledger_date BETWEEN :from AND :to GROUP BY i.currency
                    """));

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        by.mayDo(Deed.READ);
        YearMonth month = YearMonth.from(asked.day(by.today()));
        Period period = periods.known(List.of(month)).get(month);
        List<Report.Line> way = lines(IN_THE_WAY, month);
        List<Report.Line> look = lines(TO_LOOK_AT, month);
        List<Report.Line> lines = new ArrayList<>();
        if (!way.isEmpty()) {
            lines.add(Report.Line.group("Keeps the month from being locked"));
            lines.addAll(way);
        }
        if (!look.isEmpty()) {
            lines.add(Report.Line.group("Should have been looked at"));
            lines.addAll(look);
        }
        return new Report(
                "What " + new Period(month, false).inWords() + " still holds",
                List.of(
                        period == null
                                ? "this month is not opened"
                                : period.locked()
                                        ? "this month is locked"
                                        : way.isEmpty()
                                                ? "nothing keeps it from being locked"
                                                : "it cannot be locked yet"),
                HEADS,
                lines);
    }

    private List<Report.Line> lines(List<Question> questions, YearMonth month) {
        Map<String, Object> params = new HashMap<>();
        params.put("from", month.atDay(1));
        params.put("to", month.atEndOfMonth());
        params.put("prepared", PaymentState.PREPARED.name());
        params.put("waiting", List.of(PaymentState.OUTSTANDING.name(), PaymentState.STOPPED.name()));
        params.put("live", BatchState.live().stream().map(BatchState::name).toList());
        List<Report.Line> lines = new ArrayList<>();
        for (Question question : questions) {
            jdbc.sql(question.sql()).params(params).query((java.sql.ResultSet r) -> {
                String currency = r.getString("currency");
                if (r.getLong("n") > 0) {
                    lines.add(Report.Line.row(
                                    question.what(),
                                    "" + r.getLong("n"),
                                    currency == null
                                            ? ""
                                            : Money.ofMinor(r.getLong("amount_minor"), currency)
                                                    .toString(),
                                    currency == null ? "" : currency)
                            .leadingTo(question.leads()
                                    .replace("{from}", month.atDay(1).toString())
                                    .replace("{to}", month.atEndOfMonth().toString())));
                }
            });
        }
        return lines;
    }
}
