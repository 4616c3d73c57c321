package leveltally.core.checks;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import leveltally.core.Dates;
import leveltally.core.payments.PaymentState;
import org.jspecify.annotations.Nullable;

/**
 * A number in the register: where it stands, and what became of it.
 *
 * @param checkDate of its payment; null where it has none
 * @param stateDate the day of its last step, and {@code explanation} what was said of it
 * @param paidBy the number that carries its payment now; null where none does
 */
public record RegisterLine(
        Standing standing,
        @Nullable LocalDate checkDate,
        LocalDate stateDate,
        String explanation,
        @Nullable Long paidBy) {
    /** True once a check is outstanding for more days than the company's policy allows. */
    public boolean isStale(LocalDate today, int staleDays) {
        return standing.is(PaymentState.OUTSTANDING) && age(today) > staleDays;
    }

    /** True where the number carries a payment or did: a spoiled or unaccounted one stands for no amount. */
    public boolean pays() {
        return !standing.is(NumberState.SPOILED) && !standing.is(NumberState.UNACCOUNTED);
    }

    /** What became of it, in words; empty where its state says all. */
    public String then(LocalDate today, int staleDays) {
        if (standing.is(PaymentState.CLEARED)) {
            return "bank, " + Dates.inWords(stateDate);
        }
        if (standing.is(NumberState.SPOILED)) {
            return explanation + (paidBy == null ? "" : "; paid by " + paidBy);
        }
        if (standing.is(PaymentState.OUTSTANDING)) {
            return isStale(today, staleDays) ? age(today) + " days, stale" : "";
        }
        if (standing.is(NumberState.TAKEN)) {
            return "not answered yet";
        }
        return standing.is(NumberState.PRINTED) ? "good, not posted yet" : explanation;
    }

    private long age(LocalDate today) {
        return checkDate == null ? 0 : checkDate.until(today, ChronoUnit.DAYS);
    }
}
