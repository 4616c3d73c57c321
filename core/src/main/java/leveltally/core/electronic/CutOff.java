package leveltally.core.electronic;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankingDays;

/**
 * Until when a bank takes files of a day.
 *
 * @param hour in {@code zone}: a file handed over before it counts as of that day
 * @param ahead so many banking days pass between the day a file is taken and the first on which payees can have the money
 */
public record CutOff(LocalTime hour, ZoneId zone, int ahead, BankingDays days) {
    /** No bank needs longer. */
    public static final int MOST_AHEAD = 10;

    public CutOff {
        if (ahead < 0 || ahead > MOST_AHEAD) {
            throw Refusal.invalidField("days-ahead", "ahead", "A bank needs 0 to " + MOST_AHEAD + " banking days.");
        }
    }

    /** Until when the bank takes files, and how long it needs. */
    public String inWords() {
        return "until " + hour
                + (ahead == 0 ? "" : ", " + ahead + (ahead == 1 ? " banking day ahead" : " banking days ahead"));
    }

    /**
     * The first day on which payees can have the money.
     *
     * @param today the company's day
     * @param now what the clock says, of which only the hour counts
     */
    public LocalDate earliest(LocalDate today, Instant now) {
        boolean early = now.atZone(zone).toLocalTime().isBefore(hour);
        LocalDate taken = days.isBankingDay(today) && early ? today : days.onOrAfter(today.plusDays(1));
        LocalDate day = taken;
        for (int i = 0; i < ahead; i++) {
            day = days.onOrAfter(day.plusDays(1));
        }
        return day;
    }

    /** The day itself where it can be, or the first after it. */
    public LocalDate nearest(LocalDate wanted, LocalDate today, Instant now) {
        LocalDate earliest = earliest(today, now);
        return days.onOrAfter(wanted.isBefore(earliest) ? earliest : wanted);
    }

    /**
     * @param wanted the day of the payments
     * @throws Refusal when that is no banking day, or too near; naming the nearest that can be
     */
    public void mustAllow(LocalDate wanted, LocalDate today, Instant now) {
        LocalDate earliest = earliest(today, now);
        LocalDate nearest = nearest(wanted, today, now);
        if (nearest.equals(wanted)) {
            return;
        }
        String why = days.isBankingDay(wanted)
                ? "A file that is handed over now is paid on " + Dates.inWords(earliest)
                        + " at the earliest; the bank takes files " + inWords() + "."
                : Dates.inWords(wanted) + " is no banking day.";
        throw Refusal.conflict("no-such-day", why + " The nearest day is " + Dates.inWords(nearest) + ".");
    }
}
