package leveltally.core.voiding;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.Settled;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.money.Money;
import leveltally.core.money.ProRata;
import leveltally.core.payments.PaymentState;
import org.jspecify.annotations.Nullable;

/**
 * What undoing a posted payment writes, whatever carried it: its entry with the sides exchanged, on a day between its ledger
 * date and today, and a row that mirrors each of those it settled, so that its invoices and credits are open again. Locked
 * periods do not move, because all of it is dated in an open one. What is shown before the deed and what the deed does are
 * this same plan.
 *
 * <p>An invoice that is cancelled instead of left open takes what it would bring back to the payables account to the accounts
 * chosen for it, in the same entry. Credits that were used are open again whatever becomes of the invoices. What was paid
 * ahead ends: a prepayment matched already is unmatched first, and its invoice is open again.
 *
 * @param becomes what the payment is called then
 * @param mirrored the rows that are undone
 * @param chosen what of it goes to other accounts than the payment's entry names (law L4)
 * @param cancelled what is cancelled of each invoice, dated like the entry
 * @param held invoices that are held from then on, with the reason
 * @param ended the prepayments that end, with the matches that are taken back
 * @param handedOver what it settled stays settled, because its money is owed to the state instead
 */
public record UndoPlan(
        PaymentState becomes,
        JournalEntry entry,
        List<Settled> mirrored,
        List<Chosen> chosen,
        Map<InvoiceId, Money> cancelled,
        Map<InvoiceId, String> held,
        List<PaidAhead> ended,
        boolean handedOver) {
    /**
     * A posted payment as undoing finds it.
     *
     * @param name what people call it, such as {@code Check 10012}
     * @param paper true for a check, which is voided; anything else is reversed
     * @param settled everything it settled
     * @param ahead everything it paid ahead
     */
    public record Posted(
            String name,
            boolean paper,
            PaymentState state,
            JournalEntry entry,
            List<Settled> settled,
            List<PaidAhead> ahead) {
        public Posted {
            settled = List.copyOf(settled);
            ahead = List.copyOf(ahead);
        }

        private PaymentState becomes() {
            return paper ? PaymentState.VOIDED : PaymentState.REVERSED;
        }
    }

    /**
     * What goes to another account than the payment's entry names, because whoever undid it chose so.
     *
     * @param item null where all of a payment goes to another account
     * @param amount credited to {@code to} instead of {@code from}; below zero for an allowance taken back
     */
    public record Chosen(@Nullable InvoiceId item, AccountId from, AccountId to, Money amount) {}

    public UndoPlan {
        mirrored = List.copyOf(mirrored);
        chosen = List.copyOf(chosen);
        cancelled = Map.copyOf(cancelled);
        held = Map.copyOf(held);
        ended = List.copyOf(ended);
    }

    /**
     * The plan for one payment.
     *
     * @param outcomes what becomes of single invoices; those not named are brought back
     * @throws Refusal when it cannot be undone, or not on that day
     */
    public static UndoPlan of(Posted payment, Map<InvoiceId, Outcome> outcomes, LocalDate on, LocalDate today) {
        mustBeUndoable(payment, on, today);
        payment.ahead().forEach(ahead -> ahead.mustEndOn(on, lowered(payment.name())));
        JournalEntry back =
                payment.entry().reversed(on, (payment.paper() ? "Void of " : "Reversal of ") + lowered(payment.name()));
        Map<InvoiceId, Money> brought = byItem(payment.settled());
        Set<InvoiceId> owed = invoices(payment.settled());
        List<Chosen> chosen = new ArrayList<>();
        Map<InvoiceId, Money> cancelled = new HashMap<>();
        Map<InvoiceId, String> held = new HashMap<>();
        outcomes.forEach((item, outcome) -> {
            Money amount = brought.get(item);
            if (amount == null) {
                throw Refusal.conflict(
                        "not-settled-by",
                        payment.name() + " settled nothing of entry " + item.value() + ". Look at its lines again.");
            }
            if (outcome instanceof Outcome.BringBackHeld hold) {
                held.put(item, hold.reason());
            } else if (outcome instanceof Outcome.Cancel cancel) {
                if (!owed.contains(item)) {
                    throw Refusal.conflict(
                            "credit-comes-back",
                            "Entry " + item.value() + " is a credit that " + lowered(payment.name())
                                    + " used: it is open again. Only an invoice can be cancelled.");
                }
                cancelled.put(item, amount);
                chosen.addAll(cancelling(item, cancel, amount));
            }
        });
        JournalEntry entry = chosen.isEmpty() ? back : new JournalEntry(on, back.text(), netted(back.lines(), chosen));
        return new UndoPlan(
                payment.becomes(), entry, payment.settled(), chosen, cancelled, held, payment.ahead(), false);
    }

    /**
     * The plan for a check whose money is handed over as unclaimed property: it is voided, what it settled stays settled, and
     * exactly what it was made out for is owed on another account.
     *
     * @param cash the account its money is on
     * @param to the account of what is owed to the state
     * @throws Refusal when it cannot be undone, or not on that day
     */
    public static UndoPlan handingOver(Posted payment, AccountId cash, AccountId to, LocalDate on, LocalDate today) {
        mustBeUndoable(payment, on, today);
        JournalEntry back = payment.entry().reversed(on, payment.name() + " handed over as unclaimed");
        List<Chosen> chosen = back.lines().stream()
                .filter(line -> !line.account().equals(cash))
                .map(line -> new Chosen(null, line.account(), to, line.debited().negated()))
                .toList();
        JournalEntry entry = new JournalEntry(on, back.text(), netted(back.lines(), chosen));
        return new UndoPlan(payment.becomes(), entry, List.of(), chosen, Map.of(), Map.of(), List.of(), true);
    }

    private static void mustBeUndoable(Posted payment, LocalDate on, LocalDate today) {
        String done = payment.becomes().words();
        if (payment.paper() && payment.state() == PaymentState.CLEARED) {
            throw Refusal.conflict(
                    "cleared",
                    payment.name() + " cleared at the bank, so it cannot be voided. Take its clearing back first.");
        }
        payment.state().to(payment.becomes(), payment.name());
        LocalDate posted = payment.entry().ledgerDate();
        if (posted.isAfter(today)) {
            throw Refusal.invalidField(
                    "void-too-early",
                    "date",
                    payment.name() + " is dated " + Dates.inWords(posted)
                            + " in the ledger, a day that has not come. It can be " + done + " from that day on.");
        }
        if (on.isBefore(posted) || on.isAfter(today)) {
            throw Refusal.invalidField(
                    "void-date",
                    "date",
                    payment.name() + " can be " + done + " on a day from " + Dates.inWords(posted) + " to today, "
                            + Dates.inWords(today) + "; " + Dates.inWords(on) + " lies outside.");
        }
    }

    private static List<Chosen> cancelling(InvoiceId item, Outcome.Cancel cancel, Money amount) {
        List<Money> shares = ProRata.of(
                amount, cancel.against().stream().map(Outcome.Line::weight).toList());
        List<Chosen> chosen = new ArrayList<>();
        for (int i = 0; i < shares.size(); i++) {
            if (!shares.get(i).isZero()) {
                chosen.add(new Chosen(
                        item, cancel.payables(), cancel.against().get(i).account(), shares.get(i)));
            }
        }
        return chosen;
    }

    /** One line an account, debits first; what comes to nothing is left away. */
    private static List<JournalLine> netted(List<JournalLine> back, List<Chosen> chosen) {
        Map<AccountId, Money> debits = new LinkedHashMap<>();
        back.forEach(line -> debits.merge(line.account(), line.debited(), Money::plus));
        chosen.forEach(one -> {
            debits.merge(one.from(), one.amount(), Money::plus);
            debits.merge(one.to(), one.amount().negated(), Money::plus);
        });
        List<JournalLine> net = new ArrayList<>();
        debits.forEach((account, amount) -> {
            if (amount.isPositive()) {
                net.add(JournalLine.debit(account, amount));
            } else if (amount.isNegative()) {
                net.add(JournalLine.credit(account, amount.negated()));
            }
        });
        net.sort(Comparator.comparing(JournalLine::side));
        return net;
    }

    private static Map<InvoiceId, Money> byItem(List<Settled> rows) {
        Map<InvoiceId, Money> amounts = new TreeMap<>(Comparator.comparing(InvoiceId::value));
        rows.forEach(row -> amounts.merge(row.item(), row.amount(), Money::plus));
        return amounts;
    }

    private static Set<InvoiceId> invoices(List<Settled> rows) {
        Set<InvoiceId> invoices = new HashSet<>();
        rows.stream().filter(row -> row.of().raises()).forEach(row -> invoices.add(row.item()));
        return invoices;
    }

    /** Everything the deed writes into the ledger: the matches it takes back, then the payment's own. */
    public List<JournalEntry> entries() {
        LocalDate on = entry.ledgerDate();
        Stream<JournalEntry> unmatched = ended.stream()
                .flatMap(ahead -> ahead.matches().stream())
                .flatMap(match -> match.takenBack(on).stream());
        return Stream.concat(unmatched, Stream.of(entry)).toList();
    }

    /** Every row that is undone, those of the matches included. */
    List<Settled> undone() {
        return Stream.concat(mirrored.stream(), ended.stream().flatMap(PaidAhead::settled))
                .toList();
    }

    /** The invoices that the payment itself settled: somebody chooses what becomes of each. */
    public Set<InvoiceId> invoices() {
        return invoices(mirrored);
    }

    /** By how much each invoice and credit is open again, by its number; what is cancelled or ends is not. */
    public Map<InvoiceId, Money> openAgain() {
        Map<InvoiceId, Money> open = byItem(undone());
        cancelled.keySet().forEach(open::remove);
        ended.forEach(ahead -> open.remove(ahead.item()));
        return open;
    }

    /** True where an invoice is cancelled, or money goes to the state: such a deed needs a second person. */
    public boolean needsSecond() {
        return handedOver || !cancelled.isEmpty();
    }

    /** A name in the middle of a sentence. */
    public static String lowered(String name) {
        return name.substring(0, 1).toLowerCase(java.util.Locale.ROOT) + name.substring(1);
    }
}
