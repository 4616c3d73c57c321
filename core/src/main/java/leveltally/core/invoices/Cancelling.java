package leveltally.core.invoices;

import java.time.LocalDate;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * The cancellation of a posted document, which is never edited: its entry with the sides exchanged, on a day from its own to
 * today, while nothing of it is paid, used or reserved.
 */
public record Cancelling(JournalEntry entry, Money amount) {
    /**
     * A document as it stands.
     *
     * @param name what people call it, such as {@code Invoice R-7 of Bollard Foundry}
     * @param days from which ledger dates on all of it is open
     * @param batch the name of the batch that is about to pay it; null where none is
     */
    public record Standing(
            String name,
            Money amount,
            Money open,
            LedgerDays days,
            @Nullable String batch,
            boolean cancelled,
            JournalEntry entry) {}

    /** @throws Refusal when it is cancelled already, paid in part, reserved, or that day lies outside */
    public static Cancelling of(Standing document, LocalDate on, LocalDate today) {
        if (document.cancelled()) {
            throw Refusal.conflict(
                    "cancelled-already", document.name() + " is cancelled already. Look at its history.");
        }
        if (document.batch() != null) {
            throw Refusal.conflict(
                    "in-another-batch",
                    document.name() + " stands in the batch “" + document.batch() + "”. Take it out there first.");
        }
        if (!document.open().equals(document.amount())) {
            throw Refusal.conflict(
                    "paid-in-part",
                    document.amount().minus(document.open()) + " of " + document.name()
                            + " is settled already, so it cannot be cancelled whole. Undo what settled it first, or enter a credit.");
        }
        if (!document.days().reach(on) || on.isAfter(today)) {
            throw Refusal.invalidField(
                    "cancel-date",
                    "on",
                    document.name() + " is " + document.days().inWords()
                            + ", so it can be cancelled on a day from then to today, " + Dates.inWords(today) + ".");
        }
        return new Cancelling(
                document.entry().reversed(on, "Cancelled: " + document.entry().text()), document.amount());
    }
}
