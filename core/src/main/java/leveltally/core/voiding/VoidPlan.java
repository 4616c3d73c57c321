package leveltally.core.voiding;

import java.time.LocalDate;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.payments.PaymentState;

/**
 * What voiding a check would write: the entry of its payment with the sides exchanged, on a day between the payment's
 * ledger date and today. Locked periods do not move, because the entry is dated in an open one.
 */
public record VoidPlan(JournalEntry entry) {

    /** @throws Refusal when the check cannot be voided, or not on that day */
    public static VoidPlan of(long number, PaymentState state, JournalEntry paid, LocalDate on, LocalDate today) {
        if (state == PaymentState.CLEARED) {
            throw Refusal.conflict(
                    "cleared",
                    "Check " + number + " cleared at the bank, so it cannot be voided. Take its clearing back first.");
        }
        state.to(PaymentState.VOIDED, "Check " + number);
        if (paid.ledgerDate().isAfter(today)) {
            throw Refusal.invalidField(
                    "void-too-early",
                    "date",
                    "Check " + number + " is dated " + Dates.inWords(paid.ledgerDate())
                            + " in the ledger, a day that has not come. It can be voided from that day on.");
        }
        if (on.isBefore(paid.ledgerDate()) || on.isAfter(today)) {
            throw Refusal.invalidField(
                    "void-date",
                    "date",
                    "Check " + number + " can be voided on a day from " + Dates.inWords(paid.ledgerDate())
                            + " to today, " + Dates.inWords(today) + "; " + Dates.inWords(on) + " lies outside.");
        }
        return new VoidPlan(paid.reversed(on, "Void of check " + number));
    }
}
