package leveltally.server.approval;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.approval.ClaimDigest;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Asks for approval: what is sent is frozen, its digest is taken, its route is chosen and kept. */
@Service
public class Sending {
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Rounds rounds;
    private final Deputies deputies;
    private final Letters letters;
    private final AuditTrail audit;
    private final Choosing choosing;
    private final Verification verification;

    Sending(
            Batches batches,
            ClaimRows claimRows,
            Rounds rounds,
            Deputies deputies,
            Letters letters,
            AuditTrail audit,
            Choosing choosing,
            Verification verification) {
        this.batches = batches;
        this.claimRows = claimRows;
        this.rounds = rounds;
        this.deputies = deputies;
        this.letters = letters;
        this.audit = audit;
        this.choosing = choosing;
        this.verification = verification;
    }

    /**
     * Sends a draft for approval: payee, address and bank details of each claim freeze, its digest is taken, and the route
     * is chosen and kept.
     */
    @Transactional
    public void send(Actor by, BatchId id, long version) {
        by.mayDo(Deed.SEND_BATCH);
        Batch batch = batches.lockFor(id, version);
        claimRows.freeze(id);
        List<Claim> claims = claimRows.of(id);
        if (claims.isEmpty()) {
            throw Refusal.invalid("batch-empty", "This batch pays nothing. Add an invoice, or withdraw it.");
        }
        if (!batch.purpose().isAfterTheFact()) {
            // no hold stops money that has left
            verification.refuseObstacles(claims);
        }
        batches.addHand(id, by);
        Map<ClaimId, ClaimDigest> digests = Verification.digests(batch, claims);
        Chosen chosen = choosing.choose(by, batch, claims);
        if (!chosen.shortOf().isEmpty()) {
            throw Refusal.conflict(
                    "nobody-left",
                    "The route “" + chosen.choice().route().name() + "” cannot be completed: its step “"
                            + chosen.shortOf() + "” stays short of people, because nobody approves what they prepared, "
                            + "a vendor they changed lately, or two steps. Ask the controller to change the route.");
        }
        batches.move(by, id, BatchState.IN_APPROVAL, "sent it for approval");
        Map<ClaimId, String> hex = new HashMap<>();
        digests.forEach((claim, digest) -> hex.put(claim, digest.hex()));
        claimRows.putDigests(id, hex);
        rounds.open(by, id, batch.approvalRound(), chosen.policy(), chosen.choice(), chosen.marks());
        letters.asked(batch, rounds.of(id, by.today()), deputies.roster(by.today()), by.now());
        audit.record(
                by,
                "send batch for approval",
                "batch " + id.value(),
                Map.of(
                        "before",
                        batch.state().words(),
                        "after",
                        BatchState.IN_APPROVAL.words(),
                        "claims",
                        claims.size(),
                        "amount",
                        chosen.asking().total().toString(),
                        "route",
                        chosen.choice().route().name(),
                        "why",
                        chosen.choice().why()));
    }
}
