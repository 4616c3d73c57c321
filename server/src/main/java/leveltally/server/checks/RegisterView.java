package leveltally.server.checks;

import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/** A page of the numbers of a series; {@code next} is the number the following page starts below; absent on the last one. */
public record RegisterView(
        String currency,
        long first,
        long last,
        int total,
        List<StateTotal> states,
        List<NumberView> rows,
        @Nullable Long next) {
    record NumberView(
            long id,
            long number,
            String state,
            String stateWords,
            String payee,
            @Nullable MoneyView amount,
            @Nullable LocalDate checkDate,
            LocalDate stateDate,
            String then,
            boolean stale,
            @Nullable Long batch,
            @Nullable String batchName) {}

    record StateTotal(String state, String words, int count, String amount) {}
}
