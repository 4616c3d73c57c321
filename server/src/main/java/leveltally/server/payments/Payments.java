package leveltally.server.payments;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.sql.ResultSet;
import java.sql.Timestamp;
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
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.EntryId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.vendors.Advice;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.VendorId;
import leveltally.server.batches.Batch;
import leveltally.server.vendors.VendorPapers;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Payments and their lives: the only place that moves one from state to state. */
@Service
public class Payments {
    private final EntityManager entities;
    private final VendorPapers papers;
    private final JdbcClient jdbc;
    private final JdbcTemplate many;

    Payments(EntityManager entities, VendorPapers papers, JdbcClient jdbc, JdbcTemplate many) {
        this.entities = entities;
        this.papers = papers;
        this.jdbc = jdbc;
        this.many = many;
    }

    /** Payments for claims that have none yet, in the order given. */
    @Transactional
    public List<PaymentId> prepare(Actor by, Batch batch, List<Claim> claims) {
        List<PaymentEntity> payments = new ArrayList<>();
        Map<VendorId, Paperwork> wishes =
                papers.of(claims.stream().map(Claim::vendor).toList());
        Map<ClaimId, PaymentEntity> replaced = replaced(claims);
        for (Claim claim : claims) {
            PaymentEntity payment = new PaymentEntity();
            payment.batchId = batch.id().value();
            payment.claimId = claim.id().value();
            payment.bankAccountId = batch.account().value();
            payment.vendorId = claim.vendor().value();
            payment.payee = claim.remitTo().payee();
            payment.currency = claim.amount().currency().getCurrencyCode();
            payment.amountMinor = claim.amount().minor();
            // nothing is sent of a check handed over or a card charged elsewhere: whoever got it knows
            payment.advice = batch.purpose().isAfterTheFact() && batch.method() != PaymentMethod.WIRE
                    ? Advice.PAPER
                    : wishes.get(claim.vendor()).advice();
            payment.checkDate = batch.checkDate();
            payment.ledgerDate = batch.ledgerDate();
            PaymentEntity old = claim.keptOf().map(replaced::get).orElse(null);
            if (old != null) {
                payment.replacesId = old.id;
                payment.reportedYear = old.reportedYear == null ? old.checkDate.getYear() : old.reportedYear;
            }
            payment.state = PaymentState.PREPARED;
            payment.stateDate = by.today();
            payment.stateWhy = "";
            payment.steps = 1;
            entities.persist(payment);
            record(by, payment);
            payments.add(payment);
        }
        entities.flush();
        return payments.stream().map(p -> new PaymentId(p.id)).toList();
    }

    /** The payments whose lines these claims keep, by their claims; nothing is asked where none does. */
    private Map<ClaimId, PaymentEntity> replaced(List<Claim> claims) {
        Set<Long> kept = claims.stream()
                .flatMap(claim -> claim.keptOf().stream())
                .map(ClaimId::value)
                .collect(Collectors.toSet());
        if (kept.isEmpty()) {
            return Map.of();
        }
        return entities.createQuery("select p from PaymentEntity p where p.claimId in :claims", PaymentEntity.class)
                .setParameter("claims", kept)
                .getResultStream()
                .collect(Collectors.toMap(payment -> new ClaimId(payment.claimId), payment -> payment));
    }

    /** The claims of a batch that already became payments. */
    @Transactional(readOnly = true)
    public Set<ClaimId> claims(BatchId batch) {
        return entities.createQuery("select p.claimId from PaymentEntity p where p.batchId = :batch", Long.class)
                .setParameter("batch", batch.value())
                .getResultStream()
                .map(ClaimId::new)
                .collect(Collectors.toCollection(HashSet::new));
    }

    /** Those of which no line is printed beyond the stub, because the payee is told by mail. */
    @Transactional(readOnly = true)
    public Set<PaymentId> mailedOnly(Collection<PaymentId> ids) {
        return entities.createQuery(
                        "select p.id from PaymentEntity p where p.id in :ids and p.advice = MAIL", Long.class)
                .setParameter("ids", ids.stream().map(PaymentId::value).toList())
                .getResultStream()
                .map(PaymentId::new)
                .collect(Collectors.toCollection(HashSet::new));
    }

    /** How many payments of a batch were posted. */
    @Transactional(readOnly = true)
    public long postedCount(BatchId batch) {
        return entities.createQuery(
                        "select count(p) from PaymentEntity p where p.batchId = :batch and p.postedEntryId is not null",
                        Long.class)
                .setParameter("batch", batch.value())
                .getSingleResult();
    }

    @Transactional(readOnly = true)
    public Payment get(PaymentId id) {
        PaymentEntity payment = entities.find(PaymentEntity.class, id.value());
        if (payment == null) {
            throw unknown();
        }
        return view(payment);
    }

    /** The payment with its row locked until the transaction ends. */
    @Transactional
    public Payment lock(PaymentId id) {
        return view(locked(id));
    }

    /** These payments as they stand, in the order of their ids. */
    @Transactional(readOnly = true)
    public List<Payment> all(Collection<PaymentId> ids) {
        return rows(ids, LockModeType.NONE);
    }

    /** The same with their rows locked until the transaction ends, in one order for all who lock several. */
    @Transactional
    public List<Payment> lock(Collection<PaymentId> ids) {
        return rows(ids, LockModeType.PESSIMISTIC_WRITE);
    }

    private List<Payment> rows(Collection<PaymentId> ids, LockModeType lock) {
        List<PaymentEntity> rows = entities.createQuery(
                        "select p from PaymentEntity p where p.id in :ids order by p.id", PaymentEntity.class)
                .setParameter("ids", ids.stream().map(PaymentId::value).toList())
                .setLockMode(lock)
                .getResultList();
        if (rows.size() < ids.size()) {
            throw unknown();
        }
        return rows.stream().map(Payments::view).toList();
    }

    /** Takes a payment out of its batch before it is posted, so that its invoices come free. */
    @Transactional
    public Payment takeOut(Actor by, ClaimId claim, String why) {
        Long id = entities.createQuery("select p.id from PaymentEntity p where p.claimId = :claim", Long.class)
                .setParameter("claim", claim.value())
                .getSingleResult();
        PaymentEntity payment = locked(new PaymentId(id));
        if (payment.state != PaymentState.PREPARED) {
            throw Refusal.conflict(
                    "posted-already",
                    "The payment to " + payment.payee + " is "
                            + (payment.state == PaymentState.TAKEN_OUT
                                    ? "taken out already."
                                    : "posted. Void its check instead."));
        }
        step(by, payment, PaymentState.TAKEN_OUT, "The payment to " + payment.payee, by.today(), why);
        entities.flush();
        return view(payment);
    }

    /**
     * A payment with the entry that posts it.
     *
     * @param name what people call it, such as {@code Check 10012}
     */
    public record Entered(PaymentId id, String name, EntryId entry) {}

    /** The deed of posting: the ledger has them. */
    @Transactional
    public void post(Actor by, List<Entered> entered) {
        Map<Long, PaymentEntity> rows = entities.createQuery(
                        "select p from PaymentEntity p where p.id in :ids", PaymentEntity.class)
                .setParameter(
                        "ids", entered.stream().map(one -> one.id().value()).toList())
                .getResultStream()
                .collect(Collectors.toMap(row -> row.id, row -> row));
        for (Entered one : entered) {
            PaymentEntity payment = rows.get(one.id().value());
            payment.postedEntryId = one.entry().value();
            step(by, payment, PaymentState.OUTSTANDING, one.name(), payment.ledgerDate, "");
        }
    }

    /**
     * The deed of undoing: the ledger has it no more.
     *
     * @param to how it is called once undone
     */
    @Transactional
    public void undo(Actor by, PaymentId id, PaymentState to, String name, EntryId entry, LocalDate on, String why) {
        PaymentEntity payment = entities.find(PaymentEntity.class, id.value());
        payment.undoneEntryId = entry.value();
        step(by, payment, to, name, on, why);
    }

    /**
     * Moves a payment on.
     *
     * @param name what people call it, such as {@code Check 10012}
     * @param on the business date of the step
     */
    @Transactional
    public void move(Actor by, PaymentId id, PaymentState to, String name, LocalDate on, String why) {
        step(by, entities.find(PaymentEntity.class, id.value()), to, name, on, why);
    }

    /** A payment its bank paid on a day. */
    public record Cleared(PaymentId id, String name, LocalDate on) {}

    /** The bank paid these; some statements for each thousand, because a bank tells of many at once. */
    @Transactional
    public void clear(Actor by, List<Cleared> cleared) {
        entities.flush();
        Map<Long, Integer> steps = new HashMap<>();
        Map<Long, PaymentState> states = new HashMap<>();
        jdbc.sql("SELECT id, state, steps FROM payment WHERE id IN (:ids) ORDER BY id FOR UPDATE")
                .param("ids", cleared.stream().map(one -> one.id().value()).toList())
                .query((ResultSet r) -> {
                    steps.put(r.getLong("id"), r.getInt("steps"));
                    states.put(r.getLong("id"), PaymentState.valueOf(r.getString("state")));
                });
        List<Object[]> moved = new ArrayList<>();
        List<Object[]> written = new ArrayList<>();
        Timestamp at = Timestamp.from(by.now());
        for (Cleared one : cleared) {
            long id = one.id().value();
            String to = states.get(id).to(PaymentState.CLEARED, one.name()).name();
            int step = steps.get(id) + 1;
            moved.add(new Object[] {to, one.on(), step, id});
            written.add(new Object[] {id, step, at, one.on(), by.person().value(), to});
        }
        many.batchUpdate(
                "UPDATE payment SET state = ?, state_date = ?, state_why = '', steps = ?, version = version + 1 WHERE id = ?",
                moved);
        many.batchUpdate(
                "INSERT INTO payment_event (payment_id, step, at, business_date, person_id, to_state, why)"
                        + " VALUES (?, ?, ?, ?, ?, ?, '')",
                written);
        // what was loaded before stands no more
        entities.clear();
    }

    private void step(Actor by, PaymentEntity payment, PaymentState to, String name, LocalDate on, String why) {
        payment.state = payment.state.to(to, name);
        payment.stateDate = on;
        payment.stateWhy = why;
        payment.steps++;
        record(by, payment);
    }

    /** Writes the step it stands at into its history. */
    private void record(Actor by, PaymentEntity payment) {
        PaymentEventEntity event = new PaymentEventEntity();
        event.paymentId = payment.id;
        event.step = payment.steps;
        event.at = by.now();
        event.businessDate = payment.stateDate;
        event.personId = by.person().value();
        event.toState = payment.state;
        event.why = payment.stateWhy;
        entities.persist(event);
    }

    private PaymentEntity locked(PaymentId id) {
        PaymentEntity payment = entities.find(PaymentEntity.class, id.value());
        if (payment == null) {
            throw unknown();
        }
        entities.refresh(payment, LockModeType.PESSIMISTIC_WRITE);
        return payment;
    }

    private static Refusal unknown() {
        return Refusal.notFound("no-payment", "There is no such payment. Choose one from the register.");
    }

    private static Payment view(PaymentEntity payment) {
        return new Payment(
                new PaymentId(payment.id),
                new BatchId(payment.batchId),
                new ClaimId(payment.claimId),
                new BankAccountId(payment.bankAccountId),
                payment.payee,
                Money.ofMinor(payment.amountMinor, payment.currency),
                payment.checkDate,
                payment.ledgerDate,
                payment.state,
                payment.postedEntryId == null ? null : new EntryId(payment.postedEntryId),
                payment.replacesId == null ? null : new PaymentId(payment.replacesId));
    }
}
