package leveltally.core.selection;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.invoices.InvoiceId;
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

    private Selection(Selecting done) {
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

    private static Selecting computed(
            Criteria criteria,
            List<Candidate> candidates,
            List<CreditCandidate> credits,
            Marks marks,
            Map<InvoiceId, Decision.LeftOut> out) {
        Selecting computing = new Selecting(criteria, candidates, marks);
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
        return new WaysToSpend(criteria, queue, waiting).all();
    }
}
