package leveltally.practicebank;

import java.time.LocalDate;

/**
 * A payment as the bank understood it from a file.
 *
 * @param bank the payee's, and {@code account} the number there
 * @param minor in the smallest unit of its currency; zero only asks whether the account is there
 * @param id the company's own number of it
 * @param trace by which the bank speaks of it later
 * @param says everything that was said of it, in one
 * @param paysOn the day the payee is to have it
 */
public record PaidEntry(
        String bank,
        String account,
        boolean savings,
        long minor,
        String id,
        String payee,
        String trace,
        String says,
        LocalDate paysOn) {}
