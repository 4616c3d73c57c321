package leveltally.server.batches;

import java.time.Instant;
import java.time.LocalDate;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * A batch in the list of batches.
 *
 * @param elsewhere true where its payments were made elsewhere, so that nothing of it is printed
 * @param byFile true where a file for the bank carries its payments
 * @param byList true where its payments are ordered at the bank from a list
 * @param by what carries them, in words
 */
public record ListedView(
        long id,
        String name,
        String account,
        String state,
        String stateWords,
        boolean partlyPosted,
        boolean elsewhere,
        boolean byFile,
        boolean byList,
        String by,
        int claims,
        MoneyView amount,
        LocalDate checkDate,
        String preparedBy,
        Instant changedAt,
        @Nullable Instant sentAt,
        @Nullable String sentBackReason) {}
