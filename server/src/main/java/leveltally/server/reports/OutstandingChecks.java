package leveltally.server.reports;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import leveltally.core.Dates;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.server.company.Companies;
import leveltally.server.frame.Patience;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Checks the bank had not paid at the end of a day, account by account, the oldest first; whatever became of them since. */
@Service
class OutstandingChecks implements ReportSource {
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Number", 14, false),
            new Report.Head("Payee", 36, false),
            new Report.Head("Check date", 22, false),
            new Report.Head("Days", 10, true),
            new Report.Head("State then", 20, false),
            new Report.Head("Amount", 18, true));

    private final JdbcClient jdbc;
    private final Patience patience;
    private final Companies companies;

    OutstandingChecks(JdbcClient jdbc, Companies companies, Patience patience) {
        this.patience = patience;
        this.jdbc = jdbc;
        this.companies = companies;
    }

    @Override
    public String name() {
        return "outstanding";
    }

    private record Out(String account, String number, String payee, LocalDate date, PaymentState state, Money amount) {}

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        patience.forWholeTables();
        by.mayDo(Deed.READ);
        LocalDate on = asked.day(by.today());
        int staleDays = companies.staleDays();
        List<Report.Line> lines = new ArrayList<>();
        Map<String, List<Out>> accounts = new TreeMap<>();
        out(on).forEach(one -> accounts.computeIfAbsent(one.account(), none -> new ArrayList<>())
                .add(one));
        accounts.forEach((account, of) -> {
            lines.add(Report.Line.group(account));
            for (Out one : of) {
                long days = ChronoUnit.DAYS.between(one.date(), on);
                lines.add(Report.Line.row(
                        one.number(),
                        one.payee(),
                        Dates.inWords(one.date()),
                        "" + days,
                        one.state().words() + (days > staleDays ? ", stale" : ""),
                        one.amount().toString()));
            }
            Money sum = of.stream().map(Out::amount).reduce(Money::plus).orElseThrow();
            List<Out> stale = of.stream()
                    .filter(one -> ChronoUnit.DAYS.between(one.date(), on) > staleDays)
                    .toList();
            lines.add(Report.Line.total(
                    "", of.size() == 1 ? "1 check" : of.size() + " checks", "", "", "", sum.toString()));
            stale.stream()
                    .map(Out::amount)
                    .reduce(Money::plus)
                    .ifPresent(of2 -> lines.add(Report.Line.total(
                            "",
                            stale.size() + " of them older than " + staleDays + " days",
                            "",
                            "",
                            "",
                            of2.toString())));
        });
        return new Report(
                "Outstanding on " + Dates.inWords(on),
                List.of("posted by then, and neither paid by the bank nor undone by then"),
                HEADS,
                lines);
    }

    private List<Out> out(LocalDate on) {
        return jdbc.sql("""
                        SELECT CONCAT(a.name, ', ', p.currency) AS account, CONCAT(s.prefix, n.number) AS number, p.payee, p.check_date, e.to_state,
                          p.amount_minor, p.currency
                        FROM payment p JOIN journal_entry j ON j.id = p.posted_entry_id AND j.ledger_date <= :on
                        JOIN bank_account a ON a.id = p.bank_account_id
                        JOIN payment_event e ON e.payment_id = p.id AND e.step = (SELECT MAX(x.step) FROM payment_event x
                          WHERE x.payment_id = p.id AND x.business_date <= :on)
                        JOIN check_number n ON n.live_payment_id = p.id JOIN number_series s ON s.id = n.series_id
                        WHERE e.to_state IN (:waiting) ORDER BY account, p.check_date, n.number
                        """)
                .param("on", on)
                .param(
                        "waiting",
                        Stream.of(PaymentState.OUTSTANDING, PaymentState.STOPPED)
                                .map(PaymentState::name)
                                .toList())
                .query((r, n) -> new Out(
                        r.getString("account"),
                        r.getString("number"),
                        r.getString("payee"),
                        r.getObject("check_date", LocalDate.class),
                        PaymentState.valueOf(r.getString("to_state")),
                        Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"))))
                .list();
    }
}
