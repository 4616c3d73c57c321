package leveltally.server.reports;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Dates;
import leveltally.core.ledger.AccountKind;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.server.frame.Patience;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What was owed at the end of a day, vendor by vendor and by age, tied to the payables of the ledger (laws L2, L11). */
@Service
class Aging implements ReportSource {
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Vendor", 30, false),
            new Report.Head("Open", 17, true),
            new Report.Head("Not due", 17, true),
            new Report.Head("1 to 30 days", 16, true),
            new Report.Head("31 to 60", 16, true),
            new Report.Head("61 to 90", 16, true),
            new Report.Head("Over 90", 16, true));

    private final JdbcClient jdbc;
    private final Patience patience;

    Aging(JdbcClient jdbc, Patience patience) {
        this.patience = patience;
        this.jdbc = jdbc;
    }

    @Override
    public String name() {
        return "aging";
    }

    /** @param parts open in all, then by age */
    private record Owed(String vendor, List<Money> parts) {}

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        patience.forWholeTables();
        by.mayDo(Deed.READ);
        LocalDate on = asked.day(by.today());
        Map<String, List<Owed>> owed = owed(on);
        Map<String, Money> ledger = ledger(on);
        List<Report.Line> lines = new ArrayList<>();
        owed.forEach((currency, of) -> {
            lines.add(Report.Line.group(currency));
            of.forEach(one -> lines.add(Report.Line.row(cells(one.vendor(), one.parts()))));
            List<Money> sums = sums(of);
            lines.add(Report.Line.total(cells(of.size() == 1 ? "1 vendor" : of.size() + " vendors", sums)));
            Money payables =
                    ledger.getOrDefault(currency, Money.zero(sums.get(0).currency()));
            Money off = payables.minus(sums.get(0));
            lines.add(Report.Line.total(
                    "the ledger's payables" + (off.isZero() ? ", which agree" : ", off by " + off),
                    payables.toString(),
                    "",
                    "",
                    "",
                    "",
                    ""));
        });
        return new Report(
                "What was owed on " + Dates.inWords(on),
                List.of("invoices less credits, as they stood at the end of that day; credits stand under not due"),
                HEADS,
                lines);
    }

    private static String[] cells(String first, List<Money> parts) {
        List<String> cells = new ArrayList<>(List.of(first));
        parts.forEach(part -> cells.add(part.isZero() ? "" : part.toString()));
        return cells.toArray(String[]::new);
    }

    private static List<Money> sums(List<Owed> of) {
        List<Money> sums = new ArrayList<>(of.get(0).parts());
        for (Owed one : of.subList(1, of.size())) {
            for (int i = 0; i < sums.size(); i++) {
                sums.set(i, sums.get(i).plus(one.parts().get(i)));
            }
        }
        return sums;
    }

    private Map<String, List<Owed>> owed(LocalDate on) {
        Map<String, List<Owed>> found = new TreeMap<>();
        jdbc.sql("""
                        SELECT v.name, x.currency, SUM(x.open) AS open_minor,
                          SUM(CASE WHEN x.credit OR x.late <= 0 THEN x.open ELSE 0 END) AS not_due,
                          SUM(CASE WHEN NOT x.credit AND x.late BETWEEN 1 AND 30 THEN x.open ELSE 0 END) AS month1,
                          SUM(CASE WHEN NOT x.credit AND x.late BETWEEN 31 AND 60 THEN x.open ELSE 0 END) AS month2,
                          SUM(CASE WHEN NOT x.credit AND x.late BETWEEN 61 AND 90 THEN x.open ELSE 0 END) AS month3,
                          SUM(CASE WHEN NOT x.credit AND x.late > 90 THEN x.open ELSE 0 END) AS older
                        FROM (SELECT i.vendor_id, i.currency, i.kind = 'CREDIT' AS credit, DATEDIFF(:on, i.due_date) AS late,
                            (i.amount_minor - COALESCE((SELECT SUM(s.amount_minor) FROM settlement s
                              WHERE s.invoice_id = i.id AND s.ledger_date <= :on), 0))
                              * CASE WHEN i.kind = 'CREDIT' THEN -1 ELSE 1 END AS open
                          FROM invoice i WHERE i.ledger_date <= :on AND i.kind <> 'PREPAYMENT'
                          -- kept apart by this, or each of the sums would reckon it anew
                          HAVING open <> 0) x
                        JOIN vendor v ON v.id = x.vendor_id
                        GROUP BY v.id, v.name, x.currency ORDER BY v.name, v.id
                        """).param("on", on).query((java.sql.ResultSet r) -> {
            String currency = r.getString("currency");
            List<Money> parts = new ArrayList<>();
            for (String column : List.of("open_minor", "not_due", "month1", "month2", "month3", "older")) {
                parts.add(Money.ofMinor(r.getLong(column), currency));
            }
            found.computeIfAbsent(currency, none -> new ArrayList<>()).add(new Owed(r.getString("name"), parts));
        });
        return found;
    }

    private Map<String, Money> ledger(LocalDate on) {
        Map<String, Money> found = new TreeMap<>();
        jdbc.sql("""
                        SELECT l.currency, SUM(l.credit_minor) - SUM(l.debit_minor) AS balance_minor
                        FROM journal_line l JOIN journal_entry e ON e.id = l.entry_id
                        JOIN ledger_account a ON a.id = l.account_id AND a.kind = :payables
                        WHERE e.ledger_date <= :on GROUP BY l.currency
                        """)
                .param("on", on)
                .param("payables", AccountKind.PAYABLES.name())
                .query((java.sql.ResultSet r) -> {
                    found.put(
                            r.getString("currency"),
                            Money.ofMinor(r.getLong("balance_minor"), r.getString("currency")));
                });
        return found;
    }
}
