package leveltally.core.electronic;

import java.time.LocalDate;
import java.util.Optional;
import leveltally.core.Dates;
import leveltally.core.ledger.BankingDays;

/**
 * An account that was announced to its bank by an entry of nothing, before money goes there (NACHA: a prenotification).
 *
 * @param effectiveOn the day of that entry
 * @param taken whether the bank took its file
 * @param sentBack what the payee's bank said against it; empty for nothing
 */
public record Announcement(LocalDate effectiveOn, boolean taken, String sentBack) {
    /** Why nothing is paid to an account of which nothing is known yet. */
    public static String missing(int days) {
        return "Its account was not announced to the bank yet. Announce it; money may go there " + days
                + (days == 1 ? " banking day" : " banking days") + " later.";
    }

    /** The first day on which money may go there. */
    public LocalDate payableFrom(int days, BankingDays calendar) {
        LocalDate day = effectiveOn;
        for (int i = 0; i < days; i++) {
            day = calendar.onOrAfter(day.plusDays(1));
        }
        return day;
    }

    /** Why money does not go there on a day; empty where it may. */
    public Optional<String> against(LocalDate paysOn, int days, BankingDays calendar) {
        if (!sentBack.isEmpty()) {
            return Optional.of("The bank sent the announcement of its account back: " + sentBack
                    + ". Propose other bank details on the vendor's page, or pay it another way.");
        }
        if (!taken) {
            return Optional.of("Its account is announced, and nobody knows yet whether the bank took that file.");
        }
        LocalDate from = payableFrom(days, calendar);
        return paysOn.isBefore(from)
                ? Optional.of("Its account was announced; money may go there from " + Dates.inWords(from) + " on.")
                : Optional.empty();
    }
}
