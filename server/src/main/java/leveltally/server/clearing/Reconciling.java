package leveltally.server.clearing;

import java.sql.Timestamp;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.Sha256;
import leveltally.core.clearing.Reconciliation;
import leveltally.core.clearing.Reconciliation.Kind;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.reports.Report;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.MoneyView;
import leveltally.server.frame.Patience;
import leveltally.server.frame.WorkIds;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Bank and ledger beside each other at the end of any day the statements reach, and as somebody signed them. */
@Service
public class Reconciling {
    private static final int LONGEST_NOTE = 300;

    private final BankAccounts accounts;
    private final JdbcClient jdbc;
    private final JsonMapper json;
    private final WorkIds ids;
    private final Patience patience;
    private final AuditTrail audit;

    Reconciling(
            BankAccounts accounts, JdbcClient jdbc, JsonMapper json, WorkIds ids, Patience patience, AuditTrail audit) {
        this.accounts = accounts;
        this.jdbc = jdbc;
        this.json = json;
        this.ids = ids;
        this.patience = patience;
        this.audit = audit;
    }

    /** From which day on, and until which, the statements of an account tell of it. */
    public record Reach(LocalDate from, LocalDate until) {}

    /** Empty where no statement was read. */
    @Transactional(readOnly = true)
    public Optional<Reach> reach(Actor by, BankAccountId id) {
        by.mayDo(Deed.READ);
        return reach(id);
    }

    private Optional<Reach> reach(BankAccountId id) {
        return jdbc.sql("SELECT MIN(from_day) AS from_day, MAX(to_day) AS to_day FROM bank_report"
                        + " WHERE bank_account_id = ? AND place IS NOT NULL HAVING to_day IS NOT NULL")
                .param(id.value())
                .query((r, n) ->
                        new Reach(r.getObject("from_day", LocalDate.class), r.getObject("to_day", LocalDate.class)))
                .optional();
    }

    /** @throws Refusal when no statement tells of that day */
    @Transactional(readOnly = true)
    public Reconciliation on(Actor by, BankAccountId id, LocalDate day) {
        by.mayDo(Deed.READ);
        patience.forWholeTables();
        BankAccount account = accounts.get(id);
        Reach reach = reach(id)
                .orElseThrow(() -> Refusal.conflict(
                        "no-statement",
                        "No statement of " + account.name()
                                + " was read yet. Read one first; then bank and ledger stand beside" + " each other."));
        if (day.isBefore(reach.from().minusDays(1)) || day.isAfter(reach.until())) {
            throw Refusal.invalidField(
                    "no-statement-for",
                    "on",
                    "The statements of " + account.name() + " reach from " + Dates.inWords(reach.from()) + " to "
                            + Dates.inWords(reach.until()) + ". Choose a day among them, or read the next one.");
        }
        mustHaveItsOwnCash(account);
        return new AsOf(jdbc, account, reach.from().minusDays(1), day).reconciliation();
    }

    private void mustHaveItsOwnCash(BankAccount account) {
        accounts.list().stream()
                .filter(other -> !other.id().equals(account.id())
                        && other.cash().equals(account.cash())
                        && other.currency().equals(account.currency()))
                .findFirst()
                .ifPresent(other -> {
                    throw Refusal.conflict(
                            "shared-cash",
                            account.name() + " and " + other.name()
                                    + " share one account of the ledger for their cash, so it"
                                    + " cannot be told whose it is. Give each its own.");
                });
    }

    /**
     * Signs bank and ledger of a day as they stand beside each other now; kept with all rows, whatever changes later.
     *
     * @throws Refusal while something between them is not explained
     */
    @Transactional
    public long sign(Actor by, BankAccountId id, LocalDate day, String note) {
        by.mayDo(Deed.SIGN_RECONCILIATION);
        BankAccount account = accounts.lock(id);
        if (note.strip().length() > LONGEST_NOTE) {
            throw Refusal.invalidField("note-long", "note", "A note has at most " + LONGEST_NOTE + " characters.");
        }
        Reconciliation found = on(by, id, day);
        found.mustBeExplained();
        String content = json.writeValueAsString(found.report(List.of(
                "bank and ledger at the end of the day",
                "signed by " + by.name() + (note.isBlank() ? "" : ": " + note.strip()))));
        long row = ids.supply().next();
        jdbc.sql("""
                        INSERT INTO reconciliation (id, bank_account_id, as_of, currency, bank_minor, outstanding_minor, transit_minor,
                          explained_minor, ledger_minor, content, content_hash, note, signed_at, signed_by)
                        VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)
                        """)
                .params(
                        row,
                        id.value(),
                        day,
                        account.currency().getCurrencyCode(),
                        found.bank().minor(),
                        -found.sum(Kind.OUTSTANDING).minor(),
                        found.sum(Kind.IN_TRANSIT).minor(),
                        found.explained().minor(),
                        found.ledger().minor(),
                        content,
                        Sha256.hex(content.getBytes(java.nio.charset.StandardCharsets.UTF_8)),
                        note.strip(),
                        Timestamp.from(by.now()),
                        by.person().value())
                .update();
        audit.record(
                by,
                "sign reconciliation",
                "bank account " + id.value(),
                Map.of(
                        "on",
                        day.toString(),
                        "bank",
                        found.bank().plain(),
                        "ledger",
                        found.ledger().plain()));
        return row;
    }

    /** One that was signed. */
    public record SignedReconciliation(
            long id, LocalDate on, MoneyView bank, MoneyView ledger, String note, Instant signedAt, String signedBy) {}

    @Transactional(readOnly = true)
    public List<SignedReconciliation> signed(Actor by, BankAccountId id) {
        by.mayDo(Deed.READ);
        return jdbc.sql("""
                        SELECT s.id, s.as_of, s.bank_minor, s.ledger_minor, s.currency, s.note, s.signed_at, p.name
                        FROM reconciliation s JOIN person p ON p.id = s.signed_by
                        WHERE s.bank_account_id = ? ORDER BY s.as_of DESC, s.signed_at DESC LIMIT 200
                        """)
                .param(id.value())
                .query((r, n) -> new SignedReconciliation(
                        r.getLong("id"),
                        r.getObject("as_of", LocalDate.class),
                        MoneyView.of(r.getLong("bank_minor"), r.getString("currency")),
                        MoneyView.of(r.getLong("ledger_minor"), r.getString("currency")),
                        r.getString("note"),
                        r.getTimestamp("signed_at").toInstant(),
                        r.getString("name")))
                .list();
    }

    /** As it was signed. */
    @Transactional(readOnly = true)
    public Report kept(Actor by, long id) {
        by.mayDo(Deed.READ);
        return jdbc.sql("SELECT content FROM reconciliation WHERE id = ?")
                .param(id)
                .query(String.class)
                .optional()
                .map(content -> json.readValue(content, Report.class))
                .orElseThrow(() -> Refusal.notFound(
                        "no-reconciliation", "There is no such signed reconciliation. Choose one from the list."));
    }
}
