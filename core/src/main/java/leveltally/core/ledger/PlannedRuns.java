package leveltally.core.ledger;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import org.jspecify.annotations.Nullable;

/**
 * The runs planned for a bank account, and the days a new batch is proposed with.
 *
 * @param current the run the last batch was made for; null before the first
 * @param following the one planned after it
 */
public record PlannedRuns(
        @Nullable LocalDate current, @Nullable LocalDate following) {
    /** A kept or typed day that is whatever is usual. */
    public static final String USUAL = "usual";

    private static final int DUE_WITHIN = 7;
    private static final int BETWEEN_RUNS = 14;

    /** The planned run that has not passed; without one, the first Friday from today on. */
    public LocalDate checkDate(LocalDate today) {
        LocalDate planned = current != null && !current.isBefore(today) ? current : following;
        return planned != null && !planned.isBefore(today)
                ? planned
                : today.with(TemporalAdjusters.nextOrSame(DayOfWeek.FRIDAY));
    }

    /** What is due within a week of the check date. */
    public LocalDate dueBy(LocalDate checkDate) {
        return checkDate.plusDays(DUE_WITHIN);
    }

    /** The run planned after the check date; without one, two weeks later. */
    public LocalDate nextRun(LocalDate checkDate) {
        boolean planned = following != null && checkDate.equals(current) && following.isAfter(checkDate);
        return planned ? following : checkDate.plusDays(BETWEEN_RUNS);
    }
}
