package leveltally.core.voiding;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.Settled;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentState;

/**
 * What undoing a posted payment writes, whatever carried it: its entry with the sides exchanged, on a day between its ledger
 * date and today, and a row that mirrors each of those it settled, so that its invoices and credits are open again. Locked
 * periods do not move, because all of it is dated in an open one. What is shown before the deed and what the deed does are
 * this same plan.
 *
 * @param becomes what the payment is called then
 * @param mirrored the rows that are undone
 */
public record UndoPlan(PaymentState becomes, JournalEntry entry, List<Settled> mirrored) {
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
    }

    /**
     * The plan for paper.
     *
     * @throws Refusal when the check cannot be voided, or not on that day
     */
    public static UndoPlan voiding(Posted check, LocalDate on, LocalDate today) {
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
        JournalEntry entry = check.entry().reversed(on, "Void of " + lowered(check.name()));
        return new UndoPlan(PaymentState.VOIDED, entry, check.settled());
    }

    /** By how much each invoice and credit is open again, by its number. */
    public Map<InvoiceId, Money> openAgain() {
        Map<InvoiceId, Money> open = new TreeMap<>(java.util.Comparator.comparing(InvoiceId::value));
        mirrored.forEach(row -> open.merge(row.item(), row.amount(), Money::plus));
        return open;
    }

    private static String lowered(String name) {
        return name.substring(0, 1).toLowerCase(java.util.Locale.ROOT) + name.substring(1);
    }
}
