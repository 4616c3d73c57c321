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
import leveltally.core.Dates;
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
            Payee payee, List<Row> rows, List<Settling.Use> credits, Money amount, Money discount, boolean apart) {}

    /** A claim in the order in which cash is given out; {@code taken} is false beyond the line. */
    public record Queued(ClaimDraft claim, boolean taken) {}

    /** Invoices that a vendor's credits cover altogether: to be settled without a payment. */
    public record OffsetProposal(Payee payee, Settling settling) {}

    /** A credit that is not used although the batch uses credits. */
    public record CreditOut(CreditCandidate credit, Decision.LeftOut why) {}

    /** How many invoices and credits a reason keeps out, and what is open on them, one amount a currency. */
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
        this.claims = done.claims.stream()
                .sorted(criteria.paying().order().comparator())
                .toList();
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
        Computing computing = new Computing(criteria, candidates, marks);
        computing.filter();
        computing.group(criteria.paying().credits() ? credits : List.of());
        computing.giveOutCash();
        return new Selection(computing);
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
        for (CreditOut credit : creditsOut) {
            found.computeIfAbsent(credit.why().reason(), none -> new ArrayList<>())
                    .add(credit.credit().credit().open());
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

        void filter() {
            for (int i = 0; i < rows.length; i++) {
                Candidate candidate = candidates.get(i);
                places.put(candidate.invoice().id(), i);
                Decision.LeftOut out = whyOut(candidate);
                if (out != null) {
                    decide(candidate, out);
                }
            }
        }

        private void decide(Candidate candidate, Decision decision) {
            int at = places.get(candidate.invoice().id());
            rows[at] = new Row(candidate, decision, criteria.lostIfItWaits(candidate.invoice()));
        }

        private Decision.@Nullable LeftOut whyOut(Candidate candidate) {
            OpenInvoice invoice = candidate.invoice();
            Payee payee = candidate.payee();
            String held = candidate.holdReason();
            if (held != null) {
                return out(LeftOutReason.HELD_INVOICE, held);
            }
            String vendorHeld = payee.holdReason();
            if (vendorHeld != null) {
                return out(LeftOutReason.HELD_VENDOR, vendorHeld);
            }
            String batch = candidate.reservedBy();
            if (batch != null) {
                return out(LeftOutReason.IN_ANOTHER_BATCH, batch);
            }
            if (!invoice.open().currency().equals(criteria.currency())) {
                return out(
                        LeftOutReason.OTHER_CURRENCY, invoice.open().currency().getCurrencyCode());
            }
            if (payee.method() != criteria.method()) {
                return out(LeftOutReason.OTHER_METHOD, payee.method().words());
            }
            if (!payee.reachable()) {
                return out(
                        switch (payee.method()) {
                            case CHECK -> LeftOutReason.NO_ADDRESS;
                            case CREDIT_TRANSFER -> LeftOutReason.NO_BANK_DETAILS;
                        },
                        "");
            }
            if (invoice.invoiceDate().isAfter(criteria.checkDate())) {
                return out(LeftOutReason.DATED_AFTER_CHECK_DATE, "");
            }
            if (criteria.enteredLater(invoice.ledgerDate())) {
                return out(LeftOutReason.ENTERED_IN_LATER_PERIOD, "");
            }
            if (marks.out().contains(invoice.id())) {
                return out(LeftOutReason.TAKEN_OUT_BY_HAND, "");
            }
            return null;
        }

        private static Decision.LeftOut out(LeftOutReason reason, String detail) {
            return new Decision.LeftOut(reason, detail);
        }

        /** Credits, discount, one claim a payee or an invoice, and the smallest payment. */
        void group(List<CreditCandidate> credits) {
            Map<Long, List<OpenCredit>> usable = usable(credits);
            record Key(long remitTo, long invoice) {}
            Map<Key, List<Candidate>> groups = new LinkedHashMap<>();
            for (int i = 0; i < rows.length; i++) {
                if (rows[i] == null) {
                    Candidate candidate = candidates.get(i);
                    boolean alone = candidate.ownCheck() || criteria.paying().grouping() == Paying.Grouping.INVOICE;
                    Key key = new Key(
                            candidate.payee().remitTo(),
                            alone ? candidate.invoice().id().value() : 0);
                    groups.computeIfAbsent(key, none -> new ArrayList<>()).add(candidate);
                }
            }
            groups.forEach((key, members) -> {
                // what stands alone by its own mark is paid by itself, without credits
                boolean own = members.get(0).ownCheck();
                List<OpenCredit> mine = own ? new ArrayList<>() : usable.getOrDefault(key.remitTo(), new ArrayList<>());
                claim(members, mine, key.invoice() != 0);
            });
        }

        private void claim(List<Candidate> members, List<OpenCredit> credits, boolean apart) {
            List<Settling.Owed> owed = members.stream()
                    .map(member -> new Settling.Owed(member.invoice(), null))
                    .toList();
            Settling settling = Settling.of(owed, credits, criteria.checkDate(), criteria.graceDays());
            // a credit stands in one claim at most (law L9), also when each invoice is a claim of its own
            settling.uses().forEach(use -> credits.remove(use.credit()));
            Payee payee = members.get(0).payee();
            if (!settling.cash().isPositive()) {
                if (settling.credit().isPositive()) {
                    offsets.add(new OffsetProposal(payee, settling));
                }
                leaveOut(members, LeftOutReason.COVERED_BY_CREDITS);
                return;
            }
            Money smallest = criteria.paying().smallest();
            boolean byHand = byHand(members);
            if (smallest != null && settling.cash().compareTo(smallest) < 0 && !byHand) {
                leaveOut(members, LeftOutReason.UNDER_SMALLEST_PAYMENT);
                return;
            }
            List<Row> taken = new ArrayList<>();
            for (int i = 0; i < members.size(); i++) {
                Candidate member = members.get(i);
                Settling.Line settled = settling.lines().get(i);
                Decision.Taken decision = new Decision.Taken(
                        settled.credit(),
                        settled.payment(),
                        marks.in().contains(member.invoice().id()));
                decide(member, decision);
                taken.add(rows[places.get(member.invoice().id())]);
            }
            payable.add(new ClaimDraft(
                    payee, List.copyOf(taken), settling.uses(), settling.cash(), settling.discount(), apart));
        }

        private boolean byHand(List<Candidate> members) {
            return members.stream()
                    .anyMatch(m -> marks.in().contains(m.invoice().id()));
        }

        private void leaveOut(List<Candidate> members, LeftOutReason reason) {
            members.forEach(member -> decide(member, out(reason, "")));
        }

        private Map<Long, List<OpenCredit>> usable(List<CreditCandidate> credits) {
            Map<Long, List<OpenCredit>> usable = new HashMap<>();
            for (CreditCandidate candidate : credits) {
                Decision.LeftOut why = whyOut(candidate);
                if (why == null) {
                    usable.computeIfAbsent(candidate.remitTo(), none -> new ArrayList<>())
                            .add(candidate.credit());
                } else {
                    creditsOut.add(new CreditOut(candidate, why));
                }
            }
            return usable;
        }

        private Decision.@Nullable LeftOut whyOut(CreditCandidate candidate) {
            OpenCredit credit = candidate.credit();
            String held = candidate.holdReason();
            if (held != null) {
                return out(LeftOutReason.HELD_INVOICE, held);
            }
            String batch = candidate.reservedBy();
            if (batch != null) {
                return out(LeftOutReason.IN_ANOTHER_BATCH, batch);
            }
            if (!credit.open().currency().equals(criteria.currency())) {
                return out(
                        LeftOutReason.OTHER_CURRENCY, credit.open().currency().getCurrencyCode());
            }
            if (credit.date().isAfter(criteria.checkDate())) {
                return out(LeftOutReason.DATED_AFTER_CHECK_DATE, "");
            }
            if (criteria.enteredLater(credit.ledgerDate())) {
                return out(LeftOutReason.ENTERED_IN_LATER_PERIOD, "");
            }
            LocalDate from = credit.usableFrom();
            if (from != null && from.isAfter(criteria.checkDate())) {
                return out(LeftOutReason.NOT_USABLE_YET, "from " + Dates.inWords(from));
            }
            return marks.out().contains(credit.id()) ? out(LeftOutReason.TAKEN_OUT_BY_HAND, "") : null;
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

        private ClaimDraft inPart(ClaimDraft claim, Money limit) {
            Part part = Part.of(claim, criteria, limit);
            List<Row> kept = new ArrayList<>();
            for (Row row : claim.rows()) {
                Decision.Taken taken =
                        part.taken().get(row.candidate().invoice().id());
                if (taken == null) {
                    leaveOut(List.of(row.candidate()), LeftOutReason.BEYOND_THE_CASH_LINE);
                } else {
                    decide(row.candidate(), taken);
                    kept.add(rows[places.get(row.candidate().invoice().id())]);
                }
            }
            // an invoice left out gives its share of the credits back
            List<Settling.Owed> owed = kept.stream()
                    .map(row -> new Settling.Owed(
                            row.candidate().invoice(),
                            ((Decision.Taken) row.decision()).payment().cash()))
                    .toList();
            List<OpenCredit> credits =
                    claim.credits().stream().map(Settling.Use::credit).toList();
            Settling settling = Settling.of(owed, credits, criteria.checkDate(), criteria.graceDays());
            return new ClaimDraft(claim.payee(), kept, settling.uses(), part.cash(), part.discount(), claim.apart());
        }

        private CashLine.Waiting waiting(ClaimDraft claim) {
            boolean late = claim.rows().stream()
                    .anyMatch(row -> row.candidate().invoice().dueDate().isBefore(criteria.checkDate()));
            boolean own = claim.rows().get(0).candidate().ownCheck();
            boolean byHand = byHand(claim.rows().stream().map(Row::candidate).toList());
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
