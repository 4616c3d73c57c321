package leveltally.core.ledger;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Set;
import leveltally.core.Dates;

/**
 * The days a bank works: Monday to Friday, without its holidays.
 *
 * @param holidays as the bank's list has them; one on a weekend changes nothing
 */
public record BankingDays(Set<LocalDate> holidays) {
    /** No list longer than this keeps a bank closed for ever. */
    public static final int MOST_HOLIDAYS = 400;

    public BankingDays {
        holidays = Set.copyOf(holidays);
    }

    public boolean isBankingDay(LocalDate day) {
        return day.getDayOfWeek() != DayOfWeek.SATURDAY
                && day.getDayOfWeek() != DayOfWeek.SUNDAY
                && !holidays.contains(day);
    }

    /** {@code Sat 4 Apr 2026, no banking day}: a day is shown as such and never shifted. */
    public String inWords(LocalDate day) {
        return Dates.inWords(day) + (isBankingDay(day) ? "" : ", no banking day");
    }

    /** The day itself where the bank works on it, or the first after it. */
    public LocalDate onOrAfter(LocalDate day) {
        LocalDate found = day;
        while (!isBankingDay(found)) {
            found = found.plusDays(1);
        }
        return found;
    }
}
