package leveltally.server.approval;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.approval.ClaimDigest;
import leveltally.core.approval.Progress;
import leveltally.core.approval.Step;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.people.PersonId;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Obstacles;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Whether claims are what was approved, and nothing stands in their way: asked again before money leaves. */
@Service
public class Verification {
    private final JdbcClient jdbc;
    private final Obstacles obstacles;
    private final Rounds rounds;

    Verification(JdbcClient jdbc, Obstacles obstacles, Rounds rounds) {
        this.jdbc = jdbc;
        this.obstacles = obstacles;
        this.rounds = rounds;
    }

    /**
     * Verifies a locked batch once more before its claims get numbers or are posted (law L6): every step has its people for
     * exactly this content.
     *
     * @throws Refusal naming the claim that is not what was approved
     */
    @Transactional(readOnly = true)
    public void verify(Batch batch, List<Claim> claims) {
        record Agreed(int step, long person) {}
        Map<Long, Map<String, Set<Agreed>>> agreed = new HashMap<>();
        jdbc.sql("""
                        SELECT ac.claim_id, ac.digest, a.step, a.person_id
                        FROM approval_claim ac JOIN approval a ON a.id = ac.approval_id
                        WHERE a.batch_id = :batch AND a.round = :round AND a.outcome = 'APPROVED'
                        """)
                .param("batch", batch.id().value())
                .param("round", batch.approvalRound())
                .query(r -> {
                    agreed.computeIfAbsent(r.getLong("claim_id"), none -> new HashMap<>())
                            .computeIfAbsent(r.getString("digest"), none -> new HashSet<>())
                            .add(new Agreed(r.getInt("step"), r.getLong("person_id")));
                });
        List<Step> steps = rounds.of(batch.id(), batch.checkDate()).opened().stream()
                .map(Round.Opened::step)
                .toList();
        Map<ClaimId, ClaimDigest> digests = digests(batch, claims);
        for (Claim claim : claims) {
            Set<Agreed> people = agreed.getOrDefault(claim.id().value(), Map.of())
                    .getOrDefault(digests.get(claim.id()).hex(), Set.of());
            Progress progress = new Progress(
                    steps,
                    people.stream()
                            .map(one -> new Progress.Given(
                                    one.step(), new PersonId(one.person()), new PersonId(one.person())))
                            .toList());
            if (steps.isEmpty() || !progress.isComplete()) {
                throw Refusal.conflict(
                        "not-approved",
                        "The payment to " + claim.remitTo().payee()
                                + " is not what was approved. Change the batch back to a draft and send it again.");
            }
        }
    }

    /** @throws Refusal naming every claim under a hold, and every one whose vendor's data changed since it was sent */
    @Transactional
    public void refuseObstacles(List<Claim> claims) {
        Map<ClaimId, List<String>> found =
                obstacles.shared(claims.stream().map(Claim::id).toList());
        List<String> obstacles = claims.stream()
                .flatMap(claim -> found.getOrDefault(claim.id(), List.of()).stream()
                        .map(words -> claim.remitTo().payee() + ": " + words))
                .distinct()
                .toList();
        if (!obstacles.isEmpty()) {
            String them = obstacles.size() == 1 ? "it" : "them";
            throw Refusal.conflict(
                    "held",
                    "Not as it stands: " + String.join("; ", obstacles) + ". Take " + them
                            + " out of the batch, have the hold released, or change the batch and send it for approval "
                            + "with what is true now.");
        }
    }

    static Map<ClaimId, ClaimDigest> digests(Batch batch, List<Claim> claims) {
        Map<ClaimId, ClaimDigest> digests = new HashMap<>();
        for (Claim claim : claims) {
            digests.put(claim.id(), ClaimDigest.of(claim, batch.checkDate(), batch.account(), batch.method()));
        }
        return digests;
    }
}
