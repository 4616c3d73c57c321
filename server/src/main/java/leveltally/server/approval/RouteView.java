package leveltally.server.approval;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A batch's route: the one it was sent on, or, for a draft, the one it would take.
 *
 * @param now the instant it is of
 * @param shortOf the step that could not be completed by different people; empty for none
 */
public record RouteView(
        String route,
        String why,
        boolean sent,
        List<RouteStepView> steps,
        List<ConsideredView> considered,
        String shortOf,
        Instant now) {
    record GivenView(String who, @Nullable String onBehalfOf, Instant at) {}

    /** {@code state} is DONE, NOW or LATER; {@code asked} names who may answer now. */
    record RouteStepView(
            String name,
            String who,
            int needed,
            List<GivenView> given,
            String state,
            @Nullable Instant openedAt,
            @Nullable Instant remindedAt,
            @Nullable Instant escalatedAt,
            List<String> asked,
            List<String> secondLine) {}

    record ConsideredView(String route, boolean asked, String why) {}
}
