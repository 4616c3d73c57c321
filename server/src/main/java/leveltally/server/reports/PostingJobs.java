package leveltally.server.reports;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.batches.BatchId;
import leveltally.core.money.Money;
import leveltally.core.money.ProRata;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.server.batches.Batches;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * What a posting paid for: its money over the jobs and accounts of what it settled, pro rata of the lines of each document,
 * leftover cents to the largest. It comes to what was paid.
 */
@Service
class PostingJobs implements ReportSource {
    private static final List<Report.Head> HEADS = List.of(
            new Report.Head("Account", 40, false),
            new Report.Head("Documents", 14, true),
            new Report.Head("Paid", 20, true));
    private static final String NO_JOB = "No job";
    private static final String NO_LINES = "came without account lines";

    private final Batches batches;
    private final JdbcClient jdbc;

    PostingJobs(Batches batches, JdbcClient jdbc) {
        this.batches = batches;
        this.jdbc = jdbc;
    }

    @Override
    public String name() {
        return "posting-jobs";
    }

    /** What a line of a claim paid, and what its document was for. */
    private record Paid(Money cash, List<Share> shares) {}

    private record Share(String job, String account, Money weight) {}

    private record Sum(int documents, Money paid) {
        Sum plus(Money more) {
            return new Sum(documents + 1, paid.plus(more));
        }
    }

    @Override
    @Transactional(readOnly = true)
    public Report of(Actor by, ReportAsked asked) {
        by.mayDo(Deed.READ);
        BatchId id = asked.mustNameBatch();
        Map<String, Map<String, Sum>> jobs = new TreeMap<>();
        for (Paid paid : paid(id)) {
            List<Money> shares = ProRata.of(
                    paid.cash(), paid.shares().stream().map(Share::weight).toList());
            for (int i = 0; i < shares.size(); i++) {
                Share share = paid.shares().get(i);
                Money none = Money.zero(paid.cash().currency());
                Map<String, Sum> accounts = jobs.computeIfAbsent(share.job(), job -> new TreeMap<>());
                accounts.put(
                        share.account(),
                        accounts.getOrDefault(share.account(), new Sum(0, none)).plus(shares.get(i)));
            }
        }
        return new Report(
                "What was paid for: " + batches.get(id).name(),
                List.of("the money of posted payments by job and account, undone ones included"),
                HEADS,
                lines(jobs));
    }

    private static List<Report.Line> lines(Map<String, Map<String, Sum>> jobs) {
        List<Report.Line> lines = new ArrayList<>();
        Money all = null;
        for (Map.Entry<String, Map<String, Sum>> job : jobs.entrySet()) {
            lines.add(Report.Line.group(job.getKey().isEmpty() ? NO_JOB : "Job " + job.getKey()));
            Money sum = null;
            for (Map.Entry<String, Sum> account : job.getValue().entrySet()) {
                Money paid = account.getValue().paid();
                lines.add(Report.Line.row(
                        account.getKey(), "" + account.getValue().documents(), paid.toString()));
                sum = sum == null ? paid : sum.plus(paid);
            }
            if (sum != null) {
                lines.add(Report.Line.total("together", "", sum.toString()));
                all = all == null ? sum : all.plus(sum);
            }
        }
        if (all != null && jobs.size() > 1) {
            lines.add(Report.Line.total("all jobs", "", all.toString()));
        }
        return lines;
    }

    private List<Paid> paid(BatchId batch) {
        Map<Long, Paid> lines = new LinkedHashMap<>();
        jdbc.sql("""
                        SELECT x.line, x.cash_minor, x.currency, x.job, CONCAT(a.code, ' ', a.name) AS account, x.weight_minor
                        FROM (SELECT l.id AS line, l.cash_minor, l.currency, COALESCE(n.job, '') AS job, n.account_id,
                            n.amount_minor AS weight_minor, n.id AS place
                          FROM payment p JOIN claim_line l ON l.claim_id = p.claim_id AND l.kind = 'INVOICE'
                          LEFT JOIN invoice_line n ON n.invoice_id = l.invoice_id
                          WHERE p.batch_id = :batch AND p.posted_entry_id IS NOT NULL
                          UNION ALL SELECT l.id, l.cash_minor, l.currency, n.job, n.account_id, n.amount_minor, n.position
                          FROM payment p JOIN claim_line l ON l.claim_id = p.claim_id
                          JOIN claim_line_account n ON n.line_id = l.id
                          WHERE p.batch_id = :batch AND p.posted_entry_id IS NOT NULL) x
                        LEFT JOIN ledger_account a ON a.id = x.account_id ORDER BY x.line, x.place
                        """).param("batch", batch.value()).query((java.sql.ResultSet r) -> {
            Money cash = Money.ofMinor(r.getLong("cash_minor"), r.getString("currency"));
            String account = r.getString("account");
            Money weight = Money.ofMinor(account == null ? 1 : r.getLong("weight_minor"), r.getString("currency"));
            lines.computeIfAbsent(r.getLong("line"), line -> new Paid(cash, new ArrayList<>()))
                    .shares()
                    .add(new Share(
                            account == null ? "" : r.getString("job"), account == null ? NO_LINES : account, weight));
        });
        return List.copyOf(lines.values());
    }
}
