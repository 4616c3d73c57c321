package leveltally.server.checks;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.checks.BankKnows;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.payments.Payment;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * What the bank must hear of checks (law L5): written by the deeds that issue and void them, never by a state that was
 * reached. Nobody else writes these rows.
 */
@Service
public class BankEvents {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final AuditTrail audit;

    BankEvents(EntityManager entities, JdbcClient jdbc, BankAccounts accounts, AuditTrail audit) {
        this.audit = audit;
        this.entities = entities;
        this.jdbc = jdbc;
        this.accounts = accounts;
    }

    /** What the bank knows of issued checks; of one that was never issued, what it would be told first. */
    @Transactional(readOnly = true)
    public Map<CheckNumberId, BankKnows> bankKnows(Collection<CheckNumberId> ids) {
        Map<CheckNumberId, BankKnows> found = new HashMap<>();
        if (ids.isEmpty()) {
            return found;
        }
        jdbc.sql("""
                        SELECT n.id, a.positive_pay, f.serial, f.state = 'ACCEPTED' AS accepted, e.never_reported FROM check_number n
                        JOIN series_of_account a ON a.id = n.series_id
                        LEFT JOIN bank_event e ON e.check_number_id = n.id AND e.kind = 'ISSUE'
                        LEFT JOIN bank_file f ON f.id = e.file_id WHERE n.id IN (:ids)
                        """)
                .param("ids", ids.stream().map(CheckNumberId::value).toList())
                .query((java.sql.ResultSet r) -> {
                    BankKnows.Issue issue = r.getBoolean("positive_pay")
                            ? BankKnows.Issue.of(
                                    r.getString("never_reported") != null, r.getObject("accepted", Boolean.class))
                            : BankKnows.Issue.NOT_ASKED_FOR;
                    found.put(new CheckNumberId(r.getLong("id")), new BankKnows(issue, r.getLong("serial")));
                });
        return found;
    }

    /** The deed of issuing checks of one account tells the bank. */
    @Transactional
    public void tellIssues(BankAccountId account, List<Check> checks) {
        if (accounts.get(account).positivePay()) {
            checks.forEach(check -> tell(check, "ISSUE", check.payment().checkDate()));
        }
    }

    /** A check that is void from a day on. */
    public record Voided(Check check, LocalDate on) {}

    /** The deed of voiding tells the bank. */
    @Transactional
    public void tellVoids(List<Voided> all) {
        Map<BankAccountId, Boolean> asks = new HashMap<>();
        for (Voided one : all) {
            BankAccountId account = one.check().payment().account();
            if (asks.computeIfAbsent(account, id -> accounts.get(id).positivePay())) {
                tell(one.check(), "VOID", one.on());
            }
        }
    }

    private void tell(Check check, String kind, LocalDate on) {
        Payment payment = check.payment();
        BankEventEntity event = new BankEventEntity();
        event.bankAccountId = payment.account().value();
        event.checkNumberId = check.id().value();
        event.batchId = payment.batch().value();
        event.kind = kind;
        event.currency = payment.amount().currency().getCurrencyCode();
        event.amountMinor = payment.amount().minor();
        event.eventDate = on;
        event.payee = payment.payee();
        entities.persist(event);
    }

    /**
     * Puts events that wait into a file.
     *
     * @throws Refusal when one of them waits no more
     */
    @Transactional
    public void putIn(long file, List<Long> events) {
        int moved = jdbc.sql("UPDATE bank_event SET file_id = :file, version = version + 1"
                        + " WHERE id IN (:events) AND file_id IS NULL AND never_reported IS NULL")
                .param("file", file)
                .param("events", events)
                .update();
        if (moved != events.size()) {
            throw Refusal.conflict("told-meanwhile", "Another file took some of these events meanwhile. Look again.");
        }
    }

    private static final int LONGEST_WHY = 300;
    private static final int MOST_CLOSED = 500;

    private record Open(long id, String kind, String printed, boolean waits, boolean issueIsTold) {}

    /**
     * Closes events that wait: the bank is never told of them, because it was told otherwise or need not know.
     *
     * @throws Refusal when one of them waits no more, or is the void of a check the bank was told of and would pay
     */
    @Transactional
    public void neverReport(Actor by, BankAccountId account, List<Long> events, String why) {
        by.mayDo(Deed.MAKE_BANK_FILE);
        if (why.isBlank() || why.length() > LONGEST_WHY) {
            throw Refusal.invalidField(
                    "reason-missing",
                    "why",
                    "Say why the bank is not told, in at most " + LONGEST_WHY + " characters.");
        }
        if (events.isEmpty() || events.size() > MOST_CLOSED) {
            throw Refusal.invalid(
                    "none-chosen", "Choose what the bank is not told, at most " + MOST_CLOSED + " at once.");
        }
        accounts.lock(account);
        List<Open> found = jdbc.sql("""
                        SELECT e.id, e.kind, CONCAT(s.prefix, n.number) AS printed, e.file_id IS NULL AND e.never_reported IS NULL AS waits,
                          i.file_id IS NOT NULL AS issue_is_told
                        FROM bank_event e JOIN check_number n ON n.id = e.check_number_id JOIN number_series s ON s.id = n.series_id
                        LEFT JOIN bank_event i ON i.check_number_id = e.check_number_id AND i.kind = 'ISSUE'
                        WHERE e.bank_account_id = :account AND e.id IN (:events)
                        """)
                .param("account", account.value())
                .param("events", events)
                .query(Open.class)
                .list();
        for (Open one : found) {
            if (!one.waits()) {
                throw Refusal.conflict(
                        "told-meanwhile",
                        "Check " + one.printed() + " does not wait any more. Look again; nothing was closed.");
            }
            if (one.kind().equals("VOID") && one.issueIsTold()) {
                throw Refusal.conflict(
                        "void-must-be-told",
                        "The bank was told of check " + one.printed()
                                + ", so it has to be told of its void, or it pays it. Leave it in the next file.");
            }
        }
        if (found.size() < events.size()) {
            throw Refusal.notFound("no-event", "One of these is nothing the bank waits for. Look again.");
        }
        jdbc.sql("UPDATE bank_event SET never_reported = :why, version = version + 1 WHERE id IN (:events)"
                        + " AND file_id IS NULL AND never_reported IS NULL")
                .param("why", why.strip())
                .param("events", events)
                .update();
        audit.record(
                by,
                "never tell bank",
                "bank account " + account.value(),
                Map.of("checks", found.stream().map(Open::printed).distinct().toList(), "why", why.strip()));
    }

    /** The events of a file the bank refused wait again. */
    @Transactional
    public void waitAgain(long file) {
        jdbc.sql("UPDATE bank_event SET file_id = NULL, version = version + 1 WHERE file_id = :file")
                .param("file", file)
                .update();
    }

    /** These events of a file the bank took were refused, and wait again. */
    @Transactional
    public void waitAgain(long file, List<Long> events) {
        jdbc.sql(
                        "UPDATE bank_event SET file_id = NULL, version = version + 1 WHERE file_id = :file AND id IN (:events)")
                .param("file", file)
                .param("events", events)
                .update();
    }
}
