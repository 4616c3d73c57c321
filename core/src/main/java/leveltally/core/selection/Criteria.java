package leveltally.core.selection;

import java.time.LocalDate;
import java.util.Currency;
import java.util.Optional;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.invoices.OpenInvoice;
import leveltally.core.vendors.PaymentMethod;
import org.jspecify.annotations.Nullable;

/**
 * What a batch asks for: everything due on or before {@code dueBy}, or losing its discount before {@code nextRun}, that
 * passes the filters.
 *
 * @param nextRun the check date planned for the following batch; null leaves discounts out of it
 */
public record Criteria(
        Currency currency,
        PaymentMethod method,
        LocalDate checkDate,
        LocalDate ledgerDate,
        LocalDate dueBy,
        @Nullable LocalDate nextRun,
        int graceDays,
        Filters filters,
        Paying paying) {
    private static final int FURTHEST_CHECK_DATE = 60;

    public Criteria {
        if (nextRun != null && !nextRun.isAfter(checkDate)) {
            throw Refusal.invalidField(
                    "next-run-not-later",
                    "nextRun",
                    "The next run, " + Dates.inWords(nextRun) + ", must be after the check date, "
                            + Dates.inWords(checkDate) + ". Choose a later day.");
        }
    }

    /**
     * A check date lies between today and 60 days ahead: one of yesterday would revive a discount that lapsed.
     *
     * @throws Refusal when it does not
     */
    public static LocalDate checkDate(LocalDate wanted, LocalDate today) {
        if (wanted.isBefore(today) || wanted.isAfter(today.plusDays(FURTHEST_CHECK_DATE))) {
            throw Refusal.invalidField(
                    "check-date-outside",
                    "checkDate",
                    "A check date lies between today, " + Dates.inWords(today) + ", and "
                            + Dates.inWords(today.plusDays(FURTHEST_CHECK_DATE)) + ", not on " + Dates.inWords(wanted)
                            + ". Choose a day in between.");
        }
        return wanted;
    }

    /** The dates, joined by “or”. */
    public boolean asksFor(OpenInvoice invoice) {
        return !invoice.dueDate().isAfter(dueBy) || lostIfItWaits(invoice);
    }

    public boolean asksFor(Candidate candidate) {
        return asksFor(candidate.invoice()) && filters.passes(candidate);
    }

    /**
     * Why criteria never looked at an invoice.
     *
     * @param notDue because of its date; otherwise because of a range
     */
    public record NotAsked(boolean notDue, String detail) {}

    /** Why an invoice asked for by name was never looked at; empty when it was. */
    public Optional<NotAsked> whyNotAsked(Candidate candidate) {
        if (!asksFor(candidate.invoice())) {
            return Optional.of(new NotAsked(
                    true,
                    "due on " + Dates.inWords(candidate.invoice().dueDate())
                            + (nextRun == null ? "" : ", and it loses no discount before the next run")));
        }
        return filters.outside(candidate).map(range -> new NotAsked(false, "outside a range: " + range));
    }

    public boolean lostIfItWaits(OpenInvoice invoice) {
        return nextRun != null && invoice.discount().lostIfItWaits(checkDate, nextRun, graceDays);
    }
}
