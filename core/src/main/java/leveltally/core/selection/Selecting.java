package leveltally.core.selection;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.Settling;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * One computation of a selection, step after step: filter, then credits, discount and groups, then cash.
 */
final class Selecting {
    final Criteria criteria;
    private final List<Candidate> candidates;
    private final Marks marks;
    final Selection.Row[] rows;
    private final Map<InvoiceId, Integer> places = new HashMap<>();
    final List<Selection.ClaimDraft> claims = new ArrayList<>();
    private final List<Selection.ClaimDraft> payable = new ArrayList<>();
    final List<Selection.Queued> queue = new ArrayList<>();
    final List<Selection.OffsetProposal> offsets = new ArrayList<>();
    final List<Selection.CreditOut> creditsOut = new ArrayList<>();
    List<CashLine.Waiting> waiting = List.of();

    @Nullable
    CashLine line;

    Selecting(Criteria criteria, List<Candidate> candidates, Marks marks) {
        this.criteria = criteria;
        this.candidates = candidates;
        this.marks = marks;
        this.rows = new Selection.Row[candidates.size()];
    }

    /** @param out what was taken out by hand, with the first reason that keeps it out */
    void filter(Map<InvoiceId, Decision.LeftOut> out) {
        for (int i = 0; i < rows.length; i++) {
            Candidate candidate = candidates.get(i);
            InvoiceId id = candidate.invoice().id();
            places.put(id, i);
            Decision.LeftOut why = out.containsKey(id)
                    ? out.get(id)
                    : Eligibility.whyNot(candidate, criteria, marks.in().contains(id))
                            .orElse(null);
            if (why != null) {
                decide(candidate, why);
            }
        }
    }

    private void decide(Candidate candidate, Decision decision) {
        int at = places.get(candidate.invoice().id());
        rows[at] = new Selection.Row(candidate, decision, criteria.lostIfItWaits(candidate.invoice()));
    }

    /** Credits, discount, one claim a payee or an invoice, and the smallest payment. */
    void group(List<CreditCandidate> credits) {
        Map<Long, List<OpenCredit>> usable = new HashMap<>();
        Map<InvoiceId, CreditCandidate> idle = new LinkedHashMap<>();
        for (CreditCandidate credit : credits) {
            Optional<Decision.LeftOut> why = Eligibility.whyNot(credit, criteria);
            if (why.isPresent()) {
                creditsOut.add(new Selection.CreditOut(credit, why.get().inWords()));
            } else if (marks.out().contains(credit.credit().id())) {
                creditsOut.add(new Selection.CreditOut(credit, LeftOutReason.TAKEN_OUT_BY_HAND.words()));
            } else {
                usable.computeIfAbsent(credit.remitTo(), none -> new ArrayList<>())
                        .add(credit.credit());
                idle.put(credit.credit().id(), credit);
            }
        }
        List<Candidate> free = new ArrayList<>();
        for (int i = 0; i < rows.length; i++) {
            if (rows[i] == null) {
                free.add(candidates.get(i));
            }
        }
        ClaimForming formed = ClaimForming.of(criteria, marks, free, usable);
        for (ClaimForming.Formed one : formed.covered()) {
            if (one.settling().credit().isPositive()) {
                offsets.add(new Selection.OffsetProposal(one.payee(), one.settling()));
                one.settling().uses().forEach(use -> idle.remove(use.credit().id()));
            }
            leaveOut(one.members(), LeftOutReason.COVERED_BY_CREDITS);
        }
        formed.small().forEach(one -> leaveOut(one.members(), LeftOutReason.UNDER_SMALLEST_PAYMENT));
        for (ClaimForming.Formed one : formed.payable()) {
            payable.add(claim(one.payee(), one.members(), one.settling(), one.apart()));
            one.settling().uses().forEach(use -> idle.remove(use.credit().id()));
        }
        idle.values().forEach(credit -> creditsOut.add(new Selection.CreditOut(credit, "nothing here to reduce")));
    }

    private Selection.ClaimDraft claim(Payee payee, List<Candidate> members, Settling settling, boolean apart) {
        List<Selection.Row> taken = new ArrayList<>();
        for (int i = 0; i < members.size(); i++) {
            Candidate member = members.get(i);
            Settling.Line settled = settling.lines().get(i);
            boolean byHand = marks.in().contains(member.invoice().id());
            decide(member, new Decision.Taken(settled.credit(), settled.payment(), byHand));
            taken.add(rows[places.get(member.invoice().id())]);
        }
        return new Selection.ClaimDraft(
                payee, List.copyOf(taken), settling.uses(), settling.cash(), settling.discount(), apart);
    }

    private void leaveOut(List<Candidate> members, LeftOutReason reason) {
        members.forEach(member -> decide(member, new Decision.LeftOut(reason, "")));
    }

    /** Orders the claims by their strongest invoice and pays as many as the limit allows. */
    void giveOutCash() {
        record Placed(Selection.ClaimDraft claim, Strength strength) {}
        List<Selection.ClaimDraft> inOrder = payable.stream()
                .map(claim -> new Placed(claim, Strength.of(claim, criteria)))
                .sorted(Comparator.comparing(Placed::strength))
                .map(Placed::claim)
                .toList();
        waiting = inOrder.stream().map(this::waiting).toList();
        Money limit = criteria.paying().limit();
        if (limit == null) {
            inOrder.forEach(claim -> queue.add(new Selection.Queued(claim, true)));
            claims.addAll(inOrder);
            return;
        }
        Money smallest = criteria.paying().smallest();
        CashLine drawn = CashLine.choose(
                criteria.paying().way(), waiting, limit, smallest == null ? Money.zero(limit.currency()) : smallest);
        line = drawn;
        for (int i = 0; i < inOrder.size(); i++) {
            Selection.ClaimDraft claim = inOrder.get(i);
            if (i == drawn.part()) {
                claim = inPart(claim, drawn.left());
            } else if (!drawn.taken()[i]) {
                leaveOut(
                        claim.rows().stream().map(Selection.Row::candidate).toList(),
                        LeftOutReason.BEYOND_THE_CASH_LINE);
            }
            boolean taken = drawn.taken()[i] || i == drawn.part();
            queue.add(new Selection.Queued(taken ? claim : inOrder.get(i), taken));
            if (taken) {
                claims.add(claim);
            }
        }
    }

    /** Pays what the cash left allows; an invoice left out gives its share of the credits back. */
    private Selection.ClaimDraft inPart(Selection.ClaimDraft claim, Money limit) {
        Part part = Part.of(claim, criteria, limit);
        List<Candidate> kept = new ArrayList<>();
        List<Settling.Owed> owed = new ArrayList<>();
        for (Selection.Row row : claim.rows()) {
            Decision.Taken now = part.taken().get(row.candidate().invoice().id());
            if (now == null) {
                leaveOut(List.of(row.candidate()), LeftOutReason.BEYOND_THE_CASH_LINE);
            } else {
                kept.add(row.candidate());
                boolean whole = now.equals(row.decision());
                owed.add(new Settling.Owed(
                        row.candidate().invoice(), whole ? null : now.payment().cash()));
            }
        }
        List<OpenCredit> credits =
                claim.credits().stream().map(Settling.Use::credit).toList();
        Settling settling = Settling.of(owed, credits, criteria.checkDate(), criteria.graceDays());
        return claim(claim.payee(), kept, settling, claim.apart());
    }

    private CashLine.Waiting waiting(Selection.ClaimDraft claim) {
        boolean late = claim.rows().stream()
                .anyMatch(row -> row.candidate().invoice().dueDate().isBefore(criteria.checkDate()));
        boolean own = claim.rows().get(0).candidate().ownCheck();
        boolean byHand = marks.takesIn(
                claim.rows().stream().map(Selection.Row::candidate).toList());
        return new CashLine.Waiting(claim.amount(), claim.discount(), late, byHand, own);
    }
}
