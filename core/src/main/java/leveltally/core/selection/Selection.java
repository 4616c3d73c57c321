package leveltally.core.selection;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.OpenCredit;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.invoices.Settling;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * The outcome of criteria over their candidates: every one of them is taken or left out with a reason. Computed in one
 * order: filter, credits, discount, group, smallest payment, cash limit.
 */
public final class Selection {

    /** One candidate and what became of it. */
    public record Row(Candidate candidate, Decision decision, boolean lostIfItWaits) {
        public boolean isTaken() {
            return decision instanceof Decision.Taken;
        }
    }

    /**
     * What will be one payment.
     *
     * @param apart it holds one invoice that stands alone
     * @param credits what it uses up
     */
    public record ClaimDraft(
            Payee payee, List<Row> rows, List<Settling.Use> credits, Money amount, Money discount, boolean apart) {

        ClaimOrder.Placed placed() {
            long first = rows.stream()
                    .mapToLong(row -> row.candidate().invoice().id().value())
                    .min()
                    .orElseThrow();
            return new ClaimOrder.Placed(
                    payee.payee(), payee.number(), payee.remitTo(), amount, payee.postalCode(), first);
        }
    }

    /** A claim in the order in which cash is given out; {@code taken} is false beyond the line. */
    public record Queued(ClaimDraft claim, boolean taken) {}

    /** Invoices that a vendor's credits cover altogether: to be settled without a payment. */
    public record OffsetProposal(Payee payee, Settling settling) {}

    /** A credit that is not used although the batch uses credits; {@code why} in words. */
    public record CreditOut(CreditCandidate credit, String why) {}

    /** How many invoices a reason keeps out, and what is open on them, one amount a currency. */
    public record LeftOutTotal(LeftOutReason reason, int count, List<Money> open) {}

    /**
     * What one way of giving out the cash comes to.
     *
     * @param late claims with something due before the check date that it leaves unpaid, and their cash
     * @param error the largest discount another choice could save beyond this one; zero = exact
     */
    public record WayOutcome(
            CashWay way, int claims, Money spends, Money saves, int late, Money lateCash, Money error) {}

    private final Criteria criteria;
    private final List<Row> rows;
    private final List<ClaimDraft> claims;
    private final List<Queued> queue;
    private final List<OffsetProposal> offsets;
    private final List<CreditOut> creditsOut;
    private final @Nullable CashLine line;
    private final List<CashLine.Waiting> waiting;

    private Selection(Computing done) {
        this.criteria = done.criteria;
        this.rows = List.of(done.rows);
        this.claims = inOrder(done.claims, criteria.paying().order());
        this.queue = List.copyOf(done.queue);
        this.offsets = List.copyOf(done.offsets);
        this.creditsOut = List.copyOf(done.creditsOut);
        this.line = done.line;
        this.waiting = List.copyOf(done.waiting);
    }

    /**
     * @param candidates open invoices that pass the dates and ranges, plus those taken in by hand
     * @param credits open credits of their vendors; not looked at unless the criteria use credits
     */
    public static Selection of(
            Criteria criteria, List<Candidate> candidates, List<CreditCandidate> credits, Marks marks) {
        List<CreditCandidate> usable = criteria.paying().credits() ? credits : List.of();
        Map<InvoiceId, Decision.LeftOut> out = new HashMap<>();
        if (!marks.out().isEmpty()) {
            // the reasons that come before “by hand” are those it would have if nobody had taken it out
            for (Row row : computed(criteria, candidates, usable, marks.withNothingOut(), Map.of()).rows) {
                InvoiceId id = row.candidate().invoice().id();
                if (marks.out().contains(id)) {
                    out.put(
                            id,
                            row.decision() instanceof Decision.LeftOut first
                                    ? first
                                    : new Decision.LeftOut(LeftOutReason.TAKEN_OUT_BY_HAND, ""));
                }
            }
        }
        return new Selection(computed(criteria, candidates, usable, marks, out));
    }

    private static Computing computed(
            Criteria criteria,
            List<Candidate> candidates,
            List<CreditCandidate> credits,
            Marks marks,
            Map<InvoiceId, Decision.LeftOut> out) {
        Computing computing = new Computing(criteria, candidates, marks);
        computing.filter(out);
        computing.group(credits);
        computing.giveOutCash();
        return computing;
    }

    private static List<ClaimDraft> inOrder(List<ClaimDraft> claims, ClaimOrder order) {
        record Keyed(String key, ClaimDraft claim) {}
        return claims.stream()
                .map(claim -> new Keyed(order.key(claim.placed()), claim))
                .sorted(Comparator.comparing(Keyed::key))
                .map(Keyed::claim)
                .toList();
    }

    public Criteria criteria() {
        return criteria;
    }

    /** In the order the candidates came. */
    public List<Row> rows() {
        return rows;
    }

    public List<Row> taken() {
        return rows.stream().filter(Row::isTaken).toList();
    }

    /** What is paid, in the order that decides the numbers. */
    public List<ClaimDraft> claims() {
        return claims;
    }

    /** All claims that could be paid, in the order in which cash is given out. */
    public List<Queued> queue() {
        return queue;
    }

    /** Where in the queue the limit ran out: the first claim not paid whole; empty when all are, or there is no limit. */
    public Optional<Integer> lineAt() {
        CashLine drawn = line;
        if (drawn == null) {
            return Optional.empty();
        }
        for (int i = 0; i < queue.size(); i++) {
            if (!drawn.taken()[i]) {
                return Optional.of(i);
            }
        }
        return Optional.empty();
    }

    public List<OffsetProposal> offsets() {
        return offsets;
    }

    public List<CreditOut> creditsOut() {
        return creditsOut;
    }

    /** What all claims cost together. */
    public Money toPay() {
        return Money.sum(claims.stream().map(ClaimDraft::amount).toList(), criteria.currency());
    }

    /** What all claims earn together. */
    public Money saved() {
        return Money.sum(claims.stream().map(ClaimDraft::discount).toList(), criteria.currency());
    }

    /** What credits take off all claims together. */
    public Money credited() {
        return Money.sum(
                claims.stream()
                        .flatMap(claim -> claim.credits().stream())
                        .map(Settling.Use::used)
                        .toList(),
                criteria.currency());
    }

    /** What remains of the limit; below zero when claims taken in by hand cost more. Empty without a limit. */
    public Optional<Money> left() {
        Money limit = criteria.paying().limit();
        return limit == null ? Optional.empty() : Optional.of(limit.minus(toPay()));
    }

    /** The largest discount another choice could save beyond this one; zero = exact. */
    public Money error() {
        return line == null ? Money.zero(criteria.currency()) : line.error();
    }

    /** In the order of the reasons; reasons that keep nothing out are absent. */
    public List<LeftOutTotal> leftOut() {
        Map<LeftOutReason, List<Money>> found = new EnumMap<>(LeftOutReason.class);
        for (Row row : rows) {
            if (row.decision() instanceof Decision.LeftOut out) {
                found.computeIfAbsent(out.reason(), none -> new ArrayList<>())
                        .add(row.candidate().invoice().open());
            }
        }
        return found.entrySet().stream()
                .map(entry -> new LeftOutTotal(entry.getKey(), entry.getValue().size(), byCurrency(entry.getValue())))
                .toList();
    }

    /** Amounts of several currencies, never added across. */
    public static List<Money> byCurrency(List<Money> amounts) {
        Map<String, Money> totals = new LinkedHashMap<>();
        amounts.forEach(amount -> totals.merge(amount.currency().getCurrencyCode(), amount, Money::plus));
        return List.copyOf(totals.values());
    }

    /** The four ways side by side over the same queue; empty without a limit. */
    public List<WayOutcome> ways() {
        Money limit = criteria.paying().limit();
        if (limit == null) {
            return List.of();
        }
        return Arrays.stream(CashWay.values()).map(way -> outcome(way, limit)).toList();
    }

    private WayOutcome outcome(CashWay way, Money limit) {
        Money none = Money.zero(criteria.currency());
        Money smallest = criteria.paying().smallest();
        CashLine chosen = CashLine.choose(way, waiting, limit, smallest == null ? none : smallest);
        Money spends = none;
        Money saves = none;
        Money lateCash = none;
        int count = 0;
        int late = 0;
        for (int i = 0; i < waiting.size(); i++) {
            CashLine.Waiting claim = waiting.get(i);
            if (chosen.taken()[i]) {
                count++;
                spends = spends.plus(claim.amount());
                saves = saves.plus(claim.discount());
            } else if (i == chosen.part()) {
                Part part = Part.of(queue.get(i).claim(), criteria, chosen.left());
                count++;
                spends = spends.plus(part.cash());
                saves = saves.plus(part.discount());
            } else if (claim.late()) {
                late++;
                lateCash = lateCash.plus(claim.amount());
            }
        }
        return new WayOutcome(way, count, spends, saves, late, lateCash, chosen.error());
    }

    /** What a claim pays when it is paid in part: its invoices by due date, while the cash lasts. */
    private record Part(Map<InvoiceId, Decision.Taken> taken, Money cash, Money discount) {
        static Part of(ClaimDraft claim, Criteria criteria, Money limit) {
            Map<InvoiceId, Decision.Taken> taken = new HashMap<>();
            Money cash = Money.zero(limit.currency());
            Money discount = cash;
            List<Row> byDue = claim.rows().stream()
                    .sorted(Comparator.comparing(
                                    (Row row) -> row.candidate().invoice().dueDate())
                            .thenComparing(row -> row.candidate().invoice().id().value()))
                    .toList();
            for (Row row : byDue) {
                Decision.Taken whole = (Decision.Taken) row.decision();
                Money left = limit.minus(cash);
                if (whole.payment().cash().compareTo(left) <= 0) {
                    taken.put(row.candidate().invoice().id(), whole);
                    cash = cash.plus(whole.payment().cash());
                    discount = discount.plus(whole.payment().discount());
                } else if (left.isPositive()) {
                    OpenInvoice rest = row.candidate().invoice().lessCredit(whole.credit());
                    var payment = rest.pay(left, criteria.checkDate(), criteria.graceDays());
                    taken.put(
                            row.candidate().invoice().id(),
                            new Decision.Taken(whole.credit(), payment, whole.byHand()));
                    cash = cash.plus(payment.cash());
                    discount = discount.plus(payment.discount());
                }
            }
            return new Part(taken, cash, discount);
        }
    }

    /** The state of one computation; nothing of it is seen outside. */
    private static final class Computing {
        private final Criteria criteria;
        private final List<Candidate> candidates;
        private final Marks marks;
        private final Row[] rows;
        private final Map<InvoiceId, Integer> places = new HashMap<>();
        private final List<ClaimDraft> claims = new ArrayList<>();
        private final List<ClaimDraft> payable = new ArrayList<>();
        private final List<Queued> queue = new ArrayList<>();
        private final List<OffsetProposal> offsets = new ArrayList<>();
        private final List<CreditOut> creditsOut = new ArrayList<>();
        private List<CashLine.Waiting> waiting = List.of();
        private @Nullable CashLine line;

        Computing(Criteria criteria, List<Candidate> candidates, Marks marks) {
            this.criteria = criteria;
            this.candidates = candidates;
            this.marks = marks;
            this.rows = new Row[candidates.size()];
        }

        /** @param out what was taken out by hand, with the first reason that keeps it out */
        void filter(Map<InvoiceId, Decision.LeftOut> out) {
            for (int i = 0; i < rows.length; i++) {
                Candidate candidate = candidates.get(i);
                InvoiceId id = candidate.invoice().id();
                places.put(id, i);
                Decision.LeftOut why = out.containsKey(id)
                        ? out.get(id)
                        : Eligibility.whyNot(candidate, criteria).orElse(null);
                if (why != null) {
                    decide(candidate, why);
                }
            }
        }

        private void decide(Candidate candidate, Decision decision) {
            int at = places.get(candidate.invoice().id());
            rows[at] = new Row(candidate, decision, criteria.lostIfItWaits(candidate.invoice()));
        }

        /** Credits, discount, one claim a payee or an invoice, and the smallest payment. */
        void group(List<CreditCandidate> credits) {
            Map<Long, List<OpenCredit>> usable = new HashMap<>();
            Map<InvoiceId, CreditCandidate> idle = new LinkedHashMap<>();
            for (CreditCandidate credit : credits) {
                Optional<Decision.LeftOut> why = Eligibility.whyNot(credit, criteria);
                if (why.isPresent()) {
                    creditsOut.add(new CreditOut(credit, why.get().inWords()));
                } else if (marks.out().contains(credit.credit().id())) {
                    creditsOut.add(new CreditOut(credit, LeftOutReason.TAKEN_OUT_BY_HAND.words()));
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
                    offsets.add(new OffsetProposal(one.payee(), one.settling()));
                    one.settling()
                            .uses()
                            .forEach(use -> idle.remove(use.credit().id()));
                }
                leaveOut(one.members(), LeftOutReason.COVERED_BY_CREDITS);
            }
            formed.small().forEach(one -> leaveOut(one.members(), LeftOutReason.UNDER_SMALLEST_PAYMENT));
            for (ClaimForming.Formed one : formed.payable()) {
                payable.add(claim(one.payee(), one.members(), one.settling(), one.apart()));
                one.settling().uses().forEach(use -> idle.remove(use.credit().id()));
            }
            idle.values().forEach(credit -> creditsOut.add(new CreditOut(credit, "nothing here to reduce")));
        }

        private ClaimDraft claim(Payee payee, List<Candidate> members, Settling settling, boolean apart) {
            List<Row> taken = new ArrayList<>();
            for (int i = 0; i < members.size(); i++) {
                Candidate member = members.get(i);
                Settling.Line settled = settling.lines().get(i);
                boolean byHand = marks.in().contains(member.invoice().id());
                decide(member, new Decision.Taken(settled.credit(), settled.payment(), byHand));
                taken.add(rows[places.get(member.invoice().id())]);
            }
            return new ClaimDraft(
                    payee, List.copyOf(taken), settling.uses(), settling.cash(), settling.discount(), apart);
        }

        private void leaveOut(List<Candidate> members, LeftOutReason reason) {
            members.forEach(member -> decide(member, new Decision.LeftOut(reason, "")));
        }

        /** Orders the claims by their strongest invoice and pays as many as the limit allows. */
        void giveOutCash() {
            record Placed(ClaimDraft claim, Strength strength) {}
            List<ClaimDraft> inOrder = payable.stream()
                    .map(claim -> new Placed(claim, Strength.of(claim, criteria)))
                    .sorted(Comparator.comparing(Placed::strength))
                    .map(Placed::claim)
                    .toList();
            waiting = inOrder.stream().map(this::waiting).toList();
            Money limit = criteria.paying().limit();
            if (limit == null) {
                inOrder.forEach(claim -> queue.add(new Queued(claim, true)));
                claims.addAll(inOrder);
                return;
            }
            Money smallest = criteria.paying().smallest();
            CashLine drawn = CashLine.choose(
                    criteria.paying().way(),
                    waiting,
                    limit,
                    smallest == null ? Money.zero(limit.currency()) : smallest);
            line = drawn;
            for (int i = 0; i < inOrder.size(); i++) {
                ClaimDraft claim = inOrder.get(i);
                if (i == drawn.part()) {
                    claim = inPart(claim, drawn.left());
                } else if (!drawn.taken()[i]) {
                    leaveOut(claim.rows().stream().map(Row::candidate).toList(), LeftOutReason.BEYOND_THE_CASH_LINE);
                }
                boolean taken = drawn.taken()[i] || i == drawn.part();
                queue.add(new Queued(taken ? claim : inOrder.get(i), taken));
                if (taken) {
                    claims.add(claim);
                }
            }
        }

        /** Pays what the cash left allows; an invoice left out gives its share of the credits back. */
        private ClaimDraft inPart(ClaimDraft claim, Money limit) {
            Part part = Part.of(claim, criteria, limit);
            List<Candidate> kept = new ArrayList<>();
            List<Settling.Owed> owed = new ArrayList<>();
            for (Row row : claim.rows()) {
                Decision.Taken now = part.taken().get(row.candidate().invoice().id());
                if (now == null) {
                    leaveOut(List.of(row.candidate()), LeftOutReason.BEYOND_THE_CASH_LINE);
                } else {
                    kept.add(row.candidate());
                    boolean whole = now.equals(row.decision());
                    owed.add(new Settling.Owed(
                            row.candidate().invoice(),
                            whole ? null : now.payment().cash()));
                }
            }
            List<OpenCredit> credits =
                    claim.credits().stream().map(Settling.Use::credit).toList();
            Settling settling = Settling.of(owed, credits, criteria.checkDate(), criteria.graceDays());
            return claim(claim.payee(), kept, settling, claim.apart());
        }

        private CashLine.Waiting waiting(ClaimDraft claim) {
            boolean late = claim.rows().stream()
                    .anyMatch(row -> row.candidate().invoice().dueDate().isBefore(criteria.checkDate()));
            boolean own = claim.rows().get(0).candidate().ownCheck();
            boolean byHand =
                    marks.takesIn(claim.rows().stream().map(Row::candidate).toList());
            return new CashLine.Waiting(claim.amount(), claim.discount(), late, byHand, own);
        }
    }

    /** How urgently a claim wants cash: the strongest key of its invoices. */
    private record Strength(int priority, LocalDate discountUntil, LocalDate due, LocalDate dated, long entry)
            implements Comparable<Strength> {
        private static final Comparator<Strength> ORDER = Comparator.comparingInt(Strength::priority)
                .thenComparing(Strength::discountUntil)
                .thenComparing(Strength::due)
                .thenComparing(Strength::dated)
                .thenComparing(Strength::entry);

        static Strength of(ClaimDraft claim, Criteria criteria) {
            return claim.rows().stream()
                    .map(row -> of(row.candidate(), criteria))
                    .min(ORDER)
                    .orElseThrow();
        }

        private static Strength of(Candidate candidate, Criteria criteria) {
            OpenInvoice invoice = candidate.invoice();
            LocalDate until = invoice.discount().until();
            boolean lives = until != null && invoice.discount().livesOn(criteria.checkDate(), criteria.graceDays());
            return new Strength(
                    candidate.payee().priority(),
                    lives ? until : LocalDate.MAX,
                    invoice.dueDate(),
                    invoice.invoiceDate(),
                    invoice.id().value());
        }

        @Override
        public int compareTo(Strength other) {
            return ORDER.compare(this, other);
        }
    }
}
