package leveltally.server.approval;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.approval.Approver;
import leveltally.core.approval.ClaimDigest;
import leveltally.core.approval.Progress;
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
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Drafting;
import leveltally.server.frame.WorkIds;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * The answers, step by step, on the digest of every claim. Every deed locks the batch's row first, so that two answers, or an
 * answer and an edit, come one after the other, and the later one sees what the first one did.
 */
@Service
public class Approvals {
    private final JdbcClient jdbc;
    private final JdbcOperations many;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final Drafting drafting;
    private final Rounds rounds;
    private final Deputies deputies;
    private final Letters letters;
    private final WorkIds ids;
    private final AuditTrail audit;

    Approvals(
            JdbcClient jdbc,
            JdbcOperations many,
            Batches batches,
            ClaimRows claimRows,
            Drafting drafting,
            Rounds rounds,
            Deputies deputies,
            Letters letters,
            WorkIds ids,
            AuditTrail audit) {
        this.jdbc = jdbc;
        this.many = many;
        this.batches = batches;
        this.claimRows = claimRows;
        this.drafting = drafting;
        this.rounds = rounds;
        this.deputies = deputies;
        this.letters = letters;
        this.ids = ids;
        this.audit = audit;
    }

    /** The digest of all that a batch asks now, which an approver hands back with their approval. */
    @Transactional(readOnly = true)
    public String seen(BatchId id) {
        Batch batch = batches.get(id);
        return ClaimDigest.ofAll(
                        batch.approvalRound(),
                        Verification.digests(batch, claimRows.of(id)).values())
                .hex();
    }

    /**
     * Approves exactly what this person has in front of them.
     *
     * @param seen the digest of all they saw, {@link ClaimDigest#ofAll}
     */
    @Transactional
    public void approve(Actor by, BatchId id, String seen) {
        Batch batch = lock(by, id);
        Round round = rounds.of(id, by.today());
        Roster roster = deputies.roster(by.today());
        Approver of = round.answering().approve(roster.of(by), roster.standsInFor(by.person()));
        Map<ClaimId, ClaimDigest> digests = Verification.digests(batch, claimRows.of(id));
        Map<ClaimId, String> sent = claimRows.digests(id);
        digests.forEach((claim, digest) -> {
            if (!digest.hex().equals(sent.get(claim))) {
                throw Refusal.conflict(
                        "content-changed",
                        "This batch is not what was sent for approval. Send it back; its preparer sends it again.");
            }
        });
        if (!ClaimDigest.ofAll(round.number(), digests.values()).hex().equals(seen)) {
            throw Refusal.conflict(
                    "seen-other",
                    "This batch changed since you opened it: payments were struck, or it was sent again. Nothing was "
                            + "approved; look at what it is now, then approve.");
        }
        int current = round.current();
        long approval = answer(by, round, current, of.id(), "APPROVED", "");
        List<Object[]> rows = new ArrayList<>();
        digests.forEach((claim, digest) -> rows.add(new Object[] {approval, claim.value(), digest.hex()}));
        many.batchUpdate("INSERT INTO approval_claim (approval_id, claim_id, digest) VALUES (?, ?, ?)", rows);
        goOn(by, batch, rounds.of(id, by.today()), current, roster);
        Map<String, Object> told = new HashMap<>(
                Map.of("step", round.answering().step().name(), "claims", digests.size(), "content", seen));
        if (!of.id().equals(by.person())) {
            told.put("for", of.name());
        }
        audit.record(by, "approve batch", "batch " + id.value(), told);
    }

    private void goOn(Actor by, Batch batch, Round round, int before, Roster roster) {
        Progress progress = round.progress();
        if (progress.isComplete()) {
            batches.move(by, batch.id(), BatchState.APPROVED, "approved it");
            letters.approved(by, batch, round, roster);
            return;
        }
        // whoever edits it meanwhile is told what they would undo
        batches.note(
                by,
                batch.id(),
                "approved its step “" + round.opened().get(before - 1).step().name() + "”");
        if (progress.current() > before) {
            rounds.openStep(round, progress.current(), by.now());
            letters.asked(batch, round, roster, by.now());
        }
    }

    /** Takes single payments out; the others, and what was approved of them, stand. A batch left empty is withdrawn. */
    @Transactional
    public void strike(Actor by, BatchId id, Set<ClaimId> claims, String reason) {
        Batch batch = lock(by, id);
        Round round = rounds.of(id, by.today());
        Roster roster = deputies.roster(by.today());
        round.answering().decline(roster.of(by), roster.standsInFor(by.person()));
        String why = reason(reason, "Say why this payment is not made, so that its preparer can put it right.");
        List<Claim> there = claimRows.of(id);
        List<Claim> struck =
                there.stream().filter(claim -> claims.contains(claim.id())).toList();
        if (struck.isEmpty() || struck.size() < claims.size()) {
            throw Refusal.conflict(
                    "struck-already", "This payment is not in the batch any more. Look at the batch as it is now.");
        }
        WorkIds.Supply supply = ids.supply();
        many.batchUpdate(
                "INSERT INTO approval_strike (id, batch_id, round, claim_id, payee, currency, amount_minor, reason,"
                        + " person_id, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
                struck.stream()
                        .map(claim -> new Object[] {
                            supply.next(),
                            id.value(),
                            round.number(),
                            claim.id().value(),
                            claim.remitTo().payee(),
                            claim.amount().currency().getCurrencyCode(),
                            claim.amount().minor(),
                            why,
                            by.person().value(),
                            Timestamp.from(by.now())
                        })
                        .toList());
        List<String> payments = struck.stream()
                .map(claim -> claim.remitTo().payee() + ", " + claim.amount())
                .toList();
        drafting.takeOutPayments(by, id, claims, "struck " + String.join("; ", payments));
        letters.struck(by, batch, round, payments, why, struck.size() == there.size());
        audit.record(by, "strike payments", "batch " + id.value(), Map.of("payments", payments, "reason", why));
    }

    /**
     * Sends a batch back to its preparer as a draft.
     *
     * @param notes what should change, by claim
     */
    @Transactional
    public void sendBack(Actor by, BatchId id, String reason, Map<ClaimId, String> notes) {
        Batch batch = lock(by, id);
        Round round = rounds.of(id, by.today());
        Roster roster = deputies.roster(by.today());
        Approver of = round.answering().decline(roster.of(by), roster.standsInFor(by.person()));
        Map<ClaimId, String> said = new LinkedHashMap<>();
        Map<ClaimId, String> payees = new HashMap<>();
        claimRows.of(id).forEach(claim -> payees.put(claim.id(), claim.remitTo().payee()));
        notes.forEach((claim, note) -> {
            if (!note.isBlank() && payees.containsKey(claim)) {
                said.put(claim, note.strip());
            }
        });
        String why = reason.isBlank() && !said.isEmpty()
                ? "see the " + (said.size() == 1 ? "note" : said.size() + " notes") + " at single payments"
                : reason(reason, "Say what should change, so that it can.");
        answer(by, round, round.current(), of.id(), "SENT_BACK", why);
        many.batchUpdate(
                "INSERT INTO approval_note (batch_id, round, claim_id, payee, note, person_id) VALUES (?, ?, ?, ?, ?, ?)",
                said.entrySet().stream()
                        .map(note -> new Object[] {
                            id.value(),
                            round.number(),
                            note.getKey().value(),
                            payees.get(note.getKey()),
                            note.getValue(),
                            by.person().value()
                        })
                        .toList());
        batches.backToDraft(by, id, why);
        List<String> told = said.entrySet().stream()
                .map(note -> payees.get(note.getKey()) + ": " + note.getValue())
                .toList();
        letters.sentBack(by, batch, round, why, told);
        audit.record(
                by,
                "send batch back",
                "batch " + id.value(),
                Map.of(
                        "before",
                        batch.state().words(),
                        "after",
                        BatchState.DRAFT.words(),
                        "reason",
                        why,
                        "notes",
                        told));
    }

    private Batch lock(Actor by, BatchId id) {
        by.mayDo(Deed.APPROVE);
        Batch batch = batches.lockAnyVersion(id);
        if (batch.state() != BatchState.IN_APPROVAL) {
            throw Refusal.conflict(
                    "wrong-state",
                    "This batch is " + batch.state().words() + ", so there is nothing to answer. Look at it again.");
        }
        return batch;
    }

    private static String reason(String typed, String missing) {
        if (typed.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", missing);
        }
        return typed.strip();
    }

    private long answer(Actor by, Round round, int step, PersonId of, String outcome, String reason) {
        long id = ids.supply().next();
        Instant now = by.now();
        jdbc.sql("INSERT INTO approval (id, batch_id, round, step, person_id, on_behalf_of, outcome, reason, at,"
                        + " business_date) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")
                .params(
                        id,
                        round.batch().value(),
                        round.number(),
                        step,
                        by.person().value(),
                        of.value(),
                        outcome,
                        reason,
                        Timestamp.from(now),
                        by.today())
                .update();
        return id;
    }
}
