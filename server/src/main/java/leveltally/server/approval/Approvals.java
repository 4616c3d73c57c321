package leveltally.server.approval;

import java.sql.Timestamp;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import leveltally.core.Refusal;
import leveltally.core.approval.Approver;
import leveltally.core.approval.ClaimDigest;
import leveltally.core.approval.Completion;
import leveltally.core.approval.Policy;
import leveltally.core.approval.Progress;
import leveltally.core.approval.Step;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.Claim;
import leveltally.core.batches.ClaimId;
import leveltally.core.marks.Mark;
import leveltally.core.marks.MarkKind;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.batches.Batch;
import leveltally.server.batches.Batches;
import leveltally.server.batches.ClaimRows;
import leveltally.server.batches.Drafting;
import leveltally.server.batches.Obstacles;
import leveltally.server.frame.WorkIds;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.marks.MarkRows;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Asking for approval and answering, step by step, on the digest of every claim. Every deed locks the batch's row first, so
 * that two answers, or an answer and an edit, come one after the other, and the later one sees what the first one did.
 */
@Service
public class Approvals {
    private final JdbcClient jdbc;
    private final JdbcOperations many;
    private final Batches batches;
    private final Obstacles obstacles;
    private final ClaimRows claimRows;
    private final Drafting drafting;
    private final Policies policies;
    private final Rounds rounds;
    private final Deputies deputies;
    private final MarkRows marks;
    private final BankAccounts accounts;
    private final Letters letters;
    private final WorkIds ids;
    private final AuditTrail audit;

    Approvals(
            JdbcClient jdbc,
            JdbcOperations many,
            Batches batches,
            Obstacles obstacles,
            ClaimRows claimRows,
            Drafting drafting,
            Policies policies,
            Rounds rounds,
            Deputies deputies,
            MarkRows marks,
            BankAccounts accounts,
            Letters letters,
            WorkIds ids,
            AuditTrail audit) {
        this.jdbc = jdbc;
        this.many = many;
        this.batches = batches;
        this.obstacles = obstacles;
        this.claimRows = claimRows;
        this.drafting = drafting;
        this.policies = policies;
        this.rounds = rounds;
        this.deputies = deputies;
        this.marks = marks;
        this.accounts = accounts;
        this.letters = letters;
        this.ids = ids;
        this.audit = audit;
    }

    /** What a route is chosen by, and what was chosen. */
    record Chosen(
            Policies.InForce policy,
            Policy.Asking asking,
            Policy.Choice choice,
            Map<ClaimId, List<Mark>> marks,
            String shortOf) {}

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
        refuseObstacles(claims);
        batches.addHand(id, by);
        Map<ClaimId, ClaimDigest> digests = digests(batch, claims);
        Chosen chosen = choose(by, batch, claims);
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
                subject(id),
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

    /** Which route a batch would take today, and why. */
    Chosen choose(Actor by, Batch batch, List<Claim> claims) {
        return choose(by, batch, claims, policies.on(by.today()));
    }

    Chosen choose(Actor by, Batch batch, List<Claim> claims, Policies.InForce policy) {
        var currency = accounts.get(batch.account()).currency();
        Map<ClaimId, List<Mark>> found =
                marks.of(batch.id(), by.today(), policy.policy().paymentLimits(currency));
        Set<MarkKind> kinds = new HashSet<>();
        found.values().forEach(own -> own.forEach(mark -> kinds.add(mark.kind())));
        Policy.Asking asking = Policy.Asking.of(batch.account(), currency, claims, kinds);
        Policy.Choice choice = policy.policy().choose(asking);
        Set<PersonId> excluded = new HashSet<>(batches.hands(batch.id()));
        excluded.addAll(rounds.interested(List.of(batch.id().value()), by.today())
                .getOrDefault(batch.id().value(), Map.of())
                .keySet());
        String shortOf = Completion.shortOf(
                choice.route().steps(), deputies.roster(by.today()).people().values(), excluded);
        return new Chosen(policy, asking, choice, found, shortOf);
    }

    /** The digest of all that a batch asks now, which an approver hands back with their approval. */
    @Transactional(readOnly = true)
    public String seen(BatchId id) {
        Batch batch = batches.get(id);
        return ClaimDigest.ofAll(
                        batch.approvalRound(), digests(batch, claimRows.of(id)).values())
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
        Map<ClaimId, ClaimDigest> digests = digests(batch, claimRows.of(id));
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
        audit.record(by, "approve batch", subject(id), told);
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
        audit.record(by, "strike payments", subject(id), Map.of("payments", payments, "reason", why));
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
                subject(id),
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
                    agreed.computeIfAbsent(r.getLong(1), none -> new HashMap<>())
                            .computeIfAbsent(r.getString(2), none -> new HashSet<>())
                            .add(new Agreed(r.getInt(3), r.getLong(4)));
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

    private static String subject(BatchId id) {
        return "batch " + id.value();
    }

    static Map<ClaimId, ClaimDigest> digests(Batch batch, List<Claim> claims) {
        Map<ClaimId, ClaimDigest> digests = new HashMap<>();
        for (Claim claim : claims) {
            digests.put(claim.id(), ClaimDigest.of(claim, batch.checkDate(), batch.account(), batch.method()));
        }
        return digests;
    }
}
