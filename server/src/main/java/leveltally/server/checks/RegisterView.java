package leveltally.server.checks;

import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * A page of numbers.
 *
 * @param first of the series; absent where every series is looked at
 * @param next the id after which the following page begins; absent on the last one
 */
public record RegisterView(
        String currency,
        @Nullable Long first,
        @Nullable Long last,
        List<NumberView> rows,
        @Nullable Long next) {
    /**
     * @param name the number with what its series puts before it
     * @param byHand true for a check that was written by hand
     * @param look somebody should: it is stale-dated, or its stop is not confirmed or ends
     * @param payment the payment it carries, or did; null where it stands for none
     */
    record NumberView(
            long id,
            long number,
            String name,
            boolean byHand,
            long series,
            @Nullable Long payment,
            String state,
            String stateWords,
            String payee,
            @Nullable MoneyView amount,
            @Nullable LocalDate checkDate,
            LocalDate stateDate,
            String then,
            boolean look,
            @Nullable Long batch,
            @Nullable String batchName) {}
}
