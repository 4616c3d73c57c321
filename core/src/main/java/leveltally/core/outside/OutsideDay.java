package leveltally.core.outside;

import java.time.LocalDate;
import leveltally.core.Dates;
import leveltally.core.Refusal;

/** The day on which a payment was made elsewhere. */
public final class OutsideDay {
    /** Older ones belong to years that were reported. */
    private static final int MOST_DAYS = 366;

    private OutsideDay() {}

    /** @throws Refusal when it lies ahead, or so far back that it is a slip of the finger */
    public static LocalDate of(LocalDate paidOn, LocalDate today) {
        if (paidOn.isAfter(today) || paidOn.isBefore(today.minusDays(MOST_DAYS))) {
            throw Refusal.invalidField(
                    "outside-day",
                    "paidOn",
                    "A payment made elsewhere was made between " + Dates.inWords(today.minusDays(MOST_DAYS)) + " and "
                            + Dates.inWords(today) + "; " + Dates.inWords(paidOn) + " lies outside.");
        }
        return paidOn;
    }
}
