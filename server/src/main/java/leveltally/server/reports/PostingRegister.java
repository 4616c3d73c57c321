package leveltally.server.reports;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import leveltally.core.Dates;
import leveltally.core.batches.BatchId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What the posting of a batch wrote, payment by payment, with the entry of each; undone ones apart. */
@Service
class PostingRegister implements ReportSource {
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Number", 12, false),
            new Report.Head("Payee", 32, false),
            new Report.Head("Entry", 12, true),
            new Report.Head("Settles", 16, true),
            new Report.Head("Discount", 14, true),
            new Report.Head("Credits", 14, true),
            new Report.Head("Paid", 16, true));

    private final Batches batches;
    private final JdbcClient jdbc;

    PostingRegister(Batches batches, JdbcClient jdbc) {
        this.batches = batches;
        this.jdbc = jdbc;
    }

    @Override
    public String name() {
        return "posting-register";
    }

    private record Posted(
            String number,
            String payee,
            long entry,
            LocalDate date,
            PaymentState state,
            Money settles,
            Money discount,
            Money credits,
            Money paid) {}

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        by.mayDo(Deed.READ);
        BatchId id = asked.mustNameBatch();
        Batch batch = batches.get(id);
        List<Posted> posted = posted(id);
        List<Report.Line> lines = new ArrayList<>();
        LocalDate day = null;
        for (Posted one : posted) {
            if (!one.date().equals(day)) {
                day = one.date();
                lines.add(Report.Line.group("In the ledger on " + Dates.inWords(day)));
            }
            lines.add(Report.Line.row(
                    one.number(),
                    one.payee()
                            + (one.state().isInTheLedger()
                                    ? ""
                                    : ", " + one.state().words()),
                    "" + one.entry(),
                    one.settles().toString(),
                    none(one.discount()),
                    none(one.credits()),
                    one.paid().toString()));
        }
        if (!posted.isEmpty()) {
            lines.add(Report.Line.group("Together"));
            lines.add(total(posted.size() == 1 ? "1 payment" : posted.size() + " payments", posted));
            List<Posted> undone =
                    posted.stream().filter(one -> !one.state().isInTheLedger()).toList();
            if (!undone.isEmpty()) {
                lines.add(total("undone since", undone));
            }
        }
        return new Report(
                "What was posted: " + batch.name(),
                List.of(
                        "checks of " + Dates.inWords(batch.checkDate()),
                        batch.state().words()),
                HEADS,
                lines);
    }

    private static String none(Money amount) {
        return amount.isZero() ? "" : amount.toString();
    }

    private static Report.Line total(String words, List<Posted> of) {
        Money zero = Money.zero(of.get(0).paid().currency());
        return Report.Line.total(
                "",
                words,
                "",
                of.stream().map(Posted::settles).reduce(zero, Money::plus).toString(),
                none(of.stream().map(Posted::discount).reduce(zero, Money::plus)),
                none(of.stream().map(Posted::credits).reduce(zero, Money::plus)),
                of.stream().map(Posted::paid).reduce(zero, Money::plus).toString());
    }

    private List<Posted> posted(BatchId batch) {
        return jdbc.sql("""
                        SELECT n.number, p.payee, p.posted_entry_id, e.ledger_date, p.state, p.amount_minor, p.currency,
                          SUM(CASE WHEN l.kind <> 'CREDIT' THEN l.gross_minor ELSE 0 END) AS settles_minor,
                          SUM(l.discount_minor) AS discount_minor,
                          SUM(CASE WHEN l.kind = 'CREDIT' THEN l.gross_minor ELSE 0 END) AS credit_minor
                        FROM payment p JOIN journal_entry e ON e.id = p.posted_entry_id
                        JOIN claim_line l ON l.claim_id = p.claim_id
                        LEFT JOIN check_number n ON n.live_payment_id = p.id
                        WHERE p.batch_id = ? GROUP BY p.id ORDER BY e.ledger_date, n.number, p.id
                        """)
                .param(batch.value())
                .query((r, n) -> {
                    String currency = r.getString("currency");
                    return new Posted(
                            r.getString("number") == null ? "" : r.getString("number"),
                            r.getString("payee"),
                            r.getLong("posted_entry_id"),
                            r.getObject("ledger_date", LocalDate.class),
                            PaymentState.valueOf(r.getString("state")),
                            Money.ofMinor(r.getLong("settles_minor"), currency),
                            Money.ofMinor(r.getLong("discount_minor"), currency),
                            Money.ofMinor(r.getLong("credit_minor"), currency),
                            Money.ofMinor(r.getLong("amount_minor"), currency));
                })
                .list();
    }
}
