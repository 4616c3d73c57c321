package leveltally.server.checks;

import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * All numbers that are asked for, together.
 *
 * @param states how many there are of each and what they come to, in each currency
 */
record RegisterTotals(int total, List<StateTotal> states) {
    record StateTotal(
            String state, String words, int count, @Nullable MoneyView amount) {}
}
