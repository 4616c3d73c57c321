package leveltally.server.approval;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import leveltally.server.frame.MoneyView;
import org.jspecify.annotations.Nullable;

/**
 * What waits.
 *
 * @param mine sums what waits for whoever looks, per currency, that of the oldest first
 * @param now the instant it is of: how long something waits is reckoned from it
 */
public record DeskView(List<WaitingBatch> batches, List<MoneyView> mine, Instant now) {
    /** {@code whyNot} says why it does not wait for whoever looks; empty when it does. */
    record WaitingBatch(
            long id,
            String name,
            String account,
            MoneyView amount,
            int claims,
            int marked,
            String by,
            LocalDate checkDate,
            String sentBy,
            Instant sentAt,
            @Nullable Instant since,
            int step,
            int steps,
            String stepName,
            String route,
            int round,
            boolean mine,
            @Nullable String onBehalfOf,
            String whyNot,
            boolean escalated) {}
}
