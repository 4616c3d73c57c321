package leveltally.server.checks;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.BankKnows;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.checks.NumberState;
import leveltally.core.checks.PaymentId;
import leveltally.core.checks.Tray;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.EntryId;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccounts;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Check numbers and the payments behind them. Numbers come from the bank account's row, locked in the transaction that
 * takes them; this is the only place that moves a number from state to state, and that writes what the bank must hear.
 */
@Service
public class Checks {
    private static final String NO_PREFIX = "";

    private final EntityManager entities;
    private final BankAccounts accounts;
    private final AuditTrail audit;
    private final JdbcClient jdbc;

    Checks(EntityManager entities, BankAccounts accounts, AuditTrail audit, JdbcClient jdbc) {
        this.jdbc = jdbc;
        this.entities = entities;
        this.accounts = accounts;
        this.audit = audit;
    }

    /** What the bank knows of an issued check; of one that was never issued, what it would be told first. */
    @Transactional(readOnly = true)
    public BankKnows bankKnows(CheckNumberId id) {
        return jdbc.sql("""
                        SELECT a.positive_pay, f.serial, f.state, e.never_reported FROM check_number n
                        JOIN bank_account a ON a.id = n.bank_account_id
                        LEFT JOIN bank_event e ON e.check_number_id = n.id AND e.kind = 'ISSUE'
                        LEFT JOIN bank_file f ON f.id = e.file_id WHERE n.id = :id
                        """)
                .param("id", id.value())
                .query((r, n) -> new BankKnows(
                        !r.getBoolean(1)
                                ? BankKnows.Issue.NOT_ASKED_FOR
                                : r.getString(4) != null
                                        ? BankKnows.Issue.NEVER_REPORTED
                                        : r.getString(3) == null
                                                ? BankKnows.Issue.WAITING
                                                : r.getString(3).equals("ACCEPTED")
                                                        ? BankKnows.Issue.ACCEPTED
                                                        : BankKnows.Issue.IN_A_FILE,
                        r.getLong(2)))
                .single();
    }

    /** Payments for claims that have none yet, in the order given. */
    @Transactional
    public List<PaymentId> pay(Batch batch, List<Claim> claims) {
        List<PaymentEntity> payments = new ArrayList<>();
        for (Claim claim : claims) {
            PaymentEntity payment = new PaymentEntity();
            payment.batchId = batch.id().value();
            payment.claimId = claim.id().value();
            payment.bankAccountId = batch.account().value();
            payment.vendorId = claim.vendor().value();
            payment.payee = claim.remitTo().payee();
            payment.currency = claim.amount().currency().getCurrencyCode();
            payment.amountMinor = claim.amount().minor();
            payment.checkDate = batch.checkDate();
            payment.ledgerDate = batch.ledgerDate();
            entities.persist(payment);
            payments.add(payment);
        }
        entities.flush();
        return payments.stream().map(p -> new PaymentId(p.id)).toList();
    }

    /** The claims of a batch that already became payments. */
    @Transactional(readOnly = true)
    public Set<ClaimId> paidClaims(BatchId batch) {
        return entities.createQuery("select p.claimId from PaymentEntity p where p.batchId = :batch", Long.class)
                .setParameter("batch", batch.value())
                .getResultStream()
                .map(ClaimId::new)
                .collect(Collectors.toCollection(HashSet::new));
    }

    /** Payments of a batch without a live number: their check was spoiled. */
    @Transactional(readOnly = true)
    public Map<ClaimId, PaymentId> withoutNumber(BatchId batch) {
        Map<ClaimId, PaymentId> found = new HashMap<>();
        entities.createQuery("""
                        select p from PaymentEntity p where p.batchId = :batch and p.postedEntryId is null
                        and p.takenOutAt is null and not exists (select 1 from CheckNumberEntity n where n.paymentId = p.id
                          and n.state in (TAKEN, PRINTED, OUTSTANDING, STOPPED, CLEARED))
                        """, PaymentEntity.class)
                .setParameter("batch", batch.value())
                .getResultStream()
                .forEach(p -> found.put(new ClaimId(p.claimId), new PaymentId(p.id)));
        return found;
    }

    /**
     * Takes a number for each payment from the number in the tray on; numbers skipped become unaccounted with the reason.
     *
     * @return the numbers in the order of the payments
     */
    @Transactional
    public List<CheckNumberId> take(
            Actor by, BankAccountId accountId, long inTray, String reason, List<PaymentId> payments) {
        BankAccount account = accounts.lock(accountId);
        Tray tray = Tray.confirm(account.nextNumber(), inTray, reason);
        for (long skipped = account.nextNumber(); skipped < tray.first(); skipped++) {
            CheckNumberEntity number = number(by, account, skipped, NumberState.UNACCOUNTED, null, reason.strip());
            event(by, number, reason.strip());
        }
        List<CheckNumberEntity> taken = new ArrayList<>();
        long next = tray.first();
        for (PaymentId payment : payments) {
            taken.add(number(by, account, next++, NumberState.TAKEN, payment.value(), ""));
        }
        taken.forEach(number -> event(by, number, "taken for printing"));
        accounts.advanceNumber(accountId, next);
        entities.flush();
        return taken.stream().map(n -> new CheckNumberId(n.id)).toList();
    }

    private CheckNumberEntity number(
            Actor by,
            BankAccount account,
            long number,
            NumberState state,
            @org.jspecify.annotations.Nullable Long payment,
            String explanation) {
        CheckNumberEntity row = new CheckNumberEntity();
        row.bankAccountId = account.id().value();
        row.prefix = NO_PREFIX;
        row.stock = account.stock();
        row.number = number;
        row.state = state;
        row.origin = "PRINTED_HERE";
        row.paymentId = payment;
        row.explanation = explanation;
        row.stateDate = by.today();
        entities.persist(row);
        return row;
    }

    /** The deed of issuing: the check is outstanding, and the bank must hear of it. */
    @Transactional
    public void issue(Actor by, CheckNumberId id, LocalDate on) {
        move(by, id, NumberState.OUTSTANDING, on, "");
        tellBank(entities.find(CheckNumberEntity.class, id.value()), "ISSUE", on);
    }

    /** The deed of voiding: the number is used up, and the bank must hear of it. */
    @Transactional
    public void cancel(Actor by, CheckNumberId id, LocalDate on, String why) {
        move(by, id, NumberState.VOIDED, on, why);
        tellBank(entities.find(CheckNumberEntity.class, id.value()), "VOID", on);
    }

    /** Moves a number on and records the step; the bank hears of deeds, never of a state that was reached. */
    @Transactional
    public void move(Actor by, CheckNumberId id, NumberState to, LocalDate on, String why) {
        CheckNumberEntity number = entities.find(CheckNumberEntity.class, id.value());
        number.state = number.state.to(to, number.number);
        number.stateDate = on;
        if (!why.isBlank()) {
            number.explanation = why;
        }
        event(by, number, why);
    }

    private void tellBank(CheckNumberEntity number, String kind, LocalDate on) {
        PaymentEntity payment = entities.find(PaymentEntity.class, number.paymentId);
        if (!accounts.get(new BankAccountId(number.bankAccountId)).positivePay()) {
            return;
        }
        BankEventEntity event = new BankEventEntity();
        event.bankAccountId = number.bankAccountId;
        event.checkNumberId = number.id;
        event.batchId = payment.batchId;
        event.kind = kind;
        event.currency = payment.currency;
        event.amountMinor = payment.amountMinor;
        event.eventDate = kind.equals("ISSUE") ? payment.checkDate : on;
        event.payee = payment.payee;
        entities.persist(event);
    }

    /** Writes down that a payment was posted by an entry. */
    @Transactional
    public void posted(PaymentId payment, EntryId entry) {
        entities.find(PaymentEntity.class, payment.value()).postedEntryId = entry.value();
    }

    /** Writes down that a payment was undone by an entry. */
    @Transactional
    public void voided(PaymentId payment, EntryId entry) {
        entities.find(PaymentEntity.class, payment.value()).voidEntryId = entry.value();
    }

    /** The check with its number's row locked until the transaction ends. */
    @Transactional
    public Check lock(CheckNumberId id) {
        CheckNumberEntity number = row(id);
        entities.refresh(number, LockModeType.PESSIMISTIC_WRITE);
        return view(number);
    }

    @Transactional(readOnly = true)
    public Check get(CheckNumberId id) {
        return view(row(id));
    }

    /** These checks, by number id; one statement. */
    @Transactional(readOnly = true)
    public Map<CheckNumberId, Check> of(Collection<CheckNumberId> ids) {
        return entities.createQuery(
                        "select n, p from CheckNumberEntity n join PaymentEntity p on p.id = n.paymentId where n.id in :ids",
                        Object[].class)
                .setParameter("ids", ids.stream().map(CheckNumberId::value).toList())
                .getResultStream()
                .map(both -> view((CheckNumberEntity) both[0], (PaymentEntity) both[1]))
                .collect(Collectors.toMap(Check::id, check -> check));
    }

    /** Live, unposted checks of a batch in these states, by number. */
    @Transactional(readOnly = true)
    public List<Check> unposted(BatchId batch, Collection<NumberState> states) {
        return entities.createQuery("""
                        select n, p from CheckNumberEntity n join PaymentEntity p on p.id = n.paymentId
                        where p.batchId = :batch and p.postedEntryId is null and n.state in :states order by n.number
                        """, Object[].class)
                .setParameter("batch", batch.value())
                .setParameter("states", states)
                .getResultStream()
                .map(both -> view((CheckNumberEntity) both[0], (PaymentEntity) both[1]))
                .toList();
    }

    /**
     * Takes a payment out before it is posted: its number, where it has one, is spoiled, or unaccounted when its sheet stayed
     * blank or is lost.
     */
    @Transactional
    public void takeOut(Actor by, ClaimId claim, boolean spoiled, String why) {
        PaymentEntity payment = entities.createQuery(
                        "select p from PaymentEntity p where p.claimId = :claim", PaymentEntity.class)
                .setParameter("claim", claim.value())
                .getSingleResult();
        entities.refresh(payment, LockModeType.PESSIMISTIC_WRITE);
        if (payment.postedEntryId != null || payment.takenOutAt != null) {
            throw Refusal.conflict(
                    "posted-already",
                    "The payment to " + payment.payee + " is "
                            + (payment.takenOutAt != null ? "taken out already." : "posted. Void its check instead."));
        }
        entities.createQuery(
                        "select n from CheckNumberEntity n where n.paymentId = :payment and n.state in (TAKEN, PRINTED)",
                        CheckNumberEntity.class)
                .setParameter("payment", payment.id)
                .getResultStream()
                .findFirst()
                .ifPresent(number -> {
                    boolean used = spoiled || number.state == NumberState.PRINTED;
                    NumberState to = used ? NumberState.SPOILED : NumberState.UNACCOUNTED;
                    move(by, new CheckNumberId(number.id), to, by.today(), why);
                });
        payment.takenOutAt = by.now();
        payment.takenOutBy = by.person().value();
        payment.takenOutWhy = why;
        entities.flush();
    }

    /** How many payments of a batch are posted. */
    @Transactional(readOnly = true)
    public long postedCount(BatchId batch) {
        return entities.createQuery(
                        "select count(p) from PaymentEntity p where p.batchId = :batch and p.postedEntryId is not null",
                        Long.class)
                .setParameter("batch", batch.value())
                .getSingleResult();
    }

    /** Records that the bank paid a check, on the bank's date. */
    @Transactional
    public void clear(Actor by, CheckNumberId id, LocalDate bankDate) {
        by.mayDo(Deed.RECORD_CLEARING);
        Check check = lock(id);
        if (bankDate.isAfter(by.today()) || bankDate.isBefore(check.ledgerDate())) {
            throw Refusal.invalidField(
                    "bank-date", "date", "The bank's date lies between the check's ledger date and today.");
        }
        move(by, id, NumberState.CLEARED, bankDate, "");
        audit.record(by, "record clearing", "check " + check.number(), Map.of("date", bankDate.toString()));
    }

    private void event(Actor by, CheckNumberEntity number, String why) {
        NumberEventEntity event = new NumberEventEntity();
        event.checkNumberId = number.id;
        event.at = by.now();
        event.businessDate = number.stateDate;
        event.personId = by.person().value();
        event.toState = number.state;
        event.why = why;
        event.step = ++number.steps;
        entities.persist(event);
    }

    private CheckNumberEntity row(CheckNumberId id) {
        CheckNumberEntity number = entities.find(CheckNumberEntity.class, id.value());
        if (number == null || number.paymentId == null) {
            throw Refusal.notFound("no-check", "There is no check behind this number. Choose one from the register.");
        }
        return number;
    }

    private Check view(CheckNumberEntity number) {
        return view(number, entities.find(PaymentEntity.class, number.paymentId));
    }

    private static Check view(CheckNumberEntity number, PaymentEntity payment) {
        return new Check(
                new CheckNumberId(number.id),
                number.number,
                number.state,
                new BankAccountId(number.bankAccountId),
                new BatchId(payment.batchId),
                new ClaimId(payment.claimId),
                new PaymentId(payment.id),
                payment.payee,
                Money.ofMinor(payment.amountMinor, payment.currency),
                payment.checkDate,
                payment.ledgerDate,
                payment.postedEntryId == null ? null : new EntryId(payment.postedEntryId));
    }
}
