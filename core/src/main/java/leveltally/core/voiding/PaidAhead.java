package leveltally.core.voiding;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.invoices.InvoiceId;
import leveltally.core.invoices.Settled;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.money.Money;

/**
 * A prepayment of a posted payment as undoing finds it. It ends with its payment, and what it was matched with is open again.
 *
 * @param amount what was paid ahead; {@code open} what of it is matched with nothing
 */
public record PaidAhead(InvoiceId item, String reference, Money amount, Money open, List<Match> matches) {
    /**
     * The prepayment laid against an invoice.
     *
     * @param offset by which it was done, and its {@code name}, such as {@code O-1204}
     * @param entry what it wrote; empty where both stand on one account
     * @param settled the rows it settled on both sides
     */
    public record Match(long offset, String name, LocalDate on, Optional<JournalEntry> entry, List<Settled> settled) {
        public Match {
            settled = List.copyOf(settled);
        }

        /** What takes it back on a day. */
        public Optional<JournalEntry> takenBack(LocalDate day) {
            return entry.map(one -> one.reversed(day, "Taken back: " + one.text()));
        }

        private Money matched(InvoiceId item) {
            return Money.sum(
                    settled.stream()
                            .filter(row -> row.item().equals(item))
                            .map(Settled::amount)
                            .toList(),
                    settled.get(0).amount().currency());
        }
    }

    public PaidAhead {
        matches = List.copyOf(matches);
    }

    /** Every row of its matches, on both sides. */
    public Stream<Settled> settled() {
        return matches.stream().flatMap(match -> match.settled().stream());
    }

    /** @throws Refusal where it cannot end with its payment on that day */
    void mustEndOn(LocalDate day, String payment) {
        Money matched = matches.stream().map(match -> match.matched(item)).reduce(open, Money::plus);
        if (!matched.equals(amount)) {
            throw Refusal.conflict(
                    "prepayment-refunded",
                    amount.minus(matched) + " of the prepayment " + reference + " came back from the vendor, so "
                            + payment + " cannot be undone whole. Take that refund back first.");
        }
        matches.stream().filter(match -> day.isBefore(match.on())).findFirst().ifPresent(match -> {
            throw Refusal.invalidField(
                    "matched-later",
                    "date",
                    "The prepayment " + reference + " was matched with an invoice on " + Dates.inWords(match.on())
                            + ", which is taken back with it. Choose that day or a later one.");
        });
    }
}
