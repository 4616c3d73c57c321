package leveltally.core.voiding;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
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

/**
 * What undoing a posted payment writes, whatever carried it: its entry with the sides exchanged, on a day between its ledger
 * date and today, and a row that mirrors each of those it settled, so that its invoices and credits are open again. Locked
 * periods do not move, because all of it is dated in an open one. What is shown before the deed and what the deed does are
 * this same plan.
 *
 * <p>An invoice that is cancelled instead of left open takes what it would bring back to the payables account to the accounts
 * chosen for it, in the same entry. Credits that were used are open again whatever becomes of the invoices.
 *
 * @param becomes what the payment is called then
 * @param mirrored the rows that are undone
 * @param cancelled what is cancelled of each invoice, dated like the entry
 * @param held invoices that are held from then on, with the reason
 */
public record UndoPlan(
        PaymentState becomes,
        JournalEntry entry,
        List<Settled> mirrored,
        Map<InvoiceId, Money> cancelled,
        Map<InvoiceId, String> held) {
    /**
     * A posted payment as undoing finds it.
     *
     * @param name what people call it, such as {@code Check 10012}
     * @param settled everything it settled
     */
    public record Posted(String name, PaymentState state, JournalEntry entry, List<Settled> settled) {
        public Posted {
            settled = List.copyOf(settled);
        }
    }

    public UndoPlan {
        mirrored = List.copyOf(mirrored);
        cancelled = Map.copyOf(cancelled);
        held = Map.copyOf(held);
    }

    /** The plan for paper that brings every invoice back. */
    public static UndoPlan voiding(Posted check, LocalDate on, LocalDate today) {
        return voiding(check, Map.of(), on, today);
    }

    /**
     * The plan for paper.
     *
     * @param outcomes what becomes of single invoices; those not named are brought back
     * @throws Refusal when the check cannot be voided, or not on that day
     */
    public static UndoPlan voiding(Posted check, Map<InvoiceId, Outcome> outcomes, LocalDate on, LocalDate today) {
        if (check.state() == PaymentState.CLEARED) {
            throw Refusal.conflict(
                    "cleared",
                    check.name() + " cleared at the bank, so it cannot be voided. Take its clearing back first.");
        }
        check.state().to(PaymentState.VOIDED, check.name());
        LocalDate posted = check.entry().ledgerDate();
        if (posted.isAfter(today)) {
            throw Refusal.invalidField(
                    "void-too-early",
                    "date",
                    check.name() + " is dated " + Dates.inWords(posted)
                            + " in the ledger, a day that has not come. It can be voided from that day on.");
        }
        if (on.isBefore(posted) || on.isAfter(today)) {
            throw Refusal.invalidField(
                    "void-date",
                    "date",
                    check.name() + " can be voided on a day from " + Dates.inWords(posted) + " to today, "
                            + Dates.inWords(today) + "; " + Dates.inWords(on) + " lies outside.");
        }
        JournalEntry back = check.entry().reversed(on, "Void of " + lowered(check.name()));
        Map<InvoiceId, Money> brought = byItem(check.settled());
        Map<InvoiceId, Money> cancelled = new HashMap<>();
        Map<InvoiceId, String> held = new HashMap<>();
        List<JournalLine> lines = new ArrayList<>(back.lines());
        outcomes.forEach((item, outcome) -> {
            Money amount = brought.get(item);
            if (amount == null) {
                throw Refusal.conflict(
                        "not-settled-by",
                        check.name() + " settled nothing of entry " + item.value() + ". Look at its lines again.");
            }
            if (outcome instanceof Outcome.BringBackHeld hold) {
                held.put(item, hold.reason());
            } else if (outcome instanceof Outcome.Cancel cancel) {
                cancelled.put(item, amount);
                lines.addAll(cancelling(cancel, amount));
            }
        });
        JournalEntry entry = cancelled.isEmpty() ? back : new JournalEntry(on, back.text(), netted(lines));
        return new UndoPlan(PaymentState.VOIDED, entry, check.settled(), cancelled, held);
    }

    private static List<JournalLine> cancelling(Outcome.Cancel cancel, Money amount) {
        List<JournalLine> lines = new ArrayList<>();
        lines.add(JournalLine.debit(cancel.payables(), amount));
        List<Money> shares = ProRata.of(
                amount, cancel.against().stream().map(Outcome.Line::weight).toList());
        for (int i = 0; i < shares.size(); i++) {
            AccountId account = cancel.against().get(i).account();
            Money share = shares.get(i);
            if (share.isPositive()) {
                lines.add(JournalLine.credit(account, share));
            } else if (share.isNegative()) {
                // an allowance that the invoice had is taken back as well
                lines.add(JournalLine.debit(account, share.negated()));
            }
        }
        return lines;
    }

    /** One line an account, debits first; what comes to nothing is left away. */
    private static List<JournalLine> netted(List<JournalLine> lines) {
        Map<AccountId, Money> debits = new LinkedHashMap<>();
        lines.forEach(line -> debits.merge(
                line.account(),
                line.side() == JournalLine.Side.DEBIT
                        ? line.amount()
                        : line.amount().negated(),
                Money::plus));
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

    /** By how much each invoice and credit is open again, by its number; what is cancelled is not. */
    public Map<InvoiceId, Money> openAgain() {
        Map<InvoiceId, Money> open = byItem(mirrored);
        cancelled.keySet().forEach(open::remove);
        return open;
    }

    private static String lowered(String name) {
        return name.substring(0, 1).toLowerCase(java.util.Locale.ROOT) + name.substring(1);
    }
}
