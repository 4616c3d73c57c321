package leveltally.server.printing;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.printing.Turn;
import leveltally.server.audit.AuditTrail;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.people.People;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The turns: per account at most one is open, which a unique key of the table holds too. */
@Service
public class Turns {
    private final EntityManager entities;
    private final BankAccounts accounts;
    private final People people;
    private final AuditTrail audit;

    Turns(EntityManager entities, BankAccounts accounts, People people, AuditTrail audit) {
        this.entities = entities;
        this.accounts = accounts;
        this.people = people;
        this.audit = audit;
    }

    /**
     * Takes the turn of an account for a batch; the same person takes it again without harm.
     *
     * @param reason needed only to take an idle turn over from somebody else
     */
    @Transactional
    public Turn take(Actor by, BankAccountId account, BatchId batch, String reason) {
        by.mayDo(Deed.PRINT);
        BankAccount locked = accounts.lock(account);
        TurnEntity open = open(account);
        if (open != null && open.personId == by.person().value() && open.batchId == batch.value()) {
            open.lastDeedAt = by.now();
            return view(open);
        }
        if (open != null) {
            String holder = people.names().getOrDefault(open.personId, "Somebody");
            view(open).mustYield(by.person(), holder, locked.name(), reason, by.now());
            boolean mine = open.personId == by.person().value();
            end(open, by.now(), mine ? "left for another batch" : "taken over by " + by.name() + ": " + reason);
            entities.flush();
        }
        TurnEntity turn = new TurnEntity();
        turn.bankAccountId = account.value();
        turn.serial = lastSerial(account) + 1;
        turn.batchId = batch.value();
        turn.personId = by.person().value();
        turn.startedAt = by.now();
        turn.lastDeedAt = by.now();
        entities.persist(turn);
        audit.record(
                by,
                "take the turn",
                "bank account " + account.value(),
                Map.of("batch", batch.value(), "reason", reason));
        return view(turn);
    }

    /** Keeps a turn alive while its page is open. */
    @Transactional
    public void renew(Actor by, BankAccountId account, long serial) {
        mine(by, account, serial).lastDeedAt = by.now();
    }

    /** Gives a turn back without having taken numbers. */
    @Transactional
    public void giveBack(Actor by, BankAccountId account, long serial) {
        end(mine(by, account, serial), by.now(), "given back");
        audit.record(by, "give the turn back", "bank account " + account.value(), Map.of());
    }

    /** Ends a turn because its numbers are recorded; refused for a serial that is not the open one. */
    @Transactional
    void recorded(Actor by, BankAccountId account, long serial) {
        end(mine(by, account, serial), by.now(), "numbers recorded");
    }

    /** @throws Refusal when this is not the open turn of the account, or not this person's */
    @Transactional
    void check(Actor by, BankAccountId account, long serial) {
        mine(by, account, serial).lastDeedAt = by.now();
    }

    @Transactional(readOnly = true)
    public Optional<Turn> current(BankAccountId account) {
        return Optional.ofNullable(open(account)).map(Turns::view);
    }

    private TurnEntity mine(Actor by, BankAccountId account, long serial) {
        by.mayDo(Deed.PRINT);
        TurnEntity turn = open(account);
        if (turn != null) {
            entities.refresh(turn, LockModeType.PESSIMISTIC_WRITE);
        }
        if (turn == null
                || turn.serial != serial
                || turn.endedAt != null
                || turn.personId != by.person().value()) {
            throw Refusal.conflict(
                    "turn-over",
                    "Your turn to print is over; somebody may have taken it. Open Print again and resume.");
        }
        return turn;
    }

    private @org.jspecify.annotations.Nullable TurnEntity open(BankAccountId account) {
        return entities.createQuery(
                        "select t from TurnEntity t where t.bankAccountId = :account and t.endedAt is null",
                        TurnEntity.class)
                .setParameter("account", account.value())
                .getResultStream()
                .findFirst()
                .orElse(null);
    }

    private long lastSerial(BankAccountId account) {
        Long last = entities.createQuery(
                        "select max(t.serial) from TurnEntity t where t.bankAccountId = :account", Long.class)
                .setParameter("account", account.value())
                .getSingleResult();
        return last == null ? 0 : last;
    }

    private static void end(TurnEntity turn, Instant now, String how) {
        turn.endedAt = now;
        turn.endedHow = how.substring(0, Math.min(300, how.length()));
    }

    private static Turn view(TurnEntity turn) {
        return new Turn(
                turn.serial, new BatchId(turn.batchId), new PersonId(turn.personId), turn.startedAt, turn.lastDeedAt);
    }
}
