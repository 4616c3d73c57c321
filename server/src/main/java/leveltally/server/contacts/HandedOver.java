package leveltally.server.contacts;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Dates;
import leveltally.core.contacts.Dormancy;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.server.reports.ReportAsked;
import leveltally.server.reports.ReportSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What was handed over as unclaimed in a year, state by state, as the states ask for it. */
@Service
class HandedOver implements ReportSource {
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Payee", 32, false),
            new Report.Head("Address", 46, false),
            new Report.Head("Check", 12, false),
            new Report.Head("Dated", 20, false),
            new Report.Head("Handed over", 20, false),
            new Report.Head("Amount", 18, true));

    private final JdbcClient jdbc;
    private final Unclaimed unclaimed;

    HandedOver(JdbcClient jdbc, Unclaimed unclaimed) {
        this.jdbc = jdbc;
        this.unclaimed = unclaimed;
    }

    @Override
    public String name() {
        return "unclaimed";
    }

    private record Row(String state, List<String> cells, Money amount) {}

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        by.mayDo(Deed.READ);
        int year = asked.yearOr(by.today().getYear());
        Map<String, List<Row>> states = new TreeMap<>();
        rows(year, unclaimed.dormancy())
                .forEach(row -> states.computeIfAbsent(row.state(), none -> new ArrayList<>())
                        .add(row));
        List<Report.Line> lines = new ArrayList<>();
        states.forEach((state, rows) -> {
            lines.add(Report.Line.group(state));
            Map<String, Money> sums = new TreeMap<>();
            rows.forEach(row -> {
                lines.add(Report.Line.row(row.cells().toArray(String[]::new)));
                sums.merge(row.amount().currency().getCurrencyCode(), row.amount(), Money::plus);
            });
            sums.forEach((currency, sum) -> lines.add(Report.Line.total(
                    "", rows.size() == 1 ? "1 check" : rows.size() + " checks", "", "", "", sum + " " + currency)));
        });
        return new Report(
                "Handed over as unclaimed in " + year,
                List.of(
                        "checks that were voided because their payees did not present them, by the state of the address"),
                HEADS,
                lines);
    }

    private List<Row> rows(int year, Dormancy dormancy) {
        return jdbc.sql("""
                        SELECT p.payee, c.address, COALESCE(NULLIF(c.postal_code, ''), r.postal_code) AS postal_code, CONCAT(s.prefix, n.number) AS number, p.check_date, e.ledger_date,
                          p.amount_minor, p.currency
                        FROM payment p JOIN journal_entry e ON e.id = p.undone_entry_id
                          AND e.ledger_date BETWEEN :first AND :last
                        JOIN claim c ON c.id = p.claim_id JOIN remit_to r ON r.id = c.remit_to_id
                        JOIN check_number n ON n.live_payment_id = p.id JOIN number_series s ON s.id = n.series_id
                        WHERE EXISTS (SELECT 1 FROM undoing_choice x WHERE x.entry_id = e.id AND x.invoice_id IS NULL)
                        ORDER BY p.payee, p.check_date, n.number
                        """)
                .param("first", LocalDate.of(year, 1, 1))
                .param("last", LocalDate.of(year, 12, 31))
                .query((r, n) -> {
                    Money amount = Money.ofMinor(r.getLong("amount_minor"), r.getString("currency"));
                    return new Row(
                            dormancy.of(r.getString("postal_code"))
                                    .map(Dormancy.Rule::state)
                                    .orElse("of no state that is kept"),
                            List.of(
                                    r.getString("payee"),
                                    r.getString("address").replace("\n", ", "),
                                    r.getString("number"),
                                    Dates.inWords(r.getObject("check_date", LocalDate.class)),
                                    Dates.inWords(r.getObject("ledger_date", LocalDate.class)),
                                    amount + " " + amount.currency().getCurrencyCode()),
                            amount);
                })
                .list();
    }
}
