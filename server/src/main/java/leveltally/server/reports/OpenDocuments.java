package leveltally.server.reports;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceKind;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.server.frame.Patience;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Every document that was open at the end of a day, vendor by vendor, whatever became of it since; account by account tied to
 * the ledger (laws L2, L11). What was paid ahead stands apart, because nobody owes it.
 */
@Service
class OpenDocuments implements ReportSource {
    private static final int MOST = 50_000;
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Document", 22, false),
            new Report.Head("Dated", 20, false),
            new Report.Head("Due", 20, false),
            new Report.Head("Days late", 11, true),
            new Report.Head("Amount", 17, true),
            new Report.Head("Open", 17, true));

    private final JdbcClient jdbc;
    private final LedgerBalances balances;
    private final Patience patience;

    OpenDocuments(JdbcClient jdbc, LedgerBalances balances, Patience patience) {
        this.jdbc = jdbc;
        this.balances = balances;
        this.patience = patience;
    }

    @Override
    public String name() {
        return "open-documents";
    }

    /** @param account on which it is open, in words; {@code open} below zero for what lowers what is owed */
    private record Open(
            LedgerBalances.On account,
            String vendor,
            long id,
            InvoiceKind kind,
            String reference,
            LocalDate dated,
            LocalDate due,
            Money amount,
            Money open) {}

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        patience.forWholeTables();
        by.mayDo(Deed.READ);
        LocalDate on = asked.day(by.today());
        Map<LedgerBalances.On, List<Open>> accounts = new LinkedHashMap<>();
        open(on).forEach(one -> accounts.computeIfAbsent(one.account(), none -> new ArrayList<>())
                .add(one));
        Map<LedgerBalances.On, Money> ledger = balances.owed(accounts.keySet(), on);
        List<Report.Line> lines = new ArrayList<>();
        accounts.forEach((account, of) -> {
            vendors(of).forEach((vendor, own) -> vendor(vendor, own, on, lines));
            Money sum = sum(of);
            lines.add(Report.Line.total(
                    account.words(),
                    of.size() == 1 ? "1 document" : of.size() + " documents",
                    "",
                    "",
                    account.currency(),
                    sum.toString()));
            Money off = ledger.get(account).minus(sum);
            lines.add(Report.Line.total(
                    "the ledger",
                    off.isZero() ? "which agrees" : "off by " + off,
                    "",
                    "",
                    "",
                    ledger.get(account).toString()));
        });
        return new Report(
                "Open documents on " + Dates.inWords(on),
                List.of("as they stood at the end of that day; below zero what lowers what is owed, or was paid ahead"),
                HEADS,
                lines);
    }

    private static void vendor(String vendor, List<Open> own, LocalDate on, List<Report.Line> lines) {
        lines.add(Report.Line.group(vendor, sum(own).toString()));
        for (Open one : own) {
            boolean owed = one.kind().raises();
            long late = ChronoUnit.DAYS.between(one.due(), on);
            lines.add(Report.Line.row(
                            (owed ? "" : one.kind().words().toLowerCase(java.util.Locale.ROOT) + " ") + one.reference(),
                            Dates.inWords(one.dated()),
                            owed ? Dates.inWords(one.due()) : "",
                            owed && late > 0 ? "" + late : "",
                            one.amount().toString(),
                            one.open().toString())
                    .leadingTo("/invoices/" + one.id()));
        }
    }

    private static Map<String, List<Open>> vendors(List<Open> of) {
        Map<String, List<Open>> vendors = new LinkedHashMap<>();
        of.forEach(one ->
                vendors.computeIfAbsent(one.vendor(), none -> new ArrayList<>()).add(one));
        return vendors;
    }

    private static Money sum(List<Open> of) {
        return of.stream().map(Open::open).reduce(Money::plus).orElseThrow();
    }

    private List<Open> open(LocalDate on) {
        List<Open> open = jdbc.sql("""
                        SELECT i.payables_account_id, CONCAT(a.code, ' ', a.name) AS account, v.name, i.id, i.kind, i.reference,
                          i.invoice_date, i.due_date, i.currency, i.amount_minor,
                          i.amount_minor - COALESCE((SELECT SUM(s.amount_minor) FROM settlement s
                            WHERE s.invoice_id = i.id AND s.ledger_date <= :on), 0) AS open_minor
                        FROM invoice i JOIN vendor v ON v.id = i.vendor_id JOIN ledger_account a ON a.id = i.payables_account_id
                        WHERE i.ledger_date <= :on HAVING open_minor <> 0
                        ORDER BY a.kind = 'PAYABLES' DESC, a.code, i.currency, v.name, v.id, i.due_date, i.id LIMIT :most
                        """)
                .param("on", on)
                .param("most", MOST + 1)
                .query((r, n) -> {
                    InvoiceKind kind = InvoiceKind.valueOf(r.getString("kind"));
                    String currency = r.getString("currency");
                    Money left = Money.ofMinor(r.getLong("open_minor"), currency);
                    return new Open(
                            new LedgerBalances.On(r.getLong("payables_account_id"), r.getString("account"), currency),
                            r.getString("name"),
                            r.getLong("id"),
                            kind,
                            r.getString("reference"),
                            r.getObject("invoice_date", LocalDate.class),
                            r.getObject("due_date", LocalDate.class),
                            Money.ofMinor(r.getLong("amount_minor"), currency),
                            kind.raises() ? left : left.negated());
                })
                .list();
        if (open.size() > MOST) {
            throw Refusal.conflict(
                    "too-many-open",
                    "More than 50,000 documents were open that day, too many for one list. Look at what was owed vendor by"
                            + " vendor, and at the account of one.");
        }
        return open;
    }
}
