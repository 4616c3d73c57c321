package leveltally.server.printing;

import jakarta.persistence.EntityManager;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.printing.Answer;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Drafting;
import leveltally.server.checks.Checks;
import leveltally.server.payments.Payments;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Takes payments out until they are posted, so that a batch and its month can be closed. */
@Service
public class TakingOut {
    private static final Set<BatchState> STANDING =
            EnumSet.of(BatchState.APPROVED, BatchState.NUMBERED, BatchState.FILED);

    private final EntityManager entities;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Drafting drafting;
    private final Payments payments;
    private final Checks checks;
    private final AuditTrail audit;
    private final Runs runs;

    TakingOut(
            EntityManager entities,
            Batches batches,
            ClaimRows claimRows,
            Drafting drafting,
            Payments payments,
            Checks checks,
            AuditTrail audit,
            Runs runs) {
        this.entities = entities;
        this.batches = batches;
        this.claimRows = claimRows;
        this.drafting = drafting;
        this.payments = payments;
        this.checks = checks;
        this.audit = audit;
        this.runs = runs;
    }

    /**
     * Takes payments out of a batch until they are posted: their invoices come free, a number that was taken is spoiled, or
     * unaccounted when its sheet stayed blank; then the batch and its month can be closed. It is no change under law L7.
     *
     * @param spoiled what became of the paper of those that have a number: true when it is destroyed, false when it stayed
     *     blank or is lost
     */
    @Transactional
    public void takeOut(Actor by, BatchId id, Set<ClaimId> wanted, boolean spoiled, String why) {
        by.mayDo(Deed.PRINT);
        Batch batch = batches.lockAnyVersion(id);
        if (!STANDING.contains(batch.state())) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words() + ". Payments of a draft are taken out in the draft; "
                            + "what is posted is voided.");
        }
        String reason = Reasons.given(why, "Say why this payment is taken out.");
        Set<ClaimId> standing = claimRows.of(id).stream().map(Claim::id).collect(Collectors.toSet());
        if (wanted.isEmpty() || !standing.containsAll(wanted)) {
            throw Refusal.notFound("no-claim", "This payment is not in the batch any more. Look at the batch again.");
        }
        Set<ClaimId> paid = payments.claims(id);
        Set<ClaimId> unnumbered =
                wanted.stream().filter(claim -> !paid.contains(claim)).collect(Collectors.toSet());
        List<ClaimId> numbered = wanted.stream().filter(paid::contains).toList();
        for (ClaimId claim : numbered) {
            if (batch.method() == PaymentMethod.CHECK) {
                checks.takeOut(by, claim, spoiled, reason);
                answerTaken(by, id, claim, spoiled, reason);
            } else {
                payments.takeOut(by, claim, reason);
            }
        }
        claimRows.release(numbered);
        if (!unnumbered.isEmpty()) {
            drafting.takeOutPayments(by, id, unnumbered, "took out payments: " + reason);
        }
        close(by, id);
        audit.record(
                by,
                "take out payments",
                "batch " + id.value(),
                Map.of("claims", wanted.stream().map(ClaimId::value).sorted().toList(), "why", reason));
    }

    /** A sheet of a payment that is out waits for no answer any more. */
    private void answerTaken(Actor by, BatchId batch, ClaimId claim, boolean spoiled, String why) {
        entities.flush();
        for (DocumentEntity document : runs.latest(batch)) {
            CheckNumberId number = new CheckNumberId(document.checkNumberId);
            if (document.answer == null && checks.get(number).payment().claim().equals(claim)) {
                document.answer = spoiled ? Answer.SPOILED : Answer.BLANK;
                document.answerWhy = why;
                document.answeredAt = by.now();
                document.answeredBy = by.person().value();
            }
        }
    }

    /** A batch with nothing left to number, answer or post is posted, or withdrawn when nothing of it was. */
    private void close(Actor by, BatchId id) {
        Batch batch = batches.get(id);
        if (!STANDING.contains(batch.state())) {
            return;
        }
        long standing = claimRows.of(id).size();
        long posted = payments.postedCount(id);
        if (standing == posted) {
            BatchState end = posted > 0 ? BatchState.POSTED : BatchState.WITHDRAWN;
            batches.move(by, id, end, "took out its last payment");
        }
    }
}
