package leveltally.server.posting;

import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.NumberState;
import leveltally.core.payments.PaymentId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.advice.Advices;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.checks.BankEvents;
import leveltally.server.checks.Check;
import leveltally.server.checks.Checks;
import leveltally.server.electronic.ElectronicItems;
import leveltally.server.electronic.Filing;
import leveltally.server.ledger.Periods;
import leveltally.server.outside.OutsidePayments;
import leveltally.server.payments.Called;
import leveltally.server.payments.Payment;
import leveltally.server.payments.Payments;
import leveltally.server.wires.WireOrders;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Posts the payments whose checks came out good, or whose file the bank took, all in one transaction. */
@Service
public class Posting {
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Payments payments;
    private final Checks checks;
    private final BankEvents told;
    private final OutsidePayments outside;
    private final Filing filing;
    private final ElectronicItems items;
    private final WireOrders wires;
    private final PaymentEntries entries;
    private final Periods periods;
    private final AuditTrail audit;
    private final Advices advices;

    Posting(
            Batches batches,
            ClaimRows claimRows,
            Payments payments,
            Checks checks,
            BankEvents told,
            OutsidePayments outside,
            Filing filing,
            ElectronicItems items,
            WireOrders wires,
            PaymentEntries entries,
            Periods periods,
            AuditTrail audit,
            Advices advices) {
        this.batches = batches;
        this.claimRows = claimRows;
        this.payments = payments;
        this.checks = checks;
        this.told = told;
        this.outside = outside;
        this.filing = filing;
        this.items = items;
        this.wires = wires;
        this.entries = entries;
        this.periods = periods;
        this.audit = audit;
        this.advices = advices;
    }

    /** How many payments this call posted, and how many of the batch are posted now. */
    public record Outcome(int postedNow, long postedInAll, int waiting) {}

    /**
     * What of a batch can be posted, whatever carries it.
     *
     * @param during the state of a batch of which something waits to be posted
     * @param first what comes before it can be posted
     * @param nothing what is said when nothing is good yet
     */
    private record Carried(BatchState during, List<PaymentEntries.Ready> good, String first, String nothing) {}

    /**
     * Posts what is good: settlement rows, an entry per payment, payments outstanding, what the bank must hear. The batch's
     * row is locked first, so a second call finds nothing left and writes nothing; the period is shared, so it cannot be
     * locked meanwhile.
     */
    @Transactional
    public Outcome post(Actor by, BatchId id) {
        by.mayDo(Deed.POST);
        Batch batch = batches.lockAnyVersion(id);
        if (batch.purpose().isAfterTheFact()) {
            return recorded(by, batch);
        }
        List<Check> good = batch.method() == PaymentMethod.CHECK
                ? checks.unposted(id, EnumSet.of(NumberState.PRINTED))
                : List.of();
        Carried carried = switch (batch.method()) {
            case CHECK, CARD -> onPaper(good);
            case ACH, CREDIT_TRANSFER -> inFiles(batch);
            case WIRE -> wired(batch);
        };
        if (batch.state() != carried.during() && batch.state() != BatchState.POSTED) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words() + ", so there is nothing to post. " + carried.first());
        }
        List<PaymentEntries.Ready> ready = carried.good();
        if (!ready.isEmpty()) {
            periods.shareOpen(batch.ledgerDate());
            entries.write(by, batch, ready);
            told.tellIssues(batch.account(), good);
            advices.tell(by, ready.stream().map(PaymentEntries.Ready::payment).toList());
        }
        int waiting = waiting(batch);
        if (batch.state() == carried.during() && waiting == 0) {
            batches.move(by, id, BatchState.POSTED, "posted it");
        }
        if (!ready.isEmpty()) {
            audit.record(by, "post", "batch " + id.value(), Map.of("payments", ready.size(), "waiting", waiting));
        } else if (batch.state() == carried.during()) {
            throw Refusal.conflict("nothing-good", carried.nothing());
        }
        return new Outcome(ready.size(), payments.postedCount(id), waiting);
    }

    private static Carried onPaper(List<Check> good) {
        return new Carried(
                BatchState.NUMBERED,
                good.stream().map(Posting::ready).toList(),
                "Its checks are printed first.",
                "No sheet of this batch is answered good yet. Answer for the sheets, then post.");
    }

    private Carried inFiles(Batch batch) {
        List<PaymentId> took = filing.took(batch.id());
        return new Carried(
                BatchState.FILED,
                ready(took, items.called(took)),
                "It goes into a file first.",
                "The bank took no file of this batch yet, as far as anybody said. Record its answer, then post.");
    }

    private Carried wired(Batch batch) {
        List<PaymentId> confirmed = wires.confirmed(batch.id());
        return new Carried(
                BatchState.FILED,
                ready(confirmed, wires.called(confirmed)),
                "It goes onto the list of wires first.",
                "The bank confirmed no wire of this batch yet. Order them at the bank, write down what it says, then post.");
    }

    private List<PaymentEntries.Ready> ready(List<PaymentId> ids, Map<PaymentId, Called> names) {
        return ids.isEmpty()
                ? List.of()
                : payments.all(ids).stream()
                        .map(payment -> ready(payment, names.get(payment.id()).name()))
                        .toList();
    }

    private static PaymentEntries.Ready ready(Check check) {
        return ready(check.payment(), check.name());
    }

    private static PaymentEntries.Ready ready(Payment payment, String name) {
        return new PaymentEntries.Ready(payment.id(), payment.claim(), name, payment.payee(), payment.replaces());
    }

    /** Posts what was made elsewhere, once all of it is agreed to. */
    private Outcome recorded(Actor by, Batch batch) {
        if (batch.state() == BatchState.POSTED) {
            return new Outcome(0, payments.postedCount(batch.id()), 0);
        }
        periods.shareOpen(batch.ledgerDate());
        List<OutsidePayments.Prepared> prepared = outside.prepare(by, batch);
        entries.write(
                by,
                batch,
                prepared.stream()
                        .map(one -> new PaymentEntries.Ready(one.payment(), one.claim(), one.name(), one.payee(), null))
                        .toList());
        advices.tell(
                by, prepared.stream().map(OutsidePayments.Prepared::payment).toList());
        if (batch.method() == PaymentMethod.CHECK) {
            Map<PaymentId, Check> written = checks.carrying(
                    prepared.stream().map(OutsidePayments.Prepared::payment).toList());
            told.tellIssues(batch.account(), List.copyOf(written.values()));
        }
        batches.move(by, batch.id(), BatchState.POSTED, "posted it");
        audit.record(by, "post", "batch " + batch.id().value(), Map.of("payments", prepared.size(), "waiting", 0));
        return new Outcome(prepared.size(), prepared.size(), 0);
    }

    private int waiting(Batch batch) {
        if (batch.method().isElectronic()) {
            return filing.unposted(batch.id(), claimRows.of(batch.id()));
        }
        if (batch.method() == PaymentMethod.WIRE) {
            return wires.unposted(batch.id(), claimRows.of(batch.id()));
        }
        int numbered = checks.unposted(batch.id(), EnumSet.of(NumberState.TAKEN, NumberState.PRINTED))
                .size();
        Set<ClaimId> paid = payments.claims(batch.id());
        long unnumbered = claimRows.of(batch.id()).stream()
                .filter(claim -> !paid.contains(claim.id()))
                .count();
        return numbered + checks.withoutNumber(batch.id()).size() + (int) unnumbered;
    }
}
