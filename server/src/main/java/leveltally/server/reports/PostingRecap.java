package leveltally.server.reports;

import java.util.ArrayList;
import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.Period;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.server.batches.Batches;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Debits and credits that a batch wrote, by month and account: its posting, and what undid some of it. */
@Service
class PostingRecap implements ReportSource {
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Account", 40, false),
            new Report.Head("Entries", 12, true),
            new Report.Head("Debit", 20, true),
            new Report.Head("Credit", 20, true));

    private final Batches batches;
    private final JdbcClient jdbc;

    PostingRecap(Batches batches, JdbcClient jdbc) {
        this.batches = batches;
        this.jdbc = jdbc;
    }

    @Override
    public String name() {
        return "posting-recap";
    }

    private record Sum(String month, boolean undone, String account, long entries, Money debit, Money credit) {}

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        by.mayDo(Deed.READ);
        BatchId id = asked.mustNameBatch();
        List<Sum> sums = sums(id);
        List<Report.Line> lines = new ArrayList<>();
        List<Sum> part = new ArrayList<>();
        for (Sum sum : sums) {
            if (part.isEmpty()
                    || !part.get(0).month().equals(sum.month())
                    || part.get(0).undone() != sum.undone()) {
                close(part, lines);
                lines.add(Report.Line.group(
                        new Period(java.time.YearMonth.parse(sum.month()), false).inWords(),
                        sum.undone() ? "undone" : "posted"));
            }
            part.add(sum);
            lines.add(Report.Line.row(
                    sum.account(),
                    "" + sum.entries(),
                    sum.debit().isZero() ? "" : sum.debit().toString(),
                    sum.credit().isZero() ? "" : sum.credit().toString()));
        }
        close(part, lines);
        return new Report(
                "Debits and credits: " + batches.get(id).name(), List.of("by month and account"), HEADS, lines);
    }

    private static void close(List<Sum> part, List<Report.Line> lines) {
        if (!part.isEmpty()) {
            Money zero = Money.zero(part.get(0).debit().currency());
            lines.add(Report.Line.total(
                    "together",
                    "",
                    part.stream().map(Sum::debit).reduce(zero, Money::plus).toString(),
                    part.stream().map(Sum::credit).reduce(zero, Money::plus).toString()));
            part.clear();
        }
    }

    private List<Sum> sums(BatchId batch) {
        return jdbc.sql("""
                        SELECT e.month, e.reverses_id IS NOT NULL AS undone, CONCAT(a.code, ' ', a.name) AS account,
                          COUNT(DISTINCT e.id) AS entries, SUM(l.debit_minor) AS debit_minor, SUM(l.credit_minor) AS credit_minor,
                          l.currency
                        FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id JOIN ledger_account a ON a.id = l.account_id
                        WHERE e.batch_id = ? GROUP BY e.month, undone, a.code, a.name, l.currency
                        ORDER BY undone, e.month, a.code
                        """)
                .param(batch.value())
                .query((r, n) -> new Sum(
                        r.getString("month"),
                        r.getBoolean("undone"),
                        r.getString("account"),
                        r.getLong("entries"),
                        Money.ofMinor(r.getLong("debit_minor"), r.getString("currency")),
                        Money.ofMinor(r.getLong("credit_minor"), r.getString("currency"))))
                .list();
    }
}
