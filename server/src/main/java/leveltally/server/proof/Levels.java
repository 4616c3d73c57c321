package leveltally.server.proof;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.money.Money;
import leveltally.core.proof.LevelStrip;
import leveltally.core.proof.LevelStrip.Step;
import leveltally.core.proof.LevelStrip.Tally;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.bankfiles.FileTruth;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.electronic.FiledTruth;
import leveltally.server.frame.MoneyView;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The tallies of a batch, each summed from its own rows and never from its neighbour's. */
@Service
public class Levels {
    private static final Map<Step, String> SUMS = Map.of(
            Step.LINES,
                    "SELECT COUNT(*) AS items, COALESCE(SUM(l.cash_minor), 0) AS amount_minor FROM claim_line l JOIN standing_claim c ON c.id = l.claim_id"
                            + " WHERE c.batch_id = :batch",
            Step.PAYMENTS,
                    "SELECT COUNT(x.amount) AS items, COALESCE(SUM(x.amount), 0) AS amount_minor FROM (SELECT CASE WHEN NOT EXISTS ("
                            + "SELECT 1 FROM payment q WHERE q.batch_id = b.id) THEN c.amount_minor"
                            + " ELSE p.amount_minor END AS amount FROM standing_claim c JOIN batch b ON b.id = c.batch_id"
                            + " LEFT JOIN payment p ON p.claim_id = c.id WHERE c.batch_id = :batch) x",
            Step.ON_PAPER,
                    "SELECT COUNT(*) AS items, COALESCE(SUM(d.amount_minor), 0) AS amount_minor FROM document d JOIN print_run r ON r.id = d.run_id"
                            + " JOIN payment p ON p.id = d.payment_id AND p.standing"
                            + " WHERE r.batch_id = :batch AND d.kind = 'CHECK' AND d.answer = 'GOOD'",
            Step.IN_FILE,
                    "SELECT COUNT(*) AS items, COALESCE(SUM(x.amount_minor), 0) AS amount_minor FROM payment p"
                            + " JOIN electronic_item i ON i.payment_id = p.id"
                            + " JOIN bank_file_item x ON x.file_id = i.file_id AND x.payment_id = p.id"
                            + " WHERE p.batch_id = :batch AND p.standing AND p.id NOT IN (:unsaid)",
            Step.ORDERED,
                    "SELECT COUNT(*) AS items, COALESCE(SUM(w.amount_minor), 0) AS amount_minor FROM wire_order w"
                            + " JOIN payment p ON p.id = w.payment_id AND p.standing"
                            + " WHERE p.batch_id = :batch AND w.bank_reference IS NOT NULL",
            Step.LEDGER,
                    "SELECT COUNT(*) AS items, COALESCE(SUM(l.credit_minor), 0) AS amount_minor FROM journal_entry e"
                            + " JOIN journal_line l ON l.entry_id = e.id JOIN batch b ON b.id = e.batch_id"
                            + " JOIN paid_from f ON f.way_id = b.way_id AND f.account_id = l.account_id"
                            + " WHERE e.batch_id = :batch AND e.kind = 'PAYMENT'",
            Step.TOLD_THE_BANK,
                    "SELECT COUNT(*) AS items, COALESCE(SUM(v.amount_minor), 0) AS amount_minor FROM bank_event v JOIN bank_file_item x ON x.event_id = v.id"
                            + " JOIN bank_file f ON f.id = x.file_id WHERE v.batch_id = :batch AND v.kind = 'ISSUE'"
                            + " AND f.state <> 'REFUSED' AND NOT f.anew AND x.refused_why IS NULL AND v.id NOT IN (:untold)",
            Step.PAID_BY_THE_BANK,
                    "SELECT COUNT(*) AS items, COALESCE(-SUM(k.amount_minor), 0) AS amount_minor FROM payment p JOIN bank_match k"
                            + " ON k.standing_payment_id = p.id WHERE p.batch_id = :batch");

    /** Per claim what each tally holds of it; the rows behind a vial that is off centre. */
    private static final String PER_CLAIM = """
            SELECT c.payee, n.number,
              (SELECT SUM(l.cash_minor) FROM claim_line l WHERE l.claim_id = c.id) AS `LINES`,
              CASE WHEN EXISTS (SELECT 1 FROM payment q WHERE q.batch_id = c.batch_id) THEN p.amount_minor
                ELSE c.amount_minor END AS PAYMENTS,
              (SELECT SUM(d.amount_minor) FROM document d WHERE d.payment_id = p.id AND d.kind = 'CHECK'
                 AND d.answer = 'GOOD') AS ON_PAPER,
              (SELECT x.amount_minor FROM electronic_item i JOIN bank_file_item x ON x.file_id = i.file_id
                 AND x.payment_id = i.payment_id WHERE i.payment_id = p.id AND p.id NOT IN (:unsaid)) AS IN_FILE,
              (SELECT w.amount_minor FROM wire_order w WHERE w.payment_id = p.id AND w.bank_reference IS NOT NULL) AS ORDERED,
              (SELECT SUM(l.credit_minor) FROM journal_entry e JOIN journal_line l ON l.entry_id = e.id
                 AND l.account_id = f.account_id WHERE e.payment_id = p.id AND e.kind = 'PAYMENT') AS LEDGER,
              (SELECT SUM(v.amount_minor) FROM bank_event v JOIN bank_file_item x ON x.event_id = v.id AND x.refused_why IS NULL
                 JOIN bank_file f ON f.id = x.file_id AND f.state <> 'REFUSED' AND NOT f.anew JOIN check_number m ON m.id = v.check_number_id
                 WHERE m.payment_id = p.id AND v.kind = 'ISSUE' AND v.id NOT IN (:untold)) AS TOLD_THE_BANK,
              (SELECT -SUM(k.amount_minor) FROM bank_match k WHERE k.standing_payment_id = p.id) AS PAID_BY_THE_BANK
            FROM standing_claim c JOIN batch b ON b.id = c.batch_id JOIN paid_from f ON f.way_id = b.way_id
            LEFT JOIN payment p ON p.claim_id = c.id LEFT JOIN check_number n ON n.live_payment_id = p.id
            WHERE c.batch_id = :batch ORDER BY c.payee, c.id
            """;

    private final JdbcClient jdbc;
    private final Batches batches;
    private final BankAccounts accounts;
    private final FileTruth truth;
    private final FiledTruth filed;

    Levels(JdbcClient jdbc, Batches batches, BankAccounts accounts, FileTruth truth, FiledTruth filed) {
        this.filed = filed;
        this.truth = truth;
        this.jdbc = jdbc;
        this.batches = batches;
        this.accounts = accounts;
    }

    /** One row behind a vial. */
    record Difference(String payee, @Nullable Long number, String left, String right) {}

    @Transactional(readOnly = true)
    public LevelStrip of(BatchId id) {
        Batch batch = batches.get(id);
        BankAccount account = accounts.get(batch.account());
        List<Step> steps = steps(batch, account);
        NotSaid not = notSaid(batch);
        return LevelStrip.of(
                steps.stream().map(step -> tally(step, id, account, not)).toList(), differing(id, steps, not));
    }

    /**
     * What stands in a file and its bytes do not say: the bank was told something else. Never empty, as lists in SQL must be.
     *
     * @param untold events, and {@code unsaid} payments
     */
    private record NotSaid(List<Long> untold, List<Long> unsaid) {}

    private NotSaid notSaid(Batch batch) {
        boolean file = batch.method().isElectronic();
        return new NotSaid(
                Stream.concat(Stream.of(0L), file ? Stream.of() : truth.untold(batch.id()).stream())
                        .toList(),
                Stream.concat(Stream.of(0L), file ? filed.unsaid(batch.id()).stream() : Stream.of())
                        .toList());
    }

    /**
     * What was made elsewhere stands on no paper and in no file of ours, what goes by file stands on no paper; the bank is told
     * of checks only; and what the bank paid stands there once it paid anything.
     */
    private List<Step> steps(Batch batch, BankAccount account) {
        boolean paid = jdbc.sql(SUMS.get(Step.PAID_BY_THE_BANK))
                .param("batch", batch.id().value())
                .query((r, n) -> r.getInt("items") > 0)
                .single();
        return Stream.of(Step.values())
                .filter(step -> paid || step != Step.PAID_BY_THE_BANK)
                .filter(step -> reaches(step, batch, account))
                .toList();
    }

    private static boolean reaches(Step step, Batch batch, BankAccount account) {
        boolean elsewhere = batch.purpose().isAfterTheFact();
        boolean checks = batch.method() == PaymentMethod.CHECK;
        return switch (step) {
            case ON_PAPER -> checks && !elsewhere;
            case IN_FILE -> batch.method().isElectronic() && !elsewhere;
            case ORDERED -> batch.method() == PaymentMethod.WIRE && !elsewhere;
            case TOLD_THE_BANK -> checks && (!elsewhere || account.positivePay());
            default -> true;
        };
    }

    /** For each two neighbours, on how many payments they differ. */
    private List<Integer> differing(BatchId id, List<Step> steps, NotSaid not) {
        String counts = IntStream.range(1, steps.size())
                .mapToObj(i -> "COALESCE(SUM(COALESCE(t.`" + steps.get(i - 1) + "`, 0) <> COALESCE(t.`" + steps.get(i)
                        + "`, 0)), 0)")
                .collect(Collectors.joining(", "));
        return jdbc.sql("SELECT " + counts + " FROM (" + PER_CLAIM + ") t")
                .param("batch", id.value())
                .param("untold", not.untold())
                .param("unsaid", not.unsaid())
                .query((r, n) -> IntStream.range(1, steps.size())
                        .mapToObj(i -> column(r, i))
                        .toList())
                .single();
    }

    private static int column(ResultSet row, int at) {
        try {
            return row.getInt(at);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    private Tally tally(Step step, BatchId id, BankAccount account, NotSaid not) {
        var sum = jdbc.sql(SUMS.get(step)).param("batch", id.value());
        var of = step == Step.TOLD_THE_BANK
                ? sum.param("untold", not.untold())
                : step == Step.IN_FILE ? sum.param("unsaid", not.unsaid()) : sum;
        return of.query((r, n) -> {
                    int count = r.getInt("items");
                    return new Tally(
                            step,
                            count,
                            count == 0 ? null : Money.ofMinor(r.getLong("amount_minor"), account.currency()));
                })
                .single();
    }

    /** What was voided of a batch, apart from its tallies. */
    @Transactional(readOnly = true)
    Tally voided(BatchId id) {
        BankAccount account = accounts.get(batches.get(id).account());
        return jdbc.sql("SELECT COUNT(*) AS items, COALESCE(SUM(p.amount_minor), 0) AS amount_minor FROM payment p"
                        + " WHERE p.batch_id = :batch AND p.undone_entry_id IS NOT NULL")
                .param("batch", id.value())
                .query((r, n) -> new Tally(
                        Step.LEDGER, r.getInt("items"), Money.ofMinor(r.getLong("amount_minor"), account.currency())))
                .single();
    }

    /** The claims on which two neighbouring tallies differ; {@code vial} 0 stands between the first two. */
    @Transactional(readOnly = true)
    List<Difference> between(BatchId id, int vial) {
        Batch batch = batches.get(id);
        BankAccount account = accounts.get(batch.account());
        List<Step> steps = steps(batch, account);
        if (vial < 0 || vial >= steps.size() - 1) {
            throw Refusal.notFound("no-vial", "There is no such vial.");
        }
        Step left = steps.get(vial);
        Step right = steps.get(vial + 1);
        String currency = account.currency().getCurrencyCode();
        NotSaid not = notSaid(batch);
        return jdbc
                .sql(PER_CLAIM)
                .param("batch", id.value())
                .param("untold", not.untold())
                .param("unsaid", not.unsaid())
                .query((r, n) -> {
                    long a = r.getLong(left.name());
                    long b = r.getLong(right.name());
                    return a == b
                            ? null
                            : new Difference(
                                    r.getString("payee"),
                                    r.getObject("number", Long.class),
                                    MoneyView.of(a, currency).text(),
                                    MoneyView.of(b, currency).text());
                })
                .list()
                .stream()
                .filter(Objects::nonNull)
                .toList();
    }
}
