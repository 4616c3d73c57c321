package leveltally.server.checks;

import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Standing;
import org.jspecify.annotations.Nullable;

/**
 * Which numbers of a series, and in which order.
 *
 * @param state narrows; all when it is absent
 * @param sortedBy absent: the newest number first
 */
public record RegisterAsked(
        long series,
        @Nullable String state,
        @Nullable RegisterOrder sortedBy,
        @Nullable Boolean descending) {
    SeriesId id() {
        return new SeriesId(series);
    }

    Optional<Standing> standing() {
        return state == null || state.isEmpty()
                ? Optional.empty()
                : Optional.of(Standing.named(state)
                        .orElseThrow(() -> Refusal.invalidField(
                                "no-state", "state", "No check is ever “" + state + "”. Choose a state shown.")));
    }

    RegisterOrder by() {
        return sortedBy == null ? RegisterOrder.NUMBER : sortedBy;
    }

    boolean isDescending() {
        return sortedBy == null || Boolean.TRUE.equals(descending);
    }
}
