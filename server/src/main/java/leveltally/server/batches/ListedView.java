package leveltally.server.batches;

import java.time.Instant;
import java.time.LocalDate;
import leveltally.core.batches.Leaving;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * A batch in the list of batches.
 *
 * @param leaves how its payments leave the house
 * @param by what carries them, in words
 */
public record ListedView(
        long id,
        String name,
        String account,
        String state,
        String stateWords,
        boolean partlyPosted,
        Leaving leaves,
        String by,
        int claims,
        MoneyView amount,
        LocalDate checkDate,
        String preparedBy,
        Instant changedAt,
        @Nullable Instant sentAt,
        @Nullable String sentBackReason) {}
