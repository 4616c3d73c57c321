package leveltally.server.checks;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.sql.ResultSet;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.checks.NumberState;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Tray;
import leveltally.core.ledger.WayId;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printing.PaperSays;
import leveltally.server.audit.AuditTrail;
import leveltally.server.payments.Payment;
import leveltally.server.payments.Payments;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Check numbers and their paper. Numbers come from the row of their series, locked in the transaction that takes them; this
 * is the only place that moves a number from state to state.
 */
@Service
public class Checks {
    private final EntityManager entities;
    private final Series series;
    private final AuditTrail audit;
    private final JdbcClient jdbc;
    private final Payments payments;

    Checks(EntityManager entities, Series series, AuditTrail audit, JdbcClient jdbc, Payments payments) {
        this.series = series;
        this.jdbc = jdbc;
        this.payments = payments;
        this.entities = entities;
        this.audit = audit;
    }

    /** Payments of a batch without a live number: their check was spoiled. */
    @Transactional(readOnly = true)
    public Map<ClaimId, PaymentId> withoutNumber(BatchId batch) {
        Map<ClaimId, PaymentId> found = new HashMap<>();
        jdbc.sql("""
                        SELECT p.claim_id, p.id FROM payment p LEFT JOIN check_number n ON n.live_payment_id = p.id
                        WHERE p.batch_id = :batch AND p.state = :prepared AND n.id IS NULL
                        """)
                .param("batch", batch.value())
                .param("prepared", PaymentState.PREPARED.name())
                .query((ResultSet r) -> {
                    found.put(new ClaimId(r.getLong("claim_id")), new PaymentId(r.getLong("id")));
                });
        return found;
    }

    /**
     * Takes a number for each payment from the number in the tray on; numbers skipped become unaccounted with the reason.
     *
     * @param way of the payments' batch, whose series the numbers come from
     * @return the numbers in the order of the payments
     */
    @Transactional
    public List<CheckNumberId> take(Actor by, WayId way, long inTray, String reason, List<PaymentId> payments) {
        NumberSeries from = series.lock(way);
        if (isFoundAgain(from, inTray)) {
            return takeFound(by, from, inTray, payments);
        }
        Tray tray = Tray.confirm(from.nextNumber(), inTray, reason);
        from.range().mustHold(tray.first(), payments.size());
        passOver(by, from, tray.first(), reason.strip());
        List<CheckNumberEntity> taken = new ArrayList<>();
        long next = tray.first();
        for (PaymentId payment : payments) {
            taken.add(number(by, from, next++, NumberState.TAKEN, payment.value(), "", "taken for printing"));
        }
        series.advance(from.id(), next);
        entities.flush();
        return taken.stream().map(n -> new CheckNumberId(n.id)).toList();
    }

    /** Whether a number lies behind the next one and was called unaccounted: its paper may turn up again. */
    @Transactional(readOnly = true)
    public boolean isFoundAgain(NumberSeries of, long number) {
        return number < of.nextNumber() && !unaccounted(of, number, 1).isEmpty();
    }

    /** The unaccounted numbers from one on that follow each other, at most so many. */
    private List<CheckNumberEntity> unaccounted(NumberSeries of, long from, int most) {
        List<CheckNumberEntity> found = entities.createQuery(
                        "select n from CheckNumberEntity n where n.seriesId = :series and n.number between :from and :to"
                                + " and n.state = UNACCOUNTED order by n.number",
                        CheckNumberEntity.class)
                .setParameter("series", of.id().value())
                .setParameter("from", from)
                .setParameter("to", from + most - 1)
                .getResultList();
        List<CheckNumberEntity> following = new ArrayList<>();
        for (CheckNumberEntity number : found) {
            if (number.number == from + following.size()) {
                following.add(number);
            }
        }
        return following;
    }

    private List<CheckNumberId> takeFound(Actor by, NumberSeries from, long first, List<PaymentId> payments) {
        List<CheckNumberEntity> found = unaccounted(from, first, payments.size());
        if (found.size() < payments.size()) {
            throw Refusal.invalidField(
                    "found-too-few",
                    "firstNumber",
                    "From " + first + " on, " + (found.size() == 1 ? "1 number is" : found.size() + " numbers are")
                            + " unaccounted, for " + payments.size()
                            + " payments. Select as many payments as there are sheets found again.");
        }
        for (int i = 0; i < found.size(); i++) {
            CheckNumberEntity number = found.get(i);
            entities.refresh(number, LockModeType.PESSIMISTIC_WRITE);
            number.state = number.state.to(NumberState.TAKEN, number.number);
            number.paymentId = payments.get(i).value();
            number.stateDate = by.today();
            number.explanation = "";
            event(by, number, "found again and taken for printing");
        }
        entities.flush();
        return found.stream().map(n -> new CheckNumberId(n.id)).toList();
    }

    /** Says more of a number that is unaccounted: where its paper went. */
    @Transactional
    public void explain(Actor by, CheckNumberId id, String why) {
        by.mayDo(Deed.EXPLAIN_NUMBER);
        CheckNumberEntity number = entities.find(CheckNumberEntity.class, id.value(), LockModeType.PESSIMISTIC_WRITE);
        if (number == null) {
            throw Refusal.notFound("no-check", "There is no such check number. Choose one from the register.");
        }
        if (number.state != NumberState.UNACCOUNTED) {
            throw Refusal.conflict(
                    "not-unaccounted",
                    "Number " + number.number + " is " + number.state.words()
                            + ". Only an unaccounted number is explained.");
        }
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "why", "Say what is known of its paper.");
        }
        String before = number.explanation;
        number.explanation = why.strip();
        audit.record(
                by, "explain number", "check " + number.number, Map.of("before", before, "why", number.explanation));
    }

    /**
     * Gives the payments of the newest numbers of a series those that are on their paper; the numbers passed over are spoiled,
     * or unaccounted where no sheet had them.
     *
     * @return the numbers in the order of the sheets
     */
    @Transactional
    public List<CheckNumberId> renumber(Actor by, WayId way, PaperSays paper, String reason) {
        NumberSeries from = series.lock(way);
        String why = "the paper says " + paper.says() + ": " + reason;
        List<CheckNumberEntity> reckoned = entities.createQuery(
                        "select n from CheckNumberEntity n where n.seriesId = :series and n.number >= :from order by n.number",
                        CheckNumberEntity.class)
                .setParameter("series", from.id().value())
                .setParameter("from", paper.reckoned())
                .getResultList();
        List<Long> payments = reckoned.stream().map(n -> n.paymentId).toList();
        int spoiled = (int) Math.min(paper.passedOver(), reckoned.size());
        for (CheckNumberEntity number : reckoned.subList(0, spoiled)) {
            move(by, new CheckNumberId(number.id), NumberState.SPOILED, by.today(), why);
        }
        entities.flush();
        passOver(by, from, paper.says(), why);
        List<CheckNumberEntity> now = new ArrayList<>(reckoned.subList(spoiled, reckoned.size()));
        for (int i = 0; i < now.size(); i++) {
            // in rising order: the payment's number before is spoiled, or carries another one by now
            now.get(i).paymentId = payments.get(i);
            now.get(i).explanation = why;
            entities.flush();
        }
        for (int i = now.size(); i < payments.size(); i++) {
            now.add(number(by, from, paper.says() + i, NumberState.TAKEN, payments.get(i), why, why));
            entities.flush();
        }
        series.advance(from.id(), paper.says() + paper.sheets());
        entities.flush();
        return now.stream().map(n -> new CheckNumberId(n.id)).toList();
    }

    /** The numbers from the next one of a locked series to the one before {@code until} become unaccounted. */
    void passOver(Actor by, NumberSeries from, long until, String reason) {
        for (long skipped = from.nextNumber(); skipped < until; skipped++) {
            number(by, from, skipped, NumberState.UNACCOUNTED, null, reason, reason);
        }
        entities.flush();
    }

    /** A new number with the first step of its history; written once, with that step counted. */
    CheckNumberEntity number(
            Actor by,
            NumberSeries from,
            long number,
            NumberState state,
            @org.jspecify.annotations.Nullable Long payment,
            String explanation,
            String why) {
        CheckNumberEntity row = new CheckNumberEntity();
        row.seriesId = from.id().value();
        row.number = number;
        row.state = state;
        row.origin = state == NumberState.WRITTEN ? "OUTSIDE" : "PRINTED_HERE";
        row.paymentId = payment;
        row.explanation = explanation;
        row.stateDate = by.today();
        row.steps = 1;
        entities.persist(row);
        record(by, row, why);
        return row;
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

    /** The check with its number's row locked until the transaction ends. */
    @Transactional
    public Check lock(CheckNumberId id) {
        CheckNumberEntity number = row(id);
        entities.refresh(number, LockModeType.PESSIMISTIC_WRITE);
        return view(number, payments.get(new PaymentId(number.paymentId)));
    }

    /** These checks, by number id, with the rows of their numbers locked until the transaction ends. */
    @Transactional
    public Map<CheckNumberId, Check> lock(Collection<CheckNumberId> ids) {
        entities.createQuery(
                        "select n from CheckNumberEntity n where n.id in :ids order by n.id", CheckNumberEntity.class)
                .setParameter("ids", ids.stream().map(CheckNumberId::value).toList())
                .setLockMode(LockModeType.PESSIMISTIC_WRITE)
                .getResultList();
        return of(ids);
    }

    /**
     * The check with its payment's row locked until the transaction ends.
     *
     * @throws Refusal when the number carries no payment, such as a spoiled one whose payment has another number
     */
    @Transactional
    public Check lockPayment(CheckNumberId id) {
        CheckNumberEntity number = row(id);
        number.state.mustCarry(number.number);
        return view(number, payments.lock(new PaymentId(number.paymentId)));
    }

    @Transactional(readOnly = true)
    public Check get(CheckNumberId id) {
        CheckNumberEntity number = row(id);
        return view(number, payments.get(new PaymentId(number.paymentId)));
    }

    /** These checks, by number id; one statement. */
    @Transactional(readOnly = true)
    public Map<CheckNumberId, Check> of(Collection<CheckNumberId> ids) {
        if (ids.isEmpty()) {
            return Map.of();
        }
        return checks(
                        "n.id IN (:ids)",
                        Map.of("ids", ids.stream().map(CheckNumberId::value).toList()))
                .stream()
                .collect(Collectors.toMap(Check::id, check -> check));
    }

    /** The check that carries each of these payments; none for those that go another way or have no live number. */
    @Transactional(readOnly = true)
    public Map<PaymentId, Check> carrying(Collection<PaymentId> ids) {
        if (ids.isEmpty()) {
            return Map.of();
        }
        return checks(
                        "n.live_payment_id IN (:ids)",
                        Map.of("ids", ids.stream().map(PaymentId::value).toList()))
                .stream()
                .collect(Collectors.toMap(check -> check.payment().id(), check -> check));
    }

    /** Checks of a batch whose numbers are in these states and that are not posted, by number. */
    @Transactional(readOnly = true)
    public List<Check> unposted(BatchId batch, Collection<NumberState> states) {
        return checks(
                "p.batch_id = :batch AND p.state = :prepared AND n.state IN (:states) ORDER BY n.number",
                Map.of(
                        "batch",
                        batch.value(),
                        "prepared",
                        PaymentState.PREPARED.name(),
                        "states",
                        states.stream().map(NumberState::name).toList()));
    }

    private List<Check> checks(String which, Map<String, ?> params) {
        entities.flush();
        return jdbc.sql("SELECT n.id, s.prefix, n.number, n.state, " + Payment.COLUMNS
                        + " FROM check_number n JOIN number_series s ON s.id = n.series_id JOIN payment p ON p.id = n.payment_id WHERE "
                        + which)
                .params(params)
                .query((r, n) -> new Check(
                        new CheckNumberId(r.getLong("id")),
                        r.getString("prefix"),
                        r.getLong("number"),
                        NumberState.valueOf(r.getString("state")),
                        Payment.read(r)))
                .list();
    }

    /**
     * Takes a payment out before it is posted: its number, where it has one, is spoiled, or unaccounted when its sheet stayed
     * blank or is lost.
     */
    @Transactional
    public void takeOut(Actor by, ClaimId claim, boolean spoiled, String why) {
        Payment payment = payments.takeOut(by, claim, why);
        entities.createQuery(
                        "select n from CheckNumberEntity n where n.paymentId = :payment and n.state in (TAKEN, PRINTED)",
                        CheckNumberEntity.class)
                .setParameter("payment", payment.id().value())
                .getResultStream()
                .findFirst()
                .ifPresent(number -> {
                    boolean used = spoiled || number.state == NumberState.PRINTED;
                    NumberState to = used ? NumberState.SPOILED : NumberState.UNACCOUNTED;
                    move(by, new CheckNumberId(number.id), to, by.today(), why);
                });
        entities.flush();
    }

    /** Records a step of a number that was moved on. */
    void event(Actor by, CheckNumberEntity number, String why) {
        number.steps++;
        record(by, number, why);
    }

    /** Writes the step it stands at into its history. */
    private void record(Actor by, CheckNumberEntity number, String why) {
        NumberEventEntity event = new NumberEventEntity();
        event.checkNumberId = number.id;
        event.at = by.now();
        event.businessDate = number.stateDate;
        event.personId = by.person().value();
        event.toState = number.state;
        event.why = why;
        event.step = number.steps;
        entities.persist(event);
    }

    private CheckNumberEntity row(CheckNumberId id) {
        CheckNumberEntity number = entities.find(CheckNumberEntity.class, id.value());
        if (number == null || number.paymentId == null) {
            throw Refusal.notFound("no-check", "There is no check behind this number. Choose one from the register.");
        }
        return number;
    }

    private Check view(CheckNumberEntity number, Payment payment) {
        String prefix = series.get(new SeriesId(number.seriesId)).range().prefix();
        return new Check(new CheckNumberId(number.id), prefix, number.number, number.state, payment);
    }
}
