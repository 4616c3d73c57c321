package leveltally.practicebank;

import java.time.LocalDate;
import java.util.List;

/**
 * What a company and the bank agree on when an account begins here.
 *
 * @param accountNumber its digits
 * @param decimals of its currency
 * @param balanceMinor at the end of the day {@code until}, on statement {@code statement}
 * @param known checks the bank was told of before and has not paid, as far as its files said
 * @param untold what it did after that statement and has told on none
 */
public record Agreement(
        String accountNumber,
        String currency,
        int decimals,
        long balanceMinor,
        long statement,
        LocalDate until,
        List<Known> known,
        List<Moved> untold) {
    public Agreement {
        known = List.copyOf(known);
        untold = List.copyOf(untold);
    }

    /** A check as the bank knows it. */
    public record Known(long number, long minor, boolean voided) {}

    /**
     * Something that moved on the account.
     *
     * @param check its number; 0 for what is none
     * @param minor below zero what went out
     */
    public record Moved(LocalDate day, long check, long minor, String text) {}
}
