package leveltally.core.checks;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import leveltally.core.Dates;
import leveltally.core.payments.PaymentState;
import leveltally.core.payments.StopOrder;
import org.jspecify.annotations.Nullable;

/**
 * A number in the register: where it stands, and what became of it.
 *
 * @param checkDate of its payment; null where it has none
 * @param stateDate the day of its last step, and {@code explanation} what was said of it
 * @param paidBy the number that carries its payment now; null where none does
 * @param stop the stop that stands over it; null where none does
 */
public record RegisterLine(
        Standing standing,
        @Nullable LocalDate checkDate,
        LocalDate stateDate,
        String explanation,
        @Nullable Long paidBy,
        @Nullable StopOrder stop) {
    /** True once a check is outstanding for more days than the company's policy allows. */
    public boolean isStale(LocalDate today, int staleDays) {
        return standing.is(PaymentState.OUTSTANDING) && age(today) > staleDays;
    }

    /** True where the number carries a payment or did: a spoiled or unaccounted one stands for no amount. */
    public boolean pays() {
        return !standing.is(NumberState.SPOILED) && !standing.is(NumberState.UNACCOUNTED);
    }

    /** True where somebody should look at it: stale-dated, or its stop is not confirmed or ends. */
    public boolean needsALook(LocalDate today, int staleDays) {
        return isStale(today, staleDays) || (stop != null && stop.needsALook(today));
    }

    /** What became of it, in words; empty where its state says all. */
    public String then(LocalDate today, int staleDays) {
        if (stop != null) {
            return stop.inWords(today);
        }
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
