package leveltally.server.bankfiles;

import java.time.LocalDate;
import leveltally.core.Dates;
import org.jspecify.annotations.Nullable;

/**
 * Which of the waiting events go into a file. It only narrows what waits: what it leaves out waits on, and a void is never told
 * before its issue, because both are of one series and the issue is dated first.
 *
 * @param series of whose checks; null for all
 * @param until dated so or earlier; null for any day
 */
public record Narrowed(@Nullable Long series, @Nullable LocalDate until) {
    public static final Narrowed NOT = new Narrowed(null, null);

    boolean takes(long ofSeries, LocalDate day) {
        return (series == null || series == ofSeries) && (until == null || !day.isAfter(until));
    }

    /** Empty where it narrows nothing. */
    String inWords(String seriesName) {
        return (series == null ? "" : "of " + seriesName)
                + (series != null && until != null ? ", " : "")
                + (until == null ? "" : "dated until " + Dates.inWords(until));
    }
}
