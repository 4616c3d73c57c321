package leveltally.core.clearing;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import leveltally.core.ledger.BankingDays;

/**
 * Until when a bank is told whether a check it asks about is paid or returned.
 *
 * @param hour in the company's zone
 */
public record DecisionHour(LocalTime hour, ZoneId zone, BankingDays days) {
    /** The first such hour of a banking day after it was read. */
    public Instant of(Instant readAt) {
        ZonedDateTime read = readAt.atZone(zone);
        LocalDate day = read.toLocalTime().isBefore(hour)
                ? read.toLocalDate()
                : read.toLocalDate().plusDays(1);
        return days.onOrAfter(day).atTime(hour).atZone(zone).toInstant();
    }
}
