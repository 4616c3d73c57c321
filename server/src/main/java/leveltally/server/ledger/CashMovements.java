package leveltally.server.ledger;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Receipts and charges of the bank that the ledger does not have yet. */
@Service
public class CashMovements {
    private final BankAccounts accounts;
    private final JdbcClient jdbc;
    private final WorkIds ids;
    private final AuditTrail audit;

    CashMovements(BankAccounts accounts, JdbcClient jdbc, WorkIds ids, AuditTrail audit) {
        this.accounts = accounts;
        this.jdbc = jdbc;
        this.ids = ids;
        this.audit = audit;
    }

    /** Brings in a receipt or charge of the bank that the ledger does not know yet; the same one twice is refused. */
    @Transactional
    public void bringIn(Actor by, BankAccountId id, LocalDate date, String text, String amount) {
        by.mayDo(Deed.BRING_IN_CASH);
        BankAccount account = accounts.get(id);
        Money moved = Money.typed(amount, account.currency(), "amount");
        if (moved.isZero() || text.isBlank()) {
            throw Refusal.invalidField(
                    "movement-empty", "amount", "A cash movement needs a text and an amount other than zero.");
        }
        if (date.isAfter(by.today())) {
            throw Refusal.invalidField(
                    "movement-later", "date", "A cash movement has happened already; choose today or an earlier day.");
        }
        int written = jdbc.sql("""
                        INSERT IGNORE INTO cash_movement (id, bank_account_id, movement_date, text, amount_minor)
                        VALUES (:id, :account, :date, :text, :amount)
                        """)
                .param("id", ids.supply().next())
                .param("account", id.value())
                .param("date", date)
                .param("text", text.strip())
                .param("amount", moved.minor())
                .update();
        if (written == 0) {
            throw Refusal.conflict(
                    "movement-known", "This movement of the same day, text and amount was brought in already.");
        }
        audit.record(
                by,
                "bring in cash",
                "bank account " + id.value(),
                Map.of("date", date.toString(), "text", text.strip(), "amount", moved.plain()));
    }

    /** A receipt or charge of the bank that the ledger does not have yet. */
    public record Movement(long id, LocalDate date, String text, Money amount) {}

    @Transactional(readOnly = true)
    public List<Movement> open(BankAccount account) {
        return jdbc.sql(
                        "SELECT id, movement_date, text, amount_minor FROM cash_movement"
                                + " WHERE bank_account_id = :account AND closed_at IS NULL ORDER BY movement_date DESC, id LIMIT 200")
                .param("account", account.id().value())
                .query((r, n) -> new Movement(
                        r.getLong("id"),
                        r.getObject("movement_date", LocalDate.class),
                        r.getString("text"),
                        Money.ofMinor(r.getLong("amount_minor"), account.currency())))
                .list();
    }

    /** Says that the ledger has a movement by now, so that its cash is not counted twice. */
    @Transactional
    public void close(Actor by, BankAccountId account, long movement, String why) {
        by.mayDo(Deed.BRING_IN_CASH);
        if (why.isBlank()) {
            throw Refusal.invalidField(
                    "reason-missing", "why", "Say where the ledger has it, such as “in the entry of 11 Nov”.");
        }
        int closed = jdbc.sql("UPDATE cash_movement SET closed_at = :at, closed_by = :by, closed_why = :why"
                        + " WHERE id = :id AND bank_account_id = :account AND closed_at IS NULL")
                .param("at", java.sql.Timestamp.from(by.now()))
                .param("by", by.person().value())
                .param("why", why.strip())
                .param("id", movement)
                .param("account", account.value())
                .update();
        if (closed == 0) {
            throw Refusal.conflict(
                    "movement-closed", "There is no such open movement; somebody may have closed it. Look again.");
        }
        audit.record(
                by,
                "close cash movement",
                "bank account " + account.value(),
                Map.of("movement", movement, "why", why.strip()));
    }
}
