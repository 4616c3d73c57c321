package leveltally.server.approval;

import jakarta.persistence.EntityManager;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.approval.ClaimDigest;
import leveltally.core.approval.Separation;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Asking for approval and giving it, on the digest of every claim. The route has one step. */
@Service
public class Approvals {
    private static final int ONLY_STEP = 1;

    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final Batches batches;
    private final AuditTrail audit;

    Approvals(EntityManager entities, JdbcClient jdbc, Batches batches, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.batches = batches;
        this.audit = audit;
    }

    /** Sends a draft for approval; payee and address of each claim freeze and its digest is taken. */
    @Transactional
    public void send(Actor by, BatchId id, long version) {
        by.mayDo(Deed.SEND_BATCH);
        Batch batch = batches.lockFor(id, version);
        batches.freeze(id);
        List<Claim> claims = batches.claims(id);
        if (claims.isEmpty()) {
            throw Refusal.invalid("batch-empty", "This batch pays nothing. Add an invoice, or withdraw it.");
        }
        refuseHolds(claims);
        batches.move(by, id, BatchState.IN_APPROVAL, "sent it for approval");
        batches.putDigests(id, digests(batch, claims));
        audit.record(by, "send batch for approval", "batch " + id.value(), Map.of("claims", claims.size()));
    }

    /** Approves exactly what is there now. */
    @Transactional
    public void approve(Actor by, BatchId id, long version) {
        Batch batch = mayAnswer(by, id, version);
        List<Claim> claims = batches.claims(id);
        Map<ClaimId, String> digests = digests(batch, claims);
        if (!digests.equals(batches.digests(id))) {
            throw Refusal.conflict(
                    "content-changed",
                    "This batch is not what was sent for approval. Send it back; its preparer sends it again.");
        }
        ApprovalEntity approval = answer(by, batch, ApprovalEntity.Outcome.APPROVED, "");
        List<Object[]> rows = new ArrayList<>();
        digests.forEach((claim, digest) -> rows.add(new Object[] {approval.id, claim.value(), digest}));
        entities.flush();
        for (Object[] row : rows) {
            jdbc.sql("INSERT INTO approval_claim (approval_id, claim_id, digest) VALUES (?, ?, ?)")
                    .params(row)
                    .update();
        }
        batches.move(by, id, BatchState.APPROVED, "approved it");
        audit.record(by, "approve batch", "batch " + id.value(), Map.of("step", ONLY_STEP, "claims", claims.size()));
    }

    /** Sends a batch back to its preparer; the reason is shown. */
    @Transactional
    public void sendBack(Actor by, BatchId id, long version, String reason) {
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say what should change, so that it can.");
        }
        Batch batch = mayAnswer(by, id, version);
        answer(by, batch, ApprovalEntity.Outcome.SENT_BACK, reason.strip());
        batches.backToDraft(by, id, reason.strip());
        audit.record(by, "send batch back", "batch " + id.value(), Map.of("reason", reason.strip()));
    }

    /**
     * Verifies a locked batch once more before its claims get numbers or are posted (law L6).
     *
     * @throws Refusal naming the claims that are held or are not what was approved
     */
    @Transactional(readOnly = true)
    public void verify(Batch batch, List<Claim> claims) {
        Map<Long, String> approved = new HashMap<>();
        jdbc.sql("""
                        SELECT ac.claim_id, ac.digest FROM approval_claim ac JOIN approval a ON a.id = ac.approval_id
                        WHERE a.batch_id = :batch AND a.round = :round AND a.outcome = 'APPROVED'
                        """)
                .param("batch", batch.id().value())
                .param("round", batch.approvalRound())
                .query((r, n) -> approved.put(r.getLong(1), r.getString(2)))
                .list();
        for (Claim claim : claims) {
            String digest = ClaimDigest.of(claim, batch.checkDate(), batch.account(), batch.method())
                    .hex();
            if (!digest.equals(approved.get(claim.id().value()))) {
                throw Refusal.conflict(
                        "not-approved",
                        "The payment to " + claim.remitTo().payee()
                                + " is not what was approved. Change the batch back to a draft and send it again.");
            }
        }
    }

    /** @throws Refusal naming every claim that came under a hold */
    @Transactional(readOnly = true)
    public void refuseHolds(List<Claim> claims) {
        List<String> holds = batches.holds(claims.stream().map(Claim::id).toList());
        if (!holds.isEmpty()) {
            throw Refusal.conflict(
                    "held",
                    "Held: " + String.join("; ", holds) + ". Take " + (holds.size() == 1 ? "it" : "them")
                            + " out of the batch, or have the hold released.");
        }
    }

    private Batch mayAnswer(Actor by, BatchId id, long version) {
        by.mayDo(Deed.APPROVE);
        Batch batch = batches.lockFor(id, version);
        if (batch.state() != BatchState.IN_APPROVAL) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words() + ", so there is nothing to answer. Look at it again.");
        }
        Set<PersonId> approvers =
                new HashSet<>(jdbc.sql("SELECT person_id FROM approval WHERE batch_id = :batch AND round = :round")
                        .param("batch", id.value())
                        .param("round", batch.approvalRound())
                        .query((r, n) -> new PersonId(r.getLong(1)))
                        .list());
        Separation.check(by.person(), batches.hands(id), approvers);
        return batch;
    }

    private ApprovalEntity answer(Actor by, Batch batch, ApprovalEntity.Outcome outcome, String reason) {
        ApprovalEntity row = new ApprovalEntity();
        row.batchId = batch.id().value();
        row.round = batch.approvalRound();
        row.step = ONLY_STEP;
        row.personId = by.person().value();
        row.outcome = outcome;
        row.reason = reason;
        row.at = by.now();
        entities.persist(row);
        return row;
    }

    private static Map<ClaimId, String> digests(Batch batch, List<Claim> claims) {
        Map<ClaimId, String> digests = new HashMap<>();
        for (Claim claim : claims) {
            digests.put(
                    claim.id(),
                    ClaimDigest.of(claim, batch.checkDate(), batch.account(), batch.method())
                            .hex());
        }
        return digests;
    }
}
